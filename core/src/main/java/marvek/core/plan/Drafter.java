package marvek.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Loop;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.lap.LapTrace;
import marvek.core.line.CornerLine;
import marvek.core.marker.DistanceBoards;
import marvek.core.marker.Landmark;
import marvek.core.marker.Tie;
import marvek.core.score.Action;
import marvek.core.survey.Things;
import org.jspecify.annotations.Nullable;

/** Proposes every point of every corner from the simulated lap. */
public final class Drafter {
  private static final double REACH = 60;
  private static final double NEAR = 14;
  private static final double FLAT_WITHIN = 0.4;
  private static final double FULL = 0.97;
  private static final double SPENT = 0.88;

  private final ComputedLap computed;
  private final List<Landmark> landmarks;

  private Drafter(ComputedLap computed) {
    this(computed, List.of());
  }

  private Drafter(ComputedLap computed, List<Landmark> landmarks) {
    this.computed = computed;
    this.landmarks = landmarks;
  }

  /** Distance boards before each corner that is braked for. */
  public static List<Landmark> boards(ComputedLap computed) {
    List<Landmark> boards = new ArrayList<>();
    Drafter drafter = new Drafter(computed);
    int count = computed.corners().size();
    for (int c = 0; c < count; c++) {
      if (drafter.slowing(c) == Slowing.BRAKE) {
        Corner before = computed.corners().get((c + count - 1) % count);
        boards.addAll(
            DistanceBoards.before(computed.road(), computed.corners().get(c), before, "board-"));
      }
    }
    return List.copyOf(boards);
  }

  /** The draft of the whole reference, its points tied to the landmarks given. */
  public static ReferenceContent draft(ComputedLap computed, List<Landmark> landmarks) {
    Drafter drafter = new Drafter(computed, landmarks);
    List<CornerEntry> entries = new ArrayList<>();
    for (int c = 0; c < computed.corners().size(); c++) {
      CornerEntry made = entry(computed, c);
      entries.add(made.copy().points(made.points().stream().map(drafter::tied).toList()).done());
    }
    return new ReferenceContent(entries);
  }

  /**
   * The draft of the whole reference, its points tied to the landmarks of a survey and its actions
   * found by the best cue in reach.
   */
  public static ReferenceContent draft(ComputedLap computed, Things things) {
    Cues cues = new Cues(computed, things);
    List<CornerEntry> entries = new ArrayList<>();
    for (CornerEntry e : draft(computed, things.landmarks()).corners()) {
      List<Action> score = Score.of(computed.road(), e);
      entries.add(
          e.copy().actions(e.actions().stream().map(a -> found(cues, a, score)).toList()).done());
    }
    return new ReferenceContent(entries);
  }

  /** By what the road has to see; a cue on another action would move with it unasked. */
  private static Action found(Cues cues, Action action, List<Action> score) {
    return cues.reach(action, score).stream()
        .filter(o -> !o.cue().thing().isEmpty() && o.cue().kind().number())
        .findFirst()
        .map(o -> action.found(o.cue()))
        .orElse(action);
  }

  /** The draft of one corner, its points tied to nothing. */
  public static CornerEntry entry(ComputedLap computed, int c) {
    return computed.drafts().of(c, new Drafter(computed)::written);
  }

  /**
   * The draft of one corner that lifts as another draft of it does, where that can be made: far
   * less work than to seek how much is best.
   */
  public static CornerEntry like(ComputedLap computed, int c, CornerEntry draft) {
    CornerEntry like =
        new DraftedScore(computed, c).of(places(computed, c), lift(draft).orElse(null));
    return new Drafter(computed).beforeNext(c, like);
  }

  /**
   * The places of a corner's draft with a lift that keeps a given share of the throttle, as late as
   * that is made, and a throttle that opens from there; empty where the corner is not lifted for,
   * or is not made so.
   */
  public static Optional<CornerEntry> lifting(ComputedLap computed, int c, double share) {
    CornerEntry places = places(computed, c);
    return places.slowing() == Slowing.LIFT
        ? Optional.ofNullable(new DraftedScore(computed, c).lifting(places, share))
            .map(e -> new Drafter(computed).beforeNext(c, e))
        : Optional.empty();
  }

  /** The lift that a draft writes. */
  public static Optional<Action> lift(CornerEntry draft) {
    return DraftedScore.lift(draft);
  }

  /** The places of a corner's draft alone, without what is written into it: far less work. */
  public static CornerEntry places(ComputedLap computed, int c) {
    Drafter drafter = new Drafter(computed);
    return computed.drafts().marked(c, drafter::placed);
  }

  private CornerEntry written(int c) {
    return beforeNext(c, new DraftedScore(computed, c).of(places(computed, c)));
  }

  /** The corner as the lap drives it, whether or not its marker can be made from full throttle. */
  static CornerEntry asDriven(ComputedLap computed, int c) {
    return new Drafter(computed).entry(c);
  }

  private CornerEntry placed(int c) {
    return beforeNext(c, inHand(c, entry(c)));
  }

