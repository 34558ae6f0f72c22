package marvek.core.session;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Tyres for a session. Four wheels in the order front left, front right, rear left, rear right; a
 * motorcycle's two in front and rear. Pressures in kPa by the gauge, temperatures in °C.
 *
 * @param set name of the set
 * @param age laps that it has done
 * @param life laps after which it is worn out; null where not known
 * @param warmers whether it comes out of warmers
 * @param hot pressures wanted when hot, by wheel; null where none is said
 * @param coldAt temperature of the gas when it is set; null for that of the air
 * @param least pressures that maker or organiser allow cold; null where none is said
 * @param lastCold pressures last set cold
 * @param lastColdAt temperature then
 * @param lastHot pressures read hot after that
 */
@RecordBuilder
public record SessionTyres(
    String set,
    int age,
    @Nullable Integer life,
    boolean warmers,
    List<@Nullable Double> hot,
    @Nullable Double coldAt,
    @Nullable Double least,
    List<@Nullable Double> lastCold,
    @Nullable Double lastColdAt,
    List<@Nullable Double> lastHot) {
  /** Grip that a worn out tyre has lost (common practice, no source). */
  public static final double WORN = 0.08;

  public SessionTyres {
    Objects.requireNonNull(set, "set");
    // Some are null.
    hot = copy(hot);
    lastCold = copy(lastCold);
    lastHot = copy(lastHot);
  }

  private static List<@Nullable Double> copy(@Nullable List<@Nullable Double> list) {
    return list == null
        ? List.of()
        : Collections.unmodifiableList(new ArrayList<@Nullable Double>(list));
  }

  /** Nothing said. */
  public static SessionTyres unknown() {
    return new SessionTyres("", 0, null, false, List.of(), null, null, List.of(), null, List.of());
  }

  /** How grip comes with warmth. */
  public WarmUp warmUp() {
    return warmers ? WarmUp.WARMERS : WarmUp.USUAL;
  }

  /**
   * Share of the grip that wear leaves on a lap of the session: linear in use (Archard 1953, from
   * memory), by laps until work by wheel is told.
   */
  public double worn(int lap) {
    return life == null || life <= 0 ? 1 : 1 - WORN * Math.min(1.5, (double) (age + lap) / life);
  }

  static @Nullable Double at(List<@Nullable Double> list, int wheel) {
    return wheel < list.size() ? list.get(wheel) : null;
  }
}
