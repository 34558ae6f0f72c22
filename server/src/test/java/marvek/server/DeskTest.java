package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** The reference computed over HTTP: choices, days, remarks, copies and the whole lap. */
@ServerTest
class DeskTest {
  private static final Map<String, Object> WET =
      Map.of(
          "grip",
          0.7,
          "extraMass",
          0,
          "windSpeed",
          0,
          "windFrom",
          0,
          "drag",
          1,
          "downforce",
          1,
          "hour",
          "");

  @Autowired private People people;

  private static Map<String, Object> wet(List<?> entries) {
    return Map.of("id", "v1", "kind", "WET", "name", "", "day", WET, "entries", entries);
  }

  private static double station(JsonNode entry, String kind) {
    for (JsonNode p : entry.path("points")) {
      if (p.path("kind").asText().equals(kind)) {
        return p.path("station").asDouble();
      }
    }
    throw new AssertionError("no " + kind);
  }

  private static String braked(Made made) {
    for (JsonNode e : made.open().path("working").path("content").path("corners")) {
      if (e.path("slowing").asText().equals("BRAKE")) {
        return e.path("corner").asText();
      }
    }
    throw new AssertionError("nothing is braked for");
  }

  @Test
  void aSchoolIsComparedTakenKeptAndSavedInARevision() {
    Made made = Made.reference(people);
    String corner = braked(made);
    String url = "/api/references/" + made.reference();
    JsonNode arising =
        made.person().post(url + "/choices/arising", Map.of("entry", made.entry(corner))).body();
    assertThat(arising).extracting(JsonNode::asText).contains("BRAKE_SHAPE", "RELEASE", "APEX");
    JsonNode compared =
        made.person()
            .post(url + "/choices", Map.of("entry", made.entry(corner), "question", "BRAKE_SHAPE"))
            .body();
    assertThat(compared.path("outcomes")).hasSize(2);
    assertThat(compared.path("outcomes").path(0).path("tyreWork").asDouble()).isPositive();
    JsonNode content = made.open().path("working").path("content");
    JsonNode taken =
        made.person()
            .post(
                url + "/choices/taken",
                Map.of(
                    "entries", content.path("corners"), "corner", corner, "school", "FRONT_LOADED"))
            .body();
    assertThat(taken).hasSize(1);
    // The same for a stretch of the road, of which the last corner is named.
    String last = content.path("corners").path(3).path("corner").asText();
    Map<String, Object> style =
        Map.of(
            "entries",
            content.path("corners"),
            "corner",
            content.path("corners").path(1).path("corner").asText(),
            "through",
            last,
            "school",
            "FRONT_LOADED");
    JsonNode stretch = made.person().post(url + "/choices/taken", style).body();
    assertThat(stretch.size()).isBetween(2, 3);
    assertThat(stretch).allMatch(e -> e.path("schools").toString().contains("FRONT_LOADED"));
    Map<String, Object> nowhere = new java.util.HashMap<>(style);
    nowhere.put("through", "no-such");
    assertThat(made.person().post(url + "/choices/taken", nowhere).status()).isEqualTo(422);
    nowhere.put("through", last);
    nowhere.put("school", "GIVE_FIRST");
    assertThat(made.person().post(url + "/choices/taken", nowhere).status()).isEqualTo(422);
    assertThat(taken.path(0).path("pedals").path("rise").asDouble()).isPositive();
    ObjectNode next = content.deepCopy();
    ArrayNode corners = (ArrayNode) next.path("corners");
    for (int i = 0; i < corners.size(); i++) {
      if (corners.path(i).path("corner").asText().equals(corner)) {
        corners.set(i, taken.path(0));
      }
    }
    int version = made.open().path("working").path("version").asInt();
    var stored = made.person().put(url + "/working", Map.of("version", version, "content", next));
    assertThat(stored.status()).isEqualTo(200);
    made.person()
        .post(
            url + "/revisions",
            Map.of("version", stored.body().path("version").asInt(), "reason", "shape"));
    JsonNode revision = made.person().get(url + "/revisions/1").body();
    assertThat(revision.toString()).contains("FRONT_LOADED");
    assertThat(revision.path("words").toString()).contains("hard at once");
  }

