package marvek.server.export;

import com.lowagie.text.Document;
import com.lowagie.text.Font;
import com.lowagie.text.PageSize;
import com.lowagie.text.Paragraph;
import com.lowagie.text.Phrase;
import com.lowagie.text.pdf.PdfPCell;
import com.lowagie.text.pdf.PdfPTable;
import com.lowagie.text.pdf.PdfWriter;
import de.siegmar.fastcsv.writer.CsvWriter;
import io.jenetics.jpx.GPX;
import io.jenetics.jpx.WayPoint;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.LocalPlane;
import marvek.core.circuit.RoadPosition;
import marvek.core.day.RunDays;
import marvek.core.debrief.Debrief;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.telemetry.CornerEvents;
import marvek.core.telemetry.LapGrid;
import marvek.core.units.CsvText;
import marvek.core.units.Display;
import marvek.core.units.LapClock;
import marvek.core.words.Speaker;
import marvek.server.access.Driver;
import marvek.server.debrief.Evidences;
import marvek.server.problem.Problem;
import marvek.server.run.LapRow;
import marvek.server.run.Runs;
import marvek.server.words.Speakers;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Laps, events, positions and debriefs in open formats. */
@RestController
@RequestMapping("/api")
class ExportController {
  private final Runs runs;
  private final Evidences evidences;
  private final Speakers speakers;

  ExportController(Runs runs, Evidences evidences, Speakers speakers) {
    this.runs = runs;
    this.evidences = evidences;
    this.speakers = speakers;
  }

