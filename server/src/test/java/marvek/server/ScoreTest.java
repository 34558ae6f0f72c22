package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** Actions written, answered, found by cues, kept and refused over HTTP. */
@ServerTest
class ScoreTest {
  @Autowired private People people;
  @Autowired private ObjectMapper json;

  private Made mine;
  private ObjectNode entry;
  private double turnIn;

  @BeforeEach
  void draft() {
    mine = Made.reference(people);
    for (JsonNode e : content().path("corners")) {
      if (e.path("slowing").asText().equals("BRAKE") && entry == null) {
        entry = e.deepCopy();
      }
    }
    for (JsonNode p : entry.path("points")) {
      if (p.path("kind").asText().equals("TURN_IN")) {
        turnIn = p.path("station").asDouble();
      }
    }
  }

  private JsonNode content() {
    return mine.open().path("working").path("content");
  }

  private ObjectNode action(String id, String kind, double station) {
    return json.createObjectNode()
        .put("id", id)
        .put("kind", kind)
        .put("station", station)
        .put("left", false)
        .put("note", "");
  }

  private ObjectNode with(ObjectNode... actions) {
    ObjectNode out = entry.deepCopy();
    ArrayNode all = out.putArray("actions");
    for (ObjectNode a : actions) {
      all.add(a);
    }
    return out;
  }

  private People.Answer answered(ObjectNode corner) {
    return mine.person().post("/api/references/{id}/answer", corner, mine.reference());
  }

  private JsonNode played(JsonNode answer, String id) {
    for (JsonNode s : answer.path("answer").path("score")) {
      if (s.path("action").path("id").asText().equals(id)) {
        return s;
      }
    }
    throw new AssertionError("no action " + id + " in " + answer.path("answer").path("score"));
  }

  @Test
  void aLiftBeforeTheBrakingSlowsAndCostsWhatItSays() {
    JsonNode plain = answered(entry).body();
    double marker = played(plain, "brake").path("action").path("station").asDouble();
    ObjectNode lift =
        action("l1", "LIFT", marker - 60).put("amount", 0.4).put("until", marker - 30);
    JsonNode lifted = answered(with(lift)).body();
    assertThat(played(lifted, "l1").path("amount").asDouble()).isEqualTo(0.4);
    double arrives = played(lifted, "brake").path("speed").asDouble();
    assertThat(arrives).isLessThan(played(plain, "brake").path("speed").asDouble() - 0.3);
    JsonNode costs =
        mine.person()
            .post(
                "/api/references/{id}/score/costs",
                Map.of("entry", with(lift), "action", "brake", "driven", List.of()),
                mine.reference())
            .body();
    assertThat(costs.path("curve").path("seconds").size())
        .isEqualTo(costs.path("curve").path("metres").size());
    // The marker's press is left open: nothing to ask for more of. The lift keeps 40 %.
    assertThat(costs.path("amounts").isNull()).isTrue();
    JsonNode ofLift =
        mine.person()
            .post(
                "/api/references/{id}/score/costs",
                Map.of("entry", with(lift), "action", "l1", "driven", List.of()),
                mine.reference())
            .body()
            .path("amounts");
    assertThat(ofLift.path("written").asDouble()).isEqualTo(0.4);
    assertThat(ofLift.path("seconds").size()).isEqualTo(9);
    assertThat(ofLift.path("seconds").get(0).asDouble()).as("20 %").isPositive();
    assertThat(ofLift.path("seconds").get(8).asDouble()).as("60 %").isNegative();
    assertThat(costs.path("dearest").size()).isBetween(1, 3);
    assertThat(costs.path("dearest").get(0).path("look").asText()).isNotBlank();
    double without = 0;
    for (JsonNode w : costs.path("costs")) {
      if (w.path("action").asText().equals("l1") && w.path("change").asText().equals("WITHOUT")) {
        without = w.path("seconds").asDouble();
      }
    }
    assertThat(without).isLessThan(-0.005);
    assertThat(costs.path("unwise").toString())
        .contains("SHIFT")
        .contains("the tyres turn with more than 60 % here");
  }

