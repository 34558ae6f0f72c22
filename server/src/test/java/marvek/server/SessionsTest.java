package marvek.server;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.lowagie.text.pdf.PdfReader;
import com.lowagie.text.pdf.parser.PdfTextExtractor;
import java.io.IOException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.mock.web.MockHttpServletResponse;

/** Sessions from their announcement to their log. */
@ServerTest
class SessionsTest {
  @Autowired private People people;
  @Autowired private Endpoints endpoints;
  @Autowired private JdbcTemplate jdbc;
  private Made made;
  private String event = "";
  private String id = "";

  private static Map<String, Object> timing(String wall, int minutes) {
    return Map.of(
        "start",
        Map.of("wall", wall, "zone", "Europe/Lisbon"),
        "minutes",
        minutes,
        "later",
        0,
        "state",
        "ON");
  }

  /** Tomorrow afternoon. */
  private static String tomorrow() {
    return LocalDateTime.now().plusDays(1).truncatedTo(ChronoUnit.DAYS).plusHours(14).toString();
  }

  private static Map<String, Object> body(String name, Map<String, Object> more) {
    Map<String, Object> session = new LinkedHashMap<>();
    session.put("kind", "QUALIFYING");
    session.put("name", name);
    session.put("timing", timing(tomorrow(), 20));
    session.putAll(more);
    return session;
  }

  private static final String NOBODY = UUID.randomUUID().toString();

  private static Map<String, Object> wet(double grip) {
    Map<String, Object> day = new TreeMap<>();
    day.put("grip", grip);
    for (String zero : List.of("extraMass", "windSpeed", "windFrom")) {
      day.put(zero, 0);
    }
    day.put("drag", 1);
    day.put("downforce", 1);
    day.put("hour", "");
    day.put("surface", Map.of("state", "WET", "dried", 0));
    return Map.of("like", "", "day", day, "rubber", "USUAL");
  }

  @BeforeEach
  void planned() {
    made = Made.reference(people);
    event = event(made.person());
    id = add(body("Qualifying", Map.of()));
  }

  private static String event(People.Person person) {
    People.Answer answer =
        person.post("/api/events", Map.of("name", "Weekend", "zone", "Europe/Lisbon"));
    assertThat(answer.status()).as(answer.text()).isEqualTo(201);
    return answer.body().path("id").asText();
  }

  private People.Answer tryAdd(Map<String, Object> session) {
    Map<String, Object> request = new LinkedHashMap<>();
    request.put("version", 0);
    request.put("reference", made.reference());
    request.put("session", session);
    return made.person().post("/api/events/{id}/sessions", request, event);
  }

  private String add(Map<String, Object> session) {
    People.Answer answer = tryAdd(session);
    assertThat(answer.status()).as(answer.text()).isEqualTo(201);
    return answer.body().path("id").asText();
  }

  private JsonNode open() {
    People.Answer answer = made.person().get("/api/sessions/{id}", id);
    assertThat(answer.status()).as(answer.text()).isEqualTo(200);
    return answer.body();
  }

  private People.Answer keep(ObjectNode session, int version) {
    Map<String, Object> request = new LinkedHashMap<>();
    request.put("version", version);
    request.put("reference", made.reference());
    request.put("session", session);
    return made.person().put("/api/sessions/{id}", request, id);
  }

  /** Laps of sessions before tell when a driver settles in; nothing is built up before that. */
  @Test
  void whenTheDriverSettlesIsToldByTheSessionsBefore() {
    assertThat(open().path("plan").path("settling").path("by").isMissingNode()).isTrue();
    for (int run = 1; run <= 2; run++) {
      String started =
          made.person()
              .post(
                  "/api/references/{id}/runs",
                  Map.of("drivenAt", Instant.now().minus(run, ChronoUnit.DAYS).toString()),
                  made.reference())
              .body()
              .path("id")
              .asText();
      for (double seconds : new double[] {140, 105, 103, 102, 102, 100, 100.1, 99.9, 100, 150}) {
        String kind = seconds == 140 ? "OUT" : seconds == 150 ? "IN" : "PUSH";
        assertThat(
                made.person()
                    .post(
                        "/api/runs/{id}/laps",
                        Map.of("lapTime", seconds, "kind", kind, "note", ""),
                        started)
                    .status())
            .isEqualTo(201);
      }
    }
    JsonNode line = open().path("line");
    JsonNode plan =
        keep(((ObjectNode) line.path("session")).deepCopy(), line.path("version").asInt())
            .body()
            .path("plan");
    JsonNode settling = plan.path("settling");
    assertThat(settling.path("by").path("lap").asInt()).isEqualTo(5);
    assertThat(settling.path("by").path("sessions").asInt()).isEqualTo(2);
    assertThat(settling.path("by").path("costs").asDouble()).isCloseTo(12, within(0.5));
    assertThat(settling.path("words").asText()).startsWith("You settle on lap 5 (by 2 sessions;");
    for (JsonNode r : plan.path("rungs")) {
      assertThat(r.path("firstLap").asInt()).isGreaterThanOrEqualTo(5);
    }
    assertThat(open().path("brief").toString()).contains("You settle on lap 5");
  }

