package marvek.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import marvek.core.circuit.Loop;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.lap.LapTrace;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.score.Manner;
import marvek.core.survey.Things;
import org.jspecify.annotations.Nullable;

/**
 * What the lap does with the pedals in a corner and points cannot hold: where it lifts, brakes
 * again, and opens the throttle in stages. Written only where the corner can be made with it and
 * takes no longer for it.
 */
final class DraftedScore {
  /** The id of a drafted lift. */
  static final String LIFT = "lift";

  /** Share of the throttle by which a straight opening may miss the lap's. */
  static final double STAGE = 0.08;

  /** m/s that it may give or take against the lap's. */
  static final double MISSED = 1.5;

  /** m/s up to which it may where more stages are no quicker. */
  static final double LITTLE_MISSED = 0.7;

  /** Seconds that a stage lasts at least. */
  static final double LASTS = 0.3;

  private static final double FULL = 0.97;
  private static final double TOUCHED = 0.03;
  private static final double LIFTED = 0.9;
  private static final int MOST_STAGES = 3;
  // Seconds that writing more may cost before it is left out.
  private static final double DEARER = 0.05;
  private static final double DEAREST = 0.3;
  // Seconds that a lift like another may cost before a better one is sought.
  private static final double LIKE = 0;
  // What it may cost then, against the better one.
  private static final double ALIKE = 0.059;
  // Seconds by which a lift is tried sooner where it comes too late, and how often.
  private static final double SOONER = 0.05;
  private static final int TRIES = 40;
  // Seconds that more stages must win.
  private static final double PAYS = 0.03;
  // Seconds that letting go slowly must win.
  private static final double QUICKER = 0.02;
  // Shares are written as a driver can tell them, and tried down to so much less than the lap's.
  private static final double SHARE = 0.05;
  private static final double LESS = 0.3;
  // More than a little only where the tyres bear it.
  private static final double LITTLE_MORE = 0.12;
  private static final double MORE = 0.4;
  private static final double MOST = 0.9;
  // Seconds up to which the lap's throttle is shut for a shift, or by what the tyres bear for once.
  private static final double DIPS = 0.25;
  // Metres that a driver can tell.
  private static final double GRAIN = 0.5;

  private final ComputedLap computed;
  private final LapTrace lap;
  private final Loop loop;
  private final int c;
  private final Stretch stretch;
  private final double[] shares;
  private final List<Driven> driven = new ArrayList<>();

  private record Driven(CornerEntry entry, PlannedCorner plan) {}

  DraftedScore(ComputedLap computed, int c) {
    this.computed = computed;
    this.lap = computed.lap();
    this.loop = computed.road().loop();
    this.c = c;
    this.stretch = new Stretch(computed, Things.none(), c);
    this.shares = shares();
  }

  /** The entry with the actions that the lap asks for besides its points. */
  CornerEntry of(CornerEntry entry) {
    return of(entry, null);
  }

  /**
   * The same.
   *
   * @param like a lift that keeps as much and is let go in the same manner; another one only where
   *     that cannot be made or costs much more than the best, and the best where none is given
   */
  CornerEntry of(CornerEntry entry, @Nullable Action like) {
    if (entry.slowing() == Slowing.FLAT) {
      return entry;
    }
    CornerEntry out = entry;
    if (entry.slowing() == Slowing.LIFT) {
      // Where the brakes are still on for the corner before there is no throttle to let go.
      out = computed.under(c) >= 0 ? out : lifted(out, like);
    } else {
      out = brakedAgain(out);
    }
    out = staged(out);
    CornerEntry ordered = ordered(out);
    if (ordered.equals(entry)) {
      // The lap asks for nothing besides: there is nothing to be weighed.
      return entry;
    }
    if (!drive(out).makesIt || dearer(entry, out, DEAREST)) {
      return entry;
    }
    boolean again = ordered.actions().stream().anyMatch(a -> a.kind() == ActionKind.BRAKE);
    return again ? ordered.copy().again(List.of()).done() : ordered;
  }

  /** Whether what is written costs more than it may, against the points alone. */
  private boolean dearer(CornerEntry points, CornerEntry score, double most) {
    PlannedCorner alone = drive(points);
    return alone.makesIt && drive(score).time > alone.time + most;
  }

