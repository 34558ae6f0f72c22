package marvek.core.entry;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import marvek.core.line.ApexType;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.technique.Pedals;
import marvek.core.technique.School;
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
   * @param ways answers to the questions on which drivers differ, as that day wants them; null for
   *     those of the reference
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
      List<String> without,
      @Nullable Ways ways) {
    public ByHand {
      Objects.requireNonNull(corner, "corner");
      Objects.requireNonNull(note, "note");
      points = List.copyOf(points);
      // Days stored before there were any have none.
      actions = actions == null ? List.of() : List.copyOf(actions);
      without = without == null ? List.of() : List.copyOf(without);
    }

    /** Whether anything is set. */
    public boolean says() {
      return !points.isEmpty()
          || gear != null
          || firstEffort != null
          || slowing != null
          || firstThrottle != null
          || !actions.isEmpty()
          || !without.isEmpty()
          || ways != null
          || !note.isBlank();
    }
  }

  /**
   * How a corner is driven, where drivers differ.
   *
   * @param schools one answer to a question at most
   * @param pedals planned shape of the pedals; null for braking scaled evenly
   * @param apexType early, middle or late
   * @param givenAway how much of the linked corner that gives way is given, 0 to 1
   * @param apexOff metres that the apex is kept further off the inside than the line's own
   * @param kerbs what is done with them
   */
  public record Ways(
      List<School> schools,
      @Nullable Pedals pedals,
      ApexType apexType,
      double givenAway,
      double apexOff,
      List<KerbUse> kerbs) {
    public Ways {
      schools = List.copyOf(schools);
      Objects.requireNonNull(apexType, "apexType");
      kerbs = List.copyOf(kerbs);
    }

    /** Those of an entry. */
    public static Ways of(CornerEntry e) {
      return new Ways(e.schools(), e.pedals(), e.apexType(), e.givenAway(), e.apexOff(), e.kerbs());
    }

    /** The entry driven so. */
    public CornerEntry in(CornerEntry e) {
      return e.copy()
          .schools(schools)
          .pedals(pedals)
          .apex(apexType, e.apexGap())
          .givenAway(givenAway)
          .apexOff(apexOff)
          .kerbs(kerbs)
          .done();
    }
  }

  /** The same things set by hand, on the day as another has it. */
  public Variant like(Variant other) {
    return new Variant(id, other.kind, other.name, other.day, entries);
  }

  /** What is set by hand in a corner. */
  public Optional<ByHand> byHand(String corner) {
    return entries.stream().filter(e -> e.corner().equals(corner)).findFirst();
  }

  /** What it is called: the driver's own name, or its kind. */
  public Said called() {
    return name.isBlank() ? kind.said() : Said.of("day.called", Value.own(name));
  }
}
