package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import marvek.core.logger.Mistake;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** What the simulated logger is asked for, and what it does not do. */
@ServerTest
class LoggerTest {
  @Autowired private People people;

  private People.Answer drive(Made made, Map<String, Object> over) {
    Map<String, Object> asked = new HashMap<>();
    asked.put("laps", 1);
    asked.put("habits", List.of());
    asked.put("live", false);
    asked.putAll(over);
    return made.person().post("/api/references/{id}/logger", asked, made.reference());
  }

  private static int runs(Made made) {
    return made.person()
        .get("/api/references/{id}/runs", made.reference())
        .body()
        .path("runs")
        .size();
  }

  @Test
  void everyMistakeHasWordsOfItsOwn() {
    JsonNode all = people.newcomer().get("/api/logger/mistakes").body();
    Set<String> words = new HashSet<>();
    all.forEach(m -> words.add(m.path("words").asText()));
    assertThat(all).hasSize(Mistake.values().length);
    assertThat(words).hasSize(Mistake.values().length).noneMatch(String::isBlank);
  }

  @Test
  void whatCannotBeDrivenIsRefusedAndLeavesNoRun() {
    Made made = Made.reference(people);
    List<Map<String, Object>> wrong =
        List.of(
            Map.of("laps", 0),
            Map.of("laps", 61),
            Map.of("laps", -2_000_000_000),
            Map.of("spread", 50),
            Map.of("spread", -1),
            Map.of("pace", 5),
            Map.of("pace", 1e308),
            Map.of("habits", List.of(Map.of("mistake", "COASTS", "corner", "nowhere"))),
            Map.of("habits", List.of(Map.of("mistake", "FLIES", "corner", "c1"))),
            Map.of("habits", List.of(Map.of("corner", "c1"))),
            Map.of("day", "SNOW"),
            Map.of("name", "x".repeat(101)));
    for (Map<String, Object> w : wrong) {
      People.Answer answer = drive(made, w);
      assertThat(answer.status()).as(w + " " + answer.text()).isBetween(400, 422);
      assertThat(answer.body().path("detail").asText()).as(w.toString()).isNotBlank();
    }
    assertThat(runs(made)).isZero();
  }

  @Test
  void aDriveIsBoundedByItsLength() {
    People.Person driver = people.demo("DRIVER");
    for (JsonNode r : driver.get("/api/references").body()) {
      if (r.path("name").asText().contains("Serra")) {
        // 60 laps of 11 km.
        People.Answer answer =
            driver.post(
                "/api/references/{id}/logger",
                Map.of("laps", 60, "habits", List.of(), "live", false),
                r.path("id").asText());
        assertThat(answer.status()).as(answer.text()).isEqualTo(422);
        assertThat(answer.body().path("where").asText()).isEqualTo("laps");
        assertThat(answer.body().path("remedy").asText()).contains("22 laps");
        return;
      }
    }
    throw new AssertionError("the demo has no hill course");
  }

  @Test
  void aDriveMayGoIntoARunThatIsThere() {
    Made made = Made.reference(people);
    String run =
        made.person()
            .post("/api/references/{id}/runs", Map.of("name", "Morning"), made.reference())
            .body()
            .path("id")
            .asText();
    assertThat(drive(made, Map.of("run", run)).body().path("run").asText()).isEqualTo(run);
    assertThat(runs(made)).isEqualTo(1);
    Made other = Made.reference(people);
    assertThat(drive(other, Map.of("run", run)).status()).isEqualTo(404);
  }

  @Test
  void theWetIsSlowerThanTheDry() {
    Made made = Made.reference(people);
    double dry = lapTime(drive(made, Map.of("seed", 7)), made);
    double wet = lapTime(drive(made, Map.of("seed", 7, "day", "WET")), made);
    // With 70 % of the grip bends take about a fifth longer.
    assertThat(wet).isBetween(1.03 * dry, 1.35 * dry);
  }

  private static double lapTime(People.Answer taken, Made made) {
    JsonNode truth =
        made.person().get("/api/recordings/{id}/truth", taken.body().path("made").asText()).body();
    for (JsonNode lap : truth.path("laps")) {
      if (lap.path("number").asInt() == 1) {
        return lap.path("lapTime").asDouble();
      }
    }
    throw new AssertionError("no lap");
  }
}