  /** Without a throttle that would be opened past the marker of the next corner. */
  private CornerEntry beforeNext(int c, CornerEntry entry) {
    int next = (c + 1) % computed.corners().size();
    if (next == c || slowing(next) != Slowing.BRAKE) {
      return entry;
    }
    double marker = inHand(next, entry(next)).station(PointKind.BRAKE).orElseThrow();
    return entry
        .copy()
        .points(entry.points().stream().filter(p -> !past(p, marker)).toList())
        .done();
  }

  /** Whether a throttle would be opened where it is braked for the next corner. */
  private boolean past(CornerPoint p, double marker) {
    return (p.kind() == PointKind.FIRST_THROTTLE || p.kind() == PointKind.FULL_THROTTLE)
        && computed.road().apart(marker, p.station()) >= 0;
  }

  private CornerEntry entry(int c) {
    Corner corner = computed.corners().get(c);
    CornerLine line = computed.lines().get(c);
    LapTrace lap = computed.lap();
    int n = computed.road().size();
    Loop loop = computed.road().loop();
    Slowing slowing = slowing(c);
    int slowest = computed.slowest(c);
    int met = computed.braked(c);
    List<CornerPoint> points = new ArrayList<>();
    double arrival = lap.speed()[computed.road().index(line.turnIn())];
    int approachGear =
        slowing == Slowing.FLAT
            ? lap.gear()[slowest]
            : lap.gear()[computed.road().index(line.turnIn())];
    if (slowing == Slowing.BRAKE) {
      double station = marker(c);
      int at = computed.road().index(station);
      arrival = lap.unbraked()[at];
      approachGear = lap.gear()[at];
      points.add(point(PointKind.BRAKE, station));
    }
    points.add(point(PointKind.TURN_IN, line.turnIn()));
    if (slowing == Slowing.BRAKE) {
      points.add(point(PointKind.RELEASE, release(c)));
    }
    if (line.apexes().size() > 1) {
      points.add(point(PointKind.FIRST_APEX, line.apexes().get(0)));
    }
    points.add(point(PointKind.APEX, line.apex()));
    double firstThrottle = 1;
    if (slowing != Slowing.FLAT) {
      // A lap on, so that what comes before it is not below nothing.
      int turn = met + n;
      int last = turn + loop.ahead(met, computed.slowestAtLast(c));
      last = last - turn > n / 2 ? turn : last;
      int limit = last + computed.onward(c);
      int first = turn;
      if (slowing == Slowing.BRAKE) {
        int end = computed.brakings().of(c).get(0).end() + 1;
        first += loop.ahead(met, end) < n / 2 ? loop.ahead(met, end) : 0;
      }
      if (slowing == Slowing.BRAKE || computed.under(c) >= 0) {
        first = heldFrom(c, first);
      }
      while (first < limit && lap.throttle()[first % n] < 0.03) {
        first++;
      }
      int full = first;
      while (full < limit && !staysFull(full, last)) {
        full++;
      }
      firstThrottle = opening(first % n);
      if (first < limit) {
        points.add(point(PointKind.FIRST_THROTTLE, (first % n) * computed.road().step()));
      }
      if (full < limit) {
        points.add(point(PointKind.FULL_THROTTLE, (full % n) * computed.road().step()));
      }
    }
    points.add(point(PointKind.EXIT, line.exit()));
    double from =
        line.turnIn() - 200 - (slowing == Slowing.BRAKE ? Math.max(0, toTurnIn(c, line)) : 0);
    points.sort(Comparator.comparingDouble(p -> computed.road().ahead(from, p.station())));
    CornerEntry entry =
        new CornerEntry(
            corner.id(),
            slowing,
            points,
            approachGear,
            arrival,
            slowing == Slowing.BRAKE ? effort(arrival, lap.speed()[met]) : 0,
            gear(slowing, slowest, approachGear),
            lap.speed()[slowest],
            line.type(),
            line.apexGap(),
            firstThrottle,
            "");
    return entry.copy().again(computed.again(c)).done();
  }

  /**
   * With a marker that can be made. Where the lap eases along the limit before it brakes, full
   * throttle up to the marker arrives faster than the lap does.
   */
  private CornerEntry inHand(int c, CornerEntry entry) {
    Optional<Double> marker = entry.station(PointKind.BRAKE);
    double missing =
        marker.isEmpty() ? 0 : -Margin.seconds(new Stretch(computed, Things.none(), c), entry);
    if (marker.isEmpty() || missing <= 0) {
      return entry;
    }
    double sooner =
        Math.floor(computed.road().wrap(marker.get() - missing * entry.approachSpeed() - 0.5));
    return entry
        .copy()
        .points(
            entry.points().stream()
                .map(p -> p.kind() == PointKind.BRAKE ? point(PointKind.BRAKE, sooner) : p)
                .toList())
        .done();
  }

  /** Station of the braking marker: a little before the lap itself brakes. */
  private double marker(int c) {
    int start = computed.brakesFrom(c);
    double early = computed.conditions().driving().margin() * computed.lap().speed()[start];
    return Math.floor(computed.road().wrap(start * computed.road().step() - early));
  }

