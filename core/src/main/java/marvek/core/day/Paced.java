package marvek.core.day;

import java.util.Arrays;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Loop;
import marvek.core.entry.OwnPace;
import marvek.core.lap.Driving;
import marvek.core.lap.Ground;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Path;
import marvek.core.plan.ComputedLap;
import org.jspecify.annotations.Nullable;

/** What a driver's own pace makes of grip and lap. */
public final class Paced {
  // Metres over which one corner's share gives way to the next one's.
  private static final double BLEND = 30;
  private static final double LEAST = 0.35;
  private static final int ROUNDS = 24;

  /**
   * Tiers of drivers by how far they are off the best pace: newcomer 10 to 11 %, strong amateur 4
   * to 5 % (common practice, no source); between and above them our own steps.
   */
  public static final List<Double> TIERS = List.of(0.105, 0.07, 0.045, 0.02, 0.0);

  private Paced() {}

  /**
   * The ground as a driver of this pace uses it: in corners with a factor of their own less of it
   * or more, from the exit of the corner before on.
   */
  public static Ground ground(
      Centreline road, List<Corner> corners, Ground ground, @Nullable OwnPace pace) {
    if (pace == null || pace.corners().stream().allMatch(c -> c.factor() == 1)) {
      return ground;
    }
    Loop loop = road.loop();
    double[] own = new double[road.size()];
    Arrays.fill(own, 1);
    int count = corners.size();
    for (int c = 0; c < count; c++) {
      double factor = pace.in(corners.get(c).id());
      int first = road.index(corners.get((c + count - 1) % count).exit());
      loop.between(first, road.index(corners.get(c).exit()))
          .indices()
          .forEach(i -> own[i] = factor);
    }
    int half = (int) Math.round(BLEND / 2 / road.step());
    double[] share = new double[road.size()];
    for (int i = 0; i < share.length; i++) {
      share[i] = Arrays.stream(loop.from(i - half, 2 * half + 1).of(own)).average().orElseThrow();
    }
    return ground.times(share);
  }

  /**
   * The lap on the line at hand with less of the grip used in some corners.
   *
   * @param corners by their ids; unknown ones are passed over
   * @param less share of the grip that is left unused there
   */
  public static LapTrace eased(ComputedLap computed, List<String> corners, double less) {
    OwnPace pace =
        new OwnPace(
            Driving.FULL,
            corners.stream()
                .map(id -> new OwnPace.InCorner(id, 1 - less, OwnPace.Why.BY_HAND))
                .toList());
    Path path =
        Path.over(
            computed.road(),
            computed.path().offset(),
            ground(computed.road(), computed.corners(), computed.ground(), pace));
    return LapSimulator.lap(path, computed.limits(), computed.lap().boostBelow());
  }

  /**
   * The tier above a lap: how far off the best the next quicker one is.
   *
   * @param off of the lap, share of the best
   * @return share of the best, 0 for the best itself
   */
  public static double nextTier(double off) {
    for (double tier : TIERS) {
      // A lap that is in a tier is not sent to it again.
      if (tier < off - 0.002) {
        return tier;
      }
    }
    return 0;
  }

  /** The lap of a pace on the line at hand. */
  public static LapTrace lap(ComputedLap computed, Ground plain, @Nullable OwnPace pace) {
    return at(computed, plain, OwnPace.of(pace), pace == null ? null : pace.corners());
  }

  private static LapTrace at(
      ComputedLap computed,
      Ground plain,
      Driving driving,
      @Nullable List<OwnPace.InCorner> corners) {
    OwnPace pace = new OwnPace(driving, corners == null ? List.of() : corners);
    Ground ground = ground(computed.road(), computed.corners(), plain, pace);
    Path path =
        Path.over(computed.road(), computed.path().offset(), ground.asIn(computed.ground()));
    double boost = computed.lap().boostBelow();
    return LapSimulator.lap(
        path, computed.limits().on(computed.conditions().withDriving(driving), boost), boost);
  }

  /**
   * The pace at which the lap on the line at hand is so much off the best on it, with the three
   * shares alike; the nearest that there is where no share makes it that slow.
   *
   * @param plain the ground without a pace
   * @param off share of the lap time, 0.045 for 4.5 %
   * @param margin seconds
   * @param corners that differ; their factors count within the lap
   */
  public static OwnPace off(
      ComputedLap computed,
      Ground plain,
      double off,
      double margin,
      List<OwnPace.InCorner> corners) {
    double best = at(computed, plain, Driving.FULL, null).lapTime();
    double low = LEAST;
    double high = 1;
    for (int round = 0; round < ROUNDS; round++) {
      double middle = (low + high) / 2;
      Driving tried = new Driving(middle, middle, middle, margin);
      if (at(computed, plain, tried, corners).lapTime() > best * (1 + off)) {
        low = middle;
      } else {
        high = middle;
      }
    }
    return new OwnPace(new Driving(high, high, high, margin), corners);
  }
}