  /** A gauge reads one wheel at a time: what is not read yet is nothing, and no bad input. */
  @Test
  void oneWheelAloneMayBeSaid() {
    JsonNode one = open().path("line");
    ObjectNode session = ((ObjectNode) one.path("session")).deepCopy();
    ObjectNode tyres = (ObjectNode) session.path("tyres");
    tyres.putArray("hot").addNull().addNull().add(185);
    tyres.putArray("tread").addNull().addNull().addNull().add(70).add(80).add(95);
    People.Answer kept = keep(session, one.path("version").asInt());
    assertThat(kept.status()).as(kept.text()).isEqualTo(200);
    JsonNode plan = open().path("plan");
    assertThat(plan.path("wheels")).hasSize(1);
    assertThat(plan.path("wheels").path(0).path("wheel").asInt()).isEqualTo(2);
    assertThat(plan.path("tread").path(0).path("words").path(0).asText())
        .isEqualTo("the inner side is 25 °C hotter: try a step less camber");
    // Where something must be said of each, nothing is still refused, with its place.
    tyres.putArray("spared").addNull();
    People.Answer refused = keep(session, kept.body().path("line").path("version").asInt());
    assertThat(refused.status()).isEqualTo(400);
    assertThat(refused.text()).contains("session.tyres.spared[0]");
  }

  @Test
  void aWetSessionIsPlannedFromTheReference() {
    JsonNode dry = open().path("plan");
    assertThat(dry.path("corners").size()).isEqualTo(made.open().path("corners").size());
    assertThat(dry.path("today").path("laps").asInt()).isGreaterThan(5);
    ObjectNode session = open().path("line").path("session").deepCopy();
    session.set("day", new ObjectMapper().valueToTree(wet(0.7)));
    JsonNode wet = keep(session, open().path("line").path("version").asInt()).body().path("plan");
    assertThat(wet.path("today").path("lapTime").asDouble())
        .isGreaterThan(1.05 * dry.path("today").path("lapTime").asDouble());
    int sooner = 0;
    for (JsonNode c : wet.path("corners")) {
      for (JsonNode d : c.path("today").path("differences")) {
        assertThat(d.path("words").asText()).isNotBlank();
        sooner += d.path("reason").asText().startsWith("wet, grip 70 %") ? 1 : 0;
      }
      assertThat(c.path("words").path("line").asText()).isNotBlank();
    }
    assertThat(sooner).isGreaterThan(3);
    assertThat(wet.path("targets").path("tiers").size()).isEqualTo(5);
    assertThat(wet.path("fuel").path("litres").asDouble()).isBetween(1.0, 60.0);
    assertThat(wet.path("cautions").path(0).asText()).contains("Flags");
  }

  @Test
  void sparingTheTyresCostsASecondHereAndKeepsThemLonger() {
    ObjectNode session = open().path("line").path("session").deepCopy();
    session.with("tyres").put("age", 20).put("life", 40);
    keep(session, open().path("line").path("version").asInt());
    JsonNode before = made.person().get("/api/sessions/{id}/tyres", id).body();
    assertThat(before.path("wheels").size()).isEqualTo(4);
    assertThat(before.path("costs").asDouble()).isZero();
    assertThat(before.path("rate").asDouble()).isBetween(0.9, 1.1);
    assertThat(before.path("words").path(0).asText()).matches("The .* tyre works most, \\d+ % .*");
    List<String> cheapest = new ArrayList<>();
    double saved = 0;
    for (JsonNode c : before.path("corners")) {
      if (c.path("rank").asInt() == 1 || c.path("rank").asInt() == 2) {
        cheapest.add(c.path("corner").asText());
        saved += c.path("saved").asDouble();
      }
    }
    assertThat(cheapest).hasSize(2);
    session.with("tyres").set("spared", new ObjectMapper().valueToTree(cheapest));
    keep(session, open().path("line").path("version").asInt());
    JsonNode after = made.person().get("/api/sessions/{id}/tyres", id).body();
    assertThat(after.path("costs").asDouble()).isPositive();
    assertThat(after.path("rate").asDouble())
        .isLessThan(before.path("rate").asDouble() * (1 - 0.6 * saved));
    // A wet road works them far less.
    session.set("day", new ObjectMapper().valueToTree(wet(0.7)));
    keep(session, open().path("line").path("version").asInt());
    assertThat(made.person().get("/api/sessions/{id}/tyres", id).body().path("rate").asDouble())
        .isLessThan(0.95 * after.path("rate").asDouble());
  }

