package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.core.io.ClassPathResource;

/** The survey over HTTP: what is stored, sent twice, in conflict, refused, and whose it is. */
@ServerTest
class SurveyTest {
  @Autowired private People people;
  @Autowired private ObjectMapper json;

  private People.Person person;
  private String layout;

  @BeforeEach
  void bringACircuit() {
    person = people.newcomer();
    layout =
        person
            .upload(
                "/api/layouts", "outline.geojson", sample("outline.geojson"), "circuit", "Junco")
            .body()
            .path("id")
            .asText();
  }

  private static byte[] sample(String name) {
    try (var in = new ClassPathResource("samples/" + name).getInputStream()) {
      return in.readAllBytes();
    } catch (IOException e) {
      throw new AssertionError(e);
    }
  }

  private JsonNode layout() {
    return person.get("/api/layouts/{id}", layout).body();
  }

  private ObjectNode landmark(String id, double station, String label) {
    return json.createObjectNode()
        .put("id", id)
        .put("kind", "BOARD")
        .put("label", label)
        .put("station", station)
        .put("left", true)
        .put("corner", "c1")
        .put("out", 3)
        .put("height", 1.4)
        .put("permanence", "FIXED")
        .put("readable", true)
        .putNull("noted")
        .put("note", "")
        .put("photo", "");
  }

  private ObjectNode zone(String kind, double from, double to) {
    return json.createObjectNode()
        .put("id", kind.toLowerCase(java.util.Locale.ROOT).replace('_', '-'))
        .put("kind", kind)
        .put("side", "BOTH")
        .put("from", from)
        .put("to", to)
        .put("severity", 3)
        .putNull("grip")
        .put("note", "")
        .put("photo", "");
  }

  private ObjectNode kerb(double from, double to) {
    return json.createObjectNode()
        .put("id", "kerb-1")
        .put("left", true)
        .put("from", from)
        .put("to", to)
        .put("corner", "c1")
        .put("part", "APEX")
        .put("profile", "SAUSAGE")
        .put("width", 0.9)
        .put("height", 0.14)
        .put("behind", "GRASS")
        .put("slippery", false)
        .put("verdict", "KEEP_OFF")
        .put("note", "")
        .put("photo", "");
  }

  private ObjectNode change(String list, ObjectNode... things) {
    ObjectNode body = json.createObjectNode();
    body.put("id", UUID.randomUUID().toString());
    ObjectNode put = body.putObject("put");
    for (String name : List.of("landmarks", "kerbs", "zones", "limits", "places")) {
      ArrayNode into = put.putArray(name);
      if (name.equals(list)) {
        into.addAll(List.of(things));
      }
    }
    body.putArray("remove");
    body.putObject("expected");
    body.putNull("corners");
    body.putNull("cornersVersion");
    return body;
  }

  /** Sends a change; what it touches is expected as it stands, unless the test says otherwise. */
  private People.Answer send(ObjectNode change) {
    JsonNode versions = layout().path("versions");
    ObjectNode expected = change.withObject("/expected");
    List<String> touched = new ArrayList<>();
    change.path("put").forEach(list -> list.forEach(t -> touched.add(t.path("id").asText())));
    change.path("remove").forEach(id -> touched.add(id.asText()));
    for (String id : touched) {
      if (versions.has(id) && !expected.has(id)) {
        expected.set(id, versions.path(id));
      }
    }
    return person.post("/api/layouts/{id}/survey", change, layout);
  }

  @Test
  void aChangeSentTwiceIsAppliedOnceEvenAfterItWasTakenBack() {
    ObjectNode walk = change("landmarks", landmark("a-1", 100, "100"));
    assertThat(send(walk).body().path("things").path("landmarks")).hasSize(1);
    assertThat(send(walk).body().path("things").path("landmarks")).hasSize(1);
    ObjectNode back = change("");
    back.withArray("remove").add("a-1");
    assertThat(send(back).body().path("things").path("landmarks")).isEmpty();
    assertThat(send(walk).body().path("things").path("landmarks"))
        .as("the phone sends its queue again; what was removed since stays removed")
        .isEmpty();
  }

