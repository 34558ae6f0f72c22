package marvek.core.words;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Slowing;
import marvek.core.line.ApexType;
import marvek.core.said.Value;
import marvek.core.units.CsvText;
import marvek.core.units.Display;
import marvek.core.units.Units;

/** A reference as CSV (RFC 4180), one row a corner. Columns: see {@link #HEADER}. */
public final class ReferenceCsv {
  /** The columns. Stations are metres from the line; shares are per cent; speeds km/h. */
  public static final List<String> HEADER =
      List.of(
          "corner",
          "slowing",
          "approach_gear",
          "approach_kmh",
          "braking_marker",
          "brake_m",
          "first_effort_pct",
          "turn_in_m",
          "release_m",
          "apex_m",
          "apex_type",
          "gear",
          "minimum_kmh",
          "first_throttle_m",
          "first_throttle_pct",
          "full_throttle_m",
          "exit_m",
          "build_up_m",
          "target_m",
          "back_up_m",
          "downshift_m",
          "first_apex_m",
          "short_shift_m",
          "note");

  // Stations are told to a tenth of a metre.
  private static final double TOLD = 0.11;

  private ReferenceCsv() {}

  /** Writes the reference; corners are told by their number. */
  public static String write(List<Corner> corners, ReferenceContent content) {
    Map<String, String> numbers = CsvRow.numbers(corners);
    StringWriter out = new StringWriter();
    try (CsvWriter csv = CsvWriter.builder().build(out)) {
      csv.writeRecord(HEADER);
      for (CornerEntry e : content.corners()) {
        csv.writeRecord(
            numbers.getOrDefault(e.corner(), e.corner()),
            CsvRow.word(e.slowing()),
            Integer.toString(e.approachGear()),
            round(Units.kmh(e.approachSpeed())),
            e.point(PointKind.BRAKE)
                .map(CornerPoint::tie)
                .map(t -> CsvText.safe(Punctuation.brief(t, Display.METRIC)))
                .orElse(""),
            station(e, PointKind.BRAKE),
            round(e.firstEffort() * 100),
            station(e, PointKind.TURN_IN),
            station(e, PointKind.RELEASE),
            station(e, PointKind.APEX),
            CsvRow.word(e.apexType()),
            Integer.toString(e.gear()),
            round(Units.kmh(e.minimumSpeed())),
            station(e, PointKind.FIRST_THROTTLE),
            round(e.firstThrottle() * 100),
            station(e, PointKind.FULL_THROTTLE),
            station(e, PointKind.EXIT),
            station(e, PointKind.BUILD_UP),
            station(e, PointKind.TARGET),
            station(e, PointKind.BACK_UP),
            station(e, PointKind.DOWNSHIFT),
            station(e, PointKind.FIRST_APEX),
            station(e, PointKind.SHORT_SHIFT),
            CsvText.safe(e.note()));
      }
    } catch (IOException e) {
      throw new IllegalStateException("writing to memory failed", e);
    }
    return out.toString();
  }

  /**
   * Reads a reference for a layout, or the scores that {@link ScoreCsv} wrote. Points are tied to
   * nothing; whoever takes them ties them anew.
   *
   * @param text the file
   * @param corners of the layout
   * @param length of the lap, metres
   * @param present what is kept of corners that the file does not name
   */
  public static ReferenceContent read(
      String text, List<Corner> corners, double length, ReferenceContent present) {
    if (ScoreCsv.is(text)) {
      return ScoreCsv.read(text, corners, length, present);
    }
    Map<String, CornerEntry> entries =
        present.corners().stream()
            .collect(
                Collectors.toMap(
                    CornerEntry::corner, Function.identity(), (a, b) -> a, LinkedHashMap::new));
    Set<String> seen = new LinkedHashSet<>();
    CsvRow.each(
        text,
        "a corner",
        fields -> {
          Corner corner = fields.corner(corners);
          if (!seen.add(corner.id())) {
            throw fields.problem(
                "corner", "refusal.entry.corner_in_two_rows", Value.own(corner.number()));
          }
          CornerEntry before = entries.get(corner.id());
          entries.put(corner.id(), entry(fields, corner, length, before));
        });
    List<CornerEntry> out = new ArrayList<>();
    for (Corner corner : corners) {
      CornerEntry entry = entries.get(corner.id());
      if (entry != null) {
        out.add(entry);
      }
    }
    return present.with(out);
  }

  private static CornerEntry entry(
      CsvRow fields,
      Corner corner,
      double length,
      @org.jspecify.annotations.Nullable CornerEntry old) {
    List<CornerPoint> points = new ArrayList<>();
    for (PointKind kind : PointKind.values()) {

      String column = column(kind);
      if (!fields.text(column).isEmpty()) {
        points.add(point(kind, fields.number(column, 0, length), old));
      }
    }
    CornerEntry read =
        new CornerEntry(
            corner.id(),
            fields.word("slowing", Slowing.class),
            points,
            (int) fields.number("approach_gear", 1, 10),
            Units.fromKmh(fields.number("approach_kmh", 0, 470)),
            fields.number("first_effort_pct", 0, 100) / 100,
            (int) fields.number("gear", 1, 10),
            Units.fromKmh(fields.number("minimum_kmh", 0, 470)),
            fields.word("apex_type", ApexType.class),
            old == null ? 1 : old.apexGap(),
            fields.number("first_throttle_pct", 0, 100) / 100,
            fields.text("note"));
    if (old == null) {
      return read;
    }
    // What the table has no column for stays as it is.
    old.points().stream()
        .filter(p -> !p.kind().drafted() && !fields.has(column(p.kind())))
        .forEach(points::add);
    return old.copy()
        .slowing(read.slowing())
        .points(points)
        .approach(read.approachGear(), read.approachSpeed())
        .firstEffort(read.firstEffort())
        .gear(read.gear())
        .minimumSpeed(read.minimumSpeed())
        .apex(read.apexType(), read.apexGap())
        .firstThrottle(read.firstThrottle())
        .note(read.note())
        .done();
  }

  /** The point at the place of the table; what else is written of it stays, but for a cue left. */
  private static CornerPoint point(
      PointKind kind, double station, @org.jspecify.annotations.Nullable CornerEntry old) {
    CornerPoint was = old == null ? null : old.point(kind).orElse(null);
    if (was == null || was.play() == null) {
      return new CornerPoint(kind, station, null);
    }
    return Math.abs(was.station() - station) > TOLD ? was.at(station) : was;
  }

  private static String column(PointKind kind) {
    return CsvRow.word(kind) + "_m";
  }

  private static String station(CornerEntry e, PointKind kind) {
    return e.station(kind).map(ReferenceCsv::round).orElse("");
  }

  private static String round(double value) {
    return String.format(Locale.ROOT, "%.1f", value);
  }
}
