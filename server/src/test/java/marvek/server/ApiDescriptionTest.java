package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

@ServerTest
class ApiDescriptionTest {
  private static final Path KEPT = Path.of("../web/openapi.json");

  @Autowired private People people;
  @Autowired private ObjectMapper json;

  /** The interface's types are made from this file; the new one lies in target if they differ. */
  @Test
  void theDescriptionThatTheInterfaceUsesIsCurrent() throws IOException {
    JsonNode now = json.readTree(people.anonymously(get("/v3/api-docs")).text());
    Files.createDirectories(Path.of("target"));
    Files.writeString(
        Path.of("target/openapi.json"),
        json.writerWithDefaultPrettyPrinter().writeValueAsString(now));
    assertThat(now)
        .as("copy server/target/openapi.json to web/openapi.json and build the interface anew")
        .isEqualTo(json.readTree(KEPT.toFile()));
  }

  @Test
  void everyPathIsDescribed() throws IOException {
    JsonNode paths = json.readTree(KEPT.toFile()).path("paths");
    assertThat(paths.fieldNames())
        .toIterable()
        .contains(
            "/api/outlines/preview",
            "/api/layouts",
            "/api/vehicles/figures",
            "/api/references/{id}/answer",
            "/api/references/{id}/comparison");
  }
}