  /** With its points in driving order, as the first throttle of a lift may come elsewhere. */
  private CornerEntry ordered(CornerEntry e) {
    double origin = e.station(PointKind.APEX).orElse(0.0) - computed.road().length() / 2;
    return e.copy()
        .points(
            e.points().stream()
                .sorted(
                    Comparator.<CornerPoint>comparingDouble(
                            p -> computed.road().ahead(origin, p.station()))
                        .thenComparing(CornerPoint::kind))
                .toList())
        .actions(
            Score.of(computed.road(), e).stream()
                .filter(a -> Score.point(a.id()).isEmpty())
                .toList())
        .done();
  }

  /** Driven once, however often it is weighed against another. */
  private PlannedCorner drive(CornerEntry entry) {
    for (Driven d : driven) {
      if (d.entry() == entry) {
        return d.plan();
      }
    }
    PlannedCorner plan =
        stretch.tried(computed.path(), stretch.steps(entry, computed.lines().get(c)));
    driven.add(new Driven(entry, plan));
    return plan;
  }

  /** Whether an entry is made, which is less work than the time of it. */
  private boolean made(CornerEntry entry) {
    return stretch.made(computed.path(), stretch.steps(entry, computed.lines().get(c)));
  }

  private static CornerEntry with(CornerEntry entry, Action action) {
    List<Action> actions = new ArrayList<>(entry.actions());
    actions.add(action);
    return entry.copy().actions(actions).done();
  }

  private double station(double index) {
    double at = computed.road().wrap(index * computed.road().step());
    return Math.floor(at / GRAIN) * GRAIN;
  }

  /** Steps that some seconds take before one of the stretch. */
  private double steps(int k, double seconds) {
    return seconds * lap.speed()[loop.at(stretch.from + k)] / computed.road().step();
  }

  /**
   * The throttle closed to the share that is quickest of those the tyres bear, as late as that is
   * made with the margin in hand; or as another lift does.
   */
  private CornerEntry lifted(CornerEntry entry, @Nullable Action like) {
    Eased eased = eased(entry);
    if (eased == null) {
      return entry;
    }
    Double kept = like == null ? null : like.amount();
    CornerEntry alike = null;
    if (like != null && kept != null) {
      alike = lifted(entry, eased.down(), kept, like.manner());
      // As much in the other manner is more like it than another share.
      boolean other = alike == null || dearer(entry, alike, LIKE);
      alike = other ? lifted(entry, eased.down(), kept) : alike;
    }
    if (alike != null && !dearer(entry, alike, LIKE)) {
      return alike;
    }
    CornerEntry best = quickest(entry, eased);
    // Held against each other as they are written in the end.
    if (alike != null
        && (best == null || drive(staged(alike)).time < drive(staged(best)).time + ALIKE)) {
      return alike;
    }
    return best == null ? entry : best;
  }

  private @Nullable CornerEntry quickest(CornerEntry entry, Eased eased) {
    CornerEntry best = null;
    double quickest = Double.MAX_VALUE;
    double most = Math.floor(share(eased.least()) / SHARE) * SHARE;
    for (double share = Math.min(MOST, most + MORE);
        share >= 0 && share > most - LESS;
        share -= SHARE) {
      CornerEntry tried = lifted(entry, eased.down(), Math.round(share * 100) / 100.0);
      boolean borne = share < most + LITTLE_MORE || tried != null && bears(tried);
      if (tried != null && borne && drive(tried).time < quickest) {
        quickest = drive(tried).time;
        best = tried;
      }
    }
    return best;
  }

  /** Whether the tyres bear what a lift keeps: the rest is cut, and looks as if it cost nothing. */
  private boolean bears(CornerEntry entry) {
    ScoreDrive driven = drive(entry).driven;
    int p = driven == null ? -1 : driven.index(LIFT);
    return driven != null && p >= 0 && driven.used(p) <= PlannedCorner.TOLERATED;
  }

  /** The places of a draft with a lift that keeps a share; null where it cannot be made. */
  @Nullable CornerEntry lifting(CornerEntry entry, double share) {
    Eased eased = eased(entry);
    return eased == null ? null : lifted(entry, eased.down(), share);
  }

