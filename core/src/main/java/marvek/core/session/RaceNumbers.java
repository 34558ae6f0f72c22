package marvek.core.session;

import java.util.ArrayList;
import java.util.List;
import marvek.core.lap.ConditionsBuilder;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.plan.Brakings;
import marvek.core.plan.ComputedLap;
import org.jspecify.annotations.Nullable;

/**
 * What a race asks besides the corners as they are planned.
 *
 * @param start from standing to the first braking; null where nothing is braked for
 * @param tows what the air of a vehicle ahead gives, by corner, the most first
 */
public record RaceNumbers(@Nullable Standing start, List<Tow> tows) {
  /** Drag and downforce close behind another (common practice, no source). */
  public static final double DRAG = 0.75;

  public static final double DOWNFORCE = 0.85;

  /** Difference of arrival below which nobody sees it, m/s. */
  private static final double SEEN = 0.8;

  private static final double FIRST_STEP = 1.5;
  private static final double ALIKE = 0.3;

  public RaceNumbers {
    tows = List.copyOf(tows);
  }

  /**
   * A standing start.
   *
   * @param corner that is braked for first
   * @param arrival m/s at the marker on cold tyres
   * @param flying m/s there on a lap in the session
   * @param metres by which the marker may come later than on a lap of the session, negative where
   *     it must come sooner
   * @param seconds from the lights to the marker
   */
  public record Standing(
      String corner, double arrival, double flying, double metres, double seconds) {}

  /**
   * A tow.
   *
   * @param corner at the end of the stretch
   * @param faster m/s at its braking
   * @param seconds gained by there since the corner before
   * @param metres by which braking comes sooner for it, with less downforce too
   */
  public record Tow(String corner, double faster, double seconds, double metres) {}

  /**
   * The numbers.
   *
   * @param then as computed for the session
   * @param cold share of the grip on the first lap
   * @param grid metres that one stands before the line
   */
  public static RaceNumbers of(ComputedLap then, double cold, double grid) {
    return new RaceNumbers(start(then, cold, grid), tows(then));
  }

  private static @Nullable Standing start(ComputedLap then, double cold, double grid) {
    int n = then.road().size();
    int from = then.road().index(then.road().wrap(-grid));
    int first = -1;
    Brakings.Braking braking = null;
    int best = Integer.MAX_VALUE;
    for (int c = 0; c < then.corners().size(); c++) {
      for (Brakings.Braking b : then.brakings().of(c)) {
        int ahead = then.road().loop().ahead(from, b.slowest());
        if (ahead < best) {
          best = ahead;
          braking = b;
          first = c;
        }
      }
    }
    if (braking == null) {
      return null;
    }
    double boost = then.lap().boostBelow();
    Limits limits =
        new Limits(
            then.vehicle(), then.conditions().withGrip(then.conditions().grip() * cold), boost);
    double[] speed = new double[best + 1];
    double[] seconds = new double[best + 1];
    speed[0] = FIRST_STEP;
    for (int k = 1; k <= best; k++) {
      int i = (from + k - 1) % n;
      int q = (from + k) % n;
      // Where a corner on the way takes all the grip it is not passed quicker than on a lap.
      speed[k] =
          Math.min(
              then.lap().cornerSpeed()[q] * Math.sqrt(cold),
              LapSimulator.ahead(then.path(), limits, i, q, speed[k - 1]));
      seconds[k] =
          seconds[k - 1] + 2 * then.path().step()[i] / Math.max(1, speed[k] + speed[k - 1]);
    }
    // Back from the slowest place, as fast as the cold tyres can still stop, for as long as one
    // would
    // arrive faster. On the way in both follow what the turn takes, so that a little less still
    // counts.
    double v = then.lap().speed()[braking.slowest()] * Math.sqrt(cold);
    int at = best;
    while (at > 0 && v - ALIKE < speed[at]) {
      int i = (from + at - 1) % n;
      double slows = Math.max(0.5, limits.deceleration(then.path(), i, v));
      double before = Math.sqrt(v * v + 2 * slows * then.path().step()[i]);
      at--;
      v = Math.min(before, Math.max(v, then.lap().cornerSpeed()[i] * Math.sqrt(cold)));
    }
    int marker = (from + at) % n;
    return new Standing(
        then.corners().get(first).id(),
        speed[at],
        then.lap().unbraked()[marker],
        then.road().apart(braking.onset() * then.road().step(), marker * then.road().step()),
        seconds[at]);
  }

  private static List<Tow> tows(ComputedLap then) {
    ComputedLap behind =
        then.on(
            ConditionsBuilder.builder(then.conditions())
                .drag(then.conditions().drag() * DRAG)
                .downforce(then.conditions().downforce() * DOWNFORCE)
                .build());
    LapTrace lap = then.lap();
    LapTrace towed = behind.lap();
    List<Tow> out = new ArrayList<>();
    int count = then.corners().size();
    for (int c = 0; c < count; c++) {
      List<Brakings.Braking> mine = then.brakings().of(c);
      List<Brakings.Braking> other = behind.brakings().of(c);
      if (mine.isEmpty() || other.isEmpty()) {
        continue;
      }
      int onset = other.get(0).onset();
      int from = then.slowest((c + count - 1) % count);
      double faster = towed.speed()[onset] - lap.unbraked()[onset];
      if (faster >= SEEN) {
        out.add(
            new Tow(
                then.corners().get(c).id(),
                faster,
                lap.between(from, onset) - towed.between(from, onset),
                -then.road()
                    .apart(mine.get(0).onset() * then.road().step(), onset * then.road().step())));
      }
    }
    out.sort(java.util.Comparator.comparingDouble(Tow::faster).reversed());
    return out;
  }
}
