package marvek.core.words;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.score.ActionBuilder;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
import marvek.core.score.CueKind;
import marvek.core.score.Manner;
import marvek.core.score.Stance;
import marvek.core.score.Sureness;
import marvek.core.units.CsvText;
import org.jspecify.annotations.Nullable;

/**
 * The scores of a reference as CSV (RFC 4180), one row an action. Columns: see {@link #HEADER}. A
 * cue is its kind, then the thing and a second one that it hangs on: {@code PAST board-3-100}.
 */
public final class ScoreCsv {
  /**
   * The columns. Stations are metres from the line; the amount is per cent of a pedal, metres from
   * an edge or a gear, as the unit says; empty where it is left open.
   */
  public static final List<String> HEADER =
      List.of(
          "corner",
          "id",
          "kind",
          "station_m",
          "cue",
          "number",
          "amount",
          "unit",
          "sure",
          "note",
          "manner",
          "until_m",
          "together",
          "together_number",
          "back_up",
          "back_up_number",
          "looks_at",
          "stance");

  // Places are told to a tenth of a metre.
  private static final double TOLD = 0.11;

  private ScoreCsv() {}

  /** Whether a text begins with the header of scores and not of corners. */
  static boolean is(String text) {
    return CsvRow.columns(text).containsAll(List.of("id", "kind"));
  }

  /** Writes every action of every corner in driving order. */
  public static String write(List<Corner> corners, ReferenceContent content, double lap) {
    Map<String, String> numbers = CsvRow.numbers(corners);
    StringWriter out = new StringWriter();
    try (CsvWriter csv = CsvWriter.builder().build(out)) {
      csv.writeRecord(HEADER);
      for (CornerEntry e : content.corners()) {
        for (Action a : Score.of(lap, e)) {
          csv.writeRecord(row(numbers.getOrDefault(e.corner(), e.corner()), a));
        }
      }
    } catch (IOException e) {
      throw new IllegalStateException("writing to memory failed", e);
    }
    return out.toString();
  }

  private static List<String> row(String corner, Action a) {
    Double amount = a.amount();
    Integer gear = a.gear();
    Double until = a.until();
    Sureness sure = a.sure();
    boolean shift = a.kind() == ActionKind.SHIFT;
    Stance stance = a.stance();
    return List.of(
        corner,
        a.id(),
        CsvRow.word(a.kind()),
        told(a.station()),
        told(a.cue()),
        number(a.cue()),
        shift
            ? gear == null ? "" : gear.toString()
            : amount == null ? "" : a.kind().shared() ? told(amount * 100) : told(amount),
        unit(a.kind()),
        sure == null ? "" : CsvRow.word(sure),
        CsvText.safe(a.note()),
        CsvRow.word(a.manner()),
        until == null ? "" : told(until),
        told(a.together()),
        number(a.together()),
        told(a.backUp()),
        number(a.backUp()),
        told(a.target()),
        stance == null ? "" : CsvRow.word(stance));
  }

  private static String told(@Nullable Cue cue) {
    return cue == null
        ? ""
        : CsvText.safe((cue.kind().name() + " " + cue.thing() + " " + cue.other()).strip());
  }

  private static String number(@Nullable Cue cue) {
    return cue == null || !cue.kind().number() ? "" : fine(cue.number());
  }

  private static String unit(ActionKind kind) {
    return kind == ActionKind.SHIFT ? "gear" : kind.shared() ? "%" : "m";
  }

  private static String told(double value) {
    return String.format(Locale.ROOT, "%.1f", value);
  }

  private static String fine(double value) {
    return String.format(Locale.ROOT, "%.3f", value);
  }

  /**
   * Reads scores for a layout. The corners that the file names have the actions that it gives;
   * points that every corner has and the file leaves out stay.
   *
   * @param text the file
   * @param corners of the layout
   * @param length of the lap, metres
   * @param present what is kept of everything else
   */
  static ReferenceContent read(
      String text, List<Corner> corners, double length, ReferenceContent present) {
    Map<String, List<Action>> read = new LinkedHashMap<>();
    CsvRow.each(
        text,
        "an action",
        row -> {
          Corner corner = row.corner(corners);
          List<Action> mine = read.computeIfAbsent(corner.id(), c -> new ArrayList<>());
          Action action = action(row, length);
          if (mine.stream().anyMatch(a -> a.id().equals(action.id()))) {
            throw row.problem("id", "refusal.entry.action_in_two_rows", Value.own(action.id()));
          }
          mine.add(action);
        });
    Map<String, String> spoken = spoken(present, length);
    read.replaceAll((corner, actions) -> actions.stream().map(a -> named(a, spoken)).toList());
    return present.with(
        present.corners().stream()
            .map(
                e -> {
                  List<Action> mine = read.get(e.corner());
                  return mine == null ? e : with(e, mine, length);
                })
            .toList());
  }