  @Test
  void aDayHasAWayOfItsOwnAndTheReferenceKeepsIts() {
    Made made = Made.reference(people);
    String corner = braked(made);
    String url = "/api/references/" + made.reference();
    JsonNode content = made.open().path("working").path("content");
    ObjectNode wet =
        JsonNodeFactory.instance.objectNode().put("id", "w1").put("kind", "WET").put("name", "");
    wet.putArray("entries");
    wet.set("day", usual(made, "WET"));
    JsonNode entry = made.entry(corner);
    JsonNode then = day(made, url, wet, entry, null);
    JsonNode on = then.path("adjusted").path("entry");
    JsonNode arising =
        made.person()
            .post(url + "/choices/arising", Map.of("entry", on, "day", wet.path("day")))
            .body();
    assertThat(arising)
        .extracting(JsonNode::asText)
        .contains("BRAKE_SHAPE")
        .doesNotContain("LINKED");
    Map<String, Object> asked =
        Map.of("entry", on, "question", "BRAKE_SHAPE", "day", wet.path("day"));
    JsonNode wetter = made.person().post(url + "/choices", asked).body();
    JsonNode dry =
        made.person()
            .post(url + "/choices", Map.of("entry", entry, "question", "BRAKE_SHAPE"))
            .body();
    // Wet it takes longer, whatever the way.
    assertThat(wetter.path("now").path("toNext").asDouble())
        .isGreaterThan(dry.path("now").path("toNext").asDouble());
    ArrayNode entries = content.path("corners").deepCopy();
    for (int i = 0; i < entries.size(); i++) {
      if (entries.path(i).path("corner").asText().equals(corner)) {
        entries.set(i, on);
      }
    }
    JsonNode taken =
        made.person()
            .post(
                url + "/choices/taken",
                Map.of(
                    "entries",
                    entries,
                    "corner",
                    corner,
                    "school",
                    "PROGRESSIVE",
                    "day",
                    wet.path("day")))
            .body();
    JsonNode chosen = day(made, url, wet, entry, taken.path(0));
    JsonNode ways = chosen.path("variant").path("entries").path(0).path("ways");
    assertThat(ways.path("schools")).extracting(JsonNode::asText).contains("PROGRESSIVE");
    assertThat(chosen.path("adjusted").path("entry").path("schools"))
        .extracting(JsonNode::asText)
        .contains("PROGRESSIVE");
    assertThat(chosen.path("adjusted").path("changes").toString()).contains("by hand");
    // It is kept with the day, and the corner itself has no such answer.
    ObjectNode next = content.deepCopy();
    next.putArray("variants").add(chosen.path("variant"));
    int version = made.open().path("working").path("version").asInt();
    var stored = made.person().put(url + "/working", Map.of("version", version, "content", next));
    assertThat(stored.status()).isEqualTo(200);
    JsonNode kept = made.open().path("working").path("content");
    assertThat(kept.path("variants").path(0).path("entries").path(0).path("ways")).isEqualTo(ways);
    assertThat(made.entry(corner).path("schools")).isEmpty();
    ObjectNode twice =
        (ObjectNode) next.path("variants").path(0).path("entries").path(0).path("ways");
    twice.putArray("schools").add("PROGRESSIVE").add("FRONT_LOADED");
    int now = made.open().path("working").path("version").asInt();
    assertThat(
            made.person().put(url + "/working", Map.of("version", now, "content", next)).status())
        .isEqualTo(422);
  }

  private static JsonNode usual(Made made, String kind) {
    for (JsonNode k : made.person().get("/api/catalogue").body().path("variants")) {
      if (k.path("kind").asText().equals(kind)) {
        return k.path("usual");
      }
    }
    throw new AssertionError(kind);
  }

  private static JsonNode day(
      Made made, String url, JsonNode variant, JsonNode entry, @Nullable JsonNode edited) {
    Map<String, Object> body = new LinkedHashMap<>(Map.of("variant", variant, "entry", entry));
    if (edited != null) {
      body.put("edited", edited);
    }
    People.Answer answer = made.person().post(url + "/variants/answer", body);
    assertThat(answer.status()).isEqualTo(200);
    return answer.body();
  }

