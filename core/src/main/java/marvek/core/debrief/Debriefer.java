package marvek.core.debrief;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.debrief.Debrief.ActionFinding;
import marvek.core.debrief.Debrief.CornerFinding;
import marvek.core.debrief.Debrief.HabitFinding;
import marvek.core.debrief.Debrief.PointFinding;
import marvek.core.debrief.Sections.Phase;
import marvek.core.debrief.habits.AsPlanned;
import marvek.core.debrief.habits.Habit;
import marvek.core.debrief.habits.Habits;
import marvek.core.debrief.habits.Look;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.line.Gate;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.telemetry.CornerEvents;
import marvek.core.telemetry.EventFinder;
import org.jspecify.annotations.Nullable;

/** Reads a run's laps against the reference that was driven. */
public final class Debriefer {
  private static final int FOCUS = 3;
  private static final double WORTH_SAYING = 0.02;
  private static final double OFTEN = 0.4;
  // Up to this share of the laps it may have come by chance.
  private static final double MOSTLY = 0.67;
  // Laps with it and without it, each, from which on their times tell something.
  private static final int COMPARED = 3;
  private static final double TREND_CONFIDENCE = 0.95;
  private static final Map<PointKind, Double> TOLERANCE = tolerances();

  private final ComputedLap computed;
  private final List<CornerEntry> entries;
  private final Sections sections;
  private final Centreline road;
  private final List<Gate> gates;
  private final ActionsDriven actions;

  private Debriefer(
      ComputedLap computed, List<CornerEntry> entries, List<Gate> gates, ActionsDriven actions) {
    this.computed = computed;
    this.entries = entries;
    this.gates = gates;
    this.actions = actions;
    this.sections = new Sections(computed, entries);
    this.road = computed.road();
  }

  /**
   * Reads laps.
   *
   * @param computed road, vehicle, line and computed lap of the reference
   * @param entries of the revision driven, in driving order
   * @param laps that count, in the order driven; none gives an empty debrief
   */
  public static Debrief read(ComputedLap computed, List<CornerEntry> entries, List<LapData> laps) {
    return read(computed, entries, List.of(), laps);
  }

  /**
   * Reads laps, and where they passed the places that the reference asks for.
   *
   * @param gates of the reference
   */
  public static Debrief read(
      ComputedLap computed, List<CornerEntry> entries, List<Gate> gates, List<LapData> laps) {
    return new Debriefer(computed, entries, gates, new ActionsDriven(computed, entries, laps))
        .read(laps);
  }

  /** Reads laps whose actions have been read. */
  static Debrief read(
      ComputedLap computed, List<CornerEntry> entries, ActionsDriven actions, List<LapData> laps) {
    return new Debriefer(computed, entries, List.of(), actions).read(laps);
  }

  private static Map<PointKind, Double> tolerances() {
    Map<PointKind, Double> out = new EnumMap<>(PointKind.class);
    out.put(PointKind.BRAKE, 4.0);
    out.put(PointKind.TURN_IN, 5.0);
    out.put(PointKind.RELEASE, 7.0);
    out.put(PointKind.FIRST_APEX, 8.0);
    out.put(PointKind.APEX, 8.0);
    out.put(PointKind.FIRST_THROTTLE, 7.0);
    out.put(PointKind.FULL_THROTTLE, 9.0);
    out.put(PointKind.EXIT, 15.0);
    return out;
  }

  /** Metres within which a point counts as hit. */
  public static double tolerance(PointKind kind) {
    return TOLERANCE.getOrDefault(kind, 10.0);
  }

  /** What laps say where there is nothing to hold them against: their times. */
  public static Debrief times(List<LapData> laps, ComputedLap computed) {
    double[] times = laps.stream().mapToDouble(LapData::lapTime).toArray();
    return new Debrief(
        laps.size(),
        times.length == 0 ? 0 : Robust.quantile(times, 0),
        times.length == 0 ? 0 : Robust.median(times),
        times.length == 0 ? 0 : Robust.quantile(times, 0),
        computed.lap().lapTime(),
        1,
        List.of(),
        List.of(),
        List.of());
  }

