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
 * @param lastRoad temperature of the road then; null where not known
 * @param spared corners in which they are spared, by id
 * @param second set that must be used too; null where one does
 * @param tread temperatures last read across the tread, °C, of each wheel outer side, middle, inner
 *     side, of a motorcycle left, middle, right; null where none were
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
    List<@Nullable Double> lastHot,
    @Nullable Double lastRoad,
    List<String> spared,
    @Nullable SecondSet second,
    @Nullable List<@Nullable Double> tread) {
  /** Grip that a worn out tyre has lost (common practice, no source). */
  public static final double WORN = 0.08;

  public SessionTyres {
    Objects.requireNonNull(set, "set");
    // Some are null.
    hot = copy(hot);
    lastCold = copy(lastCold);
    lastHot = copy(lastHot);
    // Sessions planned before there were any have none.
    spared = spared == null ? List.of() : List.copyOf(spared);
    tread = tread == null ? null : copy(tread);
  }

  private static List<@Nullable Double> copy(@Nullable List<@Nullable Double> list) {
    return list == null
        ? List.of()
        : Collections.unmodifiableList(new ArrayList<@Nullable Double>(list));
  }

  /** Nothing said. */
  public static SessionTyres unknown() {
    return new SessionTyres(
        "", 0, null, false, List.of(), null, null, List.of(), null, List.of(), null, List.of(),
        null, null);
  }

  /**
   * How grip comes with warmth: the colder they start against what they settle at, the more is
   * missing.
   */
  public WarmUp warmUp(SessionDay day) {
    if (warmers) {
      return WarmUp.WARMERS;
    }
    Double air = day.day().airTemperature();
    double from = coldAt != null ? coldAt : air != null ? air : WarmUp.USUAL_FROM;
    double to = Pressures.usualHot(day.road());
    double usual = Pressures.USUAL_HOT - WarmUp.USUAL_FROM;
    return new WarmUp(
        WarmUp.USUAL.missing() * Math.max(0, Math.min(2, (to - from) / usual)),
        WarmUp.USUAL.seconds());
  }

  /**
   * Share of the grip that wear leaves on a lap of the session: linear in the work that the tyres
   * do (Archard 1953, from memory).
   *
   * @param rate work of a lap as a share of that of the laps in which age and life are counted
   */
  public double worn(int lap, double rate) {
    return worn(age, life, lap, rate);
  }

  /** The same of any set. */
  static double worn(int age, @Nullable Integer life, int lap, double rate) {
    return life == null || life <= 0 ? 1 : 1 - WORN * Math.min(1.5, (age + lap * rate) / life);
  }

  static @Nullable Double at(List<@Nullable Double> list, int wheel) {
    return wheel < list.size() ? list.get(wheel) : null;
  }
}
