package marvek.server;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.util.Map;
import org.springframework.core.io.ClassPathResource;

/** A newcomer's circuit, vehicle and drafted reference. */
record Made(People.Person person, String layout, String vehicle, String reference) {
  static byte[] sample(String name) {
    try (var in = new ClassPathResource("samples/" + name).getInputStream()) {
      return in.readAllBytes();
    } catch (IOException e) {
      throw new AssertionError(e);
    }
  }

  static Made reference(People people) {
    return reference(people.newcomer(), "small-hatch");
  }

  static Made reference(People.Person person, String vehicleClass) {
    return drafted(person, layout(person), vehicle(person, vehicleClass));
  }

  static String layout(People.Person person) {
    return person
        .upload("/api/layouts", "outline.geojson", sample("outline.geojson"), "circuit", "Vale")
        .body()
        .path("id")
        .asText();
  }

  static String vehicle(People.Person person, String vehicleClass) {
    JsonNode numbers = null;
    for (JsonNode c : person.get("/api/vehicle-classes").body()) {
      if (c.path("id").asText().equals(vehicleClass)) {
        numbers = c.path("vehicle");
      }
    }
    return person
        .post(
            "/api/vehicles",
            Map.of("name", "Mine " + vehicleClass, "basedOn", vehicleClass, "numbers", numbers))
        .body()
        .path("id")
        .asText();
  }

  private static Made drafted(People.Person person, String layout, String vehicle) {
    JsonNode job =
        person.post("/api/references", Map.of("layoutId", layout, "vehicleId", vehicle)).body();
    // A busy machine may need longer than the moment for which is waited.
    while (job.path("state").asText().matches("WAITING|WORKING")) {
      job = person.get("/api/jobs/{id}", job.path("id").asText()).body();
    }
    return new Made(person, layout, vehicle, job.path("made").asText());
  }

  JsonNode open() {
    return person.get("/api/references/{id}", reference).body();
  }

  JsonNode entry(String corner) {
    for (JsonNode e : open().path("working").path("content").path("corners")) {
      if (e.path("corner").asText().equals(corner)) {
        return e;
      }
    }
    throw new AssertionError("no corner " + corner);
  }
}
