package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** From a file to a revised reference, over HTTP, and what strangers get of it. */
@ServerTest
class WholePathTest {
  @Autowired private People people;

  private Made make() {
    return Made.reference(people);
  }

  private JsonNode open(Made made) {
    return made.person().get("/api/references/{id}", made.reference()).body();
  }

  private ObjectNode movedBy(JsonNode content, String corner, String kind, double by) {
    ObjectNode copy = content.deepCopy();
    for (JsonNode entry : copy.path("corners")) {
      for (JsonNode point : entry.path("points")) {
        if (entry.path("corner").asText().equals(corner)
            && point.path("kind").asText().equals(kind)) {
          ((ObjectNode) point).put("station", point.path("station").asDouble() + by);
        }
      }
    }
    return copy;
  }

  @Test
  void everySampleGivesTheSameSevenCorners() {
    People.Person person = people.newcomer();
    for (String name : new String[] {"outline.geojson", "outline.gpx", "outline.csv"}) {
      JsonNode preview = person.upload("/api/outlines/preview", name, Made.sample(name)).body();
      assertThat(preview.path("corners")).as(name).hasSize(7);
      assertThat(preview.path("road").path("length").asDouble())
          .as(name)
          .isCloseTo(2050, within(8.0));
      assertThat(person.get("/api/outlines/samples/" + name).status()).isEqualTo(200);
    }
  }

  /** The file of a receiver, three laps on a circle of 150 m, gives that circle. */
  @Test
  void lapsThatADeviceRecordedMakeACircuit() {
    StringBuilder nmea = new StringBuilder();
    for (int i = 0; i < 400; i++) {
      double a = 2 * Math.PI * i / 120;
      double lat = 41 + 150 * Math.sin(a) / 111_070;
      double lon = 8 + 150 * Math.cos(a) / 84_135;
      String line =
          String.format(
              java.util.Locale.ROOT,
              "GPGGA,%02d%02d%05.2f,41%09.6f,N,008%09.6f,E,1,09,0.9,50.0,M,0.0,M,,",
              10,
              i / 60,
              (double) (i % 60),
              (lat - 41) * 60,
              (lon - 8) * 60);
      int sum = line.chars().reduce(0, (x, y) -> x ^ y);
      nmea.append(String.format("$%s*%02X\r\n", line, sum));
    }
    JsonNode preview =
        people
            .newcomer()
            .upload(
                "/api/outlines/preview",
                "laps.nmea",
                nmea.toString().getBytes(StandardCharsets.US_ASCII))
            .body();
    assertThat(preview.path("road").path("length").asDouble())
        .isCloseTo(2 * Math.PI * 150, within(4.0));
    assertThat(preview.path("remarks").toString()).contains("laps go round");
    assertThat(preview.path("place").asText()).contains("41");
  }

  @Test
  void thePreviewTurnsAndMovesTheLine() {
    People.Person person = people.newcomer();
    byte[] file = Made.sample("outline.csv");
    JsonNode plain = person.upload("/api/outlines/preview", "o.csv", file).body();
    JsonNode turned =
        person.upload("/api/outlines/preview", "o.csv", file, "reverse", "true").body();
    assertThat(turned.path("corners").path(0).path("left").asBoolean())
        .isEqualTo(!plain.path("corners").path(6).path("left").asBoolean());
    JsonNode later = person.upload("/api/outlines/preview", "o.csv", file, "start", "500").body();
    assertThat(later.path("corners").path(0).path("entry").asDouble())
        .isCloseTo(plain.path("corners").path(1).path("entry").asDouble() - 500, within(2.0));
  }

  @Test
  void badFilesGetAWordAndAPlaceNeverAFailure() {
    People.Person person = people.newcomer();
    String[] bad = {
      "x_m,y_m\n1,2\n3,4\n",
      "{\"type\":\"Nothing\"}",
      "<!DOCTYPE gpx [<!ENTITY a \"b\">]><gpx>&a;</gpx>",
      "x_m,y_m\n" + "NaN,1\n".repeat(20),
      "x_m,y_m\n" + "1e308,1e308\n".repeat(20),
      "a".repeat(100_000),
      ",".repeat(1_000_000),
      "\u0000\u0001\u0002",
      ""
    };
    for (String text : bad) {
      var answer =
          person.upload("/api/outlines/preview", "bad.csv", text.getBytes(StandardCharsets.UTF_8));
      assertThat(answer.status()).as(text.substring(0, Math.min(30, text.length()))).isEqualTo(422);
      assertThat(answer.body().path("detail").asText()).isNotBlank();
      assertThat(answer.body().path("remedy").asText()).isNotBlank();
    }
    assertThat(
            person
                .upload(
                    "/api/outlines/preview", "o.csv", Made.sample("outline.csv"), "width", "900")
                .status())
        .isEqualTo(422);
  }