  @Test
  void twoWindowsThatChangeOneThingAreToldAndNothingIsLost() {
    JsonNode first = send(change("landmarks", landmark("a-1", 100, "100"))).body();
    int seen = first.path("versions").path("a-1").asInt();
    ObjectNode mine = change("landmarks", landmark("a-1", 104, "100"));
    mine.withObject("/expected").put("a-1", seen);
    assertThat(send(mine).status()).isEqualTo(200);
    ObjectNode theirs = change("landmarks", landmark("a-1", 90, "100"));
    theirs.withObject("/expected").put("a-1", seen);
    var refused = send(theirs);
    assertThat(refused.status()).isEqualTo(409);
    JsonNode current = refused.body().path("current").path("things").path("landmarks").path(0);
    assertThat(current.path("station").asDouble()).isEqualTo(104);
    ObjectNode other = change("landmarks", landmark("b-1", 300, "50"));
    assertThat(send(other).body().path("things").path("landmarks"))
        .as("another thing does not collide")
        .hasSize(2);
  }

  @Test
  void eachFieldThatCannotBeIsRefusedByNameAndNothingIsStored() {
    Map<String, ObjectNode> wrong =
        Map.of(
            "station", landmark("a", 99_999, "x"),
            "corner", landmark("a", 5, "x").put("corner", "c99"),
            "height", landmark("a", 5, "x").put("height", 900),
            "metres outside", landmark("a", 5, "x").put("out", 9_999),
            "label", landmark("a", 5, " "),
            "id", landmark("a b", 5, "x"));
    wrong.forEach(
        (field, thing) -> {
          var answer = send(change("landmarks", thing));
          assertThat(answer.status()).as(field).isEqualTo(422);
          assertThat(answer.body().path("where").asText()).as(field).contains(field);
          assertThat(answer.body().path("remedy").asText()).as(field).isNotBlank();
        });
    assertThat(send(change("kerbs", kerb(200, 100))).body().path("where").asText()).contains("end");
    assertThat(send(change("kerbs", kerb(100, 120).put("width", 99))).status()).isEqualTo(422);
    assertThat(send(change("zones", zone("DAMP", 10, 60).put("severity", 7))).status())
        .isEqualTo(422);
    assertThat(send(change("zones", zone("DAMP", 10, 60).put("kind", "MUD"))).status())
        .isEqualTo(400);
    assertThat(send(change("landmarks", landmark("a", 5, "x").putNull("label"))).status())
        .isEqualTo(400);
    ObjectNode half = change("landmarks", landmark("good", 5, "x"), landmark("bad", -5, "x"));
    assertThat(send(half).status()).isEqualTo(422);
    assertThat(layout().path("things").path("landmarks")).isEmpty();
  }

  @Test
  void hostileValuesAreRefusedAndNeverAFailure() {
    String reference = drafted();
    String vehicle =
        person.get("/api/references/{id}", reference).body().path("vehicleId").asText();
    ObjectNode[] hostile = {
      change("landmarks", landmark("a", 5, "x").putNull("kind")),
      change("landmarks", landmark("a", 5, "x").put("station", "NaN")),
      change("landmarks", landmark("a", 5, "x").put("height", 1e308)),
      change("landmarks", landmark("a", 5, "x").put("label", "x".repeat(5000))),
      change("landmarks", landmark("a", 5, "x").put("noted", "yesterday")),
      change("landmarks", landmark("a", 5, "x"), landmark("a", 9, "y")),
      change("kerbs", kerb(100, 120).put("width", 1e308)),
      change("zones", zone("DAMP", 10, 60).put("grip", -4)),
      change("").putNull("put"),
      change("").putNull("remove"),
      change("").put("id", "not one"),
    };
    for (ObjectNode body : hostile) {
      int status = send(body).status();
      assertThat(status).as(body.toString()).isBetween(400, 422);
    }
    ObjectNode corners = change("");
    corners.putArray("corners").addObject().put("id", "c1");
    corners.put("cornersVersion", 1);
    assertThat(send(corners).status()).isBetween(400, 422);
    ObjectNode unseen = change("landmarks", landmark("a-9", 5, "x"));
    unseen.withObject("/expected").putNull("a-9");
    assertThat(send(unseen).status()).isLessThan(500);
    assertThat(
            person
                .post(
                    "/api/vehicles/{id}/clearances",
                    List.of(kerb(1, 9).put("width", 1e308)),
                    vehicle)
                .status())
        .isEqualTo(422);
    for (String at : List.of("9999-01-01T00:00", "0001-01-01T00:00", "noon")) {
      assertThat(person.get("/api/layouts/{id}/sun", Map.of("at", at), layout).status())
          .as(at)
          .isBetween(400, 422);
      assertThat(person.get("/api/references/{id}/markers", Map.of("at", at), reference).status())
          .as(at)
          .isBetween(400, 422);
    }
    assertThat(
            person
                .post("/api/vehicles/{id}/sheets", "{\"name\":null,\"settings\":[]}", vehicle)
                .status())
        .isEqualTo(400);
    assertThat(
            person
                .post(
                    "/api/layouts/{id}/versions",
                    Map.of("from", "9999-01-01", "reason", "x", "changes", List.of()),
                    layout)
                .status())
        .isEqualTo(422);
    assertThat(
            person
                .put(
                    "/api/layouts/{id}/place",
                    Map.of("latitude", 400, "longitude", 0, "altitude", 0),
                    layout)
                .status())
        .isEqualTo(422);
  }

