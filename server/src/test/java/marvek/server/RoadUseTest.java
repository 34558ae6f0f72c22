package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** Edges opened and places passed over HTTP: looked at, laid anew, taken, undone, in files. */
@ServerTest
class RoadUseTest {
  @Autowired private People people;
  @Autowired private ObjectMapper json;

  private Made mine;
  private JsonNode corner;

  @BeforeEach
  void draft() {
    mine = Made.reference(people);
    corner = mine.open().path("corners").path(0);
  }

  private double apex() {
    JsonNode apexes = corner.path("apexes");
    return apexes.path(apexes.size() - 1).asDouble();
  }

  private ObjectNode kerb(String id, String verdict) {
    return json.createObjectNode()
        .put("id", id)
        .put("left", corner.path("left").asBoolean())
        .put("from", apex() - 15)
        .put("to", apex() + 15)
        .put("corner", corner.path("id").asText())
        .put("part", "APEX")
        .put("profile", "FLAT")
        .put("width", 1)
        .put("height", 0.02)
        .put("behind", "TARMAC")
        .put("slippery", true)
        .put("verdict", verdict)
        .put("note", "")
        .put("photo", "");
  }

  private ObjectNode ground(Object amount, Object beyond) {
    ObjectNode zone =
        json.createObjectNode()
            .put("id", "run-off")
            .put("kind", "BEYOND")
            .put("side", corner.path("left").asBoolean() ? "RIGHT" : "LEFT")
            .put("from", apex() + 5)
            .put("to", corner.path("exit").asDouble() + 40)
            .put("severity", 2)
            .put("note", "")
            .put("photo", "");
    zone.set("amount", json.valueToTree(amount));
    zone.set("beyond", json.valueToTree(beyond));
    return zone;
  }

  private JsonNode use() {
    return mine.person().get("/api/references/{id}/use", mine.reference()).body();
  }

  private JsonNode edge(String id) {
    for (JsonNode e : use().path("edges")) {
      if (e.path("id").asText().equals(id)) {
        return e;
      }
    }
    throw new AssertionError("no edge " + id);
  }

  private static Map<String, Object> opening(String... ids) {
    return Map.of("use", Map.of("opened", List.of(ids), "gates", List.of()));
  }

  private People.Answer tried(Object wish) {
    return mine.person().post("/api/references/{id}/laid-anew", wish, mine.reference());
  }

  private People.Answer taken(Object wish) {
    int version = mine.open().path("working").path("version").asInt();
    return mine.person()
        .post(
            "/api/references/{id}/laid-anew/taken",
            Map.of("version", version, "wish", wish),
            mine.reference());
  }

  @Test
  void aKerbIsLookedAtOpenedTakenAndUndone() {
    assertThat(use().path("edges")).isEmpty();
    mine.survey("kerbs", kerb("inner", "OPEN"));
    JsonNode edge = edge("inner");
    assertThat(edge.path("opened").asBoolean()).isFalse();
    assertThat(edge.path("never").isNull()).isTrue();
    assertThat(edge.path("corner")).isEqualTo(corner.path("id"));
    assertThat(edge.path("risks").toString()).contains("slippery in the wet");
    double before = mine.lap();
    JsonNode content = mine.open().path("working").path("content");
    JsonNode worth =
        mine.person()
            .post("/api/references/{id}/use/worth", Map.of("edge", "inner"), mine.reference())
            .body();
    assertThat(worth.path("seconds").asDouble()).isBetween(0.001, 1.0);
    JsonNode laid = tried(opening("inner")).body();
    assertThat(laid.path("lapBefore").asDouble()).isCloseTo(before, within(1e-9));
    assertThat(laid.path("lapAfter").asDouble()).isLessThan(before);
    assertThat(laid.path("before")).hasSameSizeAs(laid.path("after"));
    assertThat(mine.lap()).as("nothing is stored").isEqualTo(before);
    assertThat(edge("inner").path("opened").asBoolean()).isFalse();

    assertThat(taken(opening("inner")).status()).isEqualTo(200);
    assertThat(mine.lap()).isCloseTo(laid.path("lapAfter").asDouble(), within(1e-6));
    JsonNode open = mine.open();
    assertThat(open.path("laidInPart").asBoolean()).isTrue();
    assertThat(open.path("vehicleChanged").asBoolean()).isFalse();
    assertThat(open.path("recomputed").asBoolean()).isTrue();
    assertThat(open.path("working").path("content").path("use").path("opened").path(0).asText())
        .isEqualTo("inner");
    assertThat(edge("inner").path("opened").asBoolean()).isTrue();
    assertThat(tried(opening("inner")).status()).as("already laid").isEqualTo(422);

    int version = open.path("working").path("version").asInt();
    assertThat(
            mine.person()
                .post(
                    "/api/references/{id}/recomputation/undone",
                    Map.of("version", version),
                    mine.reference())
                .status())
        .isEqualTo(200);
    assertThat(mine.lap()).isCloseTo(before, within(1e-9));
    assertThat(mine.open().path("working").path("content")).isEqualTo(content);
    assertThat(mine.open().path("laidInPart").asBoolean()).isFalse();
  }