  @Test
  void aDraftIsEditedSavedComparedAndTakenUpAgain() {
    Made made = make();
    JsonNode view = open(made);
    assertThat(view.path("corners")).hasSize(7);
    assertThat(view.path("things").path("landmarks")).isNotEmpty();
    assertThat(view.path("revision").asInt()).isZero();
    var first =
        made.person()
            .post(
                "/api/references/{id}/revisions",
                Map.of("version", view.path("working").path("version"), "reason", "first"),
                made.reference());
    assertThat(first.status()).isEqualTo(201);
    JsonNode working = first.body().path("working");
    ObjectNode later = movedBy(working.path("content"), "c1", "BRAKE", 6);
    var stored =
        made.person()
            .put(
                "/api/references/{id}/working",
                Map.of("version", working.path("version"), "content", later),
                made.reference());
    assertThat(stored.status()).isEqualTo(200);
    made.person()
        .post(
            "/api/references/{id}/revisions",
            Map.of("version", stored.body().path("version"), "reason", "braver"),
            made.reference());
    JsonNode list = made.person().get("/api/references/{id}/revisions", made.reference()).body();
    assertThat(list).hasSize(2);
    assertThat(list.path(0).path("reason").asText()).isEqualTo("braver");
    JsonNode comparison =
        made.person().get("/api/references/{id}/comparison?from=1&to=2", made.reference()).body();
    assertThat(comparison.path("differences")).hasSize(1);
    assertThat(comparison.path("differences").path(0).path("words").asText())
        .startsWith("T1 braking 6 m later, from the ");
    JsonNode now = open(made);
    var back =
        made.person()
            .post(
                "/api/references/{id}/revisions/1/start",
                Map.of("version", now.path("working").path("version")),
                made.reference());
    assertThat(back.body().path("working").path("content")).isEqualTo(working.path("content"));
    assertThat(made.person().get("/api/references/{id}/revisions", made.reference()).body())
        .as("nothing is overwritten")
        .isEqualTo(list);
  }

  @Test
  void theSecondWindowGetsAConflictThatHoldsWhatTheFirstStored() {
    Made made = make();
    JsonNode working = open(made).path("working");
    ObjectNode mine = movedBy(working.path("content"), "c1", "BRAKE", 3);
    ObjectNode theirs = movedBy(working.path("content"), "c2", "BRAKE", -4);
    Object version = working.path("version");
    assertThat(
            made.person()
                .put(
                    "/api/references/{id}/working",
                    Map.of("version", version, "content", theirs),
                    made.reference())
                .status())
        .isEqualTo(200);
    var refused =
        made.person()
            .put(
                "/api/references/{id}/working",
                Map.of("version", version, "content", mine),
                made.reference());
    assertThat(refused.status()).isEqualTo(409);
    assertThat(refused.body().path("current").path("content")).isEqualTo(theirs);
    assertThat(refused.body().path("current").path("version").asInt())
        .isGreaterThan(working.path("version").asInt());
  }

  @Test
  void aDeviceKnowsItsOwnWritingAgainUntilSomethingElseWrote() {
    Made made = make();
    JsonNode working = open(made).path("working");
    assertThat(working.path("write").isTextual()).isFalse();
    String write = UUID.randomUUID().toString();
    ObjectNode mine = movedBy(working.path("content"), "c1", "BRAKE", 3);
    Object version = working.path("version");
    String url = "/api/references/{id}/working";
    Map<String, Object> body = Map.of("version", version, "content", mine, "write", write);
    assertThat(made.person().put(url, body, made.reference()).body().path("write").asText())
        .isEqualTo(write);
    assertThat(open(made).path("working").path("write").asText()).isEqualTo(write);
    var again = made.person().put(url, body, made.reference());
    assertThat(again.status()).isEqualTo(409);
    assertThat(again.body().path("current").path("write").asText()).isEqualTo(write);
    // Another window, of an older page that names nothing.
    JsonNode now = again.body().path("current");
    assertThat(
            made.person()
                .put(
                    url,
                    Map.of("version", now.path("version"), "content", working.path("content")),
                    made.reference())
                .status())
        .isEqualTo(200);
    assertThat(open(made).path("working").path("write").isTextual()).isFalse();
  }