  @Test
  void cornersAreSplitMergedAndUncountedAndTheReferenceFollows() {
    String reference = drafted();
    JsonNode before = layout();
    ArrayNode corners = before.path("corners").deepCopy();
    ObjectNode third = (ObjectNode) corners.get(2);
    double entry = third.path("entry").asDouble();
    double exit = third.path("exit").asDouble();
    double middle = Math.round((entry + exit) / 2);
    ObjectNode second = third.deepCopy();
    third.put("number", "3A").put("exit", middle).putArray("apexes");
    second.put("id", "c3b").put("number", "3B").put("entry", middle).putArray("apexes");
    corners.insert(3, second);
    ObjectNode split = change("landmarks", landmark("at-3", entry, "7").put("corner", "c3b"));
    split.set("corners", corners);
    split.put("cornersVersion", before.path("cornersVersion").asInt());
    JsonNode after = send(split).body();
    assertThat(after.path("corners")).hasSize(8);
    assertThat(after.path("corners").path(3).path("apexes").path(0).asDouble())
        .isBetween(middle, exit);
    assertThat(
            person
                .get("/api/references/{id}", reference)
                .body()
                .path("working")
                .path("content")
                .path("corners"))
        .as("the new corner is drafted, the others kept")
        .hasSize(8);

    assertThat(send(split.deepCopy().put("id", UUID.randomUUID().toString())).status())
        .as("corners changed in another window")
        .isEqualTo(409);

    ArrayNode merged = before.path("corners").deepCopy();
    ObjectNode uncounted = (ObjectNode) merged.get(6);
    uncounted.put("uncounted", true);
    ObjectNode merge = change("");
    merge.set("corners", merged);
    merge.put("cornersVersion", after.path("cornersVersion").asInt());
    JsonNode last = send(merge).body();
    assertThat(last.path("summary").path("corners").asInt()).isEqualTo(6);
    assertThat(last.path("things").path("landmarks"))
        .as("what belonged to the corner that went belongs to the one in its place")
        .anyMatch(
            l -> l.path("id").asText().equals("at-3") && l.path("corner").asText().equals("c3"));
    JsonNode now = person.get("/api/references/{id}", reference).body();
    assertThat(now.path("working").path("content").path("corners")).hasSize(6);

    ArrayNode overlapping = before.path("corners").deepCopy();
    ((ObjectNode) overlapping.get(0)).put("exit", overlapping.get(1).path("entry").asDouble() + 9);
    ObjectNode bad = change("");
    bad.set("corners", overlapping);
    bad.put("cornersVersion", last.path("cornersVersion").asInt());
    assertThat(send(bad).body().path("detail").asText()).contains("starts before");
  }

  @Test
  void aCornerThatTheRoadHasTodayComesIntoANewVersionAndTheReferenceFollows() {
    String reference = drafted();
    JsonNode before = layout();
    assertThat(before.path("anew").path("added")).isEmpty();
    ArrayNode fewer = before.path("corners").deepCopy();
    JsonNode gone = fewer.remove(3);
    ObjectNode change = change("");
    change.set("corners", fewer);
    change.put("cornersVersion", before.path("cornersVersion").asInt());
    JsonNode without = send(change).body();
    assertThat(without.path("anew").path("added")).hasSize(1);
    JsonNode offered = without.path("anew").path("added").path(0);
    assertThat(offered.path("radius").asDouble()).isEqualTo(gone.path("radius").asDouble());
    assertThat(offered.path("number").asText())
        .isEqualTo(fewer.path(2).path("number").asText() + "A");

    String next =
        person
            .post(
                "/api/layouts/{id}/versions",
                Map.of("from", "2030-01-01", "reason", "Found", "changes", List.of(), "anew", true),
                layout)
            .body()
            .path("id")
            .asText();
    JsonNode after = person.get("/api/layouts/{id}", next).body();
    assertThat(after.path("corners")).hasSize(before.path("corners").size());
    assertThat(after.path("anew").path("added")).isEmpty();
    assertThat(layout().path("corners")).as("the version before").isEqualTo(fewer);
    assertThat(person.post("/api/references/{id}/newest-layout", "{}", reference).status())
        .isEqualTo(200);
    assertThat(
            person
                .get("/api/references/{id}", reference)
                .body()
                .path("working")
                .path("content")
                .path("corners"))
        .as("the corner is drafted")
        .hasSize(before.path("corners").size());
  }

