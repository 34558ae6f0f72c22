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

/** The driver's own pace over HTTP: tried, taken, computed anew, undone, in files and for laps. */
@ServerTest
class OwnPaceTest {
  @Autowired private People people;
  @Autowired private ObjectMapper json;

  private Made mine;

  @BeforeEach
  void draft() {
    mine = Made.reference(people);
  }

  private JsonNode tier(double off, boolean careful) {
    return mine.person()
        .post(
            "/api/references/{id}/pace/tier",
            Map.of("off", off, "margin", 0.3, "careful", careful),
            mine.reference())
        .body();
  }

  private People.Answer tried(Object pace) {
    ObjectNode body = json.createObjectNode();
    body.set("pace", json.valueToTree(pace));
    return mine.person().post("/api/references/{id}/pace/tried", body, mine.reference());
  }

  private static Map<String, Object> pace(double share, double margin, Object... corners) {
    return Map.of(
        "driving",
        Map.of("braking", share, "turning", share, "traction", share, "margin", margin),
        "corners",
        List.of(corners));
  }

  /** Puts a pace into the working copy. */
  private void work(JsonNode pace) {
    JsonNode open = mine.open();
    ObjectNode content = open.path("working").path("content").deepCopy();
    content.set("pace", pace);
    ObjectNode body = json.createObjectNode();
    body.set("version", open.path("working").path("version"));
    body.set("content", content);
    assertThat(mine.person().put("/api/references/{id}/working", body, mine.reference()).status())
        .isEqualTo(200);
  }

  private double brakes(String corner) {
    for (JsonNode p : mine.entry(corner).path("points")) {
      if (p.path("kind").asText().equals("BRAKE")) {
        return p.path("station").asDouble();
      }
    }
    throw new AssertionError("no braking in " + corner);
  }

  @Test
  void aTierIsTriedTakenComputedAnewAndUndone() {
    double full = mine.lap();
    double marker = brakes("c1");
    JsonNode tier = tier(0.045, false);
    assertThat(tier.path("lapTime").asDouble() / tier.path("best").asDouble())
        .isCloseTo(1.045, within(1e-4));
    assertThat(tier.path("best").asDouble()).isCloseTo(full, within(1e-6));
    double lost = 0;
    double next = 0;
    for (JsonNode c : tier.path("corners")) {
      lost += c.path("seconds").asDouble();
      next += c.path("next").asDouble();
      assertThat(c.path("slowest").asDouble()).isLessThanOrEqualTo(c.path("best").asDouble() + 0.1);
    }
    assertThat(lost).isCloseTo(0.045 * full, within(0.01));
    assertThat(next).as("to the tier above, 2 %").isCloseTo(0.025 * full, within(0.02 * full));
    assertThat(mine.lap()).as("nothing is stored").isEqualTo(full);

    work(tier.path("pace"));
    assertThat(mine.open().path("vehicleChanged").asBoolean()).as("it says so").isTrue();
    assertThat(mine.lap()).as("numbers stay until asked").isEqualTo(full);
    assertThat(mine.computedAnew().status()).isEqualTo(200);
    assertThat(mine.open().path("vehicleChanged").asBoolean()).isFalse();
    assertThat(mine.lap()).isBetween(1.03 * full, 1.046 * full);
    assertThat(brakes("c1")).as("brakes earlier").isLessThan(marker - 2);
    int version = mine.open().path("working").path("version").asInt();
    People.Answer undone =
        mine.person()
            .post(
                "/api/references/{id}/recomputation/undone",
                Map.of("version", version),
                mine.reference());
    assertThat(undone.status()).as(undone.toString()).isEqualTo(200);
    assertThat(mine.lap()).isEqualTo(full);
    assertThat(brakes("c1")).isEqualTo(marker);
  }

  @Test
  void daysAndCopiesAndFilesKeepThePace() {
    double full = mine.lap();
    work(tier(0.07, false).path("pace"));
    assertThat(mine.computedAnew().status()).isEqualTo(200);
    double own = mine.lap();
    assertThat(own).isGreaterThan(1.05 * full);
    ObjectNode day = json.createObjectNode();
    day.put("grip", 1).put("extraMass", 0).put("windSpeed", 0).put("windFrom", 0);
    day.put("drag", 1).put("downforce", 1).putNull("airTemperature").put("hour", "");
    ObjectNode variant =
        json.createObjectNode().put("id", "d").put("kind", "FULL_TANK").put("name", "");
    variant.set("day", day);
    variant.putArray("entries");
    double same =
        mine.person()
            .post(
                "/api/references/{id}/variants/lap",
                Map.of("variant", variant, "entries", mine.open().at("/working/content/corners")),
                mine.reference())
            .body()
            .path("lapTime")
            .asDouble();
    assertThat(same).as("a day like the base").isCloseTo(own, within(1e-6));

    JsonNode copied =
        mine.person()
            .post(
                "/api/references/{id}/copies",
                Map.of("layoutId", mine.layout(), "vehicleId", mine.vehicle()),
                mine.reference())
            .body();
    while (copied.path("state").asText().matches("WAITING|WORKING")) {
      copied = mine.person().get("/api/jobs/{id}", copied.path("id").asText()).body();
    }
    Made copy =
        new Made(mine.person(), mine.layout(), mine.vehicle(), copied.path("made").asText());
    assertThat(copy.open().at("/working/content/pace"))
        .isEqualTo(mine.open().at("/working/content/pace"));
    assertThat(copy.open().path("vehicleChanged").asBoolean()).isFalse();
    String file =
        mine.person().get("/api/references/{id}/export.json", mine.reference()).body().toString();
    assertThat(file).contains("\"pace\"").contains("\"turning\"");
  }