  @Test
  void draggingAnswersWithoutStoring() {
    Made made = make();
    JsonNode before = open(made);
    JsonNode entry =
        movedBy(before.path("working").path("content"), "c1", "BRAKE", -15).path("corners").path(0);
    var answer = made.person().post("/api/references/{id}/answer", entry, made.reference());
    assertThat(answer.status()).isEqualTo(200);
    JsonNode braking = answer.body().path("answer").path("braking");
    assertThat(braking.path("marginMetres").asDouble()).isGreaterThan(15);
    assertThat(answer.body().path("words").path("line").asText()).startsWith("Brake ");
    assertThat(open(made).path("working")).isEqualTo(before.path("working"));
    ObjectNode hostile = entry.deepCopy();
    hostile.put("gear", 99);
    assertThat(
            made.person().post("/api/references/{id}/answer", hostile, made.reference()).status())
        .isEqualTo(422);
    hostile.put("gear", "NaN");
    assertThat(
            made.person().post("/api/references/{id}/answer", hostile, made.reference()).status())
        .isEqualTo(400);
    ((ObjectNode) entry.path("points").path(0)).put("station", 1e308);
    assertThat(made.person().post("/api/references/{id}/answer", entry, made.reference()).status())
        .isEqualTo(422);
  }

  @Test
  void aReferenceGoesOutAndComesBackAsJsonAndCsv() {
    Made made = make();
    JsonNode content = open(made).path("working").path("content");
    var out = made.person().get("/api/references/{id}/export.json", made.reference());
    assertThat(out.result().getResponse().getHeader("Content-Disposition")).contains(".json");
    var back =
        made.person()
            .upload(
                "/api/references/" + made.reference() + "/read",
                "r.json",
                out.text().getBytes(StandardCharsets.UTF_8));
    assertThat(back.body()).isEqualTo(content);
    var csv = made.person().get("/api/references/{id}/export.csv", made.reference());
    assertThat(csv.text().lines()).hasSize(8);
    var read =
        made.person()
            .upload(
                "/api/references/" + made.reference() + "/read",
                "r.csv",
                csv.text().getBytes(StandardCharsets.UTF_8));
    assertThat(read.status()).isEqualTo(200);
    assertThat(read.body().path("corners")).hasSize(7);
    var broken =
        made.person()
            .upload(
                "/api/references/" + made.reference() + "/read",
                "r.csv",
                csv.text().replaceFirst("(?m)^3,", "three,").getBytes(StandardCharsets.UTF_8));
    assertThat(broken.status()).isEqualTo(422);
    assertThat(broken.body().path("where").asText()).isEqualTo("row 4, column corner");
    var fresh =
        made.person()
            .upload(
                "/api/layouts/" + made.layout() + "/references",
                "r.json",
                out.text().getBytes(StandardCharsets.UTF_8));
    assertThat(fresh.status()).isEqualTo(200);
    assertThat(made.person().get("/api/schemas/reference-1").status()).isEqualTo(200);
    assertThat(made.person().get("/api/schemas/reference-2").status()).isEqualTo(200);
  }