  private String drafted() {
    JsonNode gt = person.get("/api/vehicle-classes").body().path(1);
    String vehicle =
        person
            .post(
                "/api/vehicles",
                Map.of("name", "GT", "basedOn", "cup-gt", "numbers", gt.path("vehicle")))
            .body()
            .path("id")
            .asText();
    return person
        .post("/api/references", Map.of("layoutId", layout, "vehicleId", vehicle))
        .body()
        .path("made")
        .asText();
  }

  @Test
  void aChangeThatDoesNotSayOnWhatItWasMadeChangesNothing() {
    ObjectNode pine = landmark("pine", 40, "pine");
    assertThat(send(change("landmarks", pine)).status()).isEqualTo(200);
    ObjectNode blind = change("landmarks", landmark("pine", 55, "pine"));
    assertThat(person.post("/api/layouts/{id}/survey", blind, layout).status()).isEqualTo(409);
    ObjectNode gone = change("landmarks");
    gone.withArray("remove").add("pine");
    assertThat(person.post("/api/layouts/{id}/survey", gone, layout).status()).isEqualTo(409);
    ObjectNode again = change("landmarks", landmark("pine", 40, "pine"));
    assertThat(person.post("/api/layouts/{id}/survey", again, layout).status())
        .as("the same once more changes nothing")
        .isEqualTo(200);
    JsonNode there = null;
    for (JsonNode l : layout().path("things").path("landmarks")) {
      there = l.path("id").asText().equals("pine") ? l : there;
    }
    assertThat(there).isNotNull();
    assertThat(there.path("station").asDouble()).isEqualTo(40);
  }

  @Test
  void polishedGroundCostsTimeOnceTheReferenceIsComputedAnew() {
    String reference = drafted();
    double dry =
        person.get("/api/references/{id}/lap", reference).body().path("lapTime").asDouble();
    JsonNode corner = layout().path("corners").path(0);
    send(
        change(
            "zones",
            zone("POLISHED", corner.path("entry").asDouble(), corner.path("exit").asDouble())
                .put("grip", 0.85)));
    JsonNode told = person.get("/api/references/{id}", reference).body();
    assertThat(told.path("vehicleChanged").asBoolean()).isTrue();
    person.post("/api/references/{id}/vehicle", Map.of(), reference);
    double damp =
        person.get("/api/references/{id}/lap", reference).body().path("lapTime").asDouble();
    assertThat(damp).isGreaterThan(dry + 0.1);
    assertThat(
            person.get("/api/references/{id}", reference).body().path("vehicleChanged").asBoolean())
        .isFalse();
  }

  @Test
  void whatStaysDampCostsNothingOnADryDayAndTimeOnADampOne() {
    String reference = drafted();
    JsonNode content =
        person.get("/api/references/{id}", reference).body().at("/working/content/corners");
    double dry = lap(reference);
    double before = damp(reference, content);
    JsonNode corner = layout().path("corners").path(0);
    send(
        change(
            "zones",
            zone("DAMP", corner.path("entry").asDouble(), corner.path("exit").asDouble())));
    person.post("/api/references/{id}/vehicle", Map.of(), reference);
    assertThat(lap(reference)).as("dry").isCloseTo(dry, within(0.02));
    assertThat(damp(reference, content)).as("damp").isGreaterThan(before + 0.1);
  }

  private double lap(String reference) {
    return person.get("/api/references/{id}/lap", reference).body().path("lapTime").asDouble();
  }

  private double damp(String reference, JsonNode corners) {
    ObjectNode day = json.createObjectNode();
    day.put("grip", 0.9).put("extraMass", 0).put("windSpeed", 0).put("windFrom", 0);
    day.put("drag", 1).put("downforce", 1).putNull("airTemperature").put("hour", "");
    day.putObject("surface").put("state", "DAMP").put("dried", 0);
    ObjectNode variant = json.createObjectNode().put("id", "d").put("kind", "DAMP").put("name", "");
    variant.set("day", day);
    variant.putArray("entries");
    return person
        .post(
            "/api/references/{id}/variants/lap",
            Map.of("variant", variant, "entries", corners),
            reference)
        .body()
        .path("lapTime")
        .asDouble();
  }