  private static ResponseEntity<byte[]> csv(String name, List<List<String>> rows) {
    StringWriter text = new StringWriter();
    try (CsvWriter csv = CsvWriter.builder().build(text)) {
      rows.forEach(r -> csv.writeRecord(r.stream().map(CsvText::safe).toList()));
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
    return Paper.file(name, "text/csv", text.toString().getBytes(StandardCharsets.UTF_8));
  }

  @GetMapping("/runs/{id}/laps.csv")
  ResponseEntity<byte[]> laps(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    Runs.Opened opened = runs.read(driver.id(), id);
    List<List<String>> rows = new ArrayList<>();
    rows.add(
        List.of(
            "lap",
            "kind",
            "counts",
            "lap_time_s",
            "sector_1_s",
            "sector_2_s",
            "sector_3_s",
            "remark",
            "note"));
    for (LapRow l : runs.laps(List.of(opened.run()))) {
      List<String> row = new ArrayList<>();
      row.add(String.valueOf(l.number()));
      row.add(Speaker.PLAIN.say(l.kind().said()));
      row.add(String.valueOf(l.counts()));
      row.add(number(l.lapTime()));
      for (int i = 0; i < 3; i++) {
        row.add(i < l.sectors().size() ? number(l.sectors().get(i)) : "");
      }
      row.add(Speaker.PLAIN.say(l.remark()));
      row.add(l.note());
      rows.add(row);
    }
    return csv("laps.csv", rows);
  }

  @GetMapping("/runs/{id}/events.csv")
  ResponseEntity<byte[]> events(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    Runs.Opened opened = runs.read(driver.id(), id);
    Map<String, String> numbers = new java.util.HashMap<>();
    opened.reference().layout().corners().forEach(c -> numbers.put(c.id(), c.number()));
    List<List<String>> rows = new ArrayList<>();
    rows.add(
        List.of(
            "lap",
            "corner",
            "lift_m",
            "brake_m",
            "brake_peak",
            "release_m",
            "brakings",
            "turn_in_m",
            "apex_m",
            "apex_gap_m",
            "minimum_speed_m_s",
            "minimum_at_m",
            "arrival_speed_m_s",
            "exit_speed_m_s",
            "first_throttle_m",
            "full_throttle_m",
            "lifts",
            "coasting_s",
            "gear",
            "limiter_s",
            "corrections",
            "exit_at_m",
            "exit_room_m",
            "wheel_locks",
            "wheel_spins",
            "knock_m_s2"));
    for (LapRow l : runs.laps(List.of(opened.run()))) {
      for (CornerEvents e : l.events()) {
        rows.add(
            List.of(
                String.valueOf(l.number()),
                numbers.getOrDefault(e.corner(), e.corner()),
                number(e.lift()),
                number(e.brake()),
                number(e.brakePeak()),
                number(e.release()),
                String.valueOf(e.brakings()),
                number(e.turnIn()),
                number(e.apex()),
                number(e.apexGap()),
                number(e.minimumSpeed()),
                number(e.minimumAt()),
                number(e.arrivalSpeed()),
                number(e.exitSpeed()),
                number(e.firstThrottle()),
                number(e.fullThrottle()),
                String.valueOf(e.lifts()),
                number(e.coasting()),
                e.gear() == null ? "" : String.valueOf(e.gear()),
                number(e.limiter()),
                String.valueOf(e.corrections()),
                number(e.exitAt()),
                number(e.exitRoom()),
                String.valueOf(e.locks()),
                String.valueOf(e.spins()),
                number(e.strike())));
      }
    }
    return csv("events.csv", rows);
  }

  /** Every action that is written beyond the points, as each lap of a run did it. */
  @GetMapping("/runs/{id}/actions.csv")
  ResponseEntity<byte[]> actions(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    Runs.Opened opened = runs.read(driver.id(), id);
    Evidences.Judged judged = evidences.judged(opened, null);
    Map<String, String> numbers = new java.util.HashMap<>();
    opened.reference().layout().corners().forEach(c -> numbers.put(c.id(), c.number()));
    Map<String, Integer> laps = new java.util.HashMap<>();
    judged.laps().forEach(l -> laps.put(l.id(), l.number()));
    List<List<String>> rows = new ArrayList<>();
    rows.add(
        List.of(
            "lap", "corner", "id", "kind", "written_m", "late_m", "written_share", "driven_share"));
    for (Debrief.CornerFinding f : evidences.debrief(judged).corners()) {
      for (Debrief.ActionFinding a : f.actions()) {
        for (int i = 0; i < a.laps().size(); i++) {
          rows.add(
              List.of(
                  String.valueOf(laps.getOrDefault(a.laps().get(i), 0)),
                  numbers.getOrDefault(f.corner(), f.corner()),
                  a.action(),
                  a.kind().name(),
                  number(a.planned()),
                  number(a.lates().get(i)),
                  number(a.amount()),
                  number(a.amounts().get(i))));
        }
      }
    }
    return csv("actions.csv", rows);
  }

  private static String number(@Nullable Double value) {
    return value == null || Double.isNaN(value) ? "" : String.format(Locale.ROOT, "%.3f", value);
  }

  /** A lap as points {longitude, latitude, seconds}. */
  private List<double[]> positions(UUID id, Driver driver) {
    Runs.OpenedLap found = runs.lap(driver.id(), id);
    LapGrid grid = runs.channels(found.lap()).grid();
    Centreline road = found.opened().reference().computed().road();
    LocalPlane plane = found.opened().reference().layout().plane();
    if (plane == null) {
      throw Problem.bad("refusal.export.layout_no_place_earth");
    }
    if (Double.isNaN(grid.offset()[0])) {
      throw Problem.bad("refusal.export.no_positions_were_recorded");
    }
    List<double[]> out = new ArrayList<>();
    for (int i = 0; i < grid.speed().length; i++) {
      double[] xy = RoadPosition.toPlane(road, i * grid.step(), grid.offset()[i]);
      double[] lonLat = plane.toDegrees(xy[0], xy[1]);
      out.add(new double[] {lonLat[0], lonLat[1], grid.times()[i]});
    }
    return out;
  }

  @GetMapping("/laps/{id}/lap.gpx")
  ResponseEntity<byte[]> gpx(@PathVariable UUID id, @AuthenticationPrincipal Driver driver)
      throws IOException {
    Instant start = runs.lap(driver.id(), id).opened().run().drivenAt();
    List<WayPoint> points =
        positions(id, driver).stream()
            .map(
                p ->
                    WayPoint.builder()
                        .lat(p[1])
                        .lon(p[0])
                        .time(start.plusNanos((long) (p[2] * 1e9)))
                        .build())
            .toList();
    GPX gpx = GPX.builder("Marvek").addTrack(t -> t.addSegment(s -> s.points(points))).build();
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    GPX.Writer.DEFAULT.write(gpx, out);
    return Paper.file("lap.gpx", "application/gpx+xml", out.toByteArray());
  }

  record GeoJsonLine(String type, List<double[]> coordinates) {}

  record GeoJsonFeature(String type, GeoJsonLine geometry, Map<String, Object> properties) {}

  @GetMapping("/laps/{id}/lap.geojson")
  ResponseEntity<GeoJsonFeature> geoJson(
      @PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    Runs.OpenedLap found = runs.lap(driver.id(), id);
    List<double[]> points =
        positions(id, driver).stream()
            .map(p -> new double[] {Math.round(p[0] * 1e8) / 1e8, Math.round(p[1] * 1e8) / 1e8})
            .toList();
    return ResponseEntity.ok()
        .contentType(MediaType.parseMediaType("application/geo+json"))
        .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=lap.geojson")
        .body(
            new GeoJsonFeature(
                "Feature",
                new GeoJsonLine("LineString", points),
                Map.of(
                    "lap",
                    found.lap().number(),
                    "lapTime",
                    found.lap().lapTime(),
                    "run",
                    found.opened().run().name())));
  }

  @GetMapping("/runs/{id}/debrief.pdf")
  ResponseEntity<byte[]> pdf(@PathVariable UUID id, @AuthenticationPrincipal Driver driver)
      throws IOException {
    Runs.Opened opened = runs.read(driver.id(), id);
    Display units = speakers.units(driver);
    Speaker speaker = speakers.of(driver);
    Evidences.Judged judged = evidences.judged(opened, null);
    Debrief d = evidences.debrief(judged);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    Document document = new Document(PageSize.A4, 48, 48, 48, 48);
    PdfWriter.getInstance(document, out);
    document.open();
    Font title = Paper.font(18, Font.BOLD);
    Font head = Paper.font(12, Font.BOLD);
    Font plain = Paper.font(10, Font.NORMAL);
    document.add(
        new Paragraph(
            opened.reference().layout().circuit().name() + " · " + opened.run().name(), title));
    document.add(
        new Paragraph(
            speaker.say(
                Said.of(
                    "paper.run",
                    Value.own(opened.reference().row().name()),
                    Value.figure(opened.run().revision(), 0),
                    Value.count(d.laps()),
                    Value.own(LapClock.of(d.best())),
                    Value.own(LapClock.of(d.median())),
                    Value.own(LapClock.of(d.theoretical())))),
            plain));
    Map<String, Corner> corners = new java.util.HashMap<>();
    opened.reference().layout().corners().forEach(c -> corners.put(c.id(), c));
    RunDays.PartLine part = judged.part();
    if (part != null) {
      document.add(
          new Paragraph(
              speaker.say(
                  Said.of(
                      "paper.held",
                      Value.choice(part.day() != null),
                      part.called().in(),
                      part.words().in(),
                      Value.choice(judged.parts().size() > 1))),
              plain));
    }
    document.add(new Paragraph(speaker.say(Said.of("paper.matters")), head));
    for (String focus : d.focus()) {
      d.corners().stream()
          .filter(f -> f.corner().equals(focus))
          .findFirst()
          .ifPresent(
              f ->
                  document.add(
                      new Paragraph(
                          called(corners, focus) + ": " + speaker.say(f.words()), plain)));
    }
    document.add(new Paragraph(" ", plain));
    document.add(table(d, corners, units, speaker, plain, Paper.font(10, Font.BOLD)));
    document.add(new Paragraph(speaker.say(Said.of("paper.caution")), Paper.font(8, Font.NORMAL)));
    document.close();
    return Paper.file("debrief.pdf", "application/pdf", out.toByteArray());
  }

  private static PdfPTable table(
      Debrief d,
      Map<String, Corner> corners,
      Display units,
      Speaker speaker,
      Font plain,
      Font bold) {
    PdfPTable table = new PdfPTable(new float[] {2.2f, 1.2f, 1.4f, 1.4f, 1.6f, 5});
    table.setWidthPercentage(100);
    table.setHeaderRows(1);
    for (String h :
        List.of(
            "paper.corner",
            "paper.offer",
            "paper.median",
            "paper.best",
            "paper.slowest",
            "paper.habit")) {
      table.addCell(new PdfPCell(new Phrase(speaker.say(Said.of(h)), bold)));
    }
    for (Debrief.CornerFinding f : d.corners()) {
      table.addCell(new Phrase(called(corners, f.corner()), plain));
      table.addCell(new Phrase(String.format(Locale.ROOT, "%.2f s", f.offer()), plain));
      table.addCell(new Phrase(String.format(Locale.ROOT, "%.2f s", f.median()), plain));
      table.addCell(new Phrase(String.format(Locale.ROOT, "%.2f s", f.best()), plain));
      table.addCell(new Phrase(units.speed(f.minimumSpeed()), plain));
      table.addCell(
          new Phrase(
              f.habits().isEmpty()
                  ? speaker.say(Said.of("paper.none_seen"))
                  : speaker.say(f.habits().get(0).words())
                      + " ("
                      + speaker.say(f.habits().get(0).measure())
                      + ")",
              plain));
    }
    return table;
  }

  private static String called(Map<String, Corner> corners, String id) {
    Corner c = corners.get(id);
    return c == null ? id : c.number() + (c.name().isBlank() ? "" : " " + c.name());
  }
}
