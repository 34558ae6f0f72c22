package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import org.apache.commons.csv.CSVFormat;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** Laps in, judged, accepted into a revision and taken out, over HTTP. */
@ServerTest
class RunsTest {
  @Autowired private People people;

  @Autowired private Endpoints endpoints;

  private Made made;

  @BeforeEach
  void reference() {
    made = Made.reference(people);
    made.person()
        .post(
            "/api/references/{id}/revisions",
            Map.of("version", version(), "reason", "First"),
            made.reference());
  }

  private int version() {
    return made.open().path("working").path("version").asInt();
  }

  private JsonNode drive(int laps, long seed, Map<?, ?>... habits) {
    People.Answer answer =
        made.person()
            .post(
                "/api/references/{id}/logger",
                Map.of(
                    "laps",
                    laps,
                    "habits",
                    List.of(habits),
                    "live",
                    false,
                    "seed",
                    seed,
                    "spread",
                    2.5),
                made.reference());
    assertThat(answer.status()).as(answer.text()).isEqualTo(200);
    settled(answer.body().path("made").asText());
    return answer.body();
  }

  /**
   * The driver's word: laps that are driven unevenly use too little of the grip to tell the day.
   */
  private void itWasDry(String run) {
    JsonNode r = run(run);
    assertThat(
            made.person()
                .put(
                    "/api/runs/{id}",
                    Map.of(
                        "name",
                        r.path("name").asText(),
                        "day",
                        "",
                        "revision",
                        r.path("revision").asInt(),
                        "note",
                        ""),
                    run)
                .status())
        .isEqualTo(204);
    r.path("recordings").forEach(x -> settled(x.path("id").asText()));
  }

  private JsonNode view() {
    return made.person().get("/api/references/{id}/runs", made.reference()).body();
  }

  private JsonNode recording(String id) {
    for (JsonNode run : view().path("runs")) {
      for (JsonNode r : run.path("recordings")) {
        if (r.path("id").asText().equals(id)) {
          return r;
        }
      }
    }
    throw new AssertionError("no recording " + id);
  }

  private JsonNode run(String id) {
    for (JsonNode run : view().path("runs")) {
      if (run.path("id").asText().equals(id)) {
        return run;
      }
    }
    throw new AssertionError("no run " + id);
  }

  private JsonNode settled(String recording) {
    await()
        .atMost(Duration.ofSeconds(60))
        .pollInterval(Duration.ofMillis(100))
        .until(
            () ->
                Set.of("DONE", "FAILED", "ASKS", "CANCELLED")
                    .contains(recording(recording).path("state").asText()));
    return recording(recording);
  }

  private String newRun() {
    return made.person()
        .post("/api/references/{id}/runs", Map.of(), made.reference())
        .body()
        .path("id")
        .asText();
  }

  private JsonNode bring(String name, String text) {
    People.Answer answer =
        made.person()
            .send(
                "/api/runs/{id}/recordings", name, text.getBytes(StandardCharsets.UTF_8), newRun());
    assertThat(answer.status()).as(answer.text()).isEqualTo(201);
    return settled(answer.body().path("id").asText());
  }

  private String file(String recording) {
    return made.person().get("/api/recordings/{id}/file", recording).text();
  }

  private static List<Double> lapTimes(JsonNode run) {
    List<Double> out = new ArrayList<>();
    for (JsonNode l : run.path("laps")) {
      if (l.path("number").asInt() > 0) {
        out.add(l.path("lapTime").asDouble());
      }
    }
    return out;
  }

