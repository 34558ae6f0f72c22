package marvek.core.debrief;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.score.Manner;
import marvek.core.score.Matching;
import marvek.core.telemetry.Act;
import marvek.core.telemetry.Acts;
import marvek.core.telemetry.Knots;
import marvek.core.telemetry.LapSketch;
import org.jspecify.annotations.Nullable;

/**
 * The written actions of a reference as they were done in one lap. Presses, lifts and shifts are
 * read without looking at what is written and matched in driving order; stages of the throttle and
 * eased brakes are read where the pedal passes what is written.
 */
public final class DoneActions {
  // Metres beyond which two are not the same.
  private static final double REACH = 60;
  // Metres that belong to a corner after its exit.
  private static final double AFTER = 30;
  // Seconds that a foot needs, and over which a share that is held is read.
  private static final double MOVES = 0.1;
  private static final double SETTLED = 0.3;
  private static final double READ = 1.5;
  private static final double SHUT = 0.05;
  // Share from one stage to the next from which its place can be told.
  private static final double TOLD = 0.25;
  // The same for each metre of a way that is gone evenly.
  private static final double STEEP = 0.005;
  // Metres closer than which no place is meant.
  private static final double PLACED = 4;
  // Share of the way to the next action from which a stage was not late, but left out.
  private static final double MOSTLY = 0.7;
  // Metres before the first that is written for a corner that may be its own.
  private static final double BEFORE = 25;
  private static final int PIECES = 10;
  // Share of the way from one apex to the next on which a corner without full throttle lasts.
  private static final double CLOSELY = 0.4;

  /**
   * An action as it was done.
   *
   * @param late metres later than written, negative for sooner; null where that cannot be told
   * @param amount share driven; null where it has none
   * @param until metres later than written that a lift comes back; null where it has no end
   * @param slack share by which the pedal is written to change on its way there within the metres
   *     that no place is meant closer than and the time of a foot; 0 where it is taken there at
   *     once
   */
  public record Done(
      @Nullable Double late, @Nullable Double amount, @Nullable Double until, double slack) {
    Done(@Nullable Double late, @Nullable Double amount, @Nullable Double until) {
      this(late, amount, until, 0);
    }
  }

  private final Centreline road;
  private final LapSketch sketch;
  private final Map<String, Map<String, Done>> done = new LinkedHashMap<>();
  private final Map<String, List<Act>> besides = new LinkedHashMap<>();

  private DoneActions(Centreline road, LapSketch sketch) {
    this.road = road;
    this.sketch = sketch;
  }

  /** An action that is written; of the lap before or after where it is only not to be missed. */
  private record Planned(
      CornerEntry entry, List<Action> score, Action action, double station, boolean other) {
    Planned over(double by) {
      return new Planned(entry, score, action, station + by, true);
    }
  }

  /**
   * Reads a lap.
   *
   * @param corners of the road, in driving order
   * @param entries the reference, one for each corner
   */
  public static DoneActions of(
      Centreline road, List<Corner> corners, List<CornerEntry> entries, LapSketch sketch) {
    DoneActions all = new DoneActions(road, sketch);
    all.read(corners, entries);
    return all;
  }

  /** What was done of an action; empty where it was not, or cannot be seen. */
  public Optional<Done> of(String corner, String action) {
    return Optional.ofNullable(done.getOrDefault(corner, Map.of()).get(action));
  }

  /** Lifts and presses that nothing is written for, stations below zero before the line. */
  public List<Act> besides(String corner) {
    return besides.getOrDefault(corner, List.of());
  }

  /** Whether a source with these channels can show an action of a kind. */
  public static boolean shows(LapSketch sketch, ActionKind kind) {
    return switch (kind) {
      case LIFT, THROTTLE, FULL -> sketch.throttle() != null;
      case BRAKE, EASE -> sketch.brake() != null;
      case SHIFT -> sketch.gear() != null;
      default -> false;
    };
  }

  private void read(List<Corner> corners, List<CornerEntry> entries) {
    List<Planned> planned = new ArrayList<>();
    for (int c = 0; c < entries.size(); c++) {
      double middle = corners.get(c).apex();
      List<Action> score = Score.of(road, entries.get(c));
      for (Action a : score) {
        planned.add(
            new Planned(entries.get(c), score, a, middle + road.apart(middle, a.station()), false));
      }
    }
    List<Act> acts = Acts.of(sketch);
    matched(planned, acts, ActionKind.BRAKE, corners);
    matched(planned, acts, ActionKind.LIFT, corners);
    for (Planned p : planned) {
      boolean own = Score.point(p.action().id()).isEmpty();
      Optional<Done> read =
          switch (p.action().kind()) {
            case SHIFT -> shift(p, acts);
            case THROTTLE, FULL -> own || again(p) ? stage(p, sketch.throttle()) : Optional.empty();
            case EASE -> own ? stage(p, sketch.brake()) : Optional.empty();
            default -> Optional.empty();
          };
      read.ifPresent(d -> put(p, d));
    }
  }