  private Debrief read(List<LapData> laps) {
    int n = entries.size();
    if (laps.isEmpty()) {
      return new Debrief(0, 0, 0, 0, computed.lap().lapTime(), 1, List.of(), List.of(), List.of());
    }
    double[][] time = new double[n][laps.size()];
    double[] best = new double[n];
    double theoretical = 0;
    for (int c = 0; c < n; c++) {
      for (int l = 0; l < laps.size(); l++) {
        time[c][l] = sections.time(laps.get(l), c);
      }
      best[c] = Robust.quantile(time[c], 0);
      theoretical += best[c];
    }
    Pace pace = Pace.of(computed, sections, laps);
    double speedPace = speedPace(laps);
    List<CornerFinding> findings = new ArrayList<>();
    for (int c = 0; c < n; c++) {
      findings.add(corner(c, laps, time[c], best[c], pace.expected(c), speedPace));
    }
    double[] lapTimes = laps.stream().mapToDouble(LapData::lapTime).toArray();
    List<String> focus =
        findings.stream()
            .filter(f -> f.offer() > WORTH_SAYING)
            .sorted(Comparator.comparingDouble((CornerFinding f) -> -weight(f)))
            .limit(FOCUS)
            .map(CornerFinding::corner)
            .toList();
    return new Debrief(
        laps.size(),
        Robust.quantile(lapTimes, 0),
        Robust.median(lapTimes),
        theoretical,
        computed.lap().lapTime(),
        pace.share(),
        focus,
        findings,
        PlacesDriven.of(computed, gates, laps));
  }

  /** What can be said about comes before what is only slow. */
  private static double weight(CornerFinding f) {
    return f.offer() * (f.habits().isEmpty() ? 0.6 : 1);
  }

  /** The driver's usual share of the speed that corners allow at their slowest places. */
  private double speedPace(List<LapData> laps) {
    List<Double> ratios = new ArrayList<>();
    for (CornerEntry e : entries) {
      double[] shares =
          laps.stream()
              .flatMap(l -> l.corner(e.corner()).stream())
              .mapToDouble(x -> Look.share(computed, x, e))
              .filter(x -> !Double.isNaN(x))
              .toArray();
      if (shares.length > 0) {
        ratios.add(Robust.median(shares));
      }
    }
    return ratios.isEmpty()
        ? 1
        : Robust.median(ratios.stream().mapToDouble(Double::doubleValue).toArray());
  }

  private CornerFinding corner(
      int c, List<LapData> laps, double[] time, double best, double planned, double speedPace) {
    CornerEntry plan = entries.get(c);
    double middle = Robust.median(time);
    int bestLap = 0;
    for (int l = 1; l < time.length; l++) {
      bestLap = time[l] < time[bestLap] ? l : bestLap;
    }
    Map<Phase, Double> lost = new EnumMap<>(Phase.class);
    for (Phase p : Phase.values()) {
      double[] part = new double[laps.size()];
      for (int l = 0; l < part.length; l++) {
        part[l] = sections.time(laps.get(l), c, p);
      }
      lost.put(p, Robust.median(part) - part[bestLap]);
    }
    List<CornerEvents> events = new ArrayList<>();
    List<LapData> with = new ArrayList<>();
    for (LapData l : laps) {
      l.corner(plan.corner())
          .ifPresent(
              e -> {
                events.add(e);
                with.add(l);
              });
    }
    boolean told = laps.stream().allMatch(LapData::told);
    List<PointFinding> points = points(plan, with, events, told);
    double[] speeds = events.stream().mapToDouble(CornerEvents::minimumSpeed).toArray();
    List<HabitFinding> habits = habits(c, plan, with, events, points, speedPace, told);
    // A habit of every lap does not show in the driver's own best; the computed section shows it.
    double own = middle - best;
    double offer = Math.max(own, habits.isEmpty() ? 0 : Math.min(middle - planned, own + 0.6));
    Said why = why(offer, habits, lost);
    return new CornerFinding(
        plan.corner(),
        Math.max(0, offer),
        middle,
        best,
        Robust.spread(time),
        laps.get(bestLap).id(),
        lost,
        points,
        actions.of(plan),
        Robust.median(speeds),
        Robust.spread(speeds),
        plan.minimumSpeed(),
        habits,
        offer <= WORTH_SAYING ? why : Said.of("debrief.offer", Value.figure(offer, 2)).then(why),
        why);
  }

