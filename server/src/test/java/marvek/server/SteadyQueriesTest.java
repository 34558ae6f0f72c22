package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import jakarta.persistence.EntityManagerFactory;
import java.io.IOException;
import java.util.Map;
import org.hibernate.SessionFactory;
import org.hibernate.stat.Statistics;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.context.annotation.Import;
import org.springframework.core.io.ClassPathResource;
import org.springframework.test.context.TestPropertySource;

/** What a request asks of the database does not grow with the rows it shows. */
@ServerTest
@Import(People.class)
@TestPropertySource(properties = "spring.jpa.properties.hibernate.generate_statistics=true")
class SteadyQueriesTest {
  @Autowired private People people;
  @Autowired private EntityManagerFactory factory;

  private long queriesFor(Runnable request) {
    Statistics statistics = factory.unwrap(SessionFactory.class).getStatistics();
    statistics.clear();
    request.run();
    return statistics.getPrepareStatementCount();
  }

  @Test
  void thePaddockAsksTheSameForOneReferenceAsForFive() throws IOException {
    People.Person person = people.newcomer();
    byte[] file;
    try (var in = new ClassPathResource("samples/outline.csv").getInputStream()) {
      file = in.readAllBytes();
    }
    String layout =
        person.upload("/api/layouts", "o.csv", file, "circuit", "Vale").body().path("id").asText();
    JsonNode classes = person.get("/api/vehicle-classes").body();
    draft(person, layout, classes.path(0));
    long one = queriesFor(() -> person.get("/api/paddock"));
    for (int i = 1; i < 5; i++) {
      draft(person, layout, classes.path(i));
    }
    assertThat(person.get("/api/paddock").body().path("references")).hasSize(5);
    assertThat(queriesFor(() -> person.get("/api/paddock"))).isEqualTo(one);
    assertThat(one).isBetween(1L, 6L);
  }

  private static void draft(People.Person person, String layout, JsonNode vehicleClass) {
    String vehicle =
        person
            .post(
                "/api/vehicles",
                Map.of(
                    "name",
                    vehicleClass.path("name"),
                    "basedOn",
                    vehicleClass.path("id"),
                    "numbers",
                    vehicleClass.path("vehicle")))
            .body()
            .path("id")
            .asText();
    assertThat(
            person
                .post("/api/references", Map.of("layoutId", layout, "vehicleId", vehicle))
                .status())
        .isEqualTo(201);
  }

  @Test
  void openingAReferenceAsksTheSameHoweverManyRevisionsItHas() {
    People.Person driver = people.demo("DRIVER");
    String id = driver.get("/api/paddock").body().path("reference").asText();
    driver.get("/api/references/{id}", id);
    long before = queriesFor(() -> driver.get("/api/references/{id}", id));
    JsonNode working = driver.get("/api/references/{id}", id).body().path("working");
    driver.post(
        "/api/references/{id}/revisions",
        Map.of("version", working.path("version"), "reason", "one more"),
        id);
    assertThat(queriesFor(() -> driver.get("/api/references/{id}", id))).isEqualTo(before);
    assertThat(before).isBetween(1L, 9L);
    long drag =
        queriesFor(
            () ->
                driver.post(
                    "/api/references/{id}/answer",
                    working.path("content").path("corners").path(0),
                    id));
    assertThat(drag).isLessThanOrEqualTo(4);
  }
}
