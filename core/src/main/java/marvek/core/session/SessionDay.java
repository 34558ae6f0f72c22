package marvek.core.session;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Objects;
import marvek.core.entry.Day;
import marvek.core.entry.DayBuilder;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * The conditions of a session.
 *
 * @param like day of the reference whose hand-set places count, by its id; empty for none
 * @param day what it is like; its hour is told by the session's start
 * @param rubber what lies on the road
 * @param road temperature of the road, °C; null where not known
 * @param pressure of the air at the place, hPa; null for that of the standard atmosphere there
 */
@RecordBuilder
public record SessionDay(
    String like, Day day, Rubber rubber, @Nullable Double road, @Nullable Double pressure) {
  /** What earlier driving has left on the road, with its factor on grip (common practice). */
  public enum Rubber {
    GREEN(0.97),
    USUAL(1),
    RUBBERED(1.01);

    private final double grip;

    Rubber(double grip) {
      this.grip = grip;
    }

    /** Factor on the grip of a dry road. */
    public double grip() {
      return grip;
    }
  }

  public SessionDay {
    Objects.requireNonNull(like, "like");
    Objects.requireNonNull(day, "day");
    Objects.requireNonNull(rubber, "rubber");
  }

  /** The reference's own day. */
  public static SessionDay usual() {
    return new SessionDay("", Day.ofBase(), Rubber.USUAL, null, null);
  }

  /** The road and the air in a line. */
  public Said words() {
    Double air = day.airTemperature();
    return Said.of(
        "page.conditions",
        Value.choice(day.road().state()),
        Value.percent(day.grip()),
        Value.choice(road != null),
        Value.figure(road == null ? 0 : road, 0),
        Value.choice(air != null),
        Value.figure(air == null ? 0 : air, 0),
        Value.choice(day.windSpeed() >= 1),
        Value.figure(day.windSpeed(), 0),
        Value.figure(day.windFrom(), 0));
  }

  /**
   * What the computation is asked for.
   *
   * @param hour on the circuit's clock, like 14:05
   * @param share of the grip that the tyres have
   * @param mass kg more than the day says
   */
  public Day at(String hour, double share, double mass) {
    // Rubber helps on a dry road only; in the wet it is the greasy part of it.
    boolean dry = day.road().state() == marvek.core.lap.Surface.State.DRY;
    return DayBuilder.builder(day)
        .hour(hour)
        .grip(day.grip() * (dry ? rubber.grip() : 1) * share)
        .extraMass(day.extraMass() + mass)
        .build();
  }
}