  private void put(Planned p, Done d) {
    done.computeIfAbsent(p.entry().corner(), k -> new LinkedHashMap<>()).put(p.action().id(), d);
  }

  private void matched(
      List<Planned> planned, List<Act> acts, ActionKind kind, List<Corner> corners) {
    List<Planned> these = new ArrayList<>();
    for (Planned p : planned) {
      if (p.action().kind() == kind) {
        these.add(p);
        these.add(p.over(road.length()));
        these.add(p.over(-road.length()));
      }
    }
    these.sort(Comparator.comparingDouble(Planned::station));
    List<Act> those = acts.stream().filter(a -> a.kind() == kind).toList();
    List<Action> first = new ArrayList<>();
    List<Action> second = new ArrayList<>();
    these.forEach(p -> first.add(p.action().at(p.station())));
    those.forEach(a -> second.add(Action.of("", kind, a.station(), null)));
    // Stations are not wrapped here: what lies before the line is not what lies at its end.
    Matching matching = Matching.of(first, second, 4 * road.length());
    boolean[] used = new boolean[second.size()];
    for (Matching.Pair pair : matching.pairs()) {
      int i = place(first, pair.first());
      int j = place(second, pair.second());
      Planned p = these.get(i);
      Act a = those.get(j);
      if (Math.abs(a.station() - p.station()) > REACH) {
        continue;
      }
      used[j] = true;
      if (p.other()) {
        continue;
      }
      Double until = p.action().until();
      Double back = a.until();
      put(
          p,
          new Done(
              a.station() - p.station(),
              share(kind, a.amount()),
              until == null || back == null || kind != ActionKind.LIFT
                  ? null
                  : Double.valueOf(back - p.station() - road.apart(p.action().station(), until))));
    }
    for (int j = 0; j < used.length; j++) {
      if (!used[j] && !lessAgain(planned, those.get(j))) {
        Act a = those.get(j);
        owner(corners, planned, a.station())
            .ifPresent(c -> besides.computeIfAbsent(c, k -> new ArrayList<>()).add(a));
      }
    }
  }

  /** Whether a point is where the throttle is full once more, and not for the first time. */
  private boolean again(Planned p) {
    return p.action().kind() == ActionKind.FULL && fullAgain(road, p.entry());
  }

  /** Whether a corner is full once before the point where it is full for good, or lifted for. */
  public static boolean fullAgain(Centreline road, CornerEntry entry) {
    Optional<Double> first = entry.station(PointKind.FIRST_THROTTLE);
    Optional<Double> full = entry.station(PointKind.FULL_THROTTLE);
    double from = first.or(() -> entry.station(PointKind.APEX)).orElse(Double.NaN);
    return full.isPresent()
        && entry.actions().stream()
            .filter(a -> a.kind() == ActionKind.FULL || a.kind() == ActionKind.LIFT)
            .anyMatch(
                a ->
                    road.apart(from, a.station()) >= 0 && road.apart(a.station(), full.get()) >= 0);
  }

  /**
   * Whether the press that was read for a corner is a further one that is written for it: the first
   * was too light to be shown.
   *
   * @param brake where it was read; null where none was
   */
  public static boolean furtherPress(Centreline road, CornerEntry entry, @Nullable Double brake) {
    Optional<Double> first = entry.station(PointKind.BRAKE);
    if (brake == null || first.isEmpty()) {
      return false;
    }
    double off = Math.abs(road.apart(first.get(), brake));
    return entry.actions().stream()
        .filter(a -> a.kind() == ActionKind.BRAKE)
        .anyMatch(a -> Math.abs(road.apart(a.station(), brake)) < off);
  }

  /** Whether the throttle is written to be eased again about where it was. */
  private boolean lessAgain(List<Planned> planned, Act act) {
    return act.kind() == ActionKind.LIFT
        && planned.stream()
            .filter(p -> p.action().kind() == ActionKind.THROTTLE)
            .filter(p -> Math.abs(p.station() - act.station()) < REACH / 2)
            .anyMatch(
                p -> {
                  Double share = p.action().amount();
                  return share != null && before(p) > share;
                });
  }

  /** A share as it is written, of one that the recording shows. */
  private @Nullable Double share(ActionKind kind, @Nullable Double shown) {
    if (shown == null || shown.isNaN()) {
      return null;
    }
    boolean brake = kind == ActionKind.BRAKE || kind == ActionKind.EASE;
    return brake ? sketch.pressed(shown) : sketch.force(shown);
  }

