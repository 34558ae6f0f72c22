package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;

/** Runs of wet days are held against wet days, and change those only. */
@ServerTest
class DaysOfRunsTest {
  @Autowired private People people;
  @Autowired private JdbcTemplate jdbc;

  private Made made;

  @BeforeEach
  void draft() {
    made = Made.reference(people);
  }

  private String drive(Map<String, Object> what) {
    Map<String, Object> request =
        new HashMap<>(Map.of("laps", 8, "habits", List.of(), "live", false, "seed", 11));
    request.putAll(what);
    People.Answer taken =
        made.person().post("/api/references/{id}/logger", request, made.reference());
    assertThat(taken.status()).as(taken.text()).isEqualTo(200);
    String run = taken.body().path("run").asText();
    settled(run);
    return run;
  }

  private void settled(String run) {
    await()
        .atMost(Duration.ofSeconds(60))
        .pollInterval(Duration.ofMillis(100))
        .until(
            () -> {
              for (JsonNode r :
                  made.person()
                      .get("/api/references/{id}/runs", made.reference())
                      .body()
                      .path("runs")) {
                if (r.path("id").asText().equals(run)) {
                  return r.path("recordings").path(0).path("state").asText().equals("DONE")
                      && r.path("laps").size() > 0;
                }
              }
              return false;
            });
  }

  private JsonNode debrief(String run) {
    return made.person().get("/api/runs/{id}/debrief", run).body();
  }

  private JsonNode proposals(String run) {
    return made.person().get("/api/runs/{id}/proposals", run).body();
  }

  private static long habits(JsonNode debrief) {
    long sum = 0;
    for (JsonNode c : debrief.path("debrief").path("corners")) {
      sum += c.path("habits").size();
    }
    return sum;
  }

  private JsonNode content() {
    return made.open().path("working").path("content");
  }

  @Test
  void aWetRunWithoutAWetDayIsNotJudgedAndOffersOne() {
    String run = drive(Map.of("day", "WET"));
    JsonNode none = debrief(run);
    assertThat(none.path("day").path("id").isNull()).as(none.path("day").toString()).isTrue();
    assertThat(none.path("day").path("said").asBoolean()).isFalse();
    assertThat(none.path("debrief").path("laps").asInt()).isGreaterThan(4);
    assertThat(none.path("debrief").path("corners")).isEmpty();
    assertThat(proposals(run).path("proposals")).isEmpty();
    assertThat(none.path("day").path("offer").path("kind").asText()).isEqualTo("WET");
    assertThat(none.path("day").path("offer").path("grip").asDouble()).isCloseTo(0.7, within(0.05));
    assertThat(made.person().get("/api/runs/{id}/vehicle-fit", run).status())
        .as("no vehicle is made of the weather")
        .isBetween(400, 422);

    JsonNode before = content();
    JsonNode added = made.person().post("/api/runs/{id}/day", Map.of(), run).body();
    settled(run);
    assertThat(content().path("variants")).hasSize(1);
    assertThat(content().path("corners")).isEqualTo(before.path("corners"));
    JsonNode wet = debrief(run);
    assertThat(wet.path("day").path("id").asText()).isEqualTo(added.path("day").asText());
    assertThat(wet.path("debrief").path("corners").size()).isGreaterThan(2);
    assertThat(habits(wet)).as(wet.path("debrief").toString()).isLessThanOrEqualTo(1);
    assertThat(wet.path("debrief").path("planned").asDouble())
        .as("the computed lap of the wet day")
        .isGreaterThan(1.05 * none.path("debrief").path("planned").asDouble());

    made.person()
        .put("/api/runs/{id}", Map.of("name", "x", "day", "", "revision", 1, "note", ""), run);
    settled(run);
    JsonNode dry = debrief(run);
    assertThat(dry.path("day").path("id").asText()).isEmpty();
    assertThat(dry.path("day").path("said").asBoolean()).as("the driver's word wins").isTrue();
    assertThat(habits(dry)).isGreaterThan(habits(wet));
    assertThat(
            made.person()
                .put(
                    "/api/runs/{id}",
                    Map.of("name", "x", "day", "snow", "revision", 1, "note", ""),
                    run)
                .status())
        .isBetween(400, 422);
  }