  /**
   * Where the lap eases the throttle.
   *
   * @param down step at which it has come to about its least
   * @param least step of its least
   */
  private record Eased(int down, int least) {}

  private @Nullable Eased eased(CornerEntry entry) {
    int slowest = stretch.step(computed.slowest(c) * computed.road().step());
    int full = entry.station(PointKind.FULL_THROTTLE).map(stretch::step).orElse(stretch.count);
    int eased = slowest;
    while (eased < full && share(eased) >= LIFTED) {
      eased++;
    }
    if (eased >= full) {
      return null;
    }
    int from = eased;
    while (from > 1 && share(from - 1) < LIFTED) {
      from--;
    }
    int least = from;
    for (int k = from; k < full; k++) {
      least = share(k) < share(least) ? k : least;
    }
    int down = from;
    while (down < least && share(down) > share(least) + TOUCHED) {
      down++;
    }
    return new Eased(down, least);
  }

  /**
   * A lift that keeps a share; null where it cannot be made. Let go slowly only where that is the
   * quicker.
   */
  private @Nullable CornerEntry lifted(CornerEntry entry, int down, double share) {
    CornerEntry best = lifted(entry, down, share, Manner.AT_ONCE);
    CornerEntry slowly = lifted(entry, down, share, Manner.SLOWLY);
    boolean quicker =
        best == null || slowly != null && drive(slowly).time < drive(best).time - QUICKER;
    return quicker ? slowly : best;
  }

  /** The quicker of a throttle that opens where the lap's does, and one that is held up to full. */
  private @Nullable CornerEntry lifted(CornerEntry entry, int down, double share, Manner manner) {
    Integer first = entry.station(PointKind.FIRST_THROTTLE).map(stretch::step).orElse(null);
    if (first == null || entry.firstThrottle() >= share) {
      return latest(entry, down, share, manner);
    }
    int full = entry.station(PointKind.FULL_THROTTLE).map(stretch::step).orElse(stretch.count);
    int asks = full - 1;
    while (asks > first && share(asks - 1) > share) {
      asks--;
    }
    CornerEntry best = latest(opening(entry, share, asks), down, share, manner);
    int held = full - (int) Math.round(steps(full, LASTS));
    if (held > asks) {
      CornerEntry late = latest(opening(entry, share, held), down, share, manner);
      boolean quicker = best == null || late != null && drive(late).time < drive(best).time;
      best = quicker ? late : best;
    }
    return best;
  }

  /**
   * The entry with a throttle that opens from what a lift keeps: a first throttle of less would be
   * another lift.
   */
  private CornerEntry opening(CornerEntry entry, double share, int from) {
    return entry
        .copy()
        .moved(PointKind.FIRST_THROTTLE, station(stretch.from + from))
        .firstThrottle(share)
        .done();
  }

  /** With the margin in hand to where it is made latest; null where it is not. */
  private @Nullable CornerEntry latest(CornerEntry entry, int down, double share, Manner manner) {
    double lasts = manner == Manner.SLOWLY ? ScoreDrive.LIFT_SLOWLY : ScoreDrive.LIFT_AT_ONCE;
    double margin = computed.conditions().driving().margin();
    for (int t = 0; t < TRIES; t++) {
      double sooner = lasts + t * SOONER;
      if (made(let(entry, down, share, manner, sooner))) {
        // Sooner is only slower.
        CornerEntry inHand = let(entry, down, share, manner, sooner + margin);
        return drive(inHand).makesIt ? inHand : null;
      }
    }
    return null;
  }

  private CornerEntry let(
      CornerEntry entry, int down, double share, Manner manner, double seconds) {
    double at = station(stretch.from + down - steps(down, seconds));
    return with(entry, Action.of(LIFT, ActionKind.LIFT, at, share).in(manner));
  }