  /** Going back to a revision is driven in the vehicle of today. */
  @Test
  void aRevisionTakenAgainHasTheLapOfTodaysVehicle() {
    Made made = make();
    JsonNode drafted = open(made).at("/working/content");
    Map<String, Object> first =
        Map.of("version", open(made).at("/working/version"), "reason", "as drafted");
    assertThat(
            made.person().post("/api/references/{id}/revisions", first, made.reference()).status())
        .isEqualTo(201);
    JsonNode revisions =
        made.person().get("/api/references/{id}/revisions", made.reference()).body();
    int number = revisions.path(0).path("number").asInt();
    double heavy = revisions.path(0).at("/planned/seconds").asDouble();
    JsonNode vehicle = made.person().get("/api/vehicles/{id}", made.vehicle()).body();
    ObjectNode numbers = vehicle.path("numbers").deepCopy();
    numbers.put("mass", 800);
    ObjectNode aero = (ObjectNode) numbers.path("aero");
    aero.put("cdA", aero.path("cdA").asDouble() * 0.7);
    made.person()
        .put(
            "/api/vehicles/{id}",
            Map.of("version", vehicle.path("version"), "name", "Lighter", "numbers", numbers),
            made.vehicle());
    made.person().post("/api/references/{id}/vehicle", Map.of(), made.reference());
    // What was drafted, written down again by hand for today's vehicle.
    Map<String, Object> again =
        Map.of("version", open(made).at("/working/version"), "content", drafted);
    assertThat(made.person().put("/api/references/{id}/working", again, made.reference()).status())
        .isEqualTo(200);
    JsonNode byHand = open(made);
    Map<String, Object> version = Map.of("version", byHand.at("/working/version"));
    var back =
        made.person()
            .post("/api/references/{id}/revisions/{n}/start", version, made.reference(), number);
    assertThat(back.status()).isEqualTo(200);
    assertThat(back.body().at("/planned/seconds").asDouble()).isLessThan(heavy - 1);
    assertThat(back.body().at("/working/content")).isEqualTo(drafted);
    assertThat(back.body().at("/planned/seconds")).isEqualTo(byHand.at("/planned/seconds"));
  }

  /** A lap time that leaves a corner out says so wherever it is shown. */
  @Test
  void aCornerThatCannotBeMadeIsCountedWhereTheLapIsShown() {
    Made made = make();
    JsonNode opened = open(made);
    assertThat(opened.at("/planned/unmade").asInt()).isZero();
    ObjectNode content = opened.at("/working/content").deepCopy();
    String slow = "";
    double slowest = Double.MAX_VALUE;
    for (JsonNode e : content.path("corners")) {
      if (e.path("minimumSpeed").asDouble() < slowest) {
        slowest = e.path("minimumSpeed").asDouble();
        slow = e.path("corner").asText();
      }
    }
    for (JsonNode e : content.path("corners")) {
      if (e.path("corner").asText().equals(slow)) {
        ((ObjectNode) e).put("slowing", "FLAT");
      }
    }
    Map<String, Object> body = Map.of("version", opened.at("/working/version"), "content", content);
    assertThat(made.person().put("/api/references/{id}/working", body, made.reference()).status())
        .isEqualTo(200);
    JsonNode after = open(made);
    assertThat(after.at("/planned/unmade").asInt()).isEqualTo(1);
    assertThat(made.person().get("/api/references").body().path(0).path("unmade").asInt())
        .isEqualTo(1);
    made.person()
        .post(
            "/api/references/{id}/revisions",
            Map.of("version", after.at("/working/version"), "reason", "flat"),
            made.reference());
    JsonNode revisions =
        made.person().get("/api/references/{id}/revisions", made.reference()).body();
    assertThat(revisions.path(0).at("/planned/unmade").asInt()).isEqualTo(1);
    JsonNode between =
        made.person().get("/api/references/{id}/comparison?from=1&to=0", made.reference()).body();
    assertThat(between.at("/lapAfter/unmade").asInt()).isEqualTo(1);
  }

  @Test
  void anEditedVehicleIsTakenOverOnlyWhenAsked() {
    Made made = make();
    double before = open(made).at("/planned/seconds").asDouble();
    JsonNode vehicle = made.person().get("/api/vehicles/{id}", made.vehicle()).body();
    ObjectNode numbers = vehicle.path("numbers").deepCopy();
    numbers.put("mass", 800);
    var changed =
        made.person()
            .put(
                "/api/vehicles/{id}",
                Map.of("version", vehicle.path("version"), "name", "Lighter", "numbers", numbers),
                made.vehicle());
    assertThat(changed.status()).isEqualTo(200);
    assertThat(open(made).path("vehicleChanged").asBoolean()).isTrue();
    assertThat(open(made).at("/planned/seconds").asDouble()).isEqualTo(before);
    made.person().post("/api/references/{id}/vehicle", Map.of(), made.reference());
    assertThat(open(made).path("vehicleChanged").asBoolean()).isFalse();
    assertThat(open(made).at("/planned/seconds").asDouble()).isLessThan(before);
    var stale =
        made.person()
            .put(
                "/api/vehicles/{id}",
                Map.of("version", vehicle.path("version"), "name", "Old", "numbers", numbers),
                made.vehicle());
    assertThat(stale.status()).isEqualTo(409);
    numbers.put("mass", -5);
    var wrong = made.person().post("/api/vehicles/figures", numbers);
    assertThat(wrong.body().path("problems").path(0).path("field").asText()).isEqualTo("mass");
    assertThat(made.person().post("/api/vehicles/figures", "{\"kind\":\"CAR\"}").status())
        .isEqualTo(400);
  }