  @Test
  void whatAWetRunSpeaksForChangesTheWetDayOnly() {
    // The day is there before the run; the laps tell that it was this one.
    String first = drive(Map.of("day", "WET"));
    String day =
        made.person().post("/api/runs/{id}/day", Map.of(), first).body().path("day").asText();
    made.person()
        .post(
            "/api/references/{id}/revisions",
            Map.of("version", version(), "reason", "wet"),
            made.reference());
    String run = drive(Map.of("day", day, "spread", 4, "seed", 5, "laps", 14));
    JsonNode debrief = debrief(run);
    assertThat(debrief.path("day").path("id").asText()).isEqualTo(day);
    assertThat(debrief.path("day").path("said").asBoolean()).isFalse();
    made.person()
        .put("/api/runs/{id}", Map.of("name", "x", "day", day, "revision", 1, "note", ""), run);
    settled(run);
    JsonNode offered = null;
    for (JsonNode p : proposals(run).path("proposals")) {
      offered = offered == null && p.path("change").asBoolean() ? p : offered;
    }
    assertThat(offered).as("fourteen laps with a spread of 4 m speak for something").isNotNull();
    JsonNode before = content().path("corners");
    People.Answer accepted =
        made.person()
            .post(
                "/api/runs/{id}/accept",
                Map.of(
                    "version",
                    proposals(run).path("version").asInt(),
                    "reason",
                    "wet laps",
                    "moves",
                    List.of(
                        Map.of(
                            "corner",
                            offered.path("corner").asText(),
                            "action",
                            offered.path("action").asText(),
                            "share",
                            offered.path("share").asBoolean(),
                            "to",
                            offered.path("to").asDouble()))),
                run);
    assertThat(accepted.status()).as(accepted.text()).isEqualTo(200);
    assertThat(content().path("corners")).as("the dry reference stays").isEqualTo(before);
    JsonNode byHand = content().path("variants").path(0).path("entries").path(0);
    assertThat(byHand.path("corner")).isEqualTo(offered.path("corner"));
    JsonNode again = debrief(drive(Map.of("day", day, "seed", 6)));
    for (JsonNode e : again.path("driven")) {
      if (e.path("corner").equals(offered.path("corner"))) {
        for (JsonNode p : e.path("points")) {
          if (p.path("kind").equals(offered.path("kind"))) {
            assertThat(p.path("station").asDouble())
                .isCloseTo(offered.path("to").asDouble(), within(0.6));
          }
        }
      }
    }
  }

  @Test
  void aMixedRunKeepsItsDryLapsDryWhenADayIsAddedForTheWetOnes() {
    String run = drive(Map.of());
    drive(Map.of("day", "WET", "run", run, "seed", 12));
    await().atMost(Duration.ofSeconds(60)).until(() -> run(run).path("parts").size() == 2);
    JsonNode none = made.person().get("/api/runs/{id}/debrief?day=none", run).body();
    assertThat(none.path("day").path("id").isNull()).isTrue();
    assertThat(none.path("day").path("offer").path("kind").asText()).isEqualTo("WET");
    String wet =
        made.person().post("/api/runs/{id}/day", Map.of(), run).body().path("day").asText();
    await()
        .atMost(Duration.ofSeconds(60))
        .until(
            () -> {
              JsonNode now = run(run);
              return now.path("recordings").findValuesAsText("state").stream()
                  .allMatch("DONE"::equals);
            });
    assertThat(run(run).path("day").isNull()).as("not all of it was wet").isTrue();
    JsonNode parts = run(run).path("parts");
    assertThat(parts.findValuesAsText("day")).containsExactly("", wet);
    for (JsonNode p : parts) {
      assertThat(p.path("laps").size()).isBetween(5, 8);
    }
  }