  /** A corner driven otherwise today, the edges, two sets and a place on the grid: all computed. */
  @Test
  void whatIsChosenForASessionIsWorkedOut() {
    ObjectNode session = (ObjectNode) open().path("line").path("session");
    String corner = "";
    JsonNode way = null;
    for (JsonNode line : open().path("plan").path("corners")) {
      JsonNode offers =
          made.person()
              .get("/api/sessions/{id}/tryable?corner=" + line.path("corner").asText(), id)
              .body()
              .path("ways");
      for (JsonNode o : offers) {
        if (way == null && o.path("way").path("source").asText().equals("SCHOOL")) {
          way = o;
          corner = line.path("corner").asText();
        }
      }
      if (way != null) {
        break;
      }
    }
    assertThat(way).isNotNull();
    session.put("kind", "RACE");
    session
        .putArray("ways")
        .addObject()
        .put("corner", corner)
        .put("school", way.path("way").path("key").asText());
    ((ObjectNode) session.path("rules"))
        .put("limits", "WARNINGS")
        .put("warnings", 2)
        .put("penalty", 6)
        .put("grid", 3);
    ObjectNode tyres = (ObjectNode) session.path("tyres");
    tyres.put("life", 20);
    tyres.putObject("second").put("set", "harder").put("grip", 0.99).put("age", 0).put("life", 40);
    keep(session, open().path("line").path("version").asInt());
    JsonNode view = open();
    JsonNode plan = view.path("plan");
    for (JsonNode line : plan.path("corners")) {
      JsonNode today = line.path("today");
      boolean chosen = line.path("corner").asText().equals(corner);
      assertThat(today.path("way").asText(""))
          .isEqualTo(chosen ? way.path("way").path("key").asText() : "");
      if (chosen) {
        assertThat(today.path("wayCosts").asDouble())
            .isCloseTo(way.path("predicted").asDouble(), within(1e-6));
      }
    }
    String brief = view.path("brief").toString();
    assertThat(brief)
        .contains("for this session", "Two sets: change after lap", "after 2 warnings");
    JsonNode split = plan.path("split");
    assertThat(split.path("change").asInt()).isBetween(1, split.path("laps").asInt() - 1);
    JsonNode limits = made.person().get("/api/sessions/{id}/limits", id).body();
    assertThat(limits.path("cost").path("seconds").asDouble()).isPositive();
    assertThat(limits.path("cost").path("pays").asDouble())
        .isCloseTo(2 / limits.path("cost").path("seconds").asDouble(), within(1e-6));
    assertThat(limits.path("words").asText()).contains("Keeping 0.5 m", "Going over costs more");
    double back = plan.path("race").path("start").path("arrival").asDouble();
    ((ObjectNode) session.path("rules")).put("grid", 1);
    keep(session, view.path("line").path("version").asInt());
    assertThat(open().path("plan").path("race").path("start").path("arrival").asDouble())
        .isLessThan(back);
    // What nobody can mean is refused, with where.
    ((ObjectNode) session.path("rules")).put("penalty", -1);
    assertThat(keep(session, open().path("line").path("version").asInt()).status()).isEqualTo(422);
  }

  @Test
  void racingOthersIsReckonedOnTheDay() {
    JsonNode race = made.person().get("/api/sessions/{id}/race", id).body();
    JsonNode held = race.path("craft").path("held");
    assertThat(held.size()).isEqualTo(open().path("plan").path("corners").size());
    int told = 0;
    for (JsonNode h : held) {
      String corner = h.path("corner").asText();
      assertThat(race.path("called").path(corner).asText()).isNotBlank();
      JsonNode in = made.person().get("/api/sessions/{id}/inside/" + corner, id).body();
      if (!in.path("inside").isMissingNode() && !in.path("inside").isNull()) {
        told++;
        assertThat(in.path("inside").path("seconds").asDouble()).isBetween(-0.05, 4.0);
        assertThat(in.path("inside").path("offset").size()).isGreaterThan(20);
      }
    }
    assertThat(told).isGreaterThan(1);
    assertThat(made.person().get("/api/sessions/{id}/inside/nowhere", id).status()).isEqualTo(404);
  }

  @Test
  void aDelayMovesWhatIsDueAndTwoPressesAddUp() {
    JsonNode before = open().path("line");
    for (int i = 0; i < 2; i++) {
      assertThat(
              made.person()
                  .post("/api/sessions/{id}/turned", Map.of("turn", "LATER", "minutes", 10), id)
                  .status())
          .isEqualTo(200);
    }
    JsonNode after = open().path("line");
    Instant was = Instant.parse(before.path("begins").asText());
    assertThat(Instant.parse(after.path("begins").asText())).isEqualTo(was.plusSeconds(1200));
    for (int i = 0; i < before.path("due").size(); i++) {
      assertThat(Instant.parse(after.path("due").path(i).path("from").asText()))
          .isEqualTo(
              Instant.parse(before.path("due").path(i).path("from").asText()).plusSeconds(1200));
    }
    made.person().post("/api/sessions/{id}/turned", Map.of("turn", "CANCELLED", "minutes", 0), id);
    assertThat(open().path("line").path("due").size()).isZero();
    made.person().post("/api/sessions/{id}/turned", Map.of("turn", "ON", "minutes", 0), id);
    assertThat(open().path("line").path("begins")).isEqualTo(before.path("begins"));
  }

  @Test
  void aShorterSessionHasFewerLaps() {
    int laps = open().path("plan").path("today").path("laps").asInt();
    JsonNode now =
        made.person()
            .post("/api/sessions/{id}/turned", Map.of("turn", "SHORTENED", "minutes", 10), id)
            .body();
    assertThat(now.path("plan").path("today").path("laps").asInt())
        .isBetween(laps / 2 - 1, laps / 2 + 1);
  }

  @Test
  void whoChangesWhatAnotherDeviceChangedIsToldWhatStands() {
    ObjectNode session = open().path("line").path("session").deepCopy();
    int version = open().path("line").path("version").asInt();
    assertThat(keep(session.put("aim", "Clean"), version).status()).isEqualTo(200);
    People.Answer late = keep(session.put("aim", "Quick"), version);
    assertThat(late.status()).isEqualTo(409);
    assertThat(late.body().path("current").path("aim").asText()).isEqualTo("Clean");
  }

  private Map<String, Object> line(String line, String corner, String felt) {
    return line(line, corner, felt, false);
  }

  private Map<String, Object> line(String line, String corner, String felt, boolean removed) {
    Map<String, Object> told = new LinkedHashMap<>();
    told.put("about", "CORNER");
    told.put("corner", corner);
    told.put("felt", felt);
    told.put("words", "");
    told.put("hot", List.of());
    told.put("bled", false);
    return Map.of(
        "id",
        line,
        "device",
        "phone",
        "at",
        Instant.now().toString(),
        "told",
        told,
        "removed",
        removed);
  }