  @Test
  void computedAnewTheWholeLapKeepsWhatIsOpened() {
    mine.survey("kerbs", kerb("inner", "OPEN"));
    taken(opening("inner"));
    double part = mine.lap();
    assertThat(mine.computedAnew().status()).isEqualTo(200);
    assertThat(mine.open().path("laidInPart").asBoolean()).isFalse();
    assertThat(edge("inner").path("opened").asBoolean()).isTrue();
    assertThat(mine.lap()).isLessThan(part * 1.0006);
  }

  @Test
  void whatMustNotBeUsedSaysWhyAndIsRefused() {
    mine.survey("kerbs", kerb("off", "KEEP_OFF"));
    mine.survey("zones", ground(3, null));
    assertThat(edge("off").path("never").asText()).contains("keep off");
    assertThat(edge("run-off").path("never").asText()).contains("width, grip and lip");
    for (String id : List.of("off", "run-off", "nowhere")) {
      People.Answer refused = tried(opening(id));
      assertThat(refused.status()).as(id).isEqualTo(422);
      assertThat(refused.body().path("remedy").asText()).contains("survey");
      assertThat(taken(opening(id)).status()).isEqualTo(422);
    }
    assertThat(
            mine.person()
                .post("/api/references/{id}/use/worth", Map.of("edge", "off"), mine.reference())
                .status())
        .isEqualTo(422);
    mine.survey("zones", ground(3, Map.of("grip", 0.9, "lip", 0.01)));
    assertThat(edge("run-off").path("never").isNull()).isTrue();
    assertThat(tried(opening("run-off")).body().path("lapAfter").asDouble()).isPositive();
  }

  @Test
  void theSurveyRefusesGroundThatCannotBe() {
    assertThat(mine.survey("zones", ground(99, null)).body().path("where").asText())
        .contains("amount");
    assertThat(mine.survey("zones", ground(3, Map.of("grip", 5))).body().path("where").asText())
        .contains("grip");
    assertThat(mine.survey("zones", ground(3, Map.of("lip", 3))).body().path("where").asText())
        .contains("lip");
    assertThat(
            mine.survey("zones", ground(3, null).put("side", "BOTH")).body().path("where").asText())
        .contains("side");
    assertThat(
            mine.survey("zones", ground(0.8, Map.of("grip", 0.9)).put("kind", "BUMP"))
                .body()
                .path("where")
                .asText())
        .contains("beyond");
  }

  @Test
  void aDraggedApexIsLaidThroughAndGoesIntoFilesAndOutOfThem() {
    ObjectNode entry = mine.entry(corner.path("id").asText()).deepCopy();
    double to = 0;
    for (JsonNode p : entry.path("points")) {
      if (p.path("kind").asText().equals("APEX")) {
        to = p.path("station").asDouble() + 5;
        ((ObjectNode) p).put("station", to);
      }
    }
    Map<String, Object> wish = Map.of("entry", entry);
    JsonNode laid = tried(wish).body();
    JsonNode gate = laid.path("use").path("gates").path(0);
    assertThat(gate.path("station").asDouble()).isCloseTo(to, within(1e-9));
    assertThat(taken(wish).status()).isEqualTo(200);
    JsonNode stored = mine.entry(corner.path("id").asText());
    for (JsonNode p : stored.path("points")) {
      if (p.path("kind").asText().equals("APEX")) {
        assertThat(p.path("station").asDouble()).isCloseTo(to, within(1e-9));
      }
    }
    assertThat(use().path("gates").path(0).path("missing").asDouble()).isZero();
    People.Answer file = mine.person().get("/api/references/{id}/export.json", mine.reference());
    assertThat(file.body().path("content").path("use").path("gates").path(0)).isEqualTo(gate);
    JsonNode read =
        mine.person()
            .upload(
                "/api/references/" + mine.reference() + "/read",
                "mine.json",
                file.body().toString().getBytes(java.nio.charset.StandardCharsets.UTF_8))
            .body();
    assertThat(read.path("use").path("gates").path(0)).isEqualTo(gate);
  }

