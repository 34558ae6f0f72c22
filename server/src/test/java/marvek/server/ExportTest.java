package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.lowagie.text.pdf.PdfReader;
import com.lowagie.text.pdf.parser.PdfTextExtractor;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javax.xml.parsers.DocumentBuilderFactory;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;

/** What is taken out of a run, read back by other people's libraries. */
@ServerTest
class ExportTest {
  private static final double EARTH = 6_371_008.8;

  @Autowired private People people;
  private Made made;
  private String run;
  private JsonNode laps;

  @BeforeEach
  void driven() {
    made = Made.reference(people);
    drive();
  }

  private void drive() {
    JsonNode taken =
        made.person()
            .post(
                "/api/references/{id}/logger",
                Map.of(
                    "laps",
                    6,
                    "habits",
                    List.of(Map.of("mistake", "LOCKS_THE_FRONT", "corner", "c1")),
                    "live",
                    false,
                    "seed",
                    31),
                made.reference())
            .body();
    run = taken.path("run").asText();
    await()
        .atMost(Duration.ofSeconds(60))
        .until(
            () -> {
              JsonNode view =
                  made.person().get("/api/references/{id}/runs", made.reference()).body();
              for (JsonNode r : view.path("runs")) {
                if (r.path("id").asText().equals(run)) {
                  laps = r.path("laps");
                  return r.toString().contains("\"state\":\"DONE\"");
                }
              }
              return false;
            });
  }

  private byte[] bytes(String path, Object... parts) {
    return made.person().get(path, parts).result().getResponse().getContentAsByteArray();
  }

  private List<CSVRecord> csv(String path) throws IOException {
    String text = new String(bytes(path, run), StandardCharsets.UTF_8);
    try (var rows =
        CSVFormat.RFC4180
            .builder()
            .setHeader()
            .setSkipHeaderRecord(true)
            .get()
            .parse(new StringReader(text))) {
      return rows.getRecords();
    }
  }

  private JsonNode lap(int number) {
    for (JsonNode l : laps) {
      if (l.path("number").asInt() == number) {
        return l;
      }
    }
    throw new AssertionError("no lap " + number);
  }

  @Test
  void lapsCarryWhatTheDriverWroteWithAllItsCommasAndQuotes() throws IOException {
    String note = "behind the \"blue\" one, twice\nthen alone; ação";
    made.person()
        .put(
            "/api/laps/{id}",
            Map.of("kind", "TRAFFIC", "counts", false, "note", note),
            lap(3).path("id").asText());
    List<CSVRecord> rows = csv("/api/runs/{id}/laps.csv");
    CSVRecord third = rows.stream().filter(r -> r.get("lap").equals("3")).findFirst().orElseThrow();
    assertThat(third.get("note")).isEqualTo(note);
    assertThat(third.get("kind")).isEqualTo("traffic");
    assertThat(third.get("counts")).isEqualTo("false");
    for (CSVRecord r : rows) {
      if (!r.get("lap").equals("0")) {
        double sum = 0;
        for (int i = 1; i <= 3; i++) {
          sum += Double.parseDouble(r.get("sector_" + i + "_s"));
        }
        assertThat(sum).isCloseTo(Double.parseDouble(r.get("lap_time_s")), within(0.002));
      }
    }
  }

  @Test
  void eventsAreOneRowACornerALapWithWheelsAndKnocks() throws IOException {
    int corners = made.open().path("corners").size();
    List<CSVRecord> rows = csv("/api/runs/{id}/events.csv");
    for (int lap = 1; lap <= 6; lap++) {
      String number = String.valueOf(lap);
      assertThat(rows).filteredOn(r -> r.get("lap").equals(number)).hasSize(corners);
    }
    assertThat(rows)
        .filteredOn(r -> !r.get("lap").equals("0") && r.get("corner").equals("1"))
        .allMatch(r -> r.get("wheel_locks").equals("1"));
    assertThat(rows)
        .filteredOn(r -> !r.get("corner").equals("1"))
        .allMatch(r -> r.get("wheel_locks").equals("0") && r.get("wheel_spins").equals("0"));
    for (CSVRecord r : rows) {
      assertThat(Double.parseDouble(r.get("knock_m_s2"))).isBetween(0.0, 10.0);
      assertThat(Double.parseDouble(r.get("minimum_speed_m_s")))
          .isLessThanOrEqualTo(Double.parseDouble(r.get("arrival_speed_m_s")) + 0.5);
    }
  }