  @Test
  void aDayProposesKeepsWhatIsSetAndStaysWithTheReference() {
    Made made = Made.reference(people);
    String corner = braked(made);
    String url = "/api/references/" + made.reference();
    JsonNode entry = made.entry(corner);
    JsonNode view =
        made.person()
            .post(url + "/variants/answer", Map.of("variant", wet(List.of()), "entry", entry))
            .body();
    double dry = station(entry, "BRAKE");
    double wetMarker = station(view.path("adjusted").path("entry"), "BRAKE");
    assertThat(wetMarker).isLessThan(dry - 5);
    assertThat(view.path("adjusted").path("changes").toString()).contains("grip 70 %");
    ObjectNode edited = view.path("adjusted").path("entry").deepCopy();
    for (JsonNode p : edited.path("points")) {
      if (p.path("kind").asText().equals("BRAKE")) {
        ((ObjectNode) p).put("station", wetMarker - 4);
      }
    }
    JsonNode set =
        made.person()
            .post(
                url + "/variants/answer",
                Map.of("variant", wet(List.of()), "entry", entry, "edited", edited))
            .body();
    assertThat(set.path("variant").path("entries")).hasSize(1);
    assertThat(set.path("adjusted").path("byHand").path(0).asText()).isEqualTo("BRAKE");
    ObjectNode content = made.open().path("working").path("content").deepCopy();
    ((ArrayNode) content.path("variants")).add(set.path("variant"));
    int version = made.open().path("working").path("version").asInt();
    assertThat(
            made.person()
                .put(url + "/working", Map.of("version", version, "content", content))
                .status())
        .isEqualTo(200);
    JsonNode again = made.open().path("working").path("content").path("variants").path(0);
    assertThat(again.path("kind").asText()).isEqualTo("WET");
    JsonNode lap =
        made.person()
            .post(
                url + "/variants/lap", Map.of("variant", again, "entries", content.path("corners")))
            .body();
    assertThat(lap.path("corners")).hasSize(content.path("corners").size());
    assertThat(lap.path("lapTime").asDouble())
        .isGreaterThan(made.open().path("lapTime").asDouble());
  }

  @Test
  void anotherHourTellsWhatTheLightDoesToTheMarkers() {
    People.Person driver = people.demo("DRIVER");
    String id = driver.get("/api/paddock").body().path("reference").asText();
    JsonNode view = driver.get("/api/references/{id}", id).body();
    JsonNode boards = null;
    for (JsonNode e : view.path("working").path("content").path("corners")) {
      boards = e.path("corner").asText().equals("c1") ? e : boards;
    }
    Map<String, Object> night = new java.util.HashMap<>(WET);
    night.put("grip", 1);
    night.put("hour", "2:30");
    Map<String, Object> variant =
        Map.of("id", "n", "kind", "OTHER_HOUR", "name", "", "day", night, "entries", List.of());
    JsonNode then =
        driver
            .post(
                "/api/references/{id}/variants/answer",
                Map.of("variant", variant, "entry", boards),
                id)
            .body();
    assertThat(then.path("adjusted").path("changes").toString())
        .contains("2:30, braking at the 150 board: it is dark");
  }

  @Test
  void hostileDaysShapesAndDetailsAreRefusedInWords() {
    Made made = Made.reference(people);
    String corner = braked(made);
    String url = "/api/references/" + made.reference();
    JsonNode entry = made.entry(corner);
    for (String grip : new String[] {"-1", "1e308", "0"}) {
      String body =
          "{\"variant\":{\"id\":\"v\",\"kind\":\"WET\",\"name\":\"\",\"day\":{\"grip\":"
              + grip
              + ",\"extraMass\":0,\"windSpeed\":0,\"windFrom\":0,\"drag\":1,\"downforce\":1,"
              + "\"hour\":\"\"},\"entries\":[]},\"entry\":"
              + entry
              + "}";
      assertThat(made.person().post(url + "/variants/answer", body).status()).isEqualTo(422);
    }
    Map<String, Object> badHour = new java.util.HashMap<>(WET);
    badHour.put("hour", "25:99");
    assertThat(
            made.person()
                .post(
                    url + "/variants/answer",
                    Map.of(
                        "variant",
                        Map.of(
                            "id", "v", "kind", "WET", "name", "", "day", badHour, "entries",
                            List.of()),
                        "entry",
                        entry))
                .text())
        .contains("25:99");
    refused(made, url, entry, "pedals", "{\"rise\":2,\"hold\":3,\"trail\":1,\"maintain\":0}");
    refused(made, url, entry, "pedals", "{\"rise\":0.9,\"hold\":0.1,\"trail\":1,\"maintain\":0}");
    refused(made, url, entry, "schools", "[\"TO_APEX\",\"EARLY_ROLL\"]");
    refused(made, url, entry, "details", "{\"HANDS\":\"sideways\"}");
    refused(made, url, entry, "details", "{\"AIM\":\"" + "x".repeat(3000) + "\"}");
    refused(made, url, entry, "kerbs", "[{\"part\":\"APEX\",\"how\":\"OPEN\",\"why\":\"\"}]");
    refused(made, url, entry, "apexOff", "1e9");
    refused(made, url, entry, "givenAway", "7");
    ObjectNode nothing = entry.deepCopy();
    nothing.putObject("details").putNull("AIM");
    assertThat(made.person().post(url + "/answer", nothing).status()).isEqualTo(400);
    for (String path : new String[] {"/choices/taken", "/variants/lap"}) {
      assertThat(
              made.person()
                  .post(
                      url + path,
                      "{\"entries\":[null],\"corner\":\"c1\",\"school\":\"TIGHT\",\"variant\":null}")
                  .status())
          .isEqualTo(400);
    }
    ObjectNode unknown = entry.deepCopy();
    unknown.putArray("schools").add("NO_SUCH_SCHOOL");
    assertThat(made.person().post(url + "/answer", unknown).status()).isEqualTo(400);
  }

