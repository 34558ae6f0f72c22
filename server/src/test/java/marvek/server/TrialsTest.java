package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.UUID;
import marvek.server.debrief.DrivenOtherwise;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;

/** Trials over HTTP: two real ways, from the plan to what is taken. */
@ServerTest
class TrialsTest {
  @Autowired private People people;
  @Autowired private JdbcTemplate jdbc;
  @Autowired private DrivenOtherwise otherwise;
  private Made made;
  private String session = "";
  private String corner = "";

  @BeforeEach
  void planned() {
    made = Made.reference(people);
    session = made.session();
    corner = "";
    for (JsonNode c : made.open().path("corners")) {
      String id = c.path("id").asText();
      if (corner.isEmpty() && made.tryable(session, id).size() > 1) {
        corner = id;
      }
    }
    assertThat(corner).isNotEmpty();
  }

  private People.Answer plan(String of, String source, String key) {
    return made.person()
        .post(
            "/api/sessions/{id}/trials",
            Map.of("corner", of, "source", source, "key", key),
            session);
  }

  private JsonNode only() {
    JsonNode all = made.person().get("/api/sessions/{id}/trials", session).body();
    assertThat(all.size()).isEqualTo(1);
    return all.path(0);
  }

  private String drive(int laps, long seed) {
    JsonNode taken =
        made.person()
            .post(
                "/api/references/{id}/logger",
                Map.of(
                    "laps", laps, "habits", List.of(), "live", false, "seed", seed, "spread", 1.0),
                made.reference())
            .body();
    await()
        .atMost(Duration.ofSeconds(60))
        .until(() -> recordings(taken.path("run").asText()).contains("DONE"));
    return taken.path("run").asText();
  }

  private List<String> recordings(String run) {
    List<String> out = new ArrayList<>();
    for (JsonNode r :
        made.person().get("/api/references/{id}/runs", made.reference()).body().path("runs")) {
      if (r.path("id").asText().equals(run)) {
        out.addAll(r.path("recordings").findValuesAsText("state"));
      }
    }
    return out;
  }

  @Test
  void whatIsOfferedIsReckonedAndSaysHowManyLapsItTakes() {
    JsonNode offers =
        made.person().get("/api/sessions/{id}/tryable?corner=" + corner, session).body();
    assertThat(offers.path("spread").asDouble()).isEqualTo(0.1);
    assertThat(offers.path("spreadLaps").asInt()).isZero();
    assertThat(offers.path("laps").asInt()).isGreaterThan(10);
    double last = -10;
    boolean hopeless = false;
    for (JsonNode o : offers.path("ways")) {
      // The quicker first, and at the end what nobody can tell apart by driving.
      boolean now = o.path("laps").asInt() >= 500;
      assertThat(now || !hopeless).isTrue();
      last = now == hopeless ? last : -10;
      hopeless = now;
      assertThat(o.path("predicted").asDouble()).isGreaterThanOrEqualTo(last);
      last = o.path("predicted").asDouble();
      assertThat(o.path("laps").asInt()).isGreaterThan(1);
      assertThat(o.path("way").path("words").path("line").asText()).isNotBlank();
    }
    // Steady laps on a day like it tell the driver's own.
    drive(9, 5);
    JsonNode after =
        made.person().get("/api/sessions/{id}/tryable?corner=" + corner, session).body();
    assertThat(after.path("spreadLaps").asInt()).isGreaterThan(4);
    assertThat(after.path("spread").asDouble()).isBetween(0.005, 0.09);
  }