  private static Said why(double offer, List<HabitFinding> habits, Map<Phase, Double> lost) {
    if (offer <= WORTH_SAYING) {
      return Said.of("debrief.nothing");
    }
    if (!habits.isEmpty()) {
      HabitFinding h = habits.get(0);
      return Said.of("debrief.why.habit", h.words().in(), h.measure().beginning(), h.cure().in());
    }
    Phase worst = Phase.APPROACH;
    for (Phase p : Phase.values()) {
      worst = lost.getOrDefault(p, 0.0) > lost.getOrDefault(worst, 0.0) ? p : worst;
    }
    return Said.of("debrief.why.phase", worst.said().in());
  }

  private List<PointFinding> points(
      CornerEntry plan, List<LapData> laps, List<CornerEvents> events, boolean told) {
    List<PointFinding> out = new ArrayList<>();
    for (PointKind kind : TOLERANCE.keySet().stream().sorted().toList()) {
      plan.station(kind)
          .ifPresent(
              station -> {
                List<String> ids = new ArrayList<>();
                List<Double> late = new ArrayList<>();
                for (int i = 0; i < laps.size(); i++) {
                  Double at = actions.measured(laps.get(i).id(), events.get(i), plan, kind);
                  if (at != null) {
                    ids.add(laps.get(i).id());
                    late.add(road.apart(station, at));
                  }
                }
                if (!late.isEmpty()) {
                  out.add(point(kind, station, ids, late, told));
                }
              });
    }
    return out;
  }

  /**
   * Where laps did an action of a corner, or with what share, as far as they tell it.
   *
   * @param entries the reference, one for each corner
   * @param share whether shares are asked for, and not stations
   */
  public static List<Double> driven(
      ComputedLap computed,
      List<CornerEntry> entries,
      List<LapData> laps,
      String corner,
      String action,
      boolean share) {
    CornerEntry plan = entries.get(computed.indexOf(corner));
    List<Double> out = new ArrayList<>();
    Optional<PointKind> point = share ? Optional.empty() : Score.point(action);
    if (point.isPresent()) {
      PointKind kind = point.get();
      boolean again =
          kind == PointKind.FULL_THROTTLE && DoneActions.fullAgain(computed.road(), plan);
      ActionsDriven actions = new ActionsDriven(computed, entries, again ? laps : List.of());
      for (LapData lap : laps) {
        lap.corner(corner).map(e -> actions.measured(lap.id(), e, plan, kind)).ifPresent(out::add);
      }
      return out;
    }
    for (ActionFinding f : new ActionsDriven(computed, entries, laps).of(plan)) {
      if (f.action().equals(action)) {
        for (Double at : share ? f.amounts() : f.lates()) {
          if (at != null) {
            out.add(share ? at : Double.valueOf(computed.road().wrap(f.planned() + at)));
          }
        }
      }
    }
    return out;
  }

  private static PointFinding point(
      PointKind kind, double station, List<String> ids, List<Double> late, boolean told) {
    double[] x = late.stream().mapToDouble(Double::doubleValue).toArray();
    double tolerance = tolerance(kind);
    long hits = late.stream().filter(d -> Math.abs(d) <= tolerance).count();
    double[] order = new double[x.length];
    for (int i = 0; i < order.length; i++) {
      order[i] = i;
    }
    Robust.Slope trend = Robust.slope(order, x, TREND_CONFIDENCE);
    return new PointFinding(
        kind,
        station,
        Robust.median(x),
        Robust.spread(x),
        hits / (double) x.length,
        tolerance,
        trend.value(),
        x.length >= 5 && trend.tells(),
        told || kind == PointKind.APEX || kind == PointKind.FIRST_APEX || kind == PointKind.EXIT,
        ids,
        late);
  }

