package marvek.core.rehearse;

import marvek.core.lap.Path;
import marvek.core.plan.CornerAnswer.Profile;

/**
 * Where a vehicle goes that cannot follow the planned line: too fast it turns as much less as its
 * speed squared is more, and turning late it turns as planned, later. A drawing, not a promise of
 * where it ends.
 */
final class Astray {
  /** Metres from the planned line at which it is drawn no farther. */
  static final double MOST = 12;

  private Astray() {}

  /**
   * With the slowing later by some metres: the same speeds later on the road.
   *
   * @param path that is planned to be followed
   * @param road metres between its samples
   */
  static Profile slowedLater(Path path, double road, Profile planned, double metres) {
    int n = planned.speed().length;
    double[] speed = new double[n];
    double[] away = new double[n];
    int slowest = 0;
    for (int k = 1; k < n; k++) {
      slowest = planned.speed()[k] < planned.speed()[slowest] ? k : slowest;
    }
    double turned = 0;
    for (int k = 0; k < n; k++) {
      double was = planned.speed()[k];
      double later = at(planned.speed(), k - metres / planned.step());
      // On the way there nothing is otherwise until the slowing should begin.
      speed[k] = k <= slowest ? Math.max(was, later) : later;
      double share = speed[k] > was ? Math.pow(was / speed[k], 2) : 1;
      double curve = curvature(path, road, planned, k);
      turned += (share - 1) * curve * planned.step();
      away[k] = k == 0 ? 0 : step(away[k - 1], turned, planned.step());
    }
    return with(planned, speed, away);
  }

  /** With the turn-in later by some metres, negative is sooner, at the planned speeds. */
  static Profile turnedLater(Path path, double road, Profile planned, double metres) {
    int n = planned.speed().length;
    double[] away = new double[n];
    double turned = 0;
    for (int k = 0; k < n; k++) {
      double curve = curvature(path, road, planned, k);
      double then = curvature(path, road, planned, k - metres / planned.step());
      turned += (then - curve) * planned.step();
      away[k] = k == 0 ? 0 : step(away[k - 1], turned, planned.step());
    }
    return with(planned, planned.speed(), away);
  }

  private static double step(double before, double turned, double step) {
    return Math.max(-MOST, Math.min(MOST, before + Math.sin(turned) * step));
  }

  private static double at(double[] values, double k) {
    double within = Math.max(0, Math.min(values.length - 1.0, k));
    int i = (int) Math.floor(within);
    double next = values[Math.min(values.length - 1, i + 1)];
    return values[i] + (within - i) * (next - values[i]);
  }

  private static double curvature(Path path, double road, Profile planned, double k) {
    double station = planned.from() + k * planned.step();
    return path.curvature()[path.loop().at((int) Math.round(station / road))];
  }

  private static Profile with(Profile planned, double[] speed, double[] away) {
    double[] offset = planned.offset().clone();
    for (int k = 0; k < offset.length; k++) {
      offset[k] += away[k];
    }
    return new Profile(
        planned.from(),
        planned.step(),
        speed,
        planned.brake(),
        planned.throttle(),
        planned.gear(),
        offset,
        planned.use());
  }
}