  /** What the recording shows of a share as it is written. */
  private double shown(ActionKind kind, double share) {
    Double effort = sketch.effort();
    return kind == ActionKind.EASE
        ? effort == null ? share : share / effort
        : Math.pow(share, sketch.curve());
  }

  private static int place(List<Action> all, Action one) {
    for (int i = 0; i < all.size(); i++) {
      if (all.get(i) == one) {
        return i;
      }
    }
    throw new IllegalStateException("not in the list");
  }

  /**
   * The corner that something beside what is written belongs to: the next that is not over, where a
   * corner is over when its throttle is full, or just before what is written for the next.
   */
  private Optional<String> owner(List<Corner> corners, List<Planned> planned, double station) {
    if (station < 0 || station > road.length()) {
      return Optional.empty();
    }
    double least = Double.MAX_VALUE;
    String owner = null;
    for (int c = 0; c < corners.size(); c++) {
      Corner next = corners.get((c + 1) % corners.size());
      double end = road.ahead(station, over(corners.get(c), planned, next));
      if (end < least) {
        least = end;
        owner = corners.get(c).id();
      }
    }
    return Optional.ofNullable(owner);
  }

  private double over(Corner corner, List<Planned> planned, Corner next) {
    double middle = corner.apex();
    double gap = corner.id().equals(next.id()) ? road.length() : road.ahead(middle, next.apex());
    // One that follows closely is lifted for before the one before it ends.
    double end = middle + Math.min(road.ahead(middle, corner.exit()) + AFTER, CLOSELY * gap);
    for (Planned p : planned) {
      if (p.entry().corner().equals(corner.id()) && p.action().kind() == ActionKind.FULL) {
        end = middle + road.ahead(middle, p.action().station());
      }
    }
    for (Planned p : planned) {
      if (p.entry().corner().equals(next.id()) && p.action().kind().pedal()) {
        double first = middle + road.apart(middle, p.action().station()) - BEFORE;
        end = first > middle ? Math.min(end, first) : end;
      }
    }
    return road.wrap(end);
  }

  private Optional<Done> shift(Planned p, List<Act> acts) {
    Integer gear = p.action().gear();
    return acts.stream()
        .filter(a -> a.kind() == ActionKind.SHIFT && gear != null && a.gear() == gear)
        .filter(a -> Math.abs(a.station() - p.station()) <= REACH)
        .min(Comparator.comparingDouble(a -> Math.abs(a.station() - p.station())))
        .map(a -> new Done(a.station() - p.station(), null, null));
  }

  /** What the pedal is to be at before an action: NaN where that is left open. */
  private double before(Planned p) {
    double share = p.action().kind() == ActionKind.EASE ? 0 : 1;
    for (Action a : p.score()) {
      if (a.id().equals(p.action().id())) {
        break;
      }
      Double amount = a.amount();
      double asked = amount == null ? Double.NaN : amount;
      if (p.action().kind() == ActionKind.EASE) {
        share = a.kind() == ActionKind.BRAKE || a.kind() == ActionKind.EASE ? asked : share;
      } else {
        share =
            switch (a.kind()) {
              case LIFT, THROTTLE -> asked;
              case BRAKE -> 0;
              case FULL -> 1;
              default -> share;
            };
      }
    }
    return share;
  }