  @Test
  void lapsComeInAreJudgedAndBecomeARevisionThatKeepsItsEvidence() throws Exception {
    JsonNode corners = made.open().path("corners");
    String corner = corners.path(0).path("id").asText();
    JsonNode taken = drive(8, 4, Map.of("mistake", "COASTS", "corner", corner));
    String run = taken.path("run").asText();
    JsonNode truth =
        made.person().get("/api/recordings/{id}/truth", taken.path("made").asText()).body();
    List<Double> measured = lapTimes(run(run));
    List<Double> driven = new ArrayList<>();
    truth
        .path("laps")
        .forEach(
            l -> {
              if (l.path("number").asInt() > 0) {
                driven.add(l.path("lapTime").asDouble());
              }
            });
    assertThat(measured).hasSize(8);
    for (int i = 0; i < 8; i++) {
      assertThat(measured.get(i)).isCloseTo(driven.get(i), within(0.02));
    }

    JsonNode debrief = made.person().get("/api/runs/{id}/debrief", run).body().path("debrief");
    assertThat(debrief.path("laps").asInt()).isGreaterThanOrEqualTo(6);
    assertThat(debrief.path("theoretical").asDouble())
        .isLessThanOrEqualTo(debrief.path("best").asDouble() + 1e-9);
    assertThat(debrief.path("corners").path(0).path("habits").findValuesAsText("cause"))
        .contains("COASTING");
    double sum = 0;
    for (JsonNode f : debrief.path("corners")) {
      sum += f.path("best").asDouble();
    }
    assertThat(sum).isCloseTo(debrief.path("theoretical").asDouble(), within(1e-6));

    itWasDry(run);
    JsonNode proposals = made.person().get("/api/runs/{id}/proposals", run).body();
    JsonNode first = null;
    for (JsonNode p : proposals.path("proposals")) {
      assertThat(Math.abs(p.path("by").asDouble())).isLessThanOrEqualTo(5.01);
      first = first == null && p.path("change").asBoolean() ? p : first;
    }
    assertThat(first).as("a proposal").isNotNull();
    Map<String, Object> tooFar =
        Map.of(
            "corner",
            first.path("corner").asText(),
            "action",
            first.path("action").asText(),
            "share",
            first.path("share").asBoolean(),
            "to",
            first.path("from").asDouble() + 2 * first.path("by").asDouble());
    People.Answer refused =
        made.person()
            .post(
                "/api/runs/{id}/accept",
                Map.of("version", version(), "reason", "x", "moves", List.of(tooFar)),
                run);
    assertThat(refused.status()).isEqualTo(422);
    assertThat(refused.text()).contains("longer than the evidence");
    Map<String, Object> move =
        Map.of(
            "corner",
            first.path("corner").asText(),
            "action",
            first.path("action").asText(),
            "share",
            first.path("share").asBoolean(),
            "to",
            first.path("from").asDouble() + first.path("by").asDouble() / 2);
    People.Answer accepted =
        made.person()
            .post(
                "/api/runs/{id}/accept",
                Map.of("version", version(), "reason", "The laps say so", "moves", List.of(move)),
                run);
    assertThat(accepted.status()).as(accepted.text()).isEqualTo(200);
    assertThat(accepted.body().path("revision").asInt()).isEqualTo(2);

    String second = drive(8, 5).path("run").asText();
    assertThat(run(second).path("revision").asInt()).isEqualTo(2);
    JsonNode history = made.person().get("/api/references/{id}/history", made.reference()).body();
    JsonNode latest = history.path(0);
    assertThat(latest.path("number").asInt()).isEqualTo(2);
    assertThat(latest.path("driven").path(0).path("laps").asInt()).isGreaterThanOrEqualTo(6);
    JsonNode kept = latest.path("promises").path(0);
    JsonNode promise = kept.path("promise");
    assertThat(kept.path("evidence").path("lapIds").size()).isGreaterThanOrEqualTo(5);
    assertThat(promise.path("before").asInt()).isGreaterThanOrEqualTo(3);
    assertThat(promise.path("after").asInt()).isGreaterThanOrEqualTo(3);
    assertThat(promise.path("difference").isNumber()).isTrue();
    assertThat(promise.path("moved").isNumber()).isTrue();
    assertThat(promise.path("verdict").asText()).isNotEqualTo("OPEN");

    String csv = made.person().get("/api/runs/{id}/laps.csv", run).text();
    try (var rows =
        CSVFormat.RFC4180
            .builder()
            .setHeader()
            .setSkipHeaderRecord(true)
            .get()
            .parse(new StringReader(csv))) {
      List<Double> out = new ArrayList<>();
      rows.forEach(
          r -> {
            if (!r.get("lap").equals("0")) {
              out.add(Double.parseDouble(r.get("lap_time_s")));
            }
          });
      assertThat(out).hasSize(8);
      assertThat(out.get(0)).isCloseTo(measured.get(0), within(0.001));
    }
    assertThat(made.person().get("/api/runs/{id}/events.csv", run).text().lines().count())
        .isGreaterThan(8L * corners.size());
    assertThat(
            made.person()
                .get("/api/runs/{id}/debrief.pdf", run)
                .result()
                .getResponse()
                .getContentAsByteArray())
        .startsWith("%PDF".getBytes(StandardCharsets.US_ASCII));
  }

  @Test
  void theLapOutAsGpxComesInAgainAsTheSameLap() throws Exception {
    String run = drive(2, 9).path("run").asText();
    String lap = "";
    double time = 0;
    for (JsonNode l : run(run).path("laps")) {
      if (l.path("number").asInt() == 1) {
        lap = l.path("id").asText();
        time = l.path("lapTime").asDouble();
      }
    }
    var factory = javax.xml.parsers.DocumentBuilderFactory.newInstance();
    String gpx = made.person().get("/api/laps/{id}/lap.gpx", lap).text();
    var points =
        factory
            .newDocumentBuilder()
            .parse(new java.io.ByteArrayInputStream(gpx.getBytes(StandardCharsets.UTF_8)))
            .getElementsByTagName("trkpt");
    assertThat(points.getLength()).isGreaterThan(300);
    JsonNode geo =
        new com.fasterxml.jackson.databind.ObjectMapper()
            .readTree(made.person().get("/api/laps/{id}/lap.geojson", lap).text());
    assertThat(geo.path("geometry").path("type").asText()).isEqualTo("LineString");
    assertThat(geo.path("geometry").path("coordinates").size()).isEqualTo(points.getLength());
    JsonNode back = bring("back.gpx", gpx);
    // One lap from line to line has no line crossed on both ends inside it: it is a part of one.
    assertThat(back.path("report").toString()).contains("points").contains("Speed");
    assertThat(time).isGreaterThan(10);
  }