  @Test
  void aTrialIsPlannedDrivenDecidedAndTakenAndTakenBack() {
    drive(9, 6);
    String key = made.tryable(session, corner).path(0).path("way").path("key").asText();
    assertThat(plan(corner, "SCHOOL", key).status()).isEqualTo(201);
    JsonNode trial = only();
    assertThat(trial.path("a").path("source").asText()).isEqualTo("REFERENCE");
    assertThat(trial.path("b").path("key").asText()).isEqualTo(key);
    // A long number is written with a space.
    assertThat(trial.path("verdict").asText().replaceAll("(?<=\\d)\\D(?=\\d{3})", ""))
        .startsWith("0 of " + trial.path("planned").asInt() + " driven each way");
    assertThat(trial.path("traces").path("a").size())
        .isEqualTo(trial.path("traces").path("b").size())
        .isGreaterThan(20);
    // The brief says it, on screen and paper alike.
    JsonNode brief = made.person().get("/api/sessions/{id}", session).body().path("brief");
    String said = "";
    for (JsonNode part : brief) {
      said += part.path("kind").asText().equals("TRIALS") ? part.path("lines").toString() : "";
    }
    assertThat(said)
        .contains("A as planned. B ", corner)
        .contains(trial.path("told").asBoolean() ? "Lap " + trial.path("from").asInt() : "No room");
    // Laps of the session are marked in the planned order, the driver's word stands over it.
    String run = drive(12, 7);
    made.person().put("/api/runs/{id}/session", Map.of("session", session), run);
    Map<String, String> marks = new TreeMap<>();
    JsonNode planned = only().path("marks");
    assertThat(planned.size() > 0).isEqualTo(trial.path("told").asBoolean());
    int i = 0;
    for (JsonNode l :
        made.person().get("/api/references/{id}/runs", made.reference()).body().path("runs")) {
      for (JsonNode lap : l.path("laps")) {
        if (lap.path("run").asText().equals(run) && lap.path("counts").asBoolean()) {
          marks.put(lap.path("id").asText(), i == 0 ? "-" : i % 2 == 0 ? "A" : "B");
          i++;
        }
      }
    }
    String id = trial.path("id").asText();
    assertThat(made.person().put("/api/trials/{id}/marks", Map.of("marks", marks), id).status())
        .isEqualTo(204);
    // Laps of the other way say nothing of what the reference promised in that corner.
    UUID owner =
        jdbc.queryForObject(
            "select owner_id from reference where id = ?::uuid", UUID.class, made.reference());
    Set<String> others = new TreeSet<>();
    marks.forEach(
        (lap, way) -> {
          if (way.equals("B")) {
            others.add(lap);
          }
        });
    assertThat(otherwise.laps(owner, UUID.fromString(made.reference())))
        .containsExactly(Map.entry(corner, others));
    JsonNode driven = only();
    assertThat(driven.path("lapsA").asInt() + driven.path("lapsB").asInt())
        .isEqualTo(marks.size() - 1);
    assertThat(driven.path("low").asDouble()).isLessThan(driven.path("difference").asDouble());
    assertThat(driven.path("decided").asBoolean())
        .isEqualTo(
            Math.min(driven.path("lapsA").asInt(), driven.path("lapsB").asInt())
                >= driven.path("planned").asInt());
    JsonNode before = made.entry(corner);
    assertThat(made.person().post("/api/trials/{id}/taken", Map.of("way", "B"), id).status())
        .isEqualTo(204);
    assertThat(made.entry(corner).path("schools").findValuesAsText("").isEmpty()).isTrue();
    assertThat(made.entry(corner).path("schools").toString()).contains(key);
    assertThat(only().path("taken").asText()).isEqualTo("B");
    assertThat(made.person().delete("/api/trials/{id}/taken", id).status()).isEqualTo(204);
    assertThat(made.entry(corner).path("schools")).isEqualTo(before.path("schools"));
    assertThat(made.entry(corner).path("gear")).isEqualTo(before.path("gear"));
    for (int p = 0; p < before.path("points").size(); p++) {
      assertThat(made.entry(corner).path("points").path(p).path("station").asDouble())
          .isCloseTo(before.path("points").path(p).path("station").asDouble(), within(0.51));
    }
    assertThat(only().path("taken").isNull()).isTrue();
    // What was changed since it was taken is not overwritten.
    made.person().post("/api/trials/{id}/taken", Map.of("way", "B"), id);
    note("mine");
    assertThat(made.person().delete("/api/trials/{id}/taken", id).status()).isEqualTo(409);
    assertThat(made.entry(corner).path("note").asText()).isEqualTo("mine");
    assertThat(only().path("taken").asText()).isEqualTo("B");
    assertThat(made.person().delete("/api/trials/{id}", id).status()).isEqualTo(204);
    assertThat(made.person().get("/api/sessions/{id}/trials", session).body().size()).isZero();
  }