  @Test
  void twoPhonesOnOneLogLoseNothingAndNothingIsThereTwice() {
    String corner = made.open().path("corners").path(0).path("id").asText();
    List<Object> first = new ArrayList<>();
    List<Object> second = new ArrayList<>();
    for (int i = 0; i < 5; i++) {
      first.add(line(UUID.randomUUID().toString(), corner, "EARLY"));
      second.add(line(UUID.randomUUID().toString(), corner, "GREAT"));
    }
    for (List<Object> lines : List.of(first, second, first)) {
      assertThat(made.person().post("/api/sessions/{id}/log", Map.of("lines", lines), id).status())
          .isEqualTo(200);
    }
    assertThat(made.person().get("/api/sessions/{id}/log", id).body().size()).isEqualTo(10);
    // Taken back on the phone that said it.
    String one = UUID.randomUUID().toString();
    made.person()
        .post("/api/sessions/{id}/log", Map.of("lines", List.of(line(one, corner, "WIDE"))), id);
    JsonNode log =
        made.person()
            .post(
                "/api/sessions/{id}/log",
                Map.of("lines", List.of(line(one, corner, "WIDE", true))),
                id)
            .body();
    for (JsonNode l : log) {
      assertThat(l.path("removed").asBoolean()).isEqualTo(l.path("id").asText().equals(one));
    }
  }

  @Test
  void anotherSessionLikeTheLastTakesWhatTheLogToldOfFuel() {
    Map<String, Object> fuel = new LinkedHashMap<>();
    fuel.put("about", "FUEL");
    fuel.put("words", "");
    fuel.put("litres", 12.4);
    fuel.put("laps", 8);
    fuel.put("hot", List.of());
    fuel.put("bled", false);
    made.person()
        .post(
            "/api/sessions/{id}/log",
            Map.of(
                "lines",
                List.of(
                    Map.of(
                        "id",
                        UUID.randomUUID().toString(),
                        "device",
                        "phone",
                        "at",
                        Instant.now().toString(),
                        "told",
                        fuel,
                        "removed",
                        false))),
            id);
    People.Answer next =
        made.person()
            .post(
                "/api/sessions/{id}/like", Map.of("wall", tomorrow() + ":00", "name", "Race"), id);
    assertThat(next.status()).as(next.text()).isEqualTo(201);
    id = next.body().path("id").asText();
    JsonNode need = open().path("plan").path("fuel").path("need");
    assertThat(need.path("own").asInt()).isEqualTo(8);
    assertThat(need.path("perLap").asDouble())
        .isCloseTo(1.55, org.assertj.core.api.Assertions.within(1e-6));
  }

  @Test
  void aRunBelongsToItsSession() {
    People.Answer run = made.person().post("/api/sessions/{id}/runs", Map.of(), id);
    assertThat(run.status()).as(run.text()).isEqualTo(201);
    assertThat(open().path("runs").path(0).path("id")).isEqualTo(run.body().path("id"));
    Map<String, Object> nowhere = new TreeMap<>();
    nowhere.put("session", null);
    made.person().put("/api/runs/{id}/session", nowhere, run.body().path("id").asText());
    assertThat(open().path("runs").size()).isZero();
  }

  private String run(String session) {
    return made.person()
        .post("/api/sessions/{id}/runs", Map.of(), session)
        .body()
        .path("id")
        .asText();
  }

  private static List<String> ids(JsonNode list) {
    List<String> out = new ArrayList<>();
    list.forEach(n -> out.add(n.path("id").asText()));
    return out;
  }

  private List<String> listed(String in) {
    for (JsonNode e : made.person().get("/api/events").body().path("events")) {
      if (e.path("id").asText().equals(in)) {
        return ids(e.path("sessions"));
      }
    }
    return List.of();
  }

  private People.Answer join(String session, String into) {
    Map<String, Object> body = new TreeMap<>();
    body.put("into", into);
    return made.person().put("/api/sessions/{id}/joined", body, session);
  }

  /** Two sessions that were one: what belongs to either counts in it, until they are parted. */
  @Test
  void sessionsAreJoinedAndPartedAgain() {
    String second = add(body("Second", Map.of()));
    String first = run(id);
    String other = run(second);
    log(second, "c1", "LATE");
    assertThat(join(second, id).status()).isEqualTo(204);
    assertThat(ids(open().path("runs"))).containsExactlyInAnyOrder(first, other);
    assertThat(open().path("parts").path(0).path("name").asText()).isEqualTo("Second");
    assertThat(made.person().get("/api/sessions/{id}/log", id).body().size()).isEqualTo(1);
    assertThat(listed(event)).containsExactly(id);
    for (JsonNode e : made.person().get("/api/events").body().path("events")) {
      assertThat(e.path("sessions").path(0).path("driven").asInt()).isEqualTo(2);
    }
    // A line of the part is taken back in the whole, and nothing else is held up by it.
    ObjectNode line = made.person().get("/api/sessions/{id}/log", id).body().path(0).deepCopy();
    Map<String, Object> back = Map.of("lines", List.of(line.put("removed", true)));
    assertThat(made.person().post("/api/sessions/{id}/log", back, id).status()).isEqualTo(200);
    assertThat(made.person().get("/api/sessions/{id}/log", id).body().path(0).path("removed"))
        .isEqualTo(com.fasterxml.jackson.databind.node.BooleanNode.TRUE);
    // Not in a circle.
    assertThat(join(id, second).status()).isEqualTo(422);
    assertThat(join(id, id).status()).isEqualTo(422);
    assertThat(join(second, null).status()).isEqualTo(204);
    assertThat(ids(open().path("runs"))).containsExactly(first);
    assertThat(listed(event)).containsExactlyInAnyOrder(id, second);
  }