  @Test
  void aSpreadsheetWithOwnNamesAndDecimalCommasImports() {
    JsonNode taken = drive(2, 6);
    List<Double> original = lapTimes(run(taken.path("run").asText()));
    StringBuilder own =
        new StringBuilder(
            "Fahrt vom Samstag;;;\nZeit;Breite;Laenge;Tempo km/h;Gas;Bremse;Lenkung;Gang;Drehzahl\n");
    int row = 0;
    for (String line : file(taken.path("made").asText()).split("\r\n")) {
      if (row++ > 0) {
        String[] cells = line.split(",");
        own.append(
            String.join(
                    ";", cells[0], cells[1], cells[2], cells[3], cells[5], cells[4], cells[6],
                    cells[7], cells[8])
                .replace('.', ','));
        own.append('\n');
      }
    }
    JsonNode brought = bring("meine laufe.csv", own.toString());
    assertThat(brought.path("state").asText()).as(brought.toString()).isEqualTo("DONE");
    List<Double> again = lapTimes(run(brought.path("run").asText()));
    assertThat(again).hasSameSizeAs(original);
    for (int i = 0; i < again.size(); i++) {
      assertThat(again.get(i)).isCloseTo(original.get(i), within(0.002));
    }
  }

  @Test
  void positionsThatComeLateAreToldOfInTheReport() {
    People.Answer answer =
        made.person()
            .post(
                "/api/references/{id}/logger",
                Map.of("laps", 3, "habits", List.of(), "live", false, "worn", true, "seed", 5),
                made.reference());
    JsonNode read = settled(answer.body().path("made").asText());
    assertThat(read.path("report").toString())
        .contains("s after the pedals, give or take")
        .contains("an offset of the sensor");
    assertThat(lapTimes(run(answer.body().path("run").asText()))).hasSize(3);
  }

  @Test
  void theSameFileTwiceIsRecognised() {
    JsonNode taken = drive(1, 7);
    byte[] same = file(taken.path("made").asText()).getBytes(StandardCharsets.UTF_8);
    int before = view().findValues("number").size();
    People.Answer again =
        made.person().send("/api/runs/{id}/recordings", "again.csv", same, newRun());
    assertThat(again.body().path("known").asBoolean()).isTrue();
    assertThat(again.body().path("id").asText()).isEqualTo(taken.path("made").asText());
    assertThat(view().findValues("number")).hasSize(before);
  }

  @Test
  void columnsThatAreNotKnownAreAskedForOnceAndRemembered() {
    String head = "aa,bb,cc,dd\n";
    String plain = file(drive(1, 8).path("made").asText());
    StringBuilder text = new StringBuilder(head);
    int row = 0;
    for (String line : plain.split("\r\n")) {
      String[] c = line.split(",");
      if (row++ > 0) {
        text.append(String.join(",", c[0], c[1], c[2], c[3])).append('\n');
      }
    }
    JsonNode asks = bring("odd.csv", text.toString());
    assertThat(asks.path("state").asText()).isEqualTo("ASKS");
    assertThat(asks.path("problem").path("remedy").asText()).contains("Say which one");
    List<Map<String, Object>> columns = new ArrayList<>();
    String[][] said = {
      {"TIME", "SECOND"}, {"LATITUDE", "DEGREE"}, {"LONGITUDE", "DEGREE"}, {"SPEED", "KM_PER_HOUR"}
    };
    for (int i = 0; i < 4; i++) {
      columns.add(
          Map.of(
              "index",
              i,
              "header",
              head.strip().split(",")[i],
              "channel",
              said[i][0],
              "unit",
              said[i][1],
              "guessed",
              false));
    }
    String id = asks.path("id").asText();
    People.Answer half =
        made.person()
            .put("/api/recordings/{id}/mapping", Map.of("columns", columns.subList(1, 4)), id);
    assertThat(half.status()).isEqualTo(422);
    assertThat(
            made.person()
                .put("/api/recordings/{id}/mapping", Map.of("columns", columns), id)
                .status())
        .isEqualTo(204);
    JsonNode read = settled(id);
    assertThat(read.path("state").asText()).as(read.toString()).isEqualTo("DONE");
    JsonNode next = bring("odd2.csv", text + "\n");
    assertThat(next.path("state").asText()).isEqualTo("DONE");
    assertThat(next.path("report").toString()).contains("told from the speed");
  }

