package marvek.core.session;

import java.util.ArrayList;
import java.util.List;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * A pressure to set.
 *
 * @param wheel 0 front left, 1 front right, 2 rear left, 3 rear right; of a motorcycle 0 front, 1
 *     rear
 * @param hot wanted, kPa
 * @param cold to set, kPa; null where it must not be
 * @param low what it may be from the doubt about the hot gas, kPa
 * @param high likewise
 * @param hotAt temperature of the hot gas that it rests on, °C
 * @param learned whether that was told from the last readings
 * @param refused why it must not be set; nothing where it may
 */
public record Wheels(
    int wheel,
    double hot,
    @Nullable Double cold,
    double low,
    double high,
    double hotAt,
    boolean learned,
    Said refused) {
  /** Doubt of a temperature told from readings, °C (common practice, no source). */
  private static final double LEARNED_DOUBT = 4;

  /**
   * Pressures to set for those that are wanted.
   *
   * @param count of the vehicle's wheels
   * @param air temperature of the air, °C
   * @param road temperature of the road, °C; null where not known
   * @param atmosphere kPa
   */
  public static List<Wheels> of(
      SessionTyres tyres, int count, double air, @Nullable Double road, double atmosphere) {
    List<Wheels> out = new ArrayList<>();
    Double given = tyres.coldAt();
    double coldAt = given == null ? air : given;
    for (int w = 0; w < Math.min(count, tyres.hot().size()); w++) {
      Double hot = SessionTyres.at(tyres.hot(), w);
      if (hot == null) {
        continue;
      }
      Double lastCold = SessionTyres.at(tyres.lastCold(), w);
      Double lastHot = SessionTyres.at(tyres.lastHot(), w);
      Double lastAt = tyres.lastColdAt();
      boolean learned = lastCold != null && lastHot != null && lastAt != null && lastHot > lastCold;
      double hotAt = Pressures.usualHot(road);
      double doubt = Pressures.USUAL_DOUBT;
      if (lastCold != null && lastHot != null && lastAt != null && learned) {
        hotAt = Pressures.hotAt(lastCold, lastAt, lastHot, atmosphere);
        Double lastRoad = tyres.lastRoad();
        hotAt = road == null || lastRoad == null ? hotAt : Pressures.onRoad(hotAt, lastRoad, road);
        doubt = LEARNED_DOUBT;
      }
      double cold = Pressures.cold(hot, hotAt, coldAt, atmosphere);
      double low = Pressures.cold(hot, hotAt + doubt, coldAt, atmosphere);
      double high = Pressures.cold(hot, hotAt - doubt, coldAt, atmosphere);
      Double least = tyres.least();
      boolean under = least != null && cold < least;
      out.add(
          new Wheels(
              w,
              hot,
              under ? null : (Double) cold,
              low,
              high,
              hotAt,
              learned,
              least != null && under
                  ? Said.of("wheels.under", Value.figure(cold, 0), Value.figure(least, 0))
                  : Said.NOTHING));
    }
    return List.copyOf(out);
  }
}
