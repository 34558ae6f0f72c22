package marvek.server;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
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

  /** On a road of bends that run into one another, so that some are braked through. */
  static Made snake(People people) {
    People.Person person = people.newcomer();
    String layout =
        person
            .upload("/api/layouts", "snake.csv", sample("snake.csv"), "circuit", "Snake")
            .body()
            .path("id")
            .asText();
    return drafted(person, layout, vehicle(person, "small-hatch"));
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

  /** Puts a thing into the survey, on top of what is there. */
  People.Answer survey(String list, Object thing) {
    Map<String, List<Object>> put = new TreeMap<>();
    for (String name : List.of("landmarks", "kerbs", "zones", "limits", "places", "severities")) {
      put.put(name, name.equals(list) ? List.of(thing) : List.of());
    }
    return person.post(
        "/api/layouts/{id}/survey",
        Map.of(
            "id",
            UUID.randomUUID().toString(),
            "put",
            put,
            "remove",
            List.of(),
            "expected",
            person.get("/api/layouts/{id}", layout).body().path("versions")),
        layout);
  }

  /** A session of an hour for the reference. */
  String session() {
    String event =
        person
            .post("/api/events", Map.of("name", "Weekend", "zone", "Europe/Lisbon"))
            .body()
            .path("id")
            .asText();
    Map<String, Object> timing =
        Map.of(
            "start",
            Map.of("wall", "2026-06-06T14:00:00", "zone", "Europe/Lisbon"),
            "minutes",
            60,
            "later",
            0,
            "state",
            "ON");
    Map<String, Object> session = Map.of("kind", "PRACTICE", "name", "Hour", "timing", timing);
    return person
        .post(
            "/api/events/{id}/sessions",
            Map.of("version", 0, "reference", reference, "session", session),
            event)
        .body()
        .path("id")
        .asText();
  }

  /** Other ways of a corner that a session offers. */
  JsonNode tryable(String session, String corner) {
    return person.get("/api/sessions/{id}/tryable?corner=" + corner, session).body().path("ways");
  }

  /** A trial of the first other way that a corner offers, in a session of its own. */
  String trial(String corner) {
    String session = session();
    JsonNode way = tryable(session, corner).path(0).path("way");
    return person
        .post(
            "/api/sessions/{id}/trials",
            Map.of(
                "corner",
                corner,
                "source",
                way.path("source").asText(),
                "key",
                way.path("key").asText()),
            session)
        .body()
        .path("id")
        .asText();
  }

  /** Seconds of the computed lap. */
  double lap() {
    return person.get("/api/references/{id}/lap", reference).body().path("lapTime").asDouble();
  }

  /** Asks for the reference computed anew, and takes it. */
  People.Answer computedAnew() {
    String url = "/api/references/{id}/recomputation";
    JsonNode job = person.post(url, Map.of("otherSheet", false), reference).body();
    while (job.path("state").asText().matches("WAITING|WORKING")) {
      job = person.get("/api/jobs/{id}", job.path("id").asText()).body();
    }
    return person.post(url + "/taken", Map.of(), reference);
  }
}