  private static double station(JsonNode entry, String kind) {
    for (JsonNode p : entry.path("points")) {
      if (p.path("kind").asText().equals(kind)) {
        return p.path("station").asDouble();
      }
    }
    return 0;
  }

  /** Writes a lift before the first braking into the reference. */
  private void lifting() {
    JsonNode working = made.open().path("working");
    ObjectNode content = working.path("content").deepCopy();
    for (JsonNode e : content.path("corners")) {
      double brake = station(e, "BRAKE");
      if (brake > 150) {
        ((ArrayNode) e.path("actions"))
            .addObject()
            .put("id", "own-lift")
            .put("kind", "LIFT")
            .put("station", brake - 60)
            .put("until", brake - 25)
            .put("amount", 0.4)
            .put("left", false)
            .put("note", "");
        double first = station(e, "FIRST_THROTTLE");
        ((ArrayNode) e.path("actions"))
            .addObject()
            .put("id", "own-stage")
            .put("kind", "THROTTLE")
            .put("station", first + (station(e, "FULL_THROTTLE") - first) / 2)
            .put("amount", 0.5)
            .put("left", false)
            .put("note", "");
        Map<String, Object> saved =
            Map.of("version", working.path("version").asInt(), "content", content);
        assertThat(
                made.person().put("/api/references/{id}/working", saved, made.reference()).status())
            .isEqualTo(200);
        return;
      }
    }
    throw new AssertionError("no braking far from the line");
  }

  @Test
  void actionsAreOneRowAnActionALapNearWhereTheyAreWritten() throws IOException {
    lifting();
    drive();
    List<CSVRecord> rows = csv("/api/runs/{id}/actions.csv");
    assertThat(rows).hasSizeGreaterThan(6);
    List<Double> late = new ArrayList<>();
    for (CSVRecord r : rows) {
      assertThat(r.get("kind")).isIn("LIFT", "BRAKE", "EASE", "THROTTLE", "FULL", "SHIFT");
      assertThat(Integer.parseInt(r.get("lap"))).isBetween(1, 6);
      if (r.get("id").equals("own-lift")) {
        assertThat(r.get("kind")).isEqualTo("LIFT");
        late.add(Math.abs(Double.parseDouble(r.get("late_m"))));
        double share = Double.parseDouble(r.get("written_share"));
        assertThat(Double.parseDouble(r.get("driven_share"))).isCloseTo(share, within(0.15));
      }
    }
    assertThat(rows).extracting(r -> r.get("id")).contains("own-lift", "own-stage");
    // Driven as written, with the scatter of a good driver.
    assertThat(late).isNotEmpty().allMatch(m -> m < 15);
  }

  /** Metres between two points {longitude, latitude} on a sphere. */
  private static double apart(double[] a, double[] b) {
    double x = Math.toRadians(b[0] - a[0]) * Math.cos(Math.toRadians((a[1] + b[1]) / 2)) * EARTH;
    double y = Math.toRadians(b[1] - a[1]) * EARTH;
    return Math.hypot(x, y);
  }