  @Test
  void aRunBecomesASessionOfItsOwn() {
    String first = run(id);
    String other = run(id);
    Map<String, Object> all = Map.of("runs", List.of(first, other));
    People.Answer none = made.person().post("/api/sessions/{id}/parts", all, id);
    assertThat(none.status()).isEqualTo(422);
    assertThat(none.text()).contains("No run would be left");
    People.Answer made2 =
        made.person().post("/api/sessions/{id}/parts", Map.of("runs", List.of(other)), id);
    assertThat(made2.status()).as(made2.text()).isEqualTo(201);
    String part = made2.body().path("id").asText();
    assertThat(ids(open().path("runs"))).containsExactly(first);
    assertThat(listed(event)).containsExactlyInAnyOrder(id, part);
    People.Answer gone =
        made.person().post("/api/sessions/{id}/parts", Map.of("runs", List.of(other)), id);
    assertThat(gone.status()).isEqualTo(422);
    // Taken back, all is together again.
    assertThat(join(part, id).status()).isEqualTo(204);
    assertThat(ids(open().path("runs"))).containsExactlyInAnyOrder(first, other);
  }

  /** What is handed on holds the reference as it is driven then, in files that are read again. */
  @Test
  void aSessionIsHandedOnInOneFile() throws IOException {
    ObjectNode session = (ObjectNode) open().path("line").path("session");
    session.set("day", new ObjectMapper().valueToTree(wet(0.7)));
    keep(session, open().path("line").path("version").asInt());
    People.Answer answer = made.person().get("/api/sessions/{id}/pack.zip", id);
    assertThat(answer.status()).isEqualTo(200);
    Map<String, byte[]> files = new LinkedHashMap<>();
    try (ZipInputStream zip =
        new ZipInputStream(
            new java.io.ByteArrayInputStream(
                answer.result().getResponse().getContentAsByteArray()))) {
      for (ZipEntry e = zip.getNextEntry(); e != null; e = zip.getNextEntry()) {
        files.put(e.getName(), zip.readAllBytes());
      }
    }
    assertThat(files.keySet())
        .contains(
            "actions.csv",
            "brief-a4.pdf",
            "brief-a5.pdf",
            "brief.json",
            "corners.csv",
            "lap.csv",
            "reference.json",
            "session.ics");
    JsonNode plan = open().path("plan");
    JsonNode today = plan.path("corners");
    JsonNode written =
        new ObjectMapper().readTree(files.get("reference.json")).path("content").path("corners");
    for (int c = 0; c < today.size(); c++) {
      JsonNode entry = today.path(c).path("today").path("entry");
      assertThat(written.path(c).path("points").size()).isEqualTo(entry.path("points").size());
      assertThat(written.path(c).path("points").path(0).path("station").asDouble())
          .isCloseTo(entry.path("points").path(0).path("station").asDouble(), within(1e-6));
    }
    String lap = new String(files.get("lap.csv"), java.nio.charset.StandardCharsets.UTF_8);
    String[] rows = lap.strip().split("\r\n");
    double last = Double.parseDouble(rows[rows.length - 1].split(",")[1]);
    assertThat(last).isCloseTo(plan.path("today").path("lapTime").asDouble(), within(0.5));
    assertThat(new PdfReader(files.get("brief-a4.pdf")).getNumberOfPages()).isEqualTo(1);
  }

  /** Nobody waits for ever for somebody who waits for him. */
  @Test
  void plansAreMadeSideBySide() throws Exception {
    List<String> all = new ArrayList<>();
    for (int k = 0; k < 6; k++) {
      all.add(add(body("Side " + k, Map.of("day", wet(0.6 + 0.03 * k)))));
    }
    ExecutorService pool = Executors.newFixedThreadPool(12);
    try {
      List<Future<Integer>> asked = new ArrayList<>();
      for (int round = 0; round < 2; round++) {
        for (String s : all) {
          asked.add(pool.submit(() -> made.person().get("/api/sessions/{id}", s).status()));
        }
      }
      for (Future<Integer> f : asked) {
        assertThat(f.get(90, TimeUnit.SECONDS)).isEqualTo(200);
      }
    } finally {
      pool.shutdownNow();
    }
  }

