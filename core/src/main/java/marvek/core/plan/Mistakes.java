package marvek.core.plan;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.numeric.Aim;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.survey.Things;
import org.hipparchus.distribution.continuous.NormalDistribution;
import org.hipparchus.stat.descriptive.DescriptiveStatistics;
import org.jspecify.annotations.Nullable;

/**
 * Drives a corner with one action early and late, and tells where to aim for it. An action whose
 * amount is left open is pressed as hard as its place then asks for.
 */
final class Mistakes {
  /** Laps from which on the driver's own spread counts. */
  static final int LAPS = 8;

  /** Metres by which drivers miss a place found by nothing (common practice, no source). */
  static final double USUAL = 4;

  /** Chance of leaving the road that an aim may bear, and where there is no room. */
  static final double CHANCE = 1 / 200.0;

  static final double TIGHT = 1 / 1000.0;

  private static final double REACH = 15;
  private static final double GRAIN = 2.5;
  private static final double CLOSE = 12;
  // More and less of an action: so many steps to each side, of five points or half a metre.
  private static final int STEPS = 4;
  private static final double POINTS = 0.05;
  private static final double HALF_METRE = 0.5;
  private static final int BISECTIONS = 6;
  // Median of the distances from the median, as a standard deviation.
  private static final double OF_MEDIAN = 1.4826;
  private static final double LEAST = 0.5;

  private final Centreline road;
  private final CornerEntry entry;
  private final Function<CornerEntry, PlannedCorner> drive;
  private final PlannedCorner plan;

  Mistakes(Centreline road, CornerEntry entry, Function<CornerEntry, PlannedCorner> drive) {
    this.road = road;
    this.entry = entry;
    this.drive = drive;
    this.plan = drive.apply(entry);
  }

  /** Whether missing the place of an action costs anything that is computed. */
  static boolean counts(Action a) {
    return a.kind() != ActionKind.EYES
        && a.kind() != ActionKind.BODY
        && a.kind() != ActionKind.PLACE;
  }

  private @Nullable Double lost(Action a, double by) {
    Double until = a.until();
    Action there = a.at(road.wrap(a.station() + by));
    return lost(a, Score.with(entry, until == null ? there : there.until(road.wrap(until + by))));
  }

  private @Nullable Double lost(Action a, CornerEntry otherwise) {
    PlannedCorner then = drive.apply(otherwise);
    boolean makes = a.kind() == ActionKind.LIFT ? then.holds(plan) : then.makesIt;
    return makes ? then.time - plan.time : null;
  }

  /**
   * The curve of one action; empty where the corner as written cannot be made.
   *
   * @param driven stations where laps did it
   * @param precision metres to which its cue can be met; null without one
   */
  Optional<MistakeCurve> of(
      Action a, List<Double> driven, @Nullable Double precision, boolean tight) {
    if (!plan.makesIt || !counts(a)) {
      return Optional.empty();
    }
    List<Double> metres = new ArrayList<>();
    List<@Nullable Double> seconds = new ArrayList<>();
    for (double by = -REACH; by <= REACH + 1e-9; by += GRAIN) {
      metres.add(by);
      seconds.add(by == 0 ? Double.valueOf(0) : lost(a, by));
    }
    Double first = limit(a, metres, seconds, -1);
    Double last = limit(a, metres, seconds, 1);
    boolean own = driven.size() >= LAPS;
    double usual = precision == null ? USUAL : Math.max(LEAST, precision);
    double sigma = own ? Math.max(LEAST, spread(driven)) : usual;
    double least = first == null ? Double.NEGATIVE_INFINITY : first;
    double most = last == null ? Double.POSITIVE_INFINITY : last;
    Aim.Cost cost = m -> between(metres, seconds, Math.max(least, Math.min(m, most)));
    double room = Aim.before(sigma, tight ? TIGHT : CHANCE);
    double from = Math.max(sooner(a.kind()), first == null ? -REACH : least + room);
    double to = Math.min(later(a.kind()), last == null ? REACH : most - room);
    // Where the scatter is wider than the room there is, the late side counts: early is slow only.
    double aim = from > to ? Math.max(-REACH, to) : Aim.best(cost, sigma, from, to);
    NormalDistribution scatter = new NormalDistribution(0, sigma);
    double tooLate = last == null ? 0 : 1 - scatter.cumulativeProbability(last);
    double tooEarly = first == null ? 0 : scatter.cumulativeProbability(first);
    return Optional.of(
        new MistakeCurve(
            a.id(),
            metres,
            Collections.unmodifiableList(seconds),
            first,
            last,
            sigma,
            own ? driven.size() : 0,
            tight,
            aim,
            Aim.mean(cost, 0, sigma),
            Aim.mean(cost, aim, sigma),
            tooLate + tooEarly));
  }