  @Test
  void gatesThatCannotBeAreRefusedInWords() {
    Map<String, Object> gate =
        Map.of("id", "g", "station", 99_999, "left", true, "metres", 1, "tolerance", 0.2);
    People.Answer off = tried(Map.of("use", Map.of("opened", List.of(), "gates", List.of(gate))));
    assertThat(off.status()).isEqualTo(422);
    assertThat(off.body().path("where").asText()).contains("gate");
    Map<String, Object> good =
        Map.of("id", "g", "station", 100, "left", true, "metres", 1, "tolerance", 0.2);
    assertThat(
            tried(Map.of("use", Map.of("opened", List.of(), "gates", List.of(good, good))))
                .status())
        .isEqualTo(422);
    People.Answer passed =
        tried(Map.of("use", Map.of("opened", List.of(), "gates", List.of(good))));
    assertThat(passed.status()).as(passed.body().toString()).isEqualTo(200);
    People.Answer late =
        mine.person()
            .post(
                "/api/references/{id}/laid-anew/taken",
                Map.of(
                    "version",
                    99,
                    "wish",
                    Map.of("use", Map.of("opened", List.of(), "gates", List.of(good)))),
                mine.reference());
    assertThat(late.status()).isEqualTo(409);
  }

  /** A day passes its own places: told, on a line of its own, refused where it makes no sense. */
  @Test
  void aDayPassesItsOwnPlaces() {
    JsonNode plain = onDay(json.createObjectNode()).body();
    assertThat(plain.path("ownLine").asBoolean()).isFalse();
    ObjectNode others = json.createObjectNode();
    ObjectNode gate = others.putArray("gates").addObject();
    gate.put("id", "mine").put("station", apex()).put("left", corner.path("left").asBoolean());
    gate.put("metres", 3).put("tolerance", 0.3).put("over", 20);
    People.Answer passing = onDay(others);
    assertThat(passing.status()).isEqualTo(200);
    JsonNode day = passing.body();
    assertThat(day.path("ownLine").asBoolean()).isTrue();
    assertThat(day.path("lapTime").asDouble()).isGreaterThan(plain.path("lapTime").asDouble());
    assertThat(day.path("adjusted").path("changes").toString())
        .contains("it passes 3.0 m from the");
    assertThat(day.path("variant").path("day").path("gates").path("gates").path(0).path("over"))
        .isEqualTo(json.getNodeFactory().numberNode(20.0));

    gate.put("over", -1);
    assertThat(onDay(others).status()).isEqualTo(422);
    gate.put("over", 0).put("station", 1e7);
    assertThat(onDay(others).status()).isEqualTo(422);
    gate.put("station", apex()).put("metres", 900);
    People.Answer far = onDay(others);
    assertThat(far.status()).isEqualTo(422);
    assertThat(far.body().toString()).contains("edge");
  }

  private People.Answer onDay(ObjectNode gates) {
    ObjectNode day = json.createObjectNode();
    day.put("grip", 1).put("extraMass", 0).put("windSpeed", 0).put("windFrom", 0);
    day.put("drag", 0.75).put("downforce", 0.85).put("hour", "");
    if (!gates.isEmpty()) {
      day.set("gates", gates);
    }
    ObjectNode variant = json.createObjectNode().put("id", "v").put("kind", "TOW").put("name", "");
    variant.set("day", day);
    variant.putArray("entries");
    JsonNode entry = mine.open().path("working").path("content").path("corners").path(0);
    return mine.person()
        .post(
            "/api/references/{id}/variants/answer",
            Map.of("variant", variant, "entry", entry),
            mine.reference());
  }
}