  /** One page, in order, in letters of every people's names, and in the driver's own units. */
  @Test
  void theBriefIsAPageOfPaper() throws IOException {
    ObjectNode session = open().path("line").path("session").deepCopy();
    session.set("day", new ObjectMapper().valueToTree(wet(0.7)));
    session.put("aim", "Žluté číslo, łuk");
    ((ObjectNode) session.path("rules")).put("must", "Both sets").put("limits", "LAP_DELETED");
    JsonNode kept = keep(session, open().path("line").path("version").asInt()).body();
    assertThat(kept.path("brief").findValuesAsText("kind"))
        .containsExactly("DIFFERS", "FOCUS", "MARKERS", "WARM", "LAPS", "NUMBERS", "WRONG");
    for (String size : List.of("A4", "A5")) {
      PdfReader reader = new PdfReader(brief("?size=" + size, 200).getContentAsByteArray());
      assertThat(reader.getNumberOfPages()).isEqualTo(1);
      assertThat(reader.getPageSize(1).getHeight())
          .isCloseTo(size.equals("A4") ? 842 : 595, within(1f));
      String text = new PdfTextExtractor(reader).getTextFromPage(1).replaceAll("\\s+", " ");
      assertThat(text)
          .contains("Qualifying", "wet, grip 70 %", "Žluté číslo, łuk", "Must: Both sets")
          .contains("Off the road: the lap is deleted", "km/h", "wet, grip 70 %");
      String nothing = "";
      for (JsonNode part : kept.path("brief")) {
        assertThat(text).contains(part.path("head").asText());
        nothing += part.path("lines").findValuesAsText("words");
      }
      assertThat(nothing).doesNotContain("null").doesNotContain("{");
      for (JsonNode c : kept.path("plan").path("corners")) {
        assertThat(text).contains(c.path("words").path("line").asText().replaceAll("\\s+", " "));
      }
    }
    // What has become of it since stands on the paper.
    Map<String, Object> later = Map.of("turn", "LATER", "minutes", 20);
    assertThat(made.person().post("/api/sessions/{id}/turned", later, id).status()).isEqualTo(200);
    assertThat(page()).contains("On, 20 minutes later than announced");
    made.person().post("/api/sessions/{id}/turned", Map.of("turn", "CANCELLED", "minutes", 0), id);
    kept = open();
    assertThat(page()).contains("Cancelled, 20 minutes later than announced");
    assertThat(brief("?size=A0", 400).getContentAsString()).contains("A0");
    Map<String, Object> request = new LinkedHashMap<>();
    request.put("version", kept.path("line").path("version").asInt());
    request.put("reference", null);
    request.put("session", session);
    assertThat(made.person().put("/api/sessions/{id}", request, id).status()).isEqualTo(200);
    assertThat(brief("", 422).getContentAsString()).contains("Choose the reference");
  }

  @Test
  void theSheetIsToldInWordsOfTheCatalogue() throws IOException {
    byte[] pdf =
        made.person()
            .inMarkedWords()
            .get("/api/sessions/{id}/brief.pdf", id)
            .result()
            .getResponse()
            .getContentAsByteArray();
    PdfReader reader = new PdfReader(pdf);
    List<String> left = new ArrayList<>();
    for (int page = 1; page <= reader.getNumberOfPages(); page++) {
      String text = new PdfTextExtractor(reader).getTextFromPage(page);
      assertThat(text).contains("\u2039");
      left.addAll(Marked.outside(text, "Qualifying"));
    }
    assertThat(left).isEmpty();
  }

  private String page() throws IOException {
    PdfReader reader = new PdfReader(brief("", 200).getContentAsByteArray());
    return new PdfTextExtractor(reader).getTextFromPage(1).replaceAll("\\s+", " ");
  }

  private MockHttpServletResponse brief(String query, int status) {
    People.Answer answer = made.person().get("/api/sessions/{id}/brief.pdf" + query, id);
    assertThat(answer.status()).as(query).isEqualTo(status);
    return answer.result().getResponse();
  }

  @Test
  void aSessionMovesToAnotherEvent() {
    String to = event(made.person());
    Map<String, Object> body = Map.of("event", to);
    assertThat(made.person().put("/api/sessions/{id}/event", body, id).status()).isEqualTo(204);
    assertThat(listed(event)).isEmpty();
    assertThat(listed(to)).containsExactly(id);
    Map<String, Object> theirs = Map.of("event", event(people.newcomer()));
    assertThat(made.person().put("/api/sessions/{id}/event", theirs, id).status()).isEqualTo(404);
  }

  private void log(String session, String corner, String felt) {
    Map<String, Object> told = new TreeMap<>();
    told.put("about", "CORNER");
    told.put("corner", corner);
    told.put("felt", felt);
    said(session, UUID.randomUUID().toString(), told, false);
  }

  /** A spoken note's line. */
  private void logged(String session, String line, boolean removed) {
    Map<String, Object> told = new TreeMap<>();
    told.put("about", "NOTE");
    told.put("seconds", 3.5);
    said(session, line, told, removed);
  }

  private void said(String session, String id, Map<String, Object> told, boolean removed) {
    told.put("words", "");
    told.put("hot", List.of());
    told.put("bled", false);
    Map<String, Object> line = new TreeMap<>();
    line.put("id", id);
    line.put("device", "phone");
    line.put("at", Instant.now().toString());
    line.put("told", told);
    line.put("removed", removed);
    People.Answer answer =
        made.person().post("/api/sessions/{id}/log", Map.of("lines", List.of(line)), session);
    assertThat(answer.status()).as(answer.text()).isEqualTo(200);
  }

