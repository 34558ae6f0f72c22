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

/** Rehearsing over HTTP: asked, told, driven by heart, known. */
@ServerTest
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
    assertThat(first.path("leftIn").size())
        .isBetween(1, first.path("ready").path("corners").asInt());
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
    Map<String, Object> stations = new LinkedHashMap<>();
    for (JsonNode d : open().path("clock").path("due")) {
      stations.put(
          d.path("corner").asText() + "/" + d.path("action").asText(),
          d.path("station").asDouble());
    }
    lap.put("stations", stations);
    return send(List.of(line(lap))).body().path("driven").path(0);
  }

  /** A mistake that laps by heart show is driven on purpose; else a usual one is. */
  @Test
  void theMistakesOfACornerAreDrivenBesideThePlan() {
    JsonNode clock = open().path("clock");
    JsonNode brake = null;
    for (JsonNode d : clock.path("due")) {
      if (d.path("action").asText().equals("brake") && d.path("at").asDouble() > 5) {
        brake = d;
        break;
      }
    }
    assertThat(brake).isNotNull();
    String corner = brake.path("corner").asText();
    String url = "/api/sessions/" + session + "/mistakes/" + corner;
    JsonNode usual = made.person().get(url).body();
    assertThat(usual.size()).isBetween(1, 3);
    for (JsonNode m : usual) {
      assertThat(m.path("whose").asText()).isEqualTo("USUAL");
      assertThat(m.path("planned").path("speed").size())
          .isEqualTo(m.path("wrong").path("speed").size())
          .isPositive();
      assertThat(m.path("look").asText()).isNotBlank();
    }
    for (int lap = 0; lap < 3; lap++) {
      driven(
          1,
          List.of(
              Map.of(
                  "key", "BRAKE", "at", brake.path("at").asDouble() - 0.3 + 0.05, "hard", true)));
    }
    JsonNode own = made.person().get(url).body().path(0);
    assertThat(own.path("whose").asText()).isEqualTo("BY_HEART");
    assertThat(own.path("of").asInt()).isEqualTo(3);
    assertThat(own.path("metres").asDouble()).isNegative();
    assertThat(own.path("seconds").asDouble()).isPositive();
    assertThat(made.person().get("/api/sessions/" + session + "/mistakes/none").status())
        .isEqualTo(404);
  }

  /** What was missed three times is named with its doubt; the summary is said in ten seconds. */
  @Test
  void whatIsOftenMissedIsNamedAndTheLapIsSummedUp() {
    JsonNode first = open();
    assertThat(first.path("missed").size()).isZero();
    int words = 0;
    for (JsonNode line : first.path("summary")) {
      words += line.asText().split("\\s+").length;
    }
    assertThat(words).isBetween(8, 25);
    JsonNode place = null;
    for (JsonNode a : first.path("asked")) {
      if (a.path("fact").path("asks").asText().equals("PLACE")) {
        place = a.path("fact");
        break;
      }
    }
    assertThat(place).isNotNull();
    for (int k = 0; k < 3; k++) {
      Map<String, Object> none = told(place, 0);
      none.remove("told");
      send(List.of(line(none)));
    }
    JsonNode missed = open().path("missed");
    assertThat(missed.size()).isEqualTo(1);
    assertThat(missed.path(0).path("corner").asText()).isEqualTo(place.path("corner").asText());
    assertThat(missed.path(0).path("missed").asInt()).isEqualTo(3);
    assertThat(missed.path(0).path("from").asDouble()).isPositive();
  }

  /** From three hundred answers on the plan goes by the driver's own memory. */
  @Test
  void whoForgetsQuicklyIsAskedByOwnWeights() {
    List<Map<String, Object>> lines = new ArrayList<>();
    Instant now = Instant.now();
    for (int f = 0; f < 60; f++) {
      for (int k = 0; k < 6; k++) {
        Map<String, Object> a = new LinkedHashMap<>();
        a.put("fact", "x" + f + "/brake/PLACE");
        // Right at first, forgotten three days later each time.
        a.put("told", k % 2 == 0 ? 500 : 560);
        a.put("right", 500);
        a.put("precision", 6);
        a.put("rate", 0);
        a.put("lag", 0);
        a.put("dark", false);
        lines.add(
            Map.of(
                "id",
                UUID.randomUUID().toString(),
                "at",
                now.minusSeconds(86_400L * (30 - 3 * k)).toString(),
                "answered",
                a));
      }
    }
    JsonNode fact = open().path("asked").path(0).path("fact");
    lines.add(
        Map.of(
            "id",
            UUID.randomUUID().toString(),
            "at",
            now.minusSeconds(2 * 86_400L).toString(),
            "answered",
            told(fact, fact.path("answer").asDouble())));
    send(lines.subList(360, 361));
    double usual = then(fact.path("id").asText());
    assertThat(send(lines.subList(0, 360)).status()).isEqualTo(200);
    assertThat(then(fact.path("id").asText())).isLessThan(usual - 0.1);
  }

  /** The chance that a fact is known at the session, as it is planned by. */
  private double then(String fact) {
    for (JsonNode a : open().path("asked")) {
      if (a.path("fact").path("id").asText().equals(fact)) {
        return a.path("then").asDouble();
      }
    }
    throw new AssertionError("not asked: " + fact);
  }

  @Test
  void badAnswersAreRefusedAndAnswersAreTheirDriversAlone() {
    JsonNode fact = open().path("asked").path(0).path("fact");
    Map<String, Object> fast = new LinkedHashMap<>(told(fact, 1));
    fast.put("fact", "");
    fast.put("rate", 3);
    Map<String, Object> lag = new LinkedHashMap<>(told(fact, 1));
    lag.put("lag", 2);
    Map<String, Object> pedal = new LinkedHashMap<>(told(fact, 1));
    pedal.put("fact", "");
    pedal.put("rate", 1);
    pedal.put("presses", List.of(Map.of("key", "BRAKE", "at", 3, "amount", 1.5)));
    for (Map<String, Object> bad : List.of(fast, lag, pedal)) {
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