  /** Every further braking, each with as much as its place asks for. */
  private CornerEntry brakedAgain(CornerEntry entry) {
    List<Brakings.Braking> mine = computed.brakings().of(c);
    CornerEntry out = entry;
    double margin = computed.conditions().driving().margin();
    for (int b = 1; b < mine.size(); b++) {
      int onset = stretch.step(mine.get(b).onset() * computed.road().step());
      double at = stretch.from + onset - steps(onset, margin);
      out = with(out, Action.of("brake-" + (b + 1), ActionKind.BRAKE, station(at), null));
    }
    return out;
  }

  /** The throttle in stages where one even opening is not what the lap does. */
  private CornerEntry staged(CornerEntry entry) {
    List<Action> stages = stages(entry, MISSED);
    List<Action> finer = stages(entry, LITTLE_MISSED);
    CornerEntry few = staged(entry, stages);
    if (finer.equals(stages)) {
      return few;
    }
    CornerEntry more = staged(entry, finer);
    PlannedCorner then = drive(more);
    return then.makesIt && then.time < drive(few).time - PAYS ? more : few;
  }

  private CornerEntry staged(CornerEntry entry, List<Action> stages) {
    if (stages.isEmpty()) {
      return entry;
    }
    PlannedCorner before = drive(entry);
    double was = before.makesIt ? before.time : Double.MAX_VALUE;
    CornerEntry out = entry;
    List<Action> left = stages;
    Action next = stages.get(0);
    if (entry.slowing() == Slowing.LIFT
        && kept(entry) == entry.firstThrottle()
        && Objects.equals(next.amount(), entry.firstThrottle())) {
      // What a lift keeps is held up to there.
      out = out.copy().moved(PointKind.FIRST_THROTTLE, next.station()).done();
      left = left.subList(1, left.size());
    }
    if (!left.isEmpty() && left.get(left.size() - 1).kind() == ActionKind.FULL) {
      // Nothing is eased after it: that is where all of the throttle is held from.
      int last = left.size() - 1;
      out = out.copy().moved(PointKind.FULL_THROTTLE, left.get(last).station()).done();
      left = left.subList(0, last);
    }
    for (Action a : left) {
      out = with(out, a);
    }
    PlannedCorner then = drive(out);
    return then.makesIt && then.time <= was + DEARER ? out : entry;
  }

  private List<Action> stages(CornerEntry entry, double missed) {
    Integer first = entry.station(PointKind.FIRST_THROTTLE).map(stretch::step).orElse(null);
    Integer full = entry.station(PointKind.FULL_THROTTLE).map(stretch::step).orElse(null);
    if (first == null || full == null) {
      return List.of();
    }
    // Less than a lift keeps would be another one.
    double least = entry.slowing() == Slowing.LIFT ? kept(entry) : 0;
    List<Action> out = new ArrayList<>();
    int from = first;
    for (Action a : entry.actions()) {
      int brake = stretch.step(a.station());
      if (a.kind() == ActionKind.BRAKE && brake > from && brake < full) {
        knots(from, brake, true, missed).forEach(k -> open(out, k, least));
        from = opens(brake, full);
        if (from < full) {
          open(out, from, least);
        }
      }
    }
    knots(from, full, false, missed).forEach(k -> open(out, k, least));
    return out;
  }

  /** The lift that is drafted. */
  static Optional<Action> lift(CornerEntry entry) {
    return entry.actions().stream().filter(a -> a.id().equals(LIFT)).findFirst();
  }

  /** What a lift keeps of the throttle; what it is opened to first where none is written. */
  private static double kept(CornerEntry entry) {
    Double kept = lift(entry).map(Action::amount).orElse(null);
    return kept == null ? entry.firstThrottle() : kept;
  }

  /** Where the throttle is opened first after a braking. */
  private int opens(int brake, int full) {
    int k = brake;
    for (Brakings.Braking b : computed.brakings().of(c)) {
      int onset = stretch.step(b.onset() * computed.road().step());
      k = onset >= brake && k == brake ? stretch.step(b.end() * computed.road().step()) + 1 : k;
    }
    while (k < full && share(k) < TOUCHED) {
      k++;
    }
    return k;
  }