  /** The simulated driver drives both ways in their order, and what is reckoned comes out. */
  @Test
  void aTrialThatIsDrivenInItsOrderIsDecided() {
    drive(9, 6);
    double reckoned = 0;
    String key = "";
    for (JsonNode c : made.open().path("corners")) {
      for (JsonNode o : made.tryable(session, c.path("id").asText())) {
        boolean school = o.path("way").path("source").asText().equals("SCHOOL");
        double predicted = o.path("predicted").asDouble();
        if (school && o.path("told").asBoolean() && Math.abs(predicted) > Math.abs(reckoned)) {
          reckoned = predicted;
          key = o.path("way").path("key").asText();
          corner = c.path("id").asText();
        }
      }
    }
    assertThat(Math.abs(reckoned)).isGreaterThan(0.1);
    assertThat(plan(corner, "SCHOOL", key).status()).isEqualTo(201);
    String id = only().path("id").asText();
    Map<String, Object> drive = new TreeMap<>();
    drive.put("laps", 16);
    drive.put("habits", List.of());
    drive.put("live", false);
    drive.put("seed", 11);
    drive.put("spread", 1.0);
    drive.put("trial", id);
    String run =
        made.person()
            .post("/api/references/{id}/logger", drive, made.reference())
            .body()
            .path("run")
            .asText();
    await().atMost(Duration.ofSeconds(60)).until(() -> recordings(run).contains("DONE"));
    made.person().put("/api/runs/{id}/session", Map.of("session", session), run);
    JsonNode trial = only();
    assertThat(trial.path("decided").asBoolean()).as(trial.path("verdict").asText()).isTrue();
    assertThat(Math.signum(trial.path("difference").asDouble())).isEqualTo(Math.signum(reckoned));
    assertThat(trial.path("low").asDouble() * trial.path("high").asDouble()).isPositive();
    // Each lap was driven the way that it is marked as.
    assertThat(reckoned).isPositive();
    List<Double> slower = new ArrayList<>();
    trial.path("secondsB").forEach(b -> slower.add(b.asDouble()));
    trial.path("secondsA").forEach(a -> assertThat(slower).allMatch(b -> b > a.asDouble() + 0.1));
    // A trial of another reference has corners of another road.
    Made other = Made.reference(people);
    drive.put("trial", other.trial(corner));
    assertThat(made.person().post("/api/references/{id}/logger", drive, made.reference()).status())
        .isEqualTo(404);
    drive.put("trial", UUID.randomUUID().toString());
    assertThat(made.person().post("/api/references/{id}/logger", drive, made.reference()).status())
        .isEqualTo(404);
    assertThat(
            people.newcomer().post("/api/references/{id}/logger", drive, made.reference()).status())
        .isEqualTo(404);
  }

  private void note(String words) {
    JsonNode working = made.open().path("working");
    JsonNode content = working.path("content").deepCopy();
    for (JsonNode e : content.path("corners")) {
      if (e.path("corner").asText().equals(corner)) {
        ((ObjectNode) e).put("note", words);
      }
    }
    People.Answer put =
        made.person()
            .put(
                "/api/references/{id}/working",
                Map.of("version", working.path("version").asInt(), "content", content),
                made.reference());
    assertThat(put.status()).as(put.text()).isEqualTo(200);
  }

  @Test
  void anEarlierRevisionCanBeTriedAgainstThePlan() {
    JsonNode view = made.open();
    JsonNode content = view.path("working").path("content").deepCopy();
    made.person()
        .post(
            "/api/references/{id}/revisions",
            Map.of("version", view.path("working").path("version").asInt(), "reason", "first"),
            made.reference());
    for (JsonNode e : content.path("corners")) {
      if (e.path("corner").asText().equals(corner)) {
        for (JsonNode p : e.path("points")) {
          if (p.path("kind").asText().equals("BRAKE")) {
            ((ObjectNode) p).put("station", p.path("station").asDouble() - 12);
          }
        }
      }
    }
    int version = made.open().path("working").path("version").asInt();
    People.Answer put =
        made.person()
            .put(
                "/api/references/{id}/working",
                Map.of("version", version, "content", content),
                made.reference());
    assertThat(put.status()).as(put.text()).isEqualTo(200);
    JsonNode offered = null;
    for (JsonNode o : made.tryable(session, corner)) {
      offered = o.path("way").path("source").asText().equals("REVISION") ? o : offered;
    }
    assertThat(offered).isNotNull();
    // What is written now brakes sooner: the earlier one is quicker.
    assertThat(offered.path("predicted").asDouble()).isLessThan(-0.01);
    String key = offered.path("way").path("key").asText();
    assertThat(plan(corner, "REVISION", key).status()).isEqualTo(201);
  }