  private void refused(Made made, String url, JsonNode entry, String field, String value) {
    String body =
        entry
            .toString()
            .replaceFirst(
                "\"" + field + "\":(null|\\{\\}|\\[\\]|0\\.0)", "\"" + field + "\":" + value);
    var answer = made.person().post(url + "/answer", body);
    assertThat(answer.status()).as(field + " " + value).isEqualTo(422);
    assertThat(answer.body().path("where").asText()).as(field).startsWith("T");
  }

  @Test
  void aProposalIsAcceptedIntoTheWorkingCopyAndRevisionsStayTheDrivers() {
    Made made = Made.reference(people);
    String corner = braked(made);
    String url = "/api/references/" + made.reference();
    People.Person coach = people.newcomer();
    String email = coach.get("/api/session").body().path("person").path("email").asText();
    made.person().put(url + "/shares", Map.of("email", email, "role", "COACH"));
    ObjectNode proposed = made.entry(corner).deepCopy();
    double was = station(proposed, "BRAKE");
    for (JsonNode p : proposed.path("points")) {
      if (p.path("kind").asText().equals("BRAKE")) {
        ((ObjectNode) p).put("station", was - 6);
      }
    }
    JsonNode pinned =
        coach
            .post(
                url + "/remarks",
                Map.of(
                    "corner",
                    corner,
                    "kind",
                    "BRAKE",
                    "text",
                    "Sooner, and lighter",
                    "proposed",
                    proposed))
            .body();
    assertThat(pinned.path(0).path("changes").toString()).contains("6 m sooner");
    coach.post(url + "/remarks", Map.of("corner", corner, "text", "And look further ahead"));
    JsonNode seen = made.person().get(url + "/remarks").body();
    assertThat(seen).hasSize(2);
    String first = seen.path(0).path("id").asText();
    String second = seen.path(1).path("id").asText();
    int version = made.open().path("working").path("version").asInt();
    var stale =
        made.person()
            .post(
                url + "/remarks/" + first + "/decision",
                Map.of("accepted", true, "version", version - 1));
    assertThat(stale.status()).isEqualTo(409);
    var accepted =
        made.person()
            .post(
                url + "/remarks/" + first + "/decision",
                Map.of("accepted", true, "version", version));
    assertThat(accepted.status()).isEqualTo(200);
    assertThat(station(made.entry(corner), "BRAKE")).isCloseTo(was - 6, within(0.01));
    made.person()
        .post(
            url + "/remarks/" + second + "/decision",
            Map.of("accepted", false, "version", version));
    assertThat(made.person().get(url + "/remarks").body())
        .extracting(r -> r.path("state").asText())
        .containsExactly("ACCEPTED", "DECLINED");
    assertThat(coach.delete(url + "/remarks/" + first).status()).isEqualTo(422);
    assertThat(made.person().get(url + "/revisions").body()).as("still none").isEmpty();
  }

