package marvek.core.survey;

import java.util.Objects;

/**
 * A place that matters for something else than steering by it.
 *
 * @param id stable name inside the layout version
 * @param kind what it is for
 * @param left true when it lies on the left
 * @param from station, m
 * @param to station where it ends, m; the same as {@code from} for a point
 * @param label number or name
 * @param note in the driver's words
 */
public record Place(
    String id, PlaceKind kind, boolean left, double from, double to, String label, String note) {

  public Place {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(kind, "kind");
    Objects.requireNonNull(label, "label");
    Objects.requireNonNull(note, "note");
  }
}
