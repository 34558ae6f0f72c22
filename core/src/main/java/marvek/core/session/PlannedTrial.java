package marvek.core.session;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * Two ways to be driven against each other.
 *
 * @param corner id; empty for the whole lap
 * @param a as planned
 * @param b the other
 * @param plan how many laps, or stints, it takes; null for trials of before there were plans
 * @param from lap of a stint with which it begins: when the tyres are warm, for a way of driving
 * @param predicted seconds by which b differs, negative where it is quicker; null where the
 *     computation does not understand the difference
 * @param spread of the driver's own
 * @param traces of both as reckoned; null for trials of before
 */
public record PlannedTrial(
    String corner,
    Alternative a,
    Alternative b,
    @Nullable TrialPlan plan,
    int from,
    @Nullable Double predicted,
    @Nullable OwnSpread spread,
    @Nullable Traces traces) {
  // A stint counts from the lap after the one that leaves the pits: each is as cold as the other.
  private static final int AFTER_OUT = 2;

  /** Laps of each way that nobody drives to see a difference (our own). */
  public static final int HOPELESS = 500;

  /** A difference that is worth a trial where none is computed, s (our own). */
  public static final double WORTH = 0.1;

  /** Laps of a stint for a sheet: out, three that count, in. */
  public static final int STINT = 5;

  public PlannedTrial {
    Objects.requireNonNull(corner, "corner");
    Objects.requireNonNull(a, "a");
    Objects.requireNonNull(b, "b");
  }

  /**
   * Two ways planned.
   *
   * @param laps of the session
   * @param from lap on which the tyres are warm
   */
  public static PlannedTrial of(
      String corner,
      Alternative a,
      Alternatives.Offer b,
      OwnSpread spread,
      int laps,
      int from,
      @Nullable Traces traces) {
    Double predicted = b.predicted();
    double difference = predicted == null ? WORTH : Math.abs(predicted);
    TrialPlan plan =
        corner.isEmpty()
            ? TrialPlan.stints(difference, spread.seconds(), laps / STINT)
            : TrialPlan.driving(difference, spread.seconds(), Math.max(0, laps - from + 1));
    return new PlannedTrial(
        corner, a, b.way(), plan, corner.isEmpty() ? AFTER_OUT : from, predicted, spread, traces);
  }

  /**
   * Speeds of both ways along the road.
   *
   * @param from station of the first, m
   * @param step metres from one to the next
   * @param a m/s
   * @param b m/s
   */
  public record Traces(double from, double step, List<Double> a, List<Double> b) {
    public Traces {
      a = List.copyOf(a);
      b = List.copyOf(b);
    }
  }

  /** The difference that the trial was planned to tell, s. */
  public double worth() {
    return predicted == null ? WORTH : Math.abs(predicted);
  }

  /** Laps, or stints, of each way at which it is decided; 0 for none said. */
  public int planned() {
    TrialPlan p = plan;
    return p == null ? 0 : p.laps();
  }

  /** Whether it takes more laps of each than anybody drives. */
  public boolean hopeless() {
    return planned() >= HOPELESS;
  }

  /** Whether it is of what is set up, which changes in the pits only. */
  public boolean ofStints() {
    return corner.isEmpty();
  }

  /**
   * A lap as it was driven.
   *
   * @param id of the lap
   * @param stint it belongs to
   * @param number in the stint, from 1 for the one that leaves the pits
   */
  public record Lap(String id, String stint, int number) {}

  /**
   * What is to be driven on a lap of a stint that the pits do not break off.
   *
   * @param number in the stint, from 1 for the one that leaves the pits
   */
  public TrialPlan.Way way(int number) {
    List<TrialPlan.Way> order = plan == null ? List.of() : plan.order();
    int place = number - from;
    return place < 0 || place >= order.size() ? TrialPlan.Way.A : order.get(place);
  }

  /**
   * Which laps were driven which way, by the order that was planned. The first of a block does not
   * count: one has to find the way again. Laps with cold tyres are in no block.
   *
   * @param laps in the order driven
   */
  public Map<String, TrialPlan.Way> marks(List<Lap> laps) {
    Map<String, TrialPlan.Way> out = new TreeMap<>();
    List<TrialPlan.Way> order = plan == null ? List.of() : plan.order();
    int place = 0;
    List<String> stints = new ArrayList<>();
    for (Lap lap : laps) {
      if (!stints.contains(lap.stint())) {
        stints.add(lap.stint());
        // A block that the pits broke off is driven anew.
        place -= place % TrialPlan.BLOCK;
      }
      if (lap.number() < from) {
        continue;
      }
      if (ofStints()) {
        int stint = stints.indexOf(lap.stint());
        if (stint < order.size()) {
          out.put(lap.id(), order.get(stint));
        }
        continue;
      }
      if (place >= order.size()) {
        continue;
      }
      if (place % TrialPlan.BLOCK > 0) {
        out.put(lap.id(), order.get(place));
      }
      place++;
    }
    return out;
  }
}
