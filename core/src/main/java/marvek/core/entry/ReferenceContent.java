package marvek.core.entry;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A whole reference.
 *
 * @param corners one entry for each corner, in driving order
 * @param variants what differs on other days
 * @param pace of the driver's own; null for all of the grip
 */
public record ReferenceContent(
    List<CornerEntry> corners, List<Variant> variants, @Nullable OwnPace pace) {
  /** A reference with no variants. */
  public ReferenceContent(List<CornerEntry> corners) {
    this(corners, List.of());
  }

  /** A reference for all of the grip. */
  public ReferenceContent(List<CornerEntry> corners, List<Variant> variants) {
    this(corners, variants, null);
  }

  public ReferenceContent {
    corners = List.copyOf(corners);
    // Content stored before there were any has none.
    variants = variants == null ? List.of() : List.copyOf(variants);
  }

  /** The same days and pace with other entries. */
  public ReferenceContent with(List<CornerEntry> entries) {
    return new ReferenceContent(entries, variants, pace);
  }

  /** The same entries and pace with other days. */
  public ReferenceContent withVariants(List<Variant> days) {
    return new ReferenceContent(corners, days, pace);
  }
}
