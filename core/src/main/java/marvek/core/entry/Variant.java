package marvek.core.entry;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
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

    /** Whether anything is set. */
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

  /** What is set by hand in a corner. */
  public Optional<ByHand> byHand(String corner) {
    return entries.stream().filter(e -> e.corner().equals(corner)).findFirst();
  }

  /** What it is called: the driver's own name, or its kind. */
  public Said called() {
    return name.isBlank() ? kind.said() : Said.of("day.called", Value.own(name));
  }
}