  @Test
  void aPaceThatCannotBeIsRefusedByName() {
    for (Object bad :
        List.of(
            pace(1.2, 0.15),
            pace(0.1, 0.15),
            pace(0.9, 9),
            pace(0.9, 0.15, Map.of("corner", "c99", "factor", 1, "why", "BY_HAND")),
            pace(0.9, 0.15, Map.of("corner", "c1", "factor", 7, "why", "BY_HAND")))) {
      assertThat(tried(bad).status()).as(bad.toString()).isIn(400, 422);
    }
    JsonNode one =
        tried(pace(0.9, 0.15, Map.of("corner", "c1", "factor", 0.9, "why", "BY_HAND"))).body();
    assertThat(one.at("/corners/0/factor").asDouble()).isEqualTo(0.9);
    JsonNode all = tried(pace(0.9, 0.15)).body();
    assertThat(one.at("/corners/0/seconds").asDouble())
        .isGreaterThan(all.at("/corners/0/seconds").asDouble());
    JsonNode none = tried(null).body();
    assertThat(none.path("lapTime").asDouble()).isEqualTo(none.path("best").asDouble());
    assertThat(none.path("pace").isNull()).isTrue();
  }

  @Test
  void cornersThatAskForCareStaySlowerAndSayWhy() {
    JsonNode free = tier(0.045, false);
    JsonNode careful = tier(0.045, true);
    assertThat(careful.path("lapTime").asDouble())
        .isCloseTo(free.path("lapTime").asDouble(), within(0.02));
    int hard = 0;
    for (JsonNode c : careful.path("corners")) {
      boolean asks = c.path("hard").asBoolean();
      assertThat(c.path("factor").asDouble()).isEqualTo(asks ? 0.97 : 1.0);
      hard += asks ? 1 : 0;
      assertThat(asks && c.path("warnings").isEmpty()).as("says why").isFalse();
    }
    assertThat(careful.at("/pace/corners")).hasSize(hard);
  }

  /** The simulated driver drives the reference's pace; a run tells it. */
  @Test
  void aRunTellsThePaceAndIsReadAnewWhenItIsTaken() {
    work(tier(0.07, false).path("pace"));
    assertThat(mine.computedAnew().status()).isEqualTo(200);
    double asked = mine.open().at("/working/content/pace/driving/turning").asDouble();
    String run = drive();
    JsonNode told = mine.person().get("/api/runs/{id}/pace", run).body();
    assertThat(told.path("turning").asDouble()).isCloseTo(asked, within(0.05));
    assertThat(told.path("corners").size()).isGreaterThan(1);
    assertThat(day(run))
        .as(
            mine.person()
                .get("/api/references/{id}/runs", mine.reference())
                .body()
                .at("/runs/0/parts")
                .toString())
        .isEqualTo("");
    // At all of the grip the same laps use less of it than the computed lap does.
    work(json.nullNode());
    assertThat(mine.computedAnew().status()).isEqualTo(200);
    settle(run);
    JsonNode again = mine.person().get("/api/runs/{id}/pace", run).body();
    if (again.has("turning")) {
      assertThat(again.path("turning").asDouble()).isCloseTo(asked, within(0.06));
    }
    assertThat(day(run)).as("laps were told anew").isNotEqualTo("");
  }

  private String day(String run) {
    for (JsonNode r :
        mine.person().get("/api/references/{id}/runs", mine.reference()).body().path("runs")) {
      if (r.path("id").asText().equals(run)) {
        JsonNode part = r.path("parts").path(0);
        return part.path("day").isTextual() ? part.path("day").asText() : "none";
      }
    }
    throw new AssertionError("no such run");
  }

  private String drive() {
    JsonNode job =
        mine.person()
            .post(
                "/api/references/{id}/logger",
                Map.of("laps", 4, "habits", List.of(), "live", false, "seed", 5),
                mine.reference())
            .body();
    while (job.path("state").asText().matches("WAITING|WORKING")) {
      job = mine.person().get("/api/jobs/{id}", job.path("id").asText()).body();
    }
    String run =
        mine.person()
            .get("/api/references/{id}/runs", mine.reference())
            .body()
            .at("/runs/0/id")
            .asText();
    settle(run);
    return run;
  }

  private void settle(String run) {
    for (int t = 0; t < 300; t++) {
      String all =
          mine.person().get("/api/references/{id}/runs", mine.reference()).body().toString();
      if (!all.matches(".*\"state\":\"(STORED|WORKING)\".*")) {
        return;
      }
      try {
        Thread.sleep(100);
      } catch (InterruptedException e) {
        throw new AssertionError(e);
      }
    }
  }
}