  @Test
  void anotherHourGradesTheMarkersAnew() {
    String reference = drafted();
    JsonNode brake = null;
    JsonNode entry = null;
    for (JsonNode e :
        person.get("/api/references/{id}", reference).body().at("/working/content/corners")) {
      for (JsonNode p : e.path("points")) {
        if (brake == null && p.path("kind").asText().equals("BRAKE")) {
          brake = p;
          entry = e;
        }
      }
    }
    assertThat(brake).isNotNull();
    ObjectNode shadow =
        landmark("pine-shadow", brake.path("station").asDouble(), "shadow of the pine")
            .put("kind", "SHADOW")
            .put("permanence", "LIGHT")
            .put("height", 9)
            .put("noted", "2026-05-16T12:00:00Z");
    ObjectNode change = change("landmarks", shadow);
    for (JsonNode l : layout().path("things").path("landmarks")) {
      change.withArray("remove").add(l.path("id").asText());
    }
    send(change);
    person.post("/api/references/{id}/vehicle", Map.of(), reference);
    JsonNode same = markers(reference, Map.of("at", "2026-05-16T12:00"));
    JsonNode later = markers(reference, Map.of("at", "2026-05-16T17:30"));
    JsonNode night = markers(reference, Map.of("at", "2026-05-16T23:30"));
    String corner = entry.path("corner").asText();
    int atNoted = judged(same, corner).path("judgement").path("marks").asInt();
    JsonNode moved = judged(later, corner).path("judgement");
    assertThat(moved.path("marks").asInt()).isLessThan(atNoted - 10);
    assertThat(moved.path("moved").asDouble()).isNotCloseTo(0, within(1.0));
    assertThat(judged(same, corner).path("judgement").path("moved").asDouble())
        .isCloseTo(0, within(0.05));
    assertThat(judged(night, corner).path("judgement").path("grade").asText())
        .isEqualTo("NOT_TO_BE_RELIED_ON");
    assertThat(night.path("bare")).isNotEmpty();
    JsonNode sun =
        person.get("/api/layouts/{id}/sun", Map.of("at", "2026-05-16T12:00"), layout).body();
    assertThat(sun.path("elevation").asDouble()).isPositive();
    assertThat(sun.path("path")).hasSizeGreaterThan(20);
  }

  private JsonNode markers(String reference, Map<String, String> query) {
    return person.get("/api/references/{id}/markers", query, reference).body();
  }

  private static JsonNode judged(JsonNode review, String corner) {
    for (JsonNode p : review.path("points")) {
      if (p.path("corner").asText().equals(corner) && p.path("kind").asText().equals("BRAKE")) {
        return p;
      }
    }
    throw new AssertionError("no braking point for " + corner);
  }

  @Test
  void aNewVersionMarksTheReferencePointByPointUntilConfirmedOrMoved() {
    String reference = drafted();
    JsonNode gone = layout().path("things").path("landmarks").path(0);
    JsonNode made =
        person
            .post(
                "/api/layouts/{id}/versions",
                Map.of(
                    "from",
                    "2030-01-01",
                    "reason",
                    "Boards renewed",
                    "changes",
                    List.of(Map.of("from", 0, "to", 40, "what", "new tarmac"))),
                layout)
            .body();
    assertThat(made.path("version").asInt()).isEqualTo(2);
    String next = made.path("id").asText();
    ObjectNode change = change("");
    JsonNode versions = person.get("/api/layouts/{id}", next).body().path("versions");
    for (JsonNode l : layout().path("things").path("landmarks")) {
      String id = l.path("id").asText();
      change.withArray("remove").add(id);
      change.withObject("/expected").set(id, versions.path(id));
    }
    assertThat(person.post("/api/layouts/{id}/survey", change, next).status()).isEqualTo(200);
    assertThat(layout().path("things").path("landmarks").path(0)).isEqualTo(gone);
    assertThat(layout().path("newer").path("version").asInt()).isEqualTo(2);

    JsonNode marked = person.get("/api/references/{id}", reference).body();
    assertThat(marked.path("ahead")).isNotEmpty();
    assertThat(marked.path("doubts")).isEmpty();
    assertThat(person.post("/api/references/{id}/newest-layout", Map.of(), reference).status())
        .isEqualTo(200);
    JsonNode moved = person.get("/api/references/{id}", reference).body();
    assertThat(moved.path("layoutVersion").asInt()).isEqualTo(2);
    assertThat(moved.path("doubts")).isEqualTo(marked.path("ahead"));
    JsonNode doubt = moved.path("doubts").path(0);
    person.post(
        "/api/references/{id}/confirmed",
        Map.of("corner", doubt.path("corner").asText(), "kind", doubt.path("kind").asText()),
        reference);
    JsonNode confirmed = person.get("/api/references/{id}", reference).body();
    assertThat(confirmed.path("doubts")).hasSize(moved.path("doubts").size() - 1);
    JsonNode second = confirmed.path("doubts").path(0);
    ObjectNode content = confirmed.at("/working/content").deepCopy();
    for (JsonNode e : content.path("corners")) {
      for (JsonNode p : e.path("points")) {
        if (e.path("corner").equals(second.path("corner"))
            && p.path("kind").equals(second.path("kind"))) {
          ((ObjectNode) p).put("station", p.path("station").asDouble() - 2);
        }
      }
    }
    person.put(
        "/api/references/{id}/working",
        Map.of("version", confirmed.at("/working/version").asInt(), "content", content),
        reference);
    assertThat(person.get("/api/references/{id}", reference).body().path("doubts"))
        .as("a point that was moved is no longer in doubt")
        .hasSize(moved.path("doubts").size() - 2);
    assertThat(person.post("/api/references/{id}/newest-layout", Map.of(), reference).status())
        .isEqualTo(422);
  }

