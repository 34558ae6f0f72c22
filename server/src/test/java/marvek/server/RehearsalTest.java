package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.context.annotation.Import;

/** Rehearsing over HTTP: asked, told, driven by heart, known. */
@ServerTest
@Import({People.class, Endpoints.class})
class RehearsalTest {
  @Autowired private People people;
  private Made made;
  private String session = "";

  @BeforeEach
  void planned() {
    made = Made.reference(people);
    session = made.session();
  }

  private JsonNode open() {
    People.Answer answer = made.person().get("/api/sessions/{id}/rehearsal", session);
    assertThat(answer.status()).as(answer.text()).isEqualTo(200);
    return answer.body();
  }

  private static Map<String, Object> told(JsonNode fact, double answer) {
    Map<String, Object> body = new LinkedHashMap<>();
    body.put("fact", fact.path("id").asText());
    body.put("told", answer);
    body.put("right", fact.path("answer").asDouble());
    body.put("precision", fact.path("precision").asDouble());
    body.put("rate", 0);
    body.put("lag", 0);
    body.put("dark", false);
    return body;
  }

  private static Map<String, Object> line(Map<String, Object> answered) {
    return Map.of(
        "id", UUID.randomUUID().toString(), "at", Instant.now().toString(), "answered", answered);
  }

  private People.Answer send(List<?> answers) {
    return made.person().post("/api/sessions/{id}/rehearsed", Map.of("answers", answers), session);
  }

  @Test
  void whatIsToldIsGradedAndKnownAndNotAskedAgainThatDay() {
    JsonNode first = open();
    assertThat(first.path("asked").size()).isEqualTo(40);
    assertThat(first.path("left").asInt()).isPositive();
    assertThat(first.path("ready").path("ready").asInt()).isZero();
    List<Map<String, Object>> lines = new ArrayList<>();
    Set<String> known = new HashSet<>();
    Set<String> unknown = new HashSet<>();
    for (int i = 0; i < 40; i++) {
      JsonNode f = first.path("asked").path(i).path("fact");
      boolean knows = i % 10 != 0;
      double off = knows ? 0.2 : 5;
      lines.add(
          line(
              told(
                  f,
                  f.path("answer").asDouble()
                      + off * f.path("precision").asDouble()
                      + (knows ? 0 : 2))));
      (knows ? known : unknown).add(f.path("id").asText());
    }
    People.Answer told = send(lines);
    assertThat(told.status()).as(told.text()).isEqualTo(200);
    assertThat(told.body().path("grades").size()).isEqualTo(40);
    assertThat(told.text()).contains("EASY").contains("AGAIN");
    // Sent again it is there once.
    send(lines);
    JsonNode second = open();
    assertThat(second.path("known").size()).isEqualTo(40);
    for (JsonNode s : second.path("known")) {
      assertThat(s.path("times").asInt()).isEqualTo(1);
      assertThat(s.path("right").isNull()).isEqualTo(unknown.contains(s.path("fact").asText()));
    }
    Set<String> again = new HashSet<>();
    second.path("asked").forEach(a -> again.add(a.path("fact").path("id").asText()));
    assertThat(again).doesNotContainAnyElementsOf(known).containsAll(unknown);
    assertThat(second.path("ready").path("corners").asInt())
        .isEqualTo(made.open().path("corners").size());
  }

  /** By the server's own voice where this machine has one; else that is said. */
  @Test
  void theLapIsCalledInASoundFile() {
    JsonNode view = made.person().get("/api/sessions/{id}/rehearsal", session).body();
    People.Answer answer = made.person().get("/api/sessions/{id}/calls.wav", session);
    if (view.path("voice").asBoolean()) {
      assertThat(answer.status()).isEqualTo(200);
      assertThat(answer.text()).startsWith("RIFF");
    } else {
      assertThat(answer.status()).isEqualTo(404);
      assertThat(answer.body().path("detail").asText()).contains("no voice");
    }
  }