  private void open(List<Action> out, int k, double least) {
    double share = Math.max(Math.max(SHARE, least), Math.round(share(k) / SHARE) * SHARE);
    double at = station(stretch.from + passes(k, share));
    String id = "-" + (out.size() + 2);
    boolean was = !out.isEmpty() && out.get(out.size() - 1).kind() == ActionKind.FULL;
    if (share < FULL) {
      double told = Math.round(share * 100) / 100.0;
      out.add(Action.of("throttle" + id, ActionKind.THROTTLE, at, told).in(Manner.EVENLY));
    } else if (!was) {
      out.add(Action.of("full" + id, ActionKind.FULL, at, null));
    }
  }

  /**
   * Where the lap's throttle passes a share next to a step: what is told to twentieths is told for
   * the place where it is so much. That step itself where it passes it nowhere near.
   */
  private double passes(int k, double share) {
    int reach = (int) Math.round(steps(k, LASTS / 2));
    for (int d = 0; d <= reach; d++) {
      for (int j : new int[] {k + d, k - d - 1}) {
        double a = share(j);
        double b = share(j + 1);
        if (b > a && a <= share && share <= b) {
          return j + (share - a) / (b - a);
        }
      }
    }
    return k;
  }

  /**
   * The throttle between two steps where it is opened straight.
   *
   * @param to the share at its end
   */
  private record Even(int a, int b, double from, double to) {
    double at(int k) {
      return from + (to - from) * (k - a) / (b - a);
    }
  }

  /** m/s that a straight opening gives or takes against the lap's, all told. */
  private double missed(Even even) {
    double sum = 0;
    for (int k = even.a() + 1; k < even.b(); k++) {
      double v = lap.speed()[loop.at(stretch.from + k)];
      double all = computed.limits().engineDrive(v);
      sum += Math.abs(share(k) - even.at(k)) * all * computed.road().step() / v;
    }
    return sum;
  }

  /**
   * Steps between two at which the throttle is turned another way.
   *
   * @param held whether what is opened last is held to the end, as a braking shuts it there
   * @param missed m/s that a straight opening may give or take
   */
  private List<Integer> knots(int from, int to, boolean held, double missed) {
    List<Integer> knots = new ArrayList<>(List.of(from, to));
    while (knots.size() < MOST_STAGES + 2) {
      int worst = -1;
      double most = STAGE;
      for (int s = 0; s + 1 < knots.size(); s++) {
        int a = knots.get(s);
        int b = knots.get(s + 1);
        Even even = new Even(a, b, share(a), held && b == to ? share(a) : share(b));
        if (missed(even) < missed) {
          continue;
        }
        for (int k = a + 1; k < b; k++) {
          double off = Math.abs(share(k) - even.at(k));
          if (off > most && seconds(a, k) >= LASTS && seconds(k, b) >= LASTS) {
            most = off;
            worst = k;
          }
        }
      }
      if (worst < 0) {
        break;
      }
      knots.add(worst);
      knots.sort(Integer::compare);
    }
    return knots.subList(1, knots.size() - 1);
  }

  /** The lap's throttle at a step of the stretch, without what is no work of the foot. */
  private double share(int k) {
    return shares[Math.max(0, Math.min(stretch.count, k))];
  }

  /** Short dips filled: the least of the most within reach. */
  private double[] shares() {
    int count = stretch.count;
    double[] most = new double[count + 1];
    double[] out = new double[count + 1];
    for (int k = 0; k <= count; k++) {
      int reach = (int) Math.round(steps(k, DIPS / 2));
      for (int j = Math.max(0, k - reach); j <= Math.min(count, k + reach); j++) {
        int i = loop.at(stretch.from + j);
        double t = lap.brake()[i] > Brakings.ONSET ? 0 : lap.throttle()[i];
        most[k] = Math.max(most[k], t >= FULL ? 1 : t < TOUCHED ? 0 : t);
      }
    }
    for (int k = 0; k <= count; k++) {
      int reach = (int) Math.round(steps(k, DIPS / 2));
      out[k] = 1;
      for (int j = Math.max(0, k - reach); j <= Math.min(count, k + reach); j++) {
        out[k] = Math.min(out[k], most[j]);
      }
    }
    return out;
  }

  private double seconds(int a, int b) {
    double t = 0;
    for (int k = a; k < b; k++) {
      t += computed.road().step() / lap.speed()[loop.at(stretch.from + k)];
    }
    return t;
  }
}