  @Test
  void badFilesAreToldAboutAndNothingIsLost() {
    String good = file(drive(2, 10).path("made").asText());
    String[] lines = good.split("\r\n");
    String header = lines[0] + "\n";
    // Driven the other way: the same rows backwards, with their times in order.
    StringBuilder back = new StringBuilder(header);
    StringBuilder away = new StringBuilder(header);
    StringBuilder hostile = new StringBuilder(header);
    StringBuilder slow = new StringBuilder(header);
    StringBuilder two = new StringBuilder(header);
    StringBuilder zero = new StringBuilder(header);
    for (int i = 1; i < lines.length; i++) {
      String[] c = lines[i].split(",");
      String[] r = lines[lines.length - i].split(",");
      back.append(c[0])
          .append(',')
          .append(String.join(",", List.of(r).subList(1, r.length)))
          .append('\n');
      away.append(c[0])
          .append("," + (40 + i * 1e-5) + ",")
          .append(c[2])
          .append(",100,0,0,0,3,5000,0,0\n");
      c[4] = "0.0";
      zero.append(String.join(",", c)).append('\n');
      hostile.append(i).append(",1e308,NaN,Infinity,0,0,0,3,-1e999,0,0\n");
      String mps = String.format(Locale.ROOT, "%.3f", Double.parseDouble(c[3]) / 3.6);
      slow.append(
              String.join(",", c[0], c[1], c[2], mps, c[4], c[5], c[6], c[7], c[8], c[9], c[10]))
          .append('\n');
      two.append(
              i < lines.length * 3 / 4
                  ? lines[i]
                  : c[0] + "," + (10 + i * 1e-5) + "," + c[2] + ",100,0,0,0,3,5000,0,0")
          .append('\n');
    }
    told("back.csv", back.toString(), "FAILED", "other way round");
    told("away.csv", away.toString(), "FAILED", "from this circuit");
    told("hostile.csv", hostile.toString(), "FAILED", "");
    told("words.csv", "hello\nworld\n", "FAILED", "No rows of numbers");
    told(
        "stand.csv",
        header + lines[1] + "\n" + lines[2] + "\n" + lines[3] + "\n",
        "FAILED",
        "no lap");
    told("slow.csv", slow.toString(), "DONE", "another unit than the file says");
    told("two.csv", two.toString(), "DONE", "away from this circuit");
    told("cut.csv", good.substring(0, good.length() * 2 / 3), "DONE", "rows");
    told("zero.csv", zero.toString(), "DONE", "zero throughout");
    assertThat(
            made.person()
                .send("/api/runs/{id}/recordings", "empty.csv", new byte[0], newRun())
                .status())
        .isEqualTo(422);
  }

  private void told(String name, String text, String state, String words) {
    JsonNode r = bring(name, text);
    assertThat(r.path("state").asText()).as(name + " " + r).isEqualTo(state);
    assertThat(r.path("problem") + " " + r.path("report")).as(name).contains(words);
    assertThat(file(r.path("id").asText())).as(name).isEqualTo(text);
  }

  /** A quicker driver's lap is looked at, and is no evidence of one's own. */
  @Test
  void aLapOfSomebodyElsesIsNeverEvidence() {
    String run = drive(4, 12).path("run").asText();
    String lap = lapNumbered(run, 2);
    int before = counting(run);
    People.Answer counts =
        made.person()
            .put("/api/laps/{id}", Map.of("kind", "GUEST", "counts", true, "note", ""), lap);
    assertThat(counts.status()).isEqualTo(422);
    assertThat(counts.body().path("detail").asText()).contains("never evidence");
    assertThat(counting(run)).isEqualTo(before);
    assertThat(
            made.person()
                .put("/api/laps/{id}", Map.of("kind", "GUEST", "counts", false, "note", ""), lap)
                .status())
        .isEqualTo(200);
    assertThat(counting(run)).isEqualTo(before - 1);
    assertThat(run(run).path("laps").findValuesAsText("kindWords")).contains("somebody else's");
    assertThat(made.person().get("/api/laps/{id}/trace", lap).status()).isEqualTo(200);
  }

  private int counting(String run) {
    int n = 0;
    for (JsonNode l : run(run).path("laps")) {
      n += l.path("counts").asBoolean() ? 1 : 0;
    }
    return n;
  }