  @Test
  void filesComeBackTheSameAndBadOnesSayWhere() {
    send(change("zones", zone("SHADE", 100, 180)));
    send(change("kerbs", kerb(120, 150)));
    JsonNode things =
        send(change("landmarks", landmark("a-1", 90, "100"), landmark("a-2", 140, "50")))
            .body()
            .path("things");
    for (String file : List.of("survey.geojson", "landmarks.csv", "landmarks.gpx")) {
      byte[] out =
          person.get("/api/layouts/" + layout + "/" + file).text().getBytes(StandardCharsets.UTF_8);
      JsonNode back =
          person.upload("/api/layouts/" + layout + "/survey/read", file, out).body().path("things");
      assertThat(back.path("landmarks")).as(file).isEqualTo(things.path("landmarks"));
      if (file.endsWith("json")) {
        assertThat(back).isEqualTo(things);
      }
    }
    Map<String, String> bad =
        Map.of(
            "kind,station_m\nboard,12\nboard,oops\n",
            "row 3, column station_m",
            "kind,station_m\nstatue,12\n",
            "row 2, column kind",
            "kind,label\nboard,x\n",
            "row 2, column station_m",
            "kind,latitude,longitude\nboard,1,1\n",
            "row 2",
            "{\"type\":\"FeatureCollection\",\"marvek\":\"marvek-survey/1\",\"features\":"
                + "[{\"properties\":{\"marvek\":\"kerb\",\"thing\":{\"id\":1}}}]}",
            "feature 1",
            "{\"marvek\":",
            "line 1");
    bad.forEach(
        (text, where) -> {
          var answer =
              person.upload(
                  "/api/layouts/" + layout + "/survey/read",
                  "x",
                  text.getBytes(StandardCharsets.UTF_8));
          assertThat(answer.status()).as(text).isEqualTo(422);
          assertThat(answer.body().path("where").asText()).as(text).contains(where);
        });
    for (String text : List.of("<gpx/>", "<!DOCTYPE gpx [<!ENTITY a \"b\">]><gpx>&a;</gpx>", "")) {
      assertThat(
              person
                  .upload(
                      "/api/layouts/" + layout + "/survey/read",
                      "x",
                      text.getBytes(StandardCharsets.UTF_8))
                  .status())
          .as(text)
          .isEqualTo(422);
    }
  }

  @Test
  void picturesAreDrawnAnewAndTellNothing() throws IOException {
    String id = UUID.randomUUID().toString();
    byte[] told = withComment(picture(2400, 900), "taken at home");
    assertThat(new String(told, StandardCharsets.ISO_8859_1)).contains("taken at home");
    String path = "/api/layouts/" + layout + "/photos/" + id;
    assertThat(person.replace(path, told).status()).isEqualTo(204);
    assertThat(person.replace(path, told).status()).as("sent twice").isEqualTo(204);
    byte[] kept = person.get("/api/photos/{id}", id).result().getResponse().getContentAsByteArray();
    assertThat(new String(kept, StandardCharsets.ISO_8859_1)).doesNotContain("taken at home");
    BufferedImage image = ImageIO.read(new ByteArrayInputStream(kept));
    assertThat(image.getWidth()).isEqualTo(1600);
    assertThat(image.getHeight()).isEqualTo(600);
    var refused =
        person.replace(
            "/api/layouts/" + layout + "/photos/" + UUID.randomUUID(), "no picture".getBytes());
    assertThat(refused.status()).isEqualTo(422);
    // A few bytes that say of themselves that they are half a gigabyte.
    var huge =
        person.replace(
            "/api/layouts/" + layout + "/photos/" + UUID.randomUUID(), head(7700, 7700, 16));
    assertThat(huge.status()).isEqualTo(422);
    assertThat(huge.body().path("detail").asText()).contains("7700 pixels of 64 bits");
    assertThat(people.newcomer().get("/api/photos/{id}", id).status()).isEqualTo(404);
    assertThat(people.newcomer().replace(path, told).status()).isEqualTo(404);
  }