  @Test
  void aSheetAndASettingAreTriedByStints() {
    assertThat(made.tryable(session, "").size()).isZero();
    Map<String, Object> sheet =
        Map.of(
            "name",
            "Heavy",
            "purpose",
            "RACE",
            "note",
            "",
            "settings",
            List.of(
                Map.of(
                    "parameter",
                    "mass.ballast",
                    "number",
                    80,
                    "words",
                    "",
                    "unit",
                    "",
                    "reason",
                    "")));
    String id =
        made.person()
            .post("/api/vehicles/{id}/sheets", sheet, made.vehicle())
            .body()
            .path("id")
            .asText();
    JsonNode offered = made.tryable(session, "").path(0);
    assertThat(offered.path("way").path("label").asText()).isEqualTo("Heavy");
    assertThat(offered.path("predicted").asDouble()).isGreaterThan(0.1);
    assertThat(plan("", "SHEET", id).status()).isEqualTo(201);
    JsonNode trial = only();
    assertThat(trial.path("stints").asBoolean()).isTrue();
    assertThat(trial.path("planned").asInt()).isGreaterThanOrEqualTo(3);
    String of = trial.path("id").asText();
    made.person().post("/api/trials/{id}/taken", Map.of("way", "B"), of);
    assertThat(next()).isEqualTo(id);
    made.person().delete("/api/trials/{id}/taken", of);
    assertThat(next()).isEqualTo("null");
    made.person().delete("/api/trials/{id}", of);
    People.Answer setting =
        made.person()
            .post(
                "/api/sessions/{id}/trials",
                Map.of("corner", "", "source", "SETTING", "key", "rebound.front", "number", 12),
                session);
    assertThat(setting.status()).as(setting.text()).isEqualTo(201);
    assertThat(only().path("predicted").isNull()).isTrue();
    assertThat(only().path("b").path("label").asText()).isEqualTo("12");
    made.person().post("/api/trials/{id}/taken", Map.of("way", "B"), only().path("id").asText());
    assertThat(made.person().get("/api/vehicles/{id}/sheets", made.vehicle()).text())
        .contains("rebound.front 12");
  }

  private String next() {
    return made.person()
        .get("/api/vehicles/{id}/sheets", made.vehicle())
        .body()
        .path("next")
        .asText("null");
  }

  @Test
  void whatIsNotOfferedIsRefusedWithWhereAndWhatToDo() {
    for (People.Answer answer :
        List.of(
            plan(corner, "SCHOOL", "NO_SUCH"),
            plan("c99", "SCHOOL", "DAB"),
            plan("", "SHEET", UUID.randomUUID().toString()),
            plan("", "SETTING", "mass.ballast"),
            plan("", "SETTING", "no.such"),
            made.person()
                .post(
                    "/api/sessions/{id}/trials",
                    Map.of(
                        "corner", "", "source", "SETTING", "key", "mass.ballast", "number", 9000),
                    session))) {
      assertThat(answer.status()).as(answer.text()).isEqualTo(422);
      assertThat(answer.body().path("remedy").asText()).isNotBlank();
      assertThat(answer.body().path("where").asText()).isNotBlank();
    }
    assertThat(made.person().get("/api/sessions/{id}/tryable?corner=c99", session).status())
        .isEqualTo(422);
  }

  /** As the migration of before makes it: two texts, no plan, and its marks. */
  @Test
  void aTrialOfWordsIsStillReadAndJudged() {
    String run = drive(8, 8);
    String key = made.tryable(session, corner).path(0).path("way").path("key").asText();
    plan(corner, "SCHOOL", key);
    String id = only().path("id").asText();
    jdbc.update(
        """
        update corner_trial set body = jsonb_build_object(
          'corner', ?::text,
          'a', jsonb_build_object('source', 'WORDS', 'key', '', 'label', 'one gear lower'),
          'b', jsonb_build_object('source', 'WORDS', 'key', '', 'label', 'as planned'),
          'from', 1)
        where id = ?
        """,
        corner,
        UUID.fromString(id));
    Map<String, String> marks = new TreeMap<>();
    int i = 0;
    for (JsonNode l :
        made.person().get("/api/references/{id}/runs", made.reference()).body().path("runs")) {
      for (JsonNode lap : l.path("laps")) {
        if (lap.path("run").asText().equals(run) && lap.path("counts").asBoolean()) {
          marks.put(lap.path("id").asText(), i++ % 2 == 0 ? "A" : "B");
        }
      }
    }
    made.person().put("/api/trials/{id}/marks", Map.of("marks", marks), id);
    JsonNode trial = only();
    assertThat(trial.path("a").path("label").asText()).isEqualTo("one gear lower");
    assertThat(trial.path("planned").asInt()).isZero();
    assertThat(trial.path("decided").asBoolean()).isTrue();
    assertThat(trial.path("verdict").asText()).isNotBlank();
    assertThat(made.person().post("/api/trials/{id}/taken", Map.of("way", "B"), id).status())
        .isEqualTo(422);
  }
}