  @Test
  void aLapAsGpxAndAsGeoJsonIsTheSameRoadAtTheSameTimes() throws Exception {
    String id = lap(2).path("id").asText();
    var factory = DocumentBuilderFactory.newInstance();
    factory.setNamespaceAware(true);
    NodeList points =
        factory
            .newDocumentBuilder()
            .parse(new ByteArrayInputStream(bytes("/api/laps/{id}/lap.gpx", id)))
            .getElementsByTagNameNS("http://www.topografix.com/GPX/1/1", "trkpt");
    JsonNode line =
        new com.fasterxml.jackson.databind.ObjectMapper()
            .readTree(bytes("/api/laps/{id}/lap.geojson", id));
    assertThat(line.path("type").asText()).isEqualTo("Feature");
    assertThat(line.path("properties").path("lap").asInt()).isEqualTo(2);
    List<double[]> gpx = new ArrayList<>();
    List<Instant> times = new ArrayList<>();
    for (int i = 0; i < points.getLength(); i++) {
      Element p = (Element) points.item(i);
      gpx.add(
          new double[] {
            Double.parseDouble(p.getAttribute("lon")), Double.parseDouble(p.getAttribute("lat"))
          });
      times.add(Instant.parse(p.getElementsByTagNameNS("*", "time").item(0).getTextContent()));
    }
    double metres = 0;
    for (int i = 0; i < gpx.size(); i++) {
      JsonNode c = line.path("geometry").path("coordinates").path(i);
      double[] geo = {c.path(0).asDouble(), c.path(1).asDouble()};
      assertThat(apart(gpx.get(i), geo)).isLessThan(0.1);
      metres += i == 0 ? 0 : apart(gpx.get(i - 1), gpx.get(i));
      if (i > 0) {
        assertThat(times.get(i)).isAfter(times.get(i - 1));
      }
    }
    double length = made.open().path("length").asDouble();
    assertThat(metres).isBetween(0.97 * length, 1.03 * length);
    double seconds =
        Duration.between(times.get(0), times.get(times.size() - 1)).toMillis() / 1000.0;
    assertThat(seconds).isCloseTo(lap(2).path("lapTime").asDouble(), within(0.3));
  }

  private String pdf() throws IOException {
    return pdf(made.person());
  }

  private String pdf(People.Person person) throws IOException {
    PdfReader reader =
        new PdfReader(
            person
                .get("/api/runs/{id}/debrief.pdf", run)
                .result()
                .getResponse()
                .getContentAsByteArray());
    StringBuilder text = new StringBuilder();
    PdfTextExtractor extractor = new PdfTextExtractor(reader);
    for (int page = 1; page <= reader.getNumberOfPages(); page++) {
      text.append(extractor.getTextFromPage(page)).append('\n');
    }
    return text.toString();
  }

  @Test
  void theDebriefOnPaperSaysWhatTheScreenSays() throws IOException {
    JsonNode debrief = made.person().get("/api/runs/{id}/debrief", run).body().path("debrief");
    String text = pdf().replaceAll("\\s+", " ");
    assertThat(text).contains("Vale", "Run 1", "laps count", "What matters", "On offer");
    assertThat(text).as("the day it is held against").contains("Held against dry, warm.");
    assertThat(text).contains("A wheel stands while you brake.").contains("estimate");
    for (JsonNode f : debrief.path("corners")) {
      assertThat(text)
          .contains(String.format(java.util.Locale.ROOT, "%.2f s", f.path("best").asDouble()));
    }
  }

  @Test
  void theDebriefOnPaperIsToldInWordsOfTheCatalogue() throws IOException {
    String text = pdf(made.person().inMarkedWords());
    assertThat(text).contains("\u2039What matters\u203a");
    assertThat(Marked.outside(text, "Vale", "Run", "km/h")).isEmpty();
  }

  @Test
  void theDebriefOnPaperIsInTheReadersUnits() throws IOException {
    assertThat(pdf()).contains("km/h").doesNotContain("mph");
    JsonNode person = made.person().get("/api/session").body().path("person");
    made.person()
        .put(
            "/api/session/preferences",
            Map.of(
                "length",
                "YD",
                "speed",
                "MPH",
                "corners",
                person.path("corners").asText("NUMBERS"),
                "theme",
                person.path("theme").asText("PAPER")));
    assertThat(pdf()).contains("mph").doesNotContain("km/h");
  }

  @Test
  void aLapTimedByHandHasNoPathToTakeOut() {
    String byHand =
        made.person()
            .post("/api/runs/{id}/laps", Map.of("lapTime", 99.5, "kind", "PUSH", "note", ""), run)
            .body()
            .path("id")
            .asText();
    People.Answer answer = made.person().get("/api/laps/{id}/lap.gpx", byHand);
    assertThat(answer.status()).isEqualTo(422);
    assertThat(answer.text()).contains("timed by hand");
  }
}