  private Optional<Done> stage(Planned p, @Nullable Knots pedal) {
    Double amount = p.action().amount();
    double asked = p.action().kind() == ActionKind.FULL ? 1 : amount == null ? Double.NaN : amount;
    if (pedal == null || Double.isNaN(asked)) {
      return Optional.empty();
    }
    boolean evenly = p.action().manner() == Manner.EVENLY;
    boolean eases = p.action().kind() == ActionKind.EASE;
    double was = before(p);
    ActionKind kind = p.action().kind();
    boolean known = !Double.isNaN(was);
    double had = known ? shown(kind, was) : pedal.valueAt(p.station());
    double all = shown(kind, asked);
    // Where the one before goes on evenly to this one it is reached on the way, not taken at once.
    double way = led(p);
    double level = Math.max(SHUT, Math.min(1 - SHUT, way > 0 ? all : (all + had) / 2));
    double time = pedal.timeAt(p.station());
    double lacks = way > 0 && all != had ? (all - level) / (all - had) * way : 0;
    double expected = way > 0 ? p.station() - lacks : pedal.stationAt(time + MOVES / 2);
    double late = Double.NaN;
    for (double at : pedal.passes(level, !eases && all >= had)) {
      double by = at - expected;
      late = Math.abs(by) <= REACH && !(Math.abs(by) >= Math.abs(late)) ? by : late;
    }
    double here = pedal.valueAt(p.station());
    if (way > 0 && !Double.isNaN(here)) {
      // On a slow way a little more is as far as many metres.
      boolean told =
          p.station() + late < nextOf(p) && Math.abs(all - had) >= Math.max(TOLD, STEEP * way);
      double foot = Math.max(0, pedal.stationAt(time + MOVES) - p.station());
      double slack = known ? Math.abs(asked - was) / way * (PLACED + foot) : 0;
      return Optional.of(
          new Done(told ? Double.valueOf(late) : null, share(kind, here), null, slack));
    }
    double soon = pedal.valueAt(pedal.stationAt(time + 2 * MOVES));
    if (evenly && !Double.isNaN(soon)) {
      // It goes on at once to what comes next.
      double on = shown(kind, nextShare(p, asked)) - all;
      double gap = pedal.timeAt(nextOf(p)) - time;
      double gone = gap > 0 ? on * Math.min(1, 2 * MOVES / gap) : 0;
      boolean told = p.station() + late < nextOf(p) && Math.abs(all - had) >= TOLD;
      return Optional.of(
          new Done(
              told ? Double.valueOf(late) : null,
              share(kind, Math.max(0, Math.min(1, soon - gone))),
              null));
    }
    if (late > MOSTLY * (nextOf(p) - p.station())) {
      // It is as good as the next action that takes it there: until then it was less, not later.
      late = Double.NaN;
      Double kept = share(kind, held(p, pedal, 0));
      if (kept != null) {
        return Optional.of(new Done(null, kept, null));
      }
    }
    if (Double.isNaN(late)) {
      return Optional.empty();
    }
    return Optional.of(new Done(late, share(kind, held(p, pedal, late)), null));
  }

  /** Metres over which the action before goes on evenly to this one; 0 where it does not. */
  private double led(Planned p) {
    Action last = null;
    for (Action a : p.score()) {
      if (a.id().equals(p.action().id())) {
        break;
      }
      boolean same =
          p.action().kind() == ActionKind.EASE
              ? a.kind() == ActionKind.BRAKE || a.kind() == ActionKind.EASE
              : a.kind().pedal() && a.kind() != ActionKind.EASE;
      last = same ? a : last;
    }
    boolean ramps =
        last != null
            && last.manner() == Manner.EVENLY
            && (last.kind() == ActionKind.THROTTLE || last.kind() == ActionKind.EASE);
    return ramps && last != null ? road.ahead(last.station(), p.action().station()) : 0;
  }

  /** The share of the throttle or brake that the next action of its kind leads to. */
  private double nextShare(Planned p, double asked) {
    double least = Double.MAX_VALUE;
    double share = asked;
    for (Action a : p.score()) {
      double by = road.apart(p.action().station(), a.station());
      Double amount = a.amount();
      boolean on =
          p.action().kind() == ActionKind.EASE
              ? a.kind() == ActionKind.EASE
              : a.kind() == ActionKind.THROTTLE || a.kind() == ActionKind.FULL;
      if (by > 0 && by < least && on) {
        least = by;
        share = a.kind() == ActionKind.FULL ? 1 : amount == null ? asked : amount;
      }
    }
    return share;
  }

  /** The station of the next action of a pedal; endless where there is none. */
  private double nextOf(Planned p) {
    double least = Double.MAX_VALUE;
    for (Action a : p.score()) {
      double by = road.apart(p.action().station(), a.station());
      if (by > 0 && a.kind().pedal()) {
        least = Math.min(least, by);
      }
    }
    return p.station() + least;
  }

  /**
   * The share held after an action: from when the foot has settled up to the next of the pedal, or
   * the least that a brake is eased to; null where the next comes too soon.
   */
  private @Nullable Double held(Planned p, Knots pedal, double late) {
    boolean eases = p.action().kind() == ActionKind.EASE;
    double begin = pedal.timeAt(p.station() + late);
    double from = begin + (eases ? MOVES : SETTLED);
    double next = pedal.timeAt(nextOf(p));
    double to = Double.isNaN(next) ? from + READ : Math.min(from + READ, next);
    if (to < from || Double.isNaN(from)) {
      return null;
    }
    double sum = 0;
    double least = 1;
    for (int k = 0; k <= PIECES; k++) {
      double v = pedal.valueAt(pedal.stationAt(from + (to - from) * k / PIECES));
      sum += v / (PIECES + 1);
      least = Math.min(least, v);
    }
    double share = eases ? least : sum;
    return Double.isNaN(share) ? null : share;
  }
}