  /**
   * Where the brake is let go, or eased the most before it is pressed again for the next corner.
   */
  private double release(int c) {
    double end = (computed.brakings().of(c).get(0).end() + 1) * computed.road().step();
    int next = (c + 1) % computed.corners().size();
    if (next == c || slowing(next) != Slowing.BRAKE) {
      return end;
    }
    double onward = computed.road().apart(end, marker(next));
    double braking = computed.road().apart(marker(c), end);
    return onward < 0 && -onward < braking / 2 ? end + onward : end;
  }

  /** Common practice, no source: a heavy stop 80–90 %, a light one 25–30 %, in between by speed. */
  private static double effort(double arrival, double lowest) {
    double lost = (arrival - lowest) / Math.max(arrival, 1);
    double effort = 0.27 + (0.88 - 0.27) * Math.min(1, Math.max(0, (lost - 0.08) / 0.32));
    return Math.round(effort * 20) / 20.0;
  }

  /** Metres from where the lap brakes to the turn-in, negative where it turns first. */
  private double toTurnIn(int c, CornerLine line) {
    return computed.road().apart(computed.brakesFrom(c) * computed.road().step(), line.turnIn());
  }

  private int gear(Slowing slowing, int slowest, int approachGear) {
    return switch (slowing) {
      // Nobody shifts up while slowing.
      case BRAKE, LIFT -> Math.min(gear(slowest), approachGear);
      case FLAT -> computed.lap().gear()[slowest];
    };
  }

  /** One gear up where the best one would be shifted out of at once. */
  private int gear(int slowest) {
    int best = computed.lap().gear()[slowest];
    boolean spent =
        computed.vehicle().revs(computed.lap().speed()[slowest], best)
            > SPENT * computed.vehicle().engine().shiftRevs();
    return spent ? Math.min(best + 1, computed.vehicle().gears()) : best;
  }

  // Seconds from which on a throttle that is held before the slowest place is worth to be written,
  // and the least share of it.
  private static final double WORTH_HOLDING = 0.6;
  private static final double HELD = 0.03;

  /**
   * Where the throttle is taken again after the last braking before a step, and held up to there;
   * that step itself where it is not.
   */
  private int heldFrom(int c, int first) {
    LapTrace lap = computed.lap();
    int n = computed.road().size();
    Loop loop = computed.road().loop();
    int from = first;
    double seconds = 0;
    double held = 0;
    int out = first;
    while (first - from < n / 2) {
      int i = loop.at(from - 1);
      if (lap.brake()[i] > 0 || lap.throttle()[i] > 0.9) {
        break;
      }
      from--;
      double took = computed.path().step()[i] / lap.speed()[i];
      seconds += took;
      held += took * lap.throttle()[i];
      if (lap.throttle()[i] >= HELD && held / seconds >= HELD && seconds >= WORTH_HOLDING) {
        out = from;
      }
    }
    return out;
  }

  private double opening(int i) {
    double t =
        Math.max(
            computed.lap().throttle()[i],
            computed.lap().throttle()[(i + 3) % computed.road().size()]);
    return Math.max(0.1, Math.min(1, Math.round(t * 20) / 20.0));
  }

  private CornerPoint point(PointKind kind, double station) {
    return new CornerPoint(kind, computed.road().wrap(Math.round(station * 2) / 2.0), null);
  }

  private CornerPoint tied(CornerPoint p) {
    double reach = p.kind() == PointKind.BRAKE ? REACH : NEAR;
    @Nullable Tie tie = Tie.nearest(computed.road(), landmarks, p.station(), reach).orElse(null);
    return new CornerPoint(p.kind(), p.station(), tie);
  }

  private Slowing slowing(int c) {
    if (!computed.brakings().of(c).isEmpty()) {
      return Slowing.BRAKE;
    }
    LapTrace lap = computed.lap();
    int slowest = computed.slowest(c);
    int n = computed.road().size();
    Loop loop = computed.road().loop();
    int from = computed.road().index(computed.lines().get(c).turnIn());
    boolean eased = false;
    int start = Math.max(loop.ahead(from, slowest), 20);
    for (int k = 0; k <= Math.min(start, n / 2); k++) {
      int i = loop.at(slowest - k);
      eased |= lap.unbraked()[i] - lap.speed()[i] > FLAT_WITHIN;
    }
    for (int k = 0; k < 12; k++) {
      int i = loop.at(slowest + k);
      eased |= lap.throttle()[i] < 0.8 && lap.speed()[i] > lap.cornerSpeed()[i] - 0.5;
    }
    return eased ? Slowing.LIFT : Slowing.FLAT;
  }

  /** Whether the throttle stays full for a while, and past the last slow place. */
  private boolean staysFull(int index, int last) {
    int n = computed.road().size();
    for (int k = 0; k < Math.max(6, last - index); k++) {
      if (computed.lap().throttle()[(index + k) % n] < FULL) {
        return false;
      }
    }
    return true;
  }
}