  @Test
  void badInputIsRefusedWithWhereAndWhatToDo() {
    Map<String, Map<String, Object>> bad = new TreeMap<>();
    bad.put("both lengths", Map.of("timing", with(timing(tomorrow(), 20), "laps", 3)));
    bad.put("year", Map.of("timing", timing("1926-06-06T10:00:00", 20)));
    bad.put("minutes", Map.of("timing", timing(tomorrow(), 0)));
    bad.put("grip", Map.of("day", wet(9)));
    bad.put("focus", Map.of("focus", List.of("a", "b", "c", "d")));
    bad.put("pits", Map.of("rules", Map.of("limits", "FREE", "pitSpeed", 400, "must", "")));
    bad.put(
        "zone",
        Map.of(
            "timing",
            with(
                timing(tomorrow(), 20), "start", Map.of("wall", tomorrow(), "zone", "Mars/Base"))));
    bad.forEach(
        (what, more) -> {
          People.Answer answer = tryAdd(body("Bad", more));
          assertThat(answer.status()).as(what + answer.text()).isBetween(400, 422);
          assertThat(answer.body().path("remedy").asText()).as(what).isNotBlank();
        });
  }

  private static Map<String, Object> with(Map<String, Object> map, String key, Object value) {
    Map<String, Object> out = new LinkedHashMap<>(map);
    out.put(key, value);
    return out;
  }

  private record Call(String method, String path, Object body) {}

  /** Sessions are their driver's alone: all others find nothing. */
  @Test
  void sessionsAreTheirDriversAlone() {
    String run =
        made.person().post("/api/sessions/{id}/runs", Map.of(), id).body().path("id").asText();
    Map<String, Object> request = new LinkedHashMap<>();
    request.put("version", 0);
    request.put("reference", made.reference());
    request.put("session", body("Theirs", Map.of()));
    List<Call> calls = new ArrayList<>();
    calls.add(new Call("PUT", "/api/events/" + event, Map.of("name", "Mine")));
    calls.add(new Call("DELETE", "/api/events/" + event, null));
    calls.add(new Call("POST", "/api/events/" + event + "/sessions", request));
    String one = "/api/sessions/" + id;
    calls.add(new Call("GET", one, null));
    calls.add(new Call("PUT", one, request));
    calls.add(new Call("DELETE", one, null));
    calls.add(new Call("POST", one + "/turned", Map.of("turn", "LATER", "minutes", 5)));
    calls.add(new Call("POST", one + "/done", Map.of("errand", "WALK", "done", true)));
    calls.add(new Call("POST", one + "/like", Map.of("wall", "2026-06-06T10:00:00")));
    calls.add(new Call("POST", one + "/back", Map.of()));
    calls.add(new Call("POST", one + "/read", Map.of("said", Map.of("a", "b"))));
    calls.add(new Call("POST", one + "/runs", Map.of()));
    calls.add(new Call("GET", one + "/log", null));
    calls.add(new Call("GET", one + "/brief.json", null));
    calls.add(new Call("GET", one + "/brief.pdf", null));
    calls.add(new Call("GET", one + "/pack.zip", null));
    calls.add(new Call("GET", one + "/coaches", null));
    calls.add(new Call("PUT", one + "/coaches/" + NOBODY, Map.of("sees", true)));
    calls.add(new Call("GET", one + "/session.ics", null));
    calls.add(new Call("POST", one + "/log", Map.of("lines", List.of())));
    calls.add(new Call("GET", one + "/felt", null));
    calls.add(new Call("GET", one + "/tyres", null));
    calls.add(new Call("PUT", one + "/joined", Map.of("into", id)));
    calls.add(new Call("PUT", one + "/event", Map.of("event", event)));
    calls.add(new Call("POST", one + "/parts", Map.of("runs", List.of(run))));
    calls.add(new Call("GET", one + "/race", null));
    calls.add(new Call("GET", one + "/limits", null));
    calls.add(new Call("GET", one + "/inside/c1", null));
    calls.add(new Call("GET", one + "/weather", null));
    calls.add(new Call("GET", one + "/tryable", null));
    calls.add(new Call("GET", one + "/trials", null));
    calls.add(new Call("GET", one + "/rehearsal", null));
    calls.add(new Call("GET", one + "/readiness", null));
    calls.add(new Call("GET", one + "/calls.wav", null));
    calls.add(new Call("GET", one + "/rehearsed", null));
    calls.add(new Call("GET", one + "/mistakes/c1", null));
    calls.add(new Call("POST", one + "/rehearsed", Map.of("answers", List.of())));
    calls.add(
        new Call("POST", one + "/trials", Map.of("corner", "", "source", "SHEET", "key", "none")));
    calls.add(new Call("PUT", "/api/runs/" + run + "/session", Map.of("session", id)));
    Set<String> listed = new TreeSet<>();
    People.Person stranger = people.newcomer();
    for (Call c : calls) {
      People.Answer answer =
          switch (c.method()) {
            case "GET" -> stranger.get(c.path());
            case "PUT" -> stranger.put(c.path(), c.body());
            case "DELETE" -> stranger.delete(c.path());
            default -> stranger.post(c.path(), c.body());
          };
      assertThat(answer.status()).as(c.method() + " " + c.path()).isEqualTo(404);
      listed.add(
          c.method()
              + " "
              + c.path()
                  .replace(id, "{id}")
                  .replace(event, "{id}")
                  .replace(run, "{id}")
                  .replace(NOBODY, "{share}")
                  .replace("/c1", "/{corner}"));
    }
    // These show and make one's own only.
    listed.addAll(Set.of("GET /api/events", "POST /api/events"));
    // Tried with a file where it is tested.
    listed.add("POST /api/sessions/{id}/weather");
    listed.add("POST /api/sessions/{id}/log/{line}/sound");
    listed.add("GET /api/sessions/{id}/log/{line}/sound");
    assertThat(listed)
        .containsExactlyInAnyOrderElementsOf(
            endpoints.where(
                p -> p.matches("/api/(events|sessions)(/.*)?|/api/runs/\\{id\\}/session")));
    assertThat(stranger.get("/api/events").body().path("events").size()).isZero();
  }