  @Test
  void aCueOfTheSurveyCarriesItsActionWhenTheThingIsMoved() {
    wall(turnIn - 40);
    ObjectNode off = action("e1", "EASE", turnIn - 10).put("amount", 0.3);
    JsonNode offers =
        mine.person()
            .post(
                "/api/references/{id}/score/cues",
                Map.of("entry", with(off), "action", "e1"),
                mine.reference())
            .body();
    JsonNode half = null;
    for (JsonNode o : offers) {
      half = o.path("cue").path("kind").asText().equals("SHARE") ? o : half;
    }
    assertThat(half).as("half-way along the wall: %s", offers).isNotNull();
    assertThat(half.path("cue").path("number").asDouble()).isCloseTo(0.5, within(0.01));
    assertThat(half.path("words").toString()).contains("half-way along the long wall");
    off.set("cue", half.path("cue"));
    JsonNode was = answered(with(off)).body();
    assertThat(played(was, "e1").path("action").path("station").asDouble())
        .isCloseTo(turnIn - 10, within(0.5));
    assertThat(played(was, "e1").path("line").toString()).contains("ease the brake to 30 %");

    int version = mine.open().path("working").path("version").asInt();
    ObjectNode changed = content().deepCopy();
    ArrayNode corners = (ArrayNode) changed.path("corners");
    for (int i = 0; i < corners.size(); i++) {
      if (corners.get(i).path("corner").equals(entry.path("corner"))) {
        corners.set(i, was.path("entry"));
      }
    }
    assertThat(
            mine.person()
                .put(
                    "/api/references/{id}/working",
                    Map.of("version", version, "content", changed),
                    mine.reference())
                .status())
        .isEqualTo(200);
    wall(turnIn - 30);
    JsonNode kept = null;
    for (JsonNode e : content().path("corners")) {
      kept = e.path("corner").equals(entry.path("corner")) ? e : kept;
    }
    assertThat(kept.path("actions")).hasSize(1);
    JsonNode now = answered((ObjectNode) kept).body();
    assertThat(played(now, "e1").path("action").path("station").asDouble())
        .as("it goes with the wall")
        .isCloseTo(turnIn, within(0.5));
  }

  @Test
  void anEffortThatIsSetIsTheFirstEffortEverywhere() {
    ObjectNode pressed = entry.deepCopy();
    for (JsonNode p : pressed.path("points")) {
      if (p.path("kind").asText().equals("BRAKE")) {
        ((ObjectNode) p)
            .set("play", action("brake", "BRAKE", p.path("station").asDouble()).put("amount", 0.6));
      }
    }
    JsonNode answer = answered(pressed).body();
    assertThat(answer.path("entry").path("firstEffort").asDouble()).isEqualTo(0.6);
    assertThat(answer.path("words").path("line").asText()).contains("(60 %)");
    assertThat(played(answer, "brake").path("amount").asDouble()).isEqualTo(0.6);
    assertThat(played(answer, "brake").path("solved").asBoolean()).isFalse();
  }