  /** How things are called that the reference hangs on already. */
  private static Map<String, String> spoken(ReferenceContent present, double length) {
    Map<String, String> out = new LinkedHashMap<>();
    for (CornerEntry e : present.corners()) {
      for (Action a : Score.of(length, e)) {
        for (Cue cue : Arrays.asList(a.cue(), a.together(), a.backUp(), a.target())) {
          if (cue != null) {
            out.put(cue.thing(), cue.spoken());
            out.put(cue.other(), cue.otherSpoken());
          }
        }
      }
    }
    return out;
  }

  private static Action named(Action a, Map<String, String> spoken) {
    return ActionBuilder.builder(
            a.found(named(a.cue(), spoken), named(a.together(), spoken), named(a.backUp(), spoken)))
        .target(named(a.target(), spoken))
        .build();
  }

  private static @Nullable Cue named(@Nullable Cue cue, Map<String, String> spoken) {
    return cue == null
        ? null
        : new Cue(
            cue.kind(),
            cue.thing(),
            spoken.getOrDefault(cue.thing(), cue.spoken()),
            cue.other(),
            spoken.getOrDefault(cue.other(), cue.otherSpoken()),
            cue.number());
  }

  private static CornerEntry with(CornerEntry entry, List<Action> mine, double length) {
    List<Action> before = Score.of(length, entry);
    CornerEntry out = entry.copy().actions(List.of()).done();
    for (Action a : mine) {
      Optional<PointKind> point = Score.point(a.id());
      Action was = before.stream().filter(b -> b.id().equals(a.id())).findFirst().orElse(null);
      if (was != null && same(was, a)) {
        // Written as it was: nothing that the table has no column for is lost.
        out = point.isPresent() ? out : Score.with(out, was);
      } else if (point.isPresent() && out.point(point.get()).isEmpty()) {
        List<CornerPoint> points = new ArrayList<>(out.points());
        points.add(new CornerPoint(point.get(), a.station(), null, a.sure(), a));
        out = Score.with(out.copy().points(points).done(), a);
      } else {
        out = Score.with(out, a);
      }
    }
    return slowed(out);
  }

  /** A corner driven flat that is braked or lifted for is so no more. */
  private static CornerEntry slowed(CornerEntry entry) {
    if (entry.slowing() != Slowing.FLAT) {
      return entry;
    }
    if (entry.point(PointKind.BRAKE).isPresent()) {
      return entry.copy().slowing(Slowing.BRAKE).done();
    }
    boolean lifted = entry.actions().stream().anyMatch(a -> a.kind() == ActionKind.LIFT);
    return lifted ? entry.copy().slowing(Slowing.LIFT).done() : entry;
  }

  /** Whether all that the table tells of two actions is the same. */
  private static boolean same(Action a, Action b) {
    return row("", a).equals(row("", b)) && Math.abs(a.station() - b.station()) < TOLD;
  }

  private static Action action(CsvRow row, double length) {
    String id = row.text("id");
    if (id.isEmpty() || id.length() > 60) {
      throw row.problem("id", "refusal.entry.action_no_id");
    }
    ActionKind kind = row.word("kind", ActionKind.class);
    boolean shift = kind == ActionKind.SHIFT;
    Double amount = null;
    Double gear = null;
    if (shift) {
      gear = row.perhaps("amount", 1, 10);
    } else if (kind.shared()) {
      amount = row.perhaps("amount", 0, 100 * kind.most());
    } else {
      amount = row.perhaps("amount", -30, 60);
    }
    Double share = amount;
    if (amount != null && kind.shared()) {
      share = amount / 100;
    }
    String sure = row.text("sure");
    String manner = row.text("manner");
    String stance = row.text("stance");
    return ActionBuilder.builder(Action.of(id, kind, row.number("station_m", 0, length), share))
        .until(row.perhaps("until_m", 0, length))
        .cue(cue(row, "cue", "number"))
        .together(cue(row, "together", "together_number"))
        .backUp(cue(row, "back_up", "back_up_number"))
        .target(cue(row, "looks_at", "looks_at_number"))
        .gear(gear == null ? null : gear.intValue())
        .stance(stance.isEmpty() ? null : row.word("stance", Stance.class))
        .sure(sure.isEmpty() ? null : row.word("sure", Sureness.class))
        .manner(manner.isEmpty() ? kind.manners().get(0) : row.word("manner", Manner.class))
        .note(row.text("note"))
        .build();
  }

  private static @Nullable Cue cue(CsvRow row, String column, String numbers) {
    String[] parts = row.text(column).split("\\s+");
    if (parts[0].isEmpty()) {
      return null;
    }
    CueKind kind = row.word(column, parts[0], CueKind.class);
    Double number = row.perhaps(numbers, -25000, 25000);
    boolean other = kind == CueKind.SECONDS;
    String thing = parts.length > 1 && !other ? parts[1] : "";
    String second = other && parts.length > 1 ? parts[1] : parts.length > 2 ? parts[2] : "";
    return new Cue(kind, thing, thing, second, second, number == null ? 0 : number);
  }
}