  @Test
  void lapsReadByAnEarlierVersionAreReadAgainAndStayTheSameLaps() {
    String run = drive(Map.of());
    JsonNode before = run(run).path("laps");
    jdbc.update("update driven_lap set grip = null, day = null where run_id = ?::uuid", run);
    jdbc.update("update recording set read_by = 0 where run_id = ?::uuid", run);
    await()
        .atMost(Duration.ofSeconds(60))
        .pollInterval(Duration.ofMillis(200))
        .until(() -> run(run).path("parts").path(0).path("grip").isNumber());
    settled(run);
    JsonNode after = run(run).path("laps");
    assertThat(after).hasSameSizeAs(before);
    for (int i = 0; i < after.size(); i++) {
      if (after.path(i).path("number").asInt() > 0) {
        assertThat(after.path(i).path("id")).isEqualTo(before.path(i).path("id"));
      }
    }
    assertThat(run(run).path("parts").path(0).path("day").asText()).isEmpty();
    assertThat(run(run).path("recordings").path(0).path("earlier").asBoolean()).isFalse();
  }

  private JsonNode run(String id) {
    for (JsonNode r :
        made.person().get("/api/references/{id}/runs", made.reference()).body().path("runs")) {
      if (r.path("id").asText().equals(id)) {
        return r;
      }
    }
    throw new AssertionError("no run " + id);
  }

  private int version() {
    return made.open().path("working").path("version").asInt();
  }

  /** The run that a wet session waits for is of the reference's wet day, by whatever name. */
  @Test
  void theRunOfASessionIsOfItsDayAndLapsOfAnotherAreSaidToBe() {
    String day =
        made.person()
            .post("/api/runs/{id}/day", Map.of(), drive(Map.of("day", "WET")))
            .body()
            .path("day")
            .asText();
    String event =
        made.person()
            .post("/api/events", Map.of("name", "Weekend", "zone", "Europe/Lisbon"))
            .body()
            .path("id")
            .asText();
    Map<String, Object> wet =
        Map.of(
            "like",
            "",
            "rubber",
            "USUAL",
            "day",
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
                "",
                "surface",
                Map.of("state", "WET", "dried", 0)));
    Map<String, Object> session =
        Map.of(
            "kind",
            "QUALIFYING",
            "name",
            "Qualifying",
            "timing",
            Map.of(
                "start",
                Map.of("wall", "2026-06-06T14:00:00", "zone", "Europe/Lisbon"),
                "minutes",
                20,
                "later",
                0,
                "state",
                "ON"),
            "day",
            wet);
    String id =
        made.person()
            .post(
                "/api/events/{id}/sessions",
                Map.of("version", 0, "reference", made.reference(), "session", session),
                event)
            .body()
            .path("id")
            .asText();
    String run =
        made.person().post("/api/sessions/{id}/runs", Map.of(), id).body().path("id").asText();
    JsonNode listed = null;
    for (JsonNode r :
        made.person().get("/api/references/{id}/runs", made.reference()).body().path("runs")) {
      listed = r.path("id").asText().equals(run) ? r : listed;
    }
    assertThat(listed).isNotNull();
    assertThat(listed.path("day").asText()).isEqualTo(day);
    drive(Map.of("day", day, "run", run, "seed", 21));
    assertThat(otherwise(id)).isBlank();
    // Dry laps brought into it are not held against the wet plan without a word.
    String second =
        made.person().post("/api/sessions/{id}/runs", Map.of(), id).body().path("id").asText();
    made.person()
        .put("/api/runs/{id}", Map.of("name", "x", "day", "", "revision", 0, "note", ""), second);
    drive(Map.of("day", "", "run", second, "seed", 22));
    Map<String, Object> nowhere = new HashMap<>();
    nowhere.put("session", null);
    made.person().put("/api/runs/{id}/session", nowhere, run);
    assertThat(otherwise(id)).contains("The laps are of a day with 100 %", "planned for was 70 %");
  }

  private String otherwise(String session) {
    return made.person().get("/api/sessions/{id}/felt", session).body().path("otherwise").asText();
  }
}