  @Test
  void aWayThatMovesAMarkerFoundByACueMovesIt() {
    wall(turnIn - 60);
    ObjectNode cued = entry.deepCopy();
    for (JsonNode p : cued.path("points")) {
      if (p.path("kind").asText().equals("BRAKE")) {
        double at = p.path("station").asDouble();
        ObjectNode brake = action("brake", "BRAKE", at);
        brake.set(
            "cue",
            json.createObjectNode()
                .put("kind", "PAST")
                .put("thing", "wall")
                .put("spoken", "the long wall")
                .put("number", at - (turnIn - 60)));
        ((ObjectNode) p).set("play", brake);
      }
    }
    double before = station(cued, "BRAKE");
    ArrayNode entries = json.createArrayNode();
    for (JsonNode e : content().path("corners")) {
      entries.add(e.path("corner").equals(cued.path("corner")) ? cued : e);
    }
    double moved = 0;
    JsonNode arising =
        mine.person()
            .post("/api/references/{id}/choices/arising", Map.of("entry", cued), mine.reference())
            .body();
    for (JsonNode catalogued : mine.person().get("/api/catalogue").body().path("schools")) {
      boolean arises = false;
      for (JsonNode q : arising) {
        arises |= q.equals(catalogued.path("question"));
      }
      if (!arises) {
        continue;
      }
      People.Answer taken =
          mine.person()
              .post(
                  "/api/references/{id}/choices/taken",
                  Map.of(
                      "entries",
                      entries,
                      "corner",
                      cued.path("corner").asText(),
                      "school",
                      catalogued.path("school").asText()),
                  mine.reference());
      if (taken.status() != 200) {
        continue;
      }
      for (JsonNode e : taken.body()) {
        if (e.path("corner").equals(cued.path("corner"))) {
          double by = station(e, "BRAKE") - before;
          moved = Math.max(moved, Math.abs(by));
          JsonNode cue = point(e, "BRAKE").path("play").path("cue");
          if (cue.path("kind").asText().equals("PAST")) {
            assertThat(cue.path("number").asDouble())
                .isCloseTo(station(e, "BRAKE") - (turnIn - 60), within(0.05));
          }
        }
      }
    }
    assertThat(moved).as("some way moves the marker").isGreaterThan(1);
  }

  private static JsonNode point(JsonNode corner, String kind) {
    for (JsonNode p : corner.path("points")) {
      if (p.path("kind").asText().equals(kind)) {
        return p;
      }
    }
    throw new AssertionError("no " + kind);
  }

  private static double station(JsonNode corner, String kind) {
    return point(corner, kind).path("station").asDouble();
  }

  @Test
  void whatCannotBeIsRefusedWithItsPlace() {
    refused(with(action("x", "LIFT", turnIn).put("amount", 0.99)), "share");
    refused(with(action("x", "SHIFT", turnIn)), "no gear");
    refused(with(action("x", "BRAKE", -5)), "station");
    refused(with(action("x", "FULL", turnIn), action("x", "FULL", turnIn)), "twice");
    refused(with(action("brake", "BRAKE", turnIn)), "points that every corner has");
    refused(with(action("x", "BRAKE", turnIn).put("manner", "EVENLY")), "manner");
    ObjectNode cue = action("x", "BRAKE", turnIn);
    cue.set(
        "cue", json.createObjectNode().put("kind", "SHARE").put("thing", "t").put("number", 1.4));
    refused(with(cue), "share of the cue");
    ObjectNode none = action("x", "BRAKE", turnIn);
    none.set("cue", json.createObjectNode().put("kind", "PAST").put("number", 4));
    refused(with(none), "names no thing");
    People.Answer cues =
        mine.person()
            .post(
                "/api/references/{id}/score/cues",
                Map.of("entry", entry, "action", "none"),
                mine.reference());
    assertThat(cues.status()).isEqualTo(422);
  }

  private void wall(double station) {
    ObjectNode wall =
        json.createObjectNode()
            .put("id", "wall")
            .put("kind", "WALL")
            .put("label", "long wall")
            .put("station", station)
            .put("left", true)
            .put("corner", "")
            .put("out", 4)
            .put("height", 1)
            .put("permanence", "FIXED")
            .put("readable", true)
            .put("note", "")
            .put("photo", "")
            .put("length", 60);
    assertThat(mine.survey("landmarks", wall).status()).isEqualTo(200);
  }

  private void refused(ObjectNode corner, String about) {
    People.Answer answer = answered(corner);
    assertThat(answer.status()).as("%s", corner.path("actions")).isEqualTo(422);
    assertThat(answer.body().toString()).contains(about).contains("T");
  }
}