  private List<HabitFinding> habits(
      int c,
      CornerEntry plan,
      List<LapData> laps,
      List<CornerEvents> events,
      List<PointFinding> points,
      double speedPace,
      boolean told) {
    List<HabitFinding> out = new ArrayList<>();
    String before = entries.get((c + entries.size() - 1) % entries.size()).corner();
    List<Look> looks = new ArrayList<>();
    AsPlanned planned = new AsPlanned(computed, plan);
    for (int i = 0; i < events.size(); i++) {
      DoneActions done = actions.of(laps.get(i).id()).orElse(null);
      looks.add(new Look(computed, events.get(i), plan, speedPace, told, done, planned));
    }
    Map<String, Habit.Across> across = new LinkedHashMap<>();
    List<PointFinding> known = known(points, events);
    Habits.all().forEach(h -> h.across(known).ifPresent(a -> across.put(h.id(), a)));
    for (Habit habit : Habits.all()) {
      if (across.values().stream().anyMatch(a -> a.explains().contains(habit.id()))) {
        continue;
      }
      Habit.Across over = across.get(habit.id());
      List<Double> sizes = new ArrayList<>();
      List<String> shown = new ArrayList<>();
      for (int i = 0; i < looks.size() && over == null; i++) {
        Double size = habit.seen(looks.get(i));
        if (size != null) {
          sizes.add(size);
          shown.add(laps.get(i).id());
        }
      }
      if (over != null) {
        sizes.add(over.measure());
        shown.addAll(over.laps());
      }
      double share = shown.size() / (double) Math.max(1, laps.size());
      if (share < OFTEN || shown.size() < Math.min(2, laps.size())) {
        continue;
      }
      boolean byChance = shown.size() < Robust.beyondChance(habit.byChance(), laps.size());
      if (over == null && byChance && !allSlower(c, laps, shown)) {
        continue;
      }
      Double cost = cost(c, laps, shown);
      int fewer = Math.min(shown.size(), laps.size() - shown.size());
      boolean compared = share <= MOSTLY && fewer >= COMPARED;
      if (habit.forTime() && compared && cost != null && cost <= WORTH_SAYING) {
        // By chance some laps show it, and it cost nothing worth saying.
        continue;
      }
      double size = Robust.median(sizes.stream().mapToDouble(Double::doubleValue).toArray());
      out.add(
          new HabitFinding(
              habit.id(),
              share,
              cost,
              habit.measure(size),
              habit.words(),
              habit.cure(),
              habit.beginsBefore() ? before : null,
              shown));
    }
    return out;
  }

  /** The points that laps tell: neither end of a press that a recording hardly shows. */
  private static List<PointFinding> known(List<PointFinding> points, List<CornerEvents> events) {
    double[] peaks = events.stream().mapToDouble(CornerEvents::brakePeak).toArray();
    boolean faint = peaks.length > 0 && Robust.median(peaks) < EventFinder.FAINT;
    return points.stream()
        .filter(p -> !faint || p.kind() != PointKind.BRAKE && p.kind() != PointKind.RELEASE)
        .toList();
  }

  /** Whether every lap that shows something took longer in a corner than every one without. */
  private boolean allSlower(int c, List<LapData> laps, List<String> shown) {
    double quickest = Double.POSITIVE_INFINITY;
    double slowest = Double.NEGATIVE_INFINITY;
    for (LapData l : laps) {
      double time = sections.time(l, c);
      if (shown.contains(l.id())) {
        quickest = Math.min(quickest, time);
      } else {
        slowest = Math.max(slowest, time);
      }
    }
    return quickest > slowest;
  }

  private @Nullable Double cost(int c, List<LapData> laps, List<String> shown) {
    double[] with =
        laps.stream()
            .filter(l -> shown.contains(l.id()))
            .mapToDouble(l -> sections.time(l, c))
            .toArray();
    double[] without =
        laps.stream()
            .filter(l -> !shown.contains(l.id()))
            .mapToDouble(l -> sections.time(l, c))
            .toArray();
    return with.length == 0 || without.length == 0
        ? null
        : Robust.median(with) - Robust.median(without);
  }
}