  @Test
  void aCopyToAnotherVehicleCarriesThePointsAndSaysSo() {
    Made made = Made.reference(people);
    String corner = braked(made);
    String other = Made.vehicle(made.person(), "cup-gt");
    var copied =
        made.person()
            .post(
                "/api/references/" + made.reference() + "/copies",
                Map.of("layoutId", made.layout(), "vehicleId", other));
    assertThat(copied.status()).isEqualTo(200);
    Made copy = new Made(made.person(), made.layout(), other, copied.body().path("made").asText());
    JsonNode entry = copy.entry(corner);
    assertThat(entry.path("points")).allMatch(p -> p.path("sure").asText().equals("CARRIED"));
    assertThat(
            copy.person()
                .get("/api/references/" + copy.reference() + "/overview")
                .body()
                .path("unsure"))
        .isNotEmpty();
    assertThat(copy.open().path("vehicleId").asText()).isEqualTo(other);
    People.Person stranger = people.newcomer();
    assertThat(
            stranger
                .post(
                    "/api/references/" + made.reference() + "/copies",
                    Map.of("layoutId", made.layout(), "vehicleId", other))
                .status())
        .isEqualTo(404);
  }

  @Test
  void theWholeLapIsOrderedAndWarns() {
    Made made = Made.reference(people);
    String url = "/api/references/" + made.reference();
    JsonNode overview = made.person().get(url + "/overview").body();
    assertThat(overview.path("corners")).hasSize(7);
    assertThat(overview.path("worth")).hasSize(7);
    assertThat(overview.path("worth"))
        .extracting(w -> w.path("place").asInt())
        .containsExactly(1, 2, 3, 4, 5, 6, 7);
    JsonNode catalogue = made.person().get("/api/catalogue").body();
    assertThat(catalogue.path("schools").size()).isGreaterThan(18);
    assertThat(catalogue.path("details").size()).isGreaterThan(20);
  }

  @Test
  void namesAreSaidWhereTheDriverPrefersThem() {
    People.Person driver = people.demo("DRIVER");
    String id = driver.get("/api/paddock").body().path("reference").asText();
    JsonNode before = driver.get("/api/session").body().path("person");
    String numbers =
        driver.get("/api/references/{id}", id).body().path("words").path(3).path("full").asText();
    ObjectNode preferences = before.deepCopy();
    preferences.retain("speed", "length", "theme", "corners");
    preferences.put("corners", "NAMES");
    driver.put("/api/session/preferences", preferences);
    String names =
        driver.get("/api/references/{id}", id).body().path("words").path(3).path("full").asText();
    preferences.put("corners", "NUMBERS");
    driver.put("/api/session/preferences", preferences);
    assertThat(numbers).startsWith("4: ");
    assertThat(names).startsWith("Poço: ");
  }

  @Test
  void theDemoHoldsOneLongExamplePerVehicleKind() {
    People.Person driver = people.demo("DRIVER");
    JsonNode kinds = driver.get("/api/catalogue").body();
    java.util.Set<Boolean> seen = new java.util.HashSet<>();
    for (JsonNode reference : driver.get("/api/references").body()) {
      JsonNode view = driver.get("/api/references/{id}", reference.path("id").asText()).body();
      JsonNode content = view.path("working").path("content");
      if (content.path("variants").isEmpty()) {
        continue;
      }
      seen.add(view.path("motorcycle").asBoolean());
      JsonNode longest = null;
      for (JsonNode e : content.path("corners")) {
        longest =
            longest == null || e.path("details").size() > longest.path("details").size()
                ? e
                : longest;
      }
      for (JsonNode d : kinds.path("details")) {
        if (!d.path("motorcycle").asBoolean() || view.path("motorcycle").asBoolean()) {
          assertThat(longest.path("details").path(d.path("detail").asText()).asText())
              .as(view.path("vehicle").asText() + " " + d.path("detail").asText())
              .isNotBlank();
        }
      }
      for (JsonNode k : kinds.path("kinds")) {
        assertThat(longest.path("points"))
            .as(k.path("kind").asText())
            .anyMatch(p -> p.path("kind").asText().equals(k.path("kind").asText()));
      }
      assertThat(longest.path("kerbs")).hasSize(3);
      assertThat(longest.path("schools").size()).isGreaterThanOrEqualTo(5);
      assertThat(longest.path("pedals").isObject()).isTrue();
      if (view.path("motorcycle").asBoolean()) {
        assertThat(longest.path("actions"))
            .anyMatch(
                a -> a.path("stance").asText().equals("BACK") && a.path("amount").asDouble() > 0.9)
            .anyMatch(a -> a.path("target").path("other").asText().equals("apex"));
      }
    }
    assertThat(seen).as("a car and a motorcycle").hasSize(2);
  }
}