  @Test
  void aLapDrivenByHeartIsToldInSecondsAndMetres() {
    JsonNode clock = open().path("clock");
    assertThat(clock.path("times").size()).isEqualTo(clock.path("speed").size());
    List<Map<String, Object>> presses = new ArrayList<>();
    int brakes = 0;
    for (JsonNode d : clock.path("due")) {
      if (d.path("key").asText().equals("BRAKE")) {
        brakes++;
        // Two tenths late on a device that lags by 0.05, at half speed.
        double wall = (d.path("at").asDouble() + 0.2) / 0.5 + 0.05;
        presses.add(Map.of("key", "BRAKE", "at", wall));
      }
    }
    assertThat(brakes).isGreaterThan(5);
    JsonNode lap = lapDriven(0.5, presses);
    JsonNode slow = lap.path("performance");
    // Two tenths late are metres, and of the farthest it is told what became of them.
    assertThat(lap.path("happened").size()).isBetween(3, 8);
    for (JsonNode h : lap.path("happened")) {
      boolean made = h.path("seconds").isNumber();
      assertThat(made || !h.path("look").asText().isBlank()).isTrue();
      assertThat(h.path("deep").isNumber() && made).isFalse();
    }
    assertThat(slow.path("met").size()).isEqualTo(brakes);
    for (JsonNode m : slow.path("met")) {
      assertThat(m.path("seconds").asDouble()).isCloseTo(0.2, within(1e-6));
      assertThat(m.path("metres").asDouble()).isBetween(0.2 * 8, 0.2 * 90);
    }
    assertThat(slow.path("missed").size()).isZero();
    // A bias is told at full speed only.
    assertThat(slow.path("bias").isNull()).isTrue();
    List<Map<String, Object>> fast = new ArrayList<>();
    presses.forEach(
        p -> fast.add(Map.of("key", "BRAKE", "at", ((Double) p.get("at") - 0.05) * 0.5 + 0.05)));
    assertThat(driven(1, fast).path("bias").asDouble()).isCloseTo(0.2, within(1e-6));
    assertThat(made.person().get("/api/sessions/{id}/rehearsed", session).body().size())
        .isEqualTo(2);
  }

  private JsonNode driven(double rate, List<Map<String, Object>> presses) {
    return lapDriven(rate, presses).path("performance");
  }

  private JsonNode lapDriven(double rate, List<Map<String, Object>> presses) {
    Map<String, Object> lap = new LinkedHashMap<>();
    lap.put("fact", "");
    lap.put("right", 0);
    lap.put("precision", 0);
    lap.put("rate", rate);
    lap.put("lag", 0.05);
    lap.put("dark", false);
    lap.put("keys", List.of("BRAKE"));
    lap.put("presses", presses);
    return send(List.of(line(lap))).body().path("driven").path(0);
  }

  @Test
  void badAnswersAreRefusedAndAnswersAreTheirDriversAlone() {
    JsonNode fact = open().path("asked").path(0).path("fact");
    Map<String, Object> fast = new LinkedHashMap<>(told(fact, 1));
    fast.put("fact", "");
    fast.put("rate", 3);
    Map<String, Object> lag = new LinkedHashMap<>(told(fact, 1));
    lag.put("lag", 2);
    for (Map<String, Object> bad : List.of(fast, lag)) {
      People.Answer answer = send(List.of(line(bad)));
      assertThat(answer.status()).as(answer.text()).isEqualTo(422);
      assertThat(answer.body().path("remedy").asText()).isNotBlank();
    }
    assertThat(open().path("known").size()).isZero();
    People.Person stranger = people.newcomer();
    assertThat(stranger.get("/api/sessions/{id}/rehearsal", session).status()).isEqualTo(404);
    assertThat(stranger.get("/api/sessions/{id}/rehearsed", session).status()).isEqualTo(404);
    assertThat(
            stranger
                .post("/api/sessions/{id}/rehearsed", Map.of("answers", List.of()), session)
                .status())
        .isEqualTo(404);
    Map<String, Object> mine = line(told(fact, fact.path("answer").asDouble()));
    send(List.of(mine));
    Made theirs = Made.reference(people);
    String other = theirs.session();
    assertThat(
            theirs
                .person()
                .post("/api/sessions/{id}/rehearsed", Map.of("answers", List.of(mine)), other)
                .status())
        .isEqualTo(422);
  }
}
