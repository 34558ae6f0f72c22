package marvek.core.session;

import java.util.stream.IntStream;
import marvek.core.plan.ComputedLap;
import org.jspecify.annotations.Nullable;

/**
 * A race on two sets of tyres: after which lap to change. The stop itself takes as long whenever it
 * is made, so what counts is how the grip of both sets goes; in which order they are used changes
 * nothing but who is near, and is left to the driver.
 *
 * @param change laps on the first set
 * @param laps of the race
 * @param earliest change that costs less than {@link #SAME} more
 * @param latest likewise
 * @param gained seconds against all laps on the first set, without the stop
 */
public record StintSplit(int change, int laps, int earliest, int latest, double gained) {
  /** Seconds over a race that nobody can plan for. */
  public static final double SAME = 1;

  private static final double LESS = 0.02;

  /**
   * The split; null where one set does, where nobody has said how long either lasts, and for a
   * single lap.
   *
   * @param laps of the race
   * @param rate at which a lap wears the tyres, 1 as on a lap of the reference
   */
  public static @Nullable StintSplit of(
      ComputedLap then, TrackSession session, int laps, double rate) {
    SecondSet second = session.tyres().second();
    boolean lasts = second != null && (session.tyres().life() != null || second.life() != null);
    if (second == null || !lasts || laps < 2) {
      return null;
    }
    double lapTime = then.lap().lapTime();
    double less = then.conditions().grip() * (1 - LESS);
    double perGrip = (then.on(then.conditions().withGrip(less)).lap().lapTime() - lapTime) / LESS;
    WarmUp warmUp = session.tyres().warmUp(session.day());
    double[] first = new double[laps + 1];
    double[] other = new double[laps + 1];
    for (int lap = 1; lap <= laps; lap++) {
      double warm = warmUp.share(lap, lapTime);
      double worn = SessionTyres.worn(second.age(), second.life(), lap, rate);
      first[lap] = first[lap - 1] + perGrip * (1 - warm * session.tyres().worn(lap, rate));
      other[lap] = other[lap - 1] + perGrip * (1 - warm * worn * second.grip());
    }
    double[] lost = IntStream.range(0, laps).mapToDouble(k -> first[k] + other[laps - k]).toArray();
    int best = 1;
    for (int k = 2; k < laps; k++) {
      best = lost[k] < lost[best] ? k : best;
    }
    int earliest = best;
    while (earliest > 1 && lost[earliest - 1] < lost[best] + SAME) {
      earliest--;
    }
    int latest = best;
    while (latest < laps - 1 && lost[latest + 1] < lost[best] + SAME) {
      latest++;
    }
    return new StintSplit(best, laps, earliest, latest, first[laps] - lost[best]);
  }
}