  @Test
  void theCalendarShowsAllAndASessionTakenAwayComesBack() {
    assertThat(made.person().delete("/api/sessions/{id}", id).status()).isEqualTo(204);
    assertThat(sessions()).isEmpty();
    assertThat(made.person().post("/api/sessions/{id}/back", Map.of(), id).status()).isEqualTo(204);
    assertThat(sessions()).containsExactly("Qualifying");
  }

  private List<String> sessions() {
    List<String> out = new ArrayList<>();
    for (JsonNode e : made.person().get("/api/events").body().path("events")) {
      e.path("sessions").forEach(s -> out.add(s.path("session").path("name").asText()));
    }
    return out;
  }

  /**
   * What the database made of runs that were driven before there were sessions is opened like any.
   */
  @Test
  void aSessionMadeOfWhatWasDrivenBeforeIsReadLikeAny() {
    jdbc.update(
        """
        update track_session set made = true, body = jsonb_build_object(
          'kind', 'TEST', 'name', 'Driven, 2 runs',
          'timing', jsonb_build_object(
            'start', jsonb_build_object('wall', '2026-05-02T09:15:07', 'zone', 'Europe/Lisbon'),
            'minutes', 61, 'later', 0, 'state', 'ON'),
          'done', jsonb_build_array('OUT'))
        where id = ?
        """,
        UUID.fromString(id));
    JsonNode line = open().path("line");
    assertThat(line.path("made").asBoolean()).isTrue();
    assertThat(line.path("local").asText()).isEqualTo("2026-05-02T09:15:07");
    assertThat(open().path("plan").path("corners").size()).isPositive();
    assertThat(sessions()).containsExactly("Driven, 2 runs");
  }

  /** Without a station nothing is made up. */
  /** What was spoken is kept under the line's id, known by what is in it, and nobody else's. */
  @Test
  void aNoteIsSpokenAndHeardAgain() {
    String line = UUID.randomUUID().toString();
    String path = "/api/sessions/" + id + "/log/" + line + "/sound";
    byte[] webm = {0x1A, 0x45, (byte) 0xDF, (byte) 0xA3, 1, 2, 3};
    assertThat(made.person().upload(path, "note.txt", "no sound".getBytes(UTF_8)).status())
        .isEqualTo(422);
    assertThat(made.person().upload(path, "note.webm", new byte[1_100_000]).status())
        .isEqualTo(422);
    assertThat(made.person().upload(path, "note.bin", webm).status()).isEqualTo(204);
    // Sent twice, it is there once.
    assertThat(made.person().upload(path, "note.bin", webm).status()).isEqualTo(204);
    assertThat(made.person().get(path).status()).isEqualTo(200);
    People.Person other = people.newcomer();
    assertThat(other.get(path).status()).isEqualTo(404);
    assertThat(other.upload(path, "note.webm", webm).status()).isEqualTo(404);
    // Taken back, nothing of it is kept, nor of what comes after that.
    logged(id, line, false);
    assertThat(made.person().get(path).status()).isEqualTo(200);
    logged(id, line, true);
    assertThat(made.person().get(path).status()).isEqualTo(404);
    assertThat(made.person().upload(path, "note.bin", webm).status()).isEqualTo(204);
    assertThat(made.person().get(path).status()).isEqualTo(404);
    logged(id, line, false);
    assertThat(made.person().upload(path, "note.bin", webm).status()).isEqualTo(204);
    String elsewhere = "/api/sessions/" + add(body("Next", Map.of())) + "/log/" + line + "/sound";
    assertThat(made.person().get(elsewhere).status()).isEqualTo(404);
    assertThat(made.person().upload(elsewhere, "note.webm", webm).status()).isEqualTo(422);
  }

  /** A file in the station's format says what the station would. */
  @Test
  void weatherComesFromAFileToo() {
    String at = open().path("line").path("begins").asText();
    String csv = "at,air,road,wind,from,rain,wet\n" + at + ",11.5,14,3,200,2.4,0.9\n";
    People.Answer answer =
        made.person().upload("/api/sessions/" + id + "/weather", "w.csv", csv.getBytes(UTF_8));
    assertThat(answer.status()).as(answer.text()).isEqualTo(200);
    JsonNode day = answer.body().path("proposed");
    assertThat(day.path("day").path("surface").path("state").asText()).isEqualTo("WET");
    assertThat(day.path("road").asDouble()).isEqualTo(14);
    assertThat(day.path("day").path("airTemperature").asDouble()).isEqualTo(11.5);
    People.Answer bad =
        made.person()
            .upload("/api/sessions/" + id + "/weather", "w.csv", "when,air\n1,2\n".getBytes(UTF_8));
    assertThat(bad.status()).isEqualTo(422);
    assertThat(bad.text()).contains("no column");
    assertThat(
            people
                .newcomer()
                .upload("/api/sessions/" + id + "/weather", "w.csv", csv.getBytes(UTF_8))
                .status())
        .isEqualTo(404);
  }

  @Test
  void whereThereIsNoStationTheWeatherIsByHand() {
    JsonNode weather = made.person().get("/api/sessions/{id}/weather", id).body();
    assertThat(weather.path("there").asBoolean()).isFalse();
    assertThat(weather.path("proposed").isNull()).isTrue();
  }
}
