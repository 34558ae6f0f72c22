package marvek.core.entry;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import marvek.core.lap.Surface;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import org.jspecify.annotations.Nullable;

/**
 * The reference on another day: what it is like, and what the driver set by hand for it. What is
 * not set follows from the reference and the computation.
 *
 * @param id stable name inside the reference
 * @param kind what sort of day
 * @param name in the driver's words, or empty
 * @param day what it is like
 * @param entries what differs by hand, of corners in which something does
 */
public record Variant(String id, DayKind kind, String name, Day day, List<ByHand> entries) {
  public Variant {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(kind, "kind");
    Objects.requireNonNull(name, "name");
    Objects.requireNonNull(day, "day");
    // Days stored before there was a surface have that of their kind.
    day = day.surface() == null ? day.on(kind.usual().surface()) : day;
    entries = List.copyOf(entries);
  }

  /**
   * What a day is like, against a dry, warm, still one.
   *
   * @param grip factor on the tyres' grip
   * @param extraMass kg on top of the vehicle's mass
   * @param windSpeed m/s
   * @param windFrom compass degrees that the wind comes from
   * @param drag factor on the drag
   * @param downforce factor on the downforce
   * @param airTemperature °C, or null for the standard atmosphere
   * @param hour on the circuit's clock like 18:30, or empty; it tells the light, not the grip
   * @param surface of the road, for the places where water gathers; null only in a day that was
   *     stored without, until its variant gives it that of its kind
   */
  @RecordBuilder
  public record Day(
      double grip,
      double extraMass,
      double windSpeed,
      double windFrom,
      double drag,
      double downforce,
      @Nullable Double airTemperature,
      String hour,
      @Nullable Surface surface) {
    public Day {
      Objects.requireNonNull(hour, "hour");
    }

    /** The day of the reference itself. */
    public static Day ofBase() {
      return of(1, 0);
    }

    /** Nothing but another grip and mass, on a dry road. */
    static Day of(double grip, double extraMass) {
      return of(grip, extraMass, Surface.DRY);
    }

    static Day of(double grip, double extraMass, Surface surface) {
      return new Day(grip, extraMass, 0, 0, 1, 1, null, "", surface);
    }

    Day on(@Nullable Surface other) {
      return VariantDayBuilder.builder(this).surface(other).build();
    }

    /** The same day with another grip, as a factor on the reference's own. */
    public Day withGrip(double other) {
      return VariantDayBuilder.builder(this).grip(other).build();
    }

    /** What water does to the road, dry where nothing is known. */
    public Surface road() {
      return surface == null ? Surface.DRY : surface;
    }
  }

  /**
   * What is set by hand in a corner.
   *
   * @param corner id
   * @param points that differ from what is proposed
   * @param gear or null
   * @param firstEffort or null
   * @param slowing or null
   * @param note in the driver's words
   * @param firstThrottle share of the first throttle, or null
   * @param actions that are done otherwise that day, or besides, each in place of the one with its
   *     id
   * @param without ids of actions that are left out that day
   */
  @RecordBuilder
  public record ByHand(
      String corner,
      List<CornerPoint> points,
      @Nullable Integer gear,
      @Nullable Double firstEffort,
      @Nullable Slowing slowing,
      String note,
      @Nullable Double firstThrottle,
      List<Action> actions,
      List<String> without) {
    public ByHand {
      Objects.requireNonNull(corner, "corner");
      Objects.requireNonNull(note, "note");
      points = List.copyOf(points);
      // Days stored before there were any have none.
      actions = actions == null ? List.of() : List.copyOf(actions);
      without = without == null ? List.of() : List.copyOf(without);
    }

    public boolean says() {
      return !points.isEmpty()
          || gear != null
          || firstEffort != null
          || slowing != null
          || firstThrottle != null
          || !actions.isEmpty()
          || !without.isEmpty()
          || !note.isBlank();
    }
  }

  /** The same things set by hand, on the day as another has it. */
  public Variant like(Variant other) {
    return new Variant(id, other.kind, other.name, other.day, entries);
  }

  public Optional<ByHand> byHand(String corner) {
    return entries.stream().filter(e -> e.corner().equals(corner)).findFirst();
  }

  /** What it is called: the driver's own name, or its kind. */
  public Said called() {
    return name.isBlank() ? kind.said() : Said.of("day.called", Value.own(name));
  }
}