  @Test
  void aStrangerGetsNothingOfIt() {
    Made made = make();
    JsonNode view = open(made);
    People.Person stranger = people.newcomer();
    JsonNode entry = view.path("working").path("content").path("corners").path(0);
    Map<String, Object> version = Map.of("version", 0);
    String r = made.reference();
    assertThat(
            new int[] {
              stranger.get("/api/layouts/{id}", made.layout()).status(),
              stranger.get("/api/layouts/{id}/road", made.layout()).status(),
              stranger.get("/api/vehicles/{id}", made.vehicle()).status(),
              stranger
                  .put(
                      "/api/vehicles/{id}",
                      Map.of(
                          "version",
                          0,
                          "name",
                          "x",
                          "numbers",
                          made.person()
                              .get("/api/vehicles/{id}", made.vehicle())
                              .body()
                              .path("numbers")),
                      made.vehicle())
                  .status(),
              stranger
                  .post(
                      "/api/references",
                      Map.of("layoutId", made.layout(), "vehicleId", made.vehicle()))
                  .status(),
              stranger.get("/api/references/{id}", r).status(),
              stranger.get("/api/references/{id}/lap", r).status(),
              stranger.post("/api/references/{id}/answer", entry, r).status(),
              stranger
                  .put(
                      "/api/references/{id}/working",
                      Map.of("version", 0, "content", view.path("working").path("content")),
                      r)
                  .status(),
              stranger.post("/api/references/{id}/vehicle", Map.of(), r).status(),
              stranger
                  .post("/api/references/{id}/revisions", Map.of("version", 0, "reason", "x"), r)
                  .status(),
              stranger.get("/api/references/{id}/revisions", r).status(),
              stranger.get("/api/references/{id}/revisions/1", r).status(),
              stranger.post("/api/references/{id}/revisions/1/start", version, r).status(),
              stranger.get("/api/references/{id}/comparison?from=0&to=0", r).status(),
              stranger.get("/api/references/{id}/export.json", r).status(),
              stranger.get("/api/references/{id}/export.csv", r).status(),
              stranger.upload("/api/references/" + r + "/read", "x.csv", new byte[] {1}).status()
            })
        .containsOnly(404);
    assertThat(stranger.get("/api/references").body()).isEmpty();
    assertThat(stranger.get("/api/layouts").body()).isEmpty();
    assertThat(stranger.get("/api/vehicles").body()).isEmpty();
    assertThat(stranger.get("/api/references/{id}", UUID.randomUUID()).status()).isEqualTo(404);
  }

  @Test
  void theDemoTellsItsStory() {
    People.Person driver = people.demo("DRIVER");
    JsonNode paddock = driver.get("/api/paddock").body();
    assertThat(paddock.path("layouts").path(0).path("circuit").asText())
        .isEqualTo("Falcoeira Ring");
    assertThat(paddock.path("layouts").path(0).path("corners").asInt()).isEqualTo(14);
    assertThat(paddock.path("vehicles")).hasSize(3);
    String id = paddock.path("reference").asText();
    JsonNode revisions = driver.get("/api/references/{id}/revisions", id).body();
    assertThat(revisions.size()).isGreaterThanOrEqualTo(3);
    int oldest = revisions.size() - 1;
    assertThat(revisions.path(oldest).path("number").asInt()).isEqualTo(1);
    assertThat(revisions.path(oldest - 2).at("/planned/seconds").asDouble())
        .isLessThan(revisions.path(oldest).at("/planned/seconds").asDouble());
    assertThat(driver.get("/api/references/{id}", id).body().path("words")).hasSize(14);
    assertThat(people.demo("COACH").get("/api/references").body()).isEmpty();
  }
}