  /** The beginning of a PNG with four channels of so many bits. */
  private static byte[] head(int width, int height, int bits) {
    java.nio.ByteBuffer chunk = java.nio.ByteBuffer.allocate(17);
    chunk.put("IHDR".getBytes(StandardCharsets.US_ASCII)).putInt(width).putInt(height);
    chunk.put((byte) bits).put((byte) 6).put(new byte[3]);
    java.util.zip.CRC32 sum = new java.util.zip.CRC32();
    sum.update(chunk.array());
    return java.nio.ByteBuffer.allocate(8 + 4 + 17 + 4)
        .put(new byte[] {(byte) 0x89, 'P', 'N', 'G', 13, 10, 26, 10})
        .putInt(13)
        .put(chunk.array())
        .putInt((int) sum.getValue())
        .array();
  }

  private static byte[] picture(int width, int height) throws IOException {
    BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
    Graphics2D g = image.createGraphics();
    g.setColor(Color.ORANGE);
    g.fillRect(0, 0, width / 2, height);
    g.dispose();
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ImageIO.write(image, "jpg", out);
    return out.toByteArray();
  }

  /** Puts a JPEG comment segment (marker FFFE) after the start of the image. */
  private static byte[] withComment(byte[] jpeg, String comment) {
    byte[] text = comment.getBytes(StandardCharsets.ISO_8859_1);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    out.write(jpeg, 0, 2);
    out.write(0xFF);
    out.write(0xFE);
    out.write((text.length + 2) >> 8);
    out.write((text.length + 2) & 0xFF);
    out.write(text, 0, text.length);
    out.write(jpeg, 2, jpeg.length - 2);
    return out.toByteArray();
  }

  @Test
  void aSheetChangesTheNumbersAndTheNextSessionsSheetWarns() {
    String reference = drafted();
    JsonNode opened = person.get("/api/references/{id}", reference).body();
    String vehicle = opened.path("vehicleId").asText();
    Map<String, Object> wet =
        sheet("Rain", "WET", Map.of("parameter", "tyres.grip", "number", 75.0));
    String wetId =
        person.post("/api/vehicles/{id}/sheets", wet, vehicle).body().path("id").asText();
    Map<String, Object> dry =
        sheet("Low fuel", "QUALIFYING", Map.of("parameter", "mass.ballast", "number", -30.0));
    String dryId =
        person.post("/api/vehicles/{id}/sheets", dry, vehicle).body().path("id").asText();
    JsonNode effect = person.post("/api/vehicles/{id}/sheet-effect", wet, vehicle).body();
    assertThat(effect.at("/with/stopDistance").asDouble())
        .isGreaterThan(effect.at("/without/stopDistance").asDouble() * 1.2);

    double before = opened.at("/planned/seconds").asDouble();
    person.put("/api/references/{id}/sheet", Map.of("sheet", wetId), reference);
    JsonNode proved = person.get("/api/references/{id}", reference).body();
    assertThat(proved.path("sheet").asText()).isEqualTo("Rain");
    assertThat(proved.at("/planned/seconds").asDouble()).isGreaterThan(before + 1);
    assertThat(proved.path("otherSheetNext").isNull()).isTrue();
    person.put("/api/vehicles/{id}/next-sheet", Map.of("sheet", dryId), vehicle);
    assertThat(person.get("/api/references/{id}", reference).body().path("otherSheetNext").asText())
        .isEqualTo("Low fuel");
    assertThat(
            person
                .get("/api/sheets/" + wetId + "/against/" + dryId)
                .body()
                .findValuesAsText("parameter"))
        .contains("tyres.grip", "mass.ballast");
    Map<String, Object> wrong =
        sheet("Odd", "DRY", Map.of("parameter", "tyres.grip", "number", 900.0));
    var refused = person.post("/api/vehicles/{id}/sheets", wrong, vehicle);
    assertThat(refused.status()).isEqualTo(422);
    assertThat(refused.body().path("where").asText()).isEqualTo("tyres.grip");
    People.Person stranger = people.newcomer();
    assertThat(
            new int[] {
              stranger.get("/api/vehicles/{id}/sheets", vehicle).status(),
              stranger.post("/api/vehicles/{id}/sheets", dry, vehicle).status(),
              stranger.post("/api/vehicles/{id}/sheet-effect", dry, vehicle).status(),
              stranger
                  .put("/api/vehicles/{id}/next-sheet", Map.of("sheet", dryId), vehicle)
                  .status(),
              stranger.put("/api/sheets/{id}", Map.of("version", 0, "sheet", dry), dryId).status(),
              stranger.delete("/api/sheets/{id}", dryId).status(),
              stranger.get("/api/sheets/" + wetId + "/against/" + dryId).status(),
              stranger.post("/api/vehicles/{id}/clearances", List.of(kerb(1, 9)), vehicle).status(),
            })
        .containsOnly(404);
  }

