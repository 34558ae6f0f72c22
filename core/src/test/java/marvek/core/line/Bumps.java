package marvek.core.line;

import java.util.Random;
import marvek.core.circuit.Centreline;
import marvek.core.lap.Conditions;
import marvek.core.lap.Ground;
import marvek.core.lap.LapSimulator;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.vehicle.Vehicle;

/**
 * Another way to a quicker line: smooth bumps at random places, kept where the full lap gets
 * shorter, within the same room and rate of steering. Knows nothing of slopes.
 */
public final class Bumps {
  private Bumps() {}

  /** Share of the lap time that so many single bumps of 8 to 64 m to each side still find. */
  public static double left(
      Centreline road,
      Room room,
      Ground ground,
      Vehicle vehicle,
      Conditions day,
      double[] line,
      int tries,
      long seed) {
    Random random = new Random(seed);
    int n = road.size();
    double[] offset = line.clone();
    LapTrace lap = LapSimulator.lap(Path.over(road, offset, ground), vehicle, day);
    Limits limits = new Limits(vehicle, day, lap.boostBelow());
    SteeringRate rate = SteeringRate.usual(vehicle);
    double[] asked = rate.asked(Path.over(road, offset, ground), lap.speed());
    double best = lap.lapTime();
    for (int k = 0; k < tries; k++) {
      int half = (int) (8 * (1 + random.nextInt(8)) / road.step());
      int at = random.nextInt(n);
      double high = Math.pow(10, -2 + 1.7 * random.nextDouble()) * (random.nextBoolean() ? 1 : -1);
      double[] tried = offset.clone();
      boolean fits = true;
      for (int j = -half; j <= half && fits; j++) {
        int i = Math.floorMod(at + j, n);
        tried[i] += high * 0.5 * (1 + Math.cos(Math.PI * j / (half + 1.0)));
        fits =
            tried[i] <= Math.max(room.upper()[i], offset[i])
                && tried[i] >= Math.min(room.lower()[i], offset[i]);
      }
      if (!fits) {
        continue;
      }
      Path path = Path.over(road, tried, ground);
      LapTrace driven = LapSimulator.lap(path, limits, lap.boostBelow());
      if (driven.lapTime() >= best - 1e-6) {
        continue;
      }
      double[] now = rate.asked(path, driven.speed());
      double was = rate.most();
      double most = 0;
      for (int j = -half - 6; j <= half + 6; j++) {
        int i = Math.floorMod(at + j, n);
        was = Math.max(was, asked[i]);
        most = Math.max(most, now[i]);
      }
      if (most <= was + 1e-9) {
        best = driven.lapTime();
        offset = tried;
        asked = now;
      }
    }
    return 1 - best / lap.lapTime();
  }
}