  @Test
  void readAgainNothingIsDoubledAndWhatTheDriverSaidStays() {
    JsonNode taken = drive(3, 11);
    String run = taken.path("run").asText();
    JsonNode lap = null;
    for (JsonNode l : run(run).path("laps")) {
      lap = l.path("number").asInt() == 2 ? l : lap;
    }
    assertThat(
            made.person()
                .put(
                    "/api/laps/{id}",
                    Map.of("kind", "TRAFFIC", "counts", false, "note", "behind the blue one"),
                    lap.path("id").asText())
                .status())
        .isEqualTo(200);
    String trial = made.trial("c1");
    Map<String, String> marks = Map.of(lapNumbered(run, 1), "A", lapNumbered(run, 3), "B");
    made.person().put("/api/trials/{id}/marks", Map.of("marks", marks), trial);
    int before = run(run).path("laps").size();
    made.person().post("/api/recordings/{id}/again", Map.of(), taken.path("made").asText());
    settled(taken.path("made").asText());
    assertThat(run(run).path("laps")).hasSize(before);
    assertThat(run(run).path("laps").findValuesAsText("note")).contains("behind the blue one");
    assertThat(run(run).path("laps").findValuesAsText("kind")).contains("TRAFFIC");
    // The laps are the same ones: marks, and the evidence of revisions, still point to them.
    assertThat(lapNumbered(run, 1)).isIn(marks.keySet());
    assertThat(lapNumbered(run, 3)).isIn(marks.keySet());
    JsonNode kept =
        made.person().get("/api/references/{id}/trials", made.reference()).body().path(0);
    assertThat(kept.path("lapsA").asInt()).isEqualTo(1);
    assertThat(kept.path("lapsB").asInt()).isEqualTo(1);
    assertThat(made.person().get("/api/laps/{id}/trace", lapNumbered(run, 1)).status())
        .isEqualTo(200);
  }

  private String lapNumbered(String run, int number) {
    for (JsonNode l : run(run).path("laps")) {
      if (l.path("number").asInt() == number) {
        return l.path("id").asText();
      }
    }
    throw new AssertionError("no lap " + number);
  }

  @Test
  void aSessionThatTwoDevicesRecordedCountsOnce() {
    JsonNode taken = drive(8, 23);
    String run = taken.path("run").asText();
    itWasDry(run);
    int alone = made.person().get("/api/runs/{id}/proposals", run).body().path("laps").asInt();
    assertThat(alone).isGreaterThanOrEqualTo(5);
    // The other device writes every second sample and starts its clock elsewhere.
    List<String> rows = file(taken.path("made").asText()).lines().toList();
    StringBuilder other = new StringBuilder(rows.get(0)).append('\n');
    for (int i = 1; i < rows.size(); i += 2) {
      String[] cells = rows.get(i).split(",");
      cells[0] = String.valueOf(Double.parseDouble(cells[0]) + 3600);
      other.append(String.join(",", cells)).append('\n');
    }
    JsonNode brought = bring("other.csv", other.toString());
    assertThat(brought.path("state").asText()).isEqualTo("DONE");
    String second = brought.path("run").asText();
    itWasDry(second);
    assertThat(
            made.person().get("/api/runs/{id}/debrief", second).body().at("/debrief/laps").asInt())
        .as("by itself it is a run like any other")
        .isEqualTo(alone);
    assertThat(made.person().get("/api/runs/{id}/proposals", run).body().path("laps").asInt())
        .as("laps that proposals rest on")
        .isEqualTo(alone);
  }

  @Test
  void lapsTimedByHandStandBesideTheOthers() {
    String run = newRun();
    assertThat(
            made.person()
                .post(
                    "/api/runs/{id}/laps",
                    Map.of("lapTime", 103.52, "kind", "PUSH", "note", "stopwatch"),
                    run)
                .status())
        .isEqualTo(201);
    assertThat(
            made.person()
                .post("/api/runs/{id}/laps", Map.of("lapTime", -1, "kind", "PUSH", "note", ""), run)
                .status())
        .isEqualTo(422);
    JsonNode lap = run(run).path("laps").path(0);
    assertThat(lap.path("measured").asBoolean()).isFalse();
    assertThat(made.person().get("/api/laps/{id}/trace", lap.path("id").asText()).status())
        .isEqualTo(422);
    assertThat(
            made.person()
                .get("/api/runs/{id}/debrief", run)
                .body()
                .path("debrief")
                .path("laps")
                .asInt())
        .isZero();
    assertThat(
            made.person().get("/api/references/{id}/history", made.reference()).body().toString())
        .contains("103.52");
  }

  @Test
  void lapsAppearWhileTheyAreDriven() {
    People.Answer live =
        made.person()
            .post(
                "/api/references/{id}/logger",
                Map.of("laps", 4, "habits", List.of(), "live", true, "speedUp", 200, "seed", 3),
                made.reference());
    assertThat(live.status()).as(live.text()).isEqualTo(200);
    String id = live.body().path("made").asText();
    String run = live.body().path("run").asText();
    await()
        .atMost(Duration.ofSeconds(40))
        .pollInterval(Duration.ofMillis(50))
        .until(
            () ->
                recording(id).path("state").asText().equals("LIVE")
                    && !lapTimes(run(run)).isEmpty());
    JsonNode done = settled(id);
    assertThat(done.path("state").asText()).as(done.toString()).isEqualTo("DONE");
    assertThat(lapTimes(run(run))).hasSize(4);
  }