  private static Map<String, Object> sheet(
      String name, String purpose, Map<String, Object> setting) {
    Map<String, Object> full = new java.util.HashMap<>(setting);
    full.put("words", "");
    full.put("unit", "");
    full.put("reason", "because");
    return Map.of("name", name, "purpose", purpose, "settings", List.of(full), "note", "");
  }

  @Test
  void boardsAreProposedInOneActionAndKerbsMeasured() {
    JsonNode boards =
        person
            .post(
                "/api/layouts/{id}/boards",
                Map.of(
                    "corner",
                    "c1",
                    "distances",
                    List.of(150, 100, 50),
                    "countedTo",
                    260,
                    "left",
                    true,
                    "readable",
                    false),
                layout)
            .body();
    assertThat(boards).hasSize(3);
    assertThat(boards.path(0).path("station").asDouble()).isEqualTo(110);
    assertThat(boards.path(0).path("readable").asBoolean()).isFalse();
    assertThat(layout().path("things").path("landmarks")).as("proposed only").isEmpty();
    String reference = drafted();
    String vehicle =
        person.get("/api/references/{id}", reference).body().path("vehicleId").asText();
    JsonNode clearance =
        person.post("/api/vehicles/{id}/clearances", List.of(kerb(100, 130)), vehicle).body();
    assertThat(clearance.path(0).path("section")).hasSizeGreaterThan(20);
    send(change("kerbs", kerb(120, 150)));
    assertThat(person.get("/api/references/{id}/kerbs", reference).body()).hasSize(1);
    assertThat(person.get("/api/references/{id}/glances", reference).status()).isEqualTo(200);
  }

  @Test
  void aStrangerGetsNothingOfASurvey() {
    String reference = drafted();
    People.Person s = people.newcomer();
    Map<String, Object> none = Map.of();
    assertThat(
            new int[] {
              s.get("/api/layouts/{id}", layout).status(),
              s.post("/api/layouts/{id}/survey", change(""), layout).status(),
              s.post(
                      "/api/layouts/{id}/boards",
                      Map.of(
                          "corner",
                          "c1",
                          "distances",
                          List.of(50),
                          "countedTo",
                          9,
                          "left",
                          true,
                          "readable",
                          true),
                      layout)
                  .status(),
              s.put(
                      "/api/layouts/{id}/place",
                      Map.of("latitude", 1, "longitude", 1, "altitude", 0),
                      layout)
                  .status(),
              s.post(
                      "/api/layouts/{id}/versions",
                      Map.of("from", "2030-01-01", "reason", "x", "changes", List.of()),
                      layout)
                  .status(),
              s.upload("/api/layouts/" + layout + "/survey/read", "x", new byte[] {1}).status(),
              s.get("/api/layouts/{id}/survey.geojson", layout).status(),
              s.get("/api/layouts/{id}/landmarks.csv", layout).status(),
              s.get("/api/layouts/{id}/landmarks.gpx", layout).status(),
              s.get("/api/layouts/{id}/sun", Map.of("at", "2026-05-16T12:00"), layout).status(),
              s.get("/api/references/{id}/markers", reference).status(),
              s.get("/api/references/{id}/kerbs", reference).status(),
              s.get("/api/references/{id}/glances", reference).status(),
              s.put("/api/references/{id}/sheet", none, reference).status(),
              s.post("/api/references/{id}/newest-layout", none, reference).status(),
              s.post(
                      "/api/references/{id}/confirmed",
                      Map.of("corner", "c1", "kind", "BRAKE"),
                      reference)
                  .status(),
            })
        .containsOnly(404);
  }
}