  /**
   * What more and less of an action cost; empty where it has no amount of its own, or the corner as
   * written cannot be made.
   */
  Optional<AmountCurve> amounts(Action a) {
    if (!plan.makesIt) {
      return Optional.empty();
    }
    boolean across = WhatIf.Change.across(entry, a, 0).isPresent();
    Double share = a.amount();
    if (!across && WhatIf.Change.share(entry, a, 0).isEmpty() || !across && share == null) {
      return Optional.empty();
    }
    double written = across || share == null ? entry.apexOff() : share;
    double grain = across ? HALF_METRE : POINTS;
    List<Double> amounts = new ArrayList<>();
    List<@Nullable Double> seconds = new ArrayList<>();
    for (int k = -STEPS; k <= STEPS; k++) {
      double by = k * grain;
      (across ? WhatIf.Change.across(entry, a, by) : WhatIf.Change.share(entry, a, by))
          .ifPresent(
              other -> {
                amounts.add(written + by);
                seconds.add(by == 0 ? Double.valueOf(0) : lost(a, other));
              });
    }
    return Optional.of(
        new AmountCurve(a.id(), across, written, amounts, Collections.unmodifiableList(seconds)));
  }

  /** An aim is never told on the side that asks more of the vehicle: throttle sooner. */
  private static double sooner(ActionKind kind) {
    return kind == ActionKind.THROTTLE || kind == ActionKind.FULL ? 0 : -REACH;
  }

  /** Nor braking or lifting later: that is what the margin is for. */
  private static double later(ActionKind kind) {
    return kind == ActionKind.BRAKE || kind == ActionKind.LIFT || kind == ActionKind.EASE
        ? 0
        : REACH;
  }

  /** Standard deviation of places on the road, deaf to single laps that went wrong. */
  private double spread(List<Double> driven) {
    double first = driven.get(0);
    DescriptiveStatistics places = new DescriptiveStatistics();
    driven.forEach(s -> places.addValue(road.apart(first, s)));
    double middle = places.getPercentile(50);
    DescriptiveStatistics off = new DescriptiveStatistics();
    driven.forEach(s -> off.addValue(Math.abs(road.apart(first, s) - middle)));
    return OF_MEDIAN * off.getPercentile(50);
  }

  /**
   * Where it is too late, or too early, between the last that is made and the first that is not.
   */
  private @Nullable Double limit(
      Action a, List<Double> metres, List<@Nullable Double> seconds, int side) {
    int middle = metres.size() / 2;
    for (int k = middle + side; k >= 0 && k < metres.size(); k += side) {
      if (seconds.get(k) == null) {
        double made = metres.get(k - side);
        double missed = metres.get(k);
        for (int i = 0; i < BISECTIONS; i++) {
          double half = (made + missed) / 2;
          if (lost(a, half) != null) {
            made = half;
          } else {
            missed = half;
          }
        }
        return made;
      }
    }
    return null;
  }

  /** Straight between the places driven, and on at both ends. */
  private static double between(List<Double> metres, List<@Nullable Double> seconds, double at) {
    int first = -1;
    int second = -1;
    for (int k = 0; k < metres.size(); k++) {
      if (seconds.get(k) != null && (second < 0 || metres.get(second) < at)) {
        first = second;
        second = k;
      }
    }
    Double one = first < 0 ? null : seconds.get(first);
    Double other = second < 0 ? null : seconds.get(second);
    if (other == null) {
      return 0;
    }
    if (one == null) {
      return other;
    }
    double part = (at - metres.get(first)) / (metres.get(second) - metres.get(first));
    return one + part * (other - one);
  }

  /** Whether something stands close to the outer edge where a corner missed would end. */
  static boolean tight(Centreline road, Corner corner, Things things) {
    double length = road.ahead(corner.entry(), corner.exit()) + 60;
    return things.landmarks().stream().anyMatch(l -> stands(road, corner, l, length));
  }

  private static boolean stands(Centreline road, Corner corner, Landmark l, double length) {
    boolean hard = l.kind() == LandmarkKind.WALL || l.kind() == LandmarkKind.BARRIER;
    boolean outer = l.left() != corner.left();
    return hard && outer && l.out() < CLOSE && road.ahead(corner.entry(), l.station()) < length;
  }
}