  @Test
  void aTrialGivesItsVerdictFromTheLapsMarked() {
    String corner = made.open().path("corners").path(0).path("id").asText();
    String run = drive(8, 12).path("run").asText();
    String trial = made.trial(corner);
    Map<String, String> marks = new java.util.TreeMap<>();
    int i = 0;
    for (JsonNode l : run(run).path("laps")) {
      if (l.path("counts").asBoolean()) {
        marks.put(l.path("id").asText(), i++ % 2 == 0 ? "A" : "B");
      }
    }
    made.person().put("/api/trials/{id}/marks", Map.of("marks", marks), trial);
    JsonNode found =
        made.person().get("/api/references/{id}/trials", made.reference()).body().path(0);
    assertThat(found.path("lapsA").asInt() + found.path("lapsB").asInt()).isEqualTo(marks.size());
    assertThat(found.path("low").asDouble())
        .isLessThanOrEqualTo(found.path("difference").asDouble());
    assertThat(found.path("verdict").asText()).isNotBlank();
  }

  @Test
  void lapsOnAnotherSetUpAreNotHeldAgainstEachOther() {
    String first = drive(7, 15).path("run").asText();
    itWasDry(first);
    JsonNode alone = made.person().get("/api/runs/{id}/proposals", first).body();
    assertThat(alone.path("onOtherSheets").asInt()).isZero();
    Map<String, Object> sheet =
        Map.of(
            "name",
            "Low fuel",
            "purpose",
            "QUALIFYING",
            "note",
            "",
            "settings",
            List.of(
                Map.of(
                    "parameter",
                    "mass.ballast",
                    "number",
                    -30.0,
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
    assertThat(
            made.person()
                .put("/api/references/{id}/sheet", Map.of("sheet", id), made.reference())
                .status())
        .isEqualTo(200);
    String second = drive(7, 16).path("run").asText();
    assertThat(run(second).path("sheet").asText()).isEqualTo("Low fuel");
    itWasDry(second);
    JsonNode apart = made.person().get("/api/runs/{id}/proposals", second).body();
    assertThat(apart.path("laps").asInt()).isBetween(5, 7);
    assertThat(apart.path("onOtherSheets").asInt()).isEqualTo(alone.path("laps").asInt());
    Set<String> ofFirst = Set.copyOf(run(first).path("laps").findValuesAsText("id"));
    for (JsonNode p : apart.path("proposals")) {
      for (JsonNode lap : p.path("evidence")) {
        assertThat(ofFirst).doesNotContain(lap.asText());
      }
    }
  }

  @Test
  void whatWasDrivenLiesBehindThePlan() {
    JsonNode corner = made.open().path("corners").path(0);
    String id = corner.path("id").asText();
    JsonNode none =
        made.person().get("/api/references/{id}/driven/{c}", made.reference(), id).body();
    assertThat(none.path("laps").asInt()).isZero();
    assertThat(none.path("speed").isNull()).isTrue();
    drive(6, 14);
    JsonNode over =
        made.person().get("/api/references/{id}/driven/{c}", made.reference(), id).body();
    assertThat(over.path("laps").asInt()).isBetween(4, 6);
    assertThat(over.path("run").asText()).isEqualTo("Run 1");
    JsonNode speed = over.path("speed");
    double lowest = Double.MAX_VALUE;
    for (int i = 0; i < speed.path("middle").size(); i++) {
      double middle = speed.path("middle").path(i).asDouble();
      assertThat(speed.path("low").path(i).asDouble()).isLessThanOrEqualTo(middle + 1e-9);
      assertThat(speed.path("high").path(i).asDouble()).isGreaterThanOrEqualTo(middle - 1e-9);
      lowest = Math.min(lowest, middle);
    }
    double planned = made.entry(id).path("minimumSpeed").asDouble();
    assertThat(lowest).isBetween(0.8 * planned, 1.15 * planned);
    double apex = 0;
    for (JsonNode p : made.entry(id).path("points")) {
      apex = p.path("kind").asText().equals("APEX") ? p.path("station").asDouble() : apex;
    }
    assertThat(over.path("points").path("APEX").size()).isEqualTo(over.path("laps").asInt());
    assertThat(over.path("points").path("APEX").path(0).asDouble()).isBetween(apex - 40, apex + 40);
    assertThat(
            made.person()
                .get("/api/references/{id}/driven/{c}", made.reference(), "nowhere")
                .status())
        .isEqualTo(422);
  }

  @Test
  void theVehicleToldFromLapsComesCloserToThem() {
    String run = drive(6, 13).path("run").asText();
    JsonNode fit = made.person().get("/api/runs/{id}/vehicle-fit", run).body();
    double theoretical =
        made.person()
            .get("/api/runs/{id}/debrief", run)
            .body()
            .path("debrief")
            .path("theoretical")
            .asDouble();
    double before = Math.abs(fit.path("before").asDouble() - theoretical);
    double after = Math.abs(fit.path("after").asDouble() - theoretical);
    assertThat(after).isLessThan(Math.max(before, 0.015 * theoretical));
    int version =
        made.person().get("/api/vehicles/{id}", made.vehicle()).body().path("version").asInt();
    assertThat(
            made.person()
                .post("/api/runs/{id}/vehicle-fit", Map.of(), run)
                .body()
                .path("version")
                .asInt())
        .isEqualTo(version + 1);
    assertThat(made.open().path("vehicleChanged").asBoolean()).isTrue();
  }

  private record Call(String method, String path, Object body, boolean reads) {}

  @Test
  void runsLapsRecordingsAndTrialsAreOpenAsTheirReferenceIs() {
    JsonNode taken = drive(2, 14);
    String run = taken.path("run").asText();
    String recording = taken.path("made").asText();
    String lap = run(run).path("laps").path(1).path("id").asText();
    String corner = made.open().path("corners").path(0).path("id").asText();
    String trial = made.trial(corner);
    People.Person viewer = people.newcomer();
    People.Person coach = people.newcomer();
    for (var person : Map.of(viewer, "VIEWER", coach, "COACH").entrySet()) {
      String email =
          person.getKey().get("/api/session").body().path("person").path("email").asText();
      made.person()
          .put(
              "/api/references/{id}/shares",
              Map.of("email", email, "role", person.getValue()),
              made.reference());
    }
    Map<String, Object> move = Map.of("corner", corner, "action", "brake", "to", 1);
    List<Call> calls =
        List.of(
            new Call("GET", "/api/runs/" + run + "/debrief", null, true),
            new Call("GET", "/api/runs/" + run + "/proposals", null, true),
            new Call("GET", "/api/runs/" + run + "/plan-trace", null, true),
            new Call("GET", "/api/runs/" + run + "/vehicle-fit", null, true),
            new Call("GET", "/api/runs/" + run + "/pace", null, true),
            new Call("GET", "/api/runs/" + run + "/laps.csv", null, true),
            new Call("GET", "/api/runs/" + run + "/events.csv", null, true),
            new Call("GET", "/api/runs/" + run + "/actions.csv", null, true),
            new Call("GET", "/api/runs/" + run + "/debrief.pdf", null, true),
            new Call("GET", "/api/laps/" + lap + "/trace", null, true),
            new Call("GET", "/api/laps/" + lap + "/lap.gpx", null, true),
            new Call("GET", "/api/laps/" + lap + "/lap.geojson", null, true),
            new Call(
                "POST",
                "/api/laps/" + lap + "/stills",
                stills(Map.of("projection", "STRAIGHT", "degrees", 90, "turned", 0)),
                true),
            new Call("POST", "/api/laps/" + lap + "/lens", twoThings(), true),
            new Call(
                "PUT",
                "/api/runs/" + run,
                Map.of("name", "n", "day", "", "revision", 1, "note", ""),
                false),
            new Call(
                "POST",
                "/api/runs/" + run + "/laps",
                Map.of("lapTime", 90, "kind", "PUSH", "note", ""),
                false),
            new Call("POST", "/api/runs/" + run + "/recordings", "raw", false),
            new Call(
                "POST",
                "/api/runs/" + run + "/accept",
                Map.of("version", 0, "reason", "x", "moves", List.of(move)),
                false),
            new Call("POST", "/api/runs/" + run + "/vehicle-fit", Map.of(), false),
            new Call(
                "PUT",
                "/api/laps/" + lap,
                Map.of("kind", "PUSH", "counts", true, "note", ""),
                false),
            new Call(
                "PUT",
                "/api/recordings/" + recording + "/mapping",
                Map.of("columns", List.of()),
                false),
            new Call("POST", "/api/runs/" + run + "/day", Map.of(), false),
            new Call("PUT", "/api/runs/" + run + "/session", Map.of(), false),
            new Call("POST", "/api/recordings/" + recording + "/again", Map.of(), false),
            new Call("POST", "/api/recordings/" + recording + "/cancel", Map.of(), false),
            new Call("GET", "/api/recordings/" + recording + "/file", null, false),
            new Call("GET", "/api/recordings/" + recording + "/truth", null, false),
            new Call("PUT", "/api/trials/" + trial + "/marks", Map.of("marks", Map.of()), false),
            new Call("POST", "/api/trials/" + trial + "/taken", Map.of("way", "B"), false),
            new Call("DELETE", "/api/trials/" + trial + "/taken", null, false),
            new Call("DELETE", "/api/trials/" + trial, null, false),
            new Call("DELETE", "/api/laps/" + lap, null, false),
            new Call("DELETE", "/api/recordings/" + recording, null, false),
            new Call("DELETE", "/api/runs/" + run, null, false));
    People.Person stranger = people.newcomer();
    for (Call c : calls) {
      assertThat(status(stranger, c)).as("stranger " + c).isEqualTo(404);
      assertThat(status(viewer, c)).as("viewer " + c).isEqualTo(c.reads() ? 200 : 403);
      assertThat(status(coach, c)).as("coach " + c).isEqualTo(c.reads() ? 200 : 403);
    }
    Set<String> listed = new TreeSet<>();
    calls.forEach(
        c ->
            listed.add(
                c.method() + " " + c.path().replaceAll("[0-9a-f]{8}-[0-9a-f-]{27}", "{id}")));
    Set<String> mapped = endpoints.where(p -> p.matches("/api/(runs|laps|recordings|trials)/.*"));
    assertThat(mapped).isNotEmpty();
    assertThat(listed).containsAll(mapped);
    for (Call c : calls) {
      assertThat(status(made.person(), c)).as("owner " + c).isNotEqualTo(403).matches(s -> s < 500);
      settled(recording, c);
    }
    assertThat(made.person().get("/api/runs/{id}/debrief", UUID.randomUUID()).status())
        .isEqualTo(404);
  }

  /** A board seen from 60 m and from 15 m before it, as a lens of 90 degrees would show it. */
  private Map<String, Object> twoThings() {
    for (JsonNode l : made.open().path("things").path("landmarks")) {
      if (l.path("kind").asText().equals("BOARD") && l.path("station").asDouble() > 80) {
        double at = l.path("station").asDouble();
        double side = l.path("left").asBoolean() ? -1 : 1;
        String id = l.path("id").asText();
        return Map.of(
            "projection",
            "STRAIGHT",
            "known",
            List.of(
                Map.of("landmark", id, "station", at - 60, "across", side * 8 / 60),
                Map.of("landmark", id, "station", at - 15, "across", side * 8 / 15)));
      }
    }
    throw new AssertionError("the draft has boards");
  }

  /** What two stills of a lap show is placed, and what they cannot show is refused. */
  @Test
  void aThingIsPlacedByTwoStillsOfALap() {
    String run = drive(2, 21).path("run").asText();
    String lap = run(run).path("laps").path(1).path("id").asText();
    JsonNode lens = made.person().post("/api/laps/{id}/lens", twoThings(), lap).body();
    assertThat(lens.path("degrees").asDouble()).isBetween(50.0, 130.0);
    @SuppressWarnings("unchecked")
    List<Map<String, Object>> known = (List<Map<String, Object>>) twoThings().get("known");
    // Through the lens told by it the board stands where the survey has it.
    JsonNode board = null;
    for (JsonNode l : made.open().path("things").path("landmarks")) {
      board = l.path("id").asText().equals(known.get(0).get("landmark")) ? l : board;
    }
    Map<String, Object> wish = stills(lens);
    JsonNode placed = made.person().post("/api/laps/{id}/stills", wish, lap).body();
    assertThat(placed.path("station").asDouble())
        .isCloseTo(board.path("station").asDouble(), within(0.3));
    assertThat(placed.path("left").asBoolean()).isEqualTo(board.path("left").asBoolean());
    assertThat(placed.path("out").asDouble()).isCloseTo(board.path("out").asDouble(), within(0.3));
    assertThat(placed.path("along").asDouble()).isBetween(0.3, 15.0);
    Map<String, Object> one = sight(known.get(0));
    Map<String, Object> other = sight(known.get(1));
    Object wide = Map.of("projection", "WIDE", "degrees", 400, "turned", 0);
    for (Map<String, Object> wrong :
        List.of(
            stills(lens, one, one, 30),
            stills(lens, one, other, 0),
            stills(wide, one, other, 30),
            stills(lens, Map.of("station", 5, "across", 2), other, 30))) {
      var answer = made.person().post("/api/laps/{id}/stills", wrong, lap);
      assertThat(answer.status()).isEqualTo(422);
      assertThat(answer.body().path("remedy").asText()).isNotBlank();
    }
  }

  /** The board of {@link #twoThings} in two stills of a film. */
  @SuppressWarnings("unchecked")
  private Map<String, Object> stills(Object lens) {
    List<Map<String, Object>> known = (List<Map<String, Object>>) twoThings().get("known");
    return stills(lens, sight(known.get(0)), sight(known.get(1)), 30);
  }

  private static Map<String, Object> stills(Object lens, Object first, Object second, int rate) {
    return Map.of("lens", lens, "first", first, "second", second, "rate", rate);
  }

  private static Map<String, Object> sight(Map<String, Object> known) {
    return Map.of("station", known.get("station"), "across", known.get("across"));
  }

  /** Whoever has a file read anew waits for it before taking it away. */
  private void settled(String recording, Call c) {
    if (c.path().endsWith("/again") || c.path().endsWith("/cancel")) {
      settled(recording);
    }
  }

  private static int status(People.Person person, Call c) {
    if ("raw".equals(c.body())) {
      return person.send(c.path(), "x.csv", "a,b\n1,2\n".getBytes(StandardCharsets.UTF_8)).status();
    }
    return switch (c.method()) {
      case "GET" -> person.get(c.path()).status();
      case "PUT" -> person.put(c.path(), c.body()).status();
      case "DELETE" -> person.delete(c.path()).status();
      default -> person.post(c.path(), c.body()).status();
    };
  }
}
