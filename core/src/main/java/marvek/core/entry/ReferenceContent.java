package marvek.core.entry;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A whole reference.
 *
 * @param corners one entry for each corner, in driving order
 * @param variants what differs on other days
 * @param pace of the driver's own; null for all of the grip
 * @param use of edges and gates; null for the road alone
 */
public record ReferenceContent(
    List<CornerEntry> corners,
    List<Variant> variants,
    @Nullable OwnPace pace,
    @Nullable RoadUse use) {
  /** A reference with no variants. */
  public ReferenceContent(List<CornerEntry> corners) {
    this(corners, List.of());
  }

  /** A reference for all of the grip. */
  public ReferenceContent(List<CornerEntry> corners, List<Variant> variants) {
    this(corners, variants, null, null);
  }

  /** A reference that keeps to the road. */
  public ReferenceContent(
      List<CornerEntry> corners, List<Variant> variants, @Nullable OwnPace pace) {
    this(corners, variants, pace, null);
  }

  public ReferenceContent {
    corners = List.copyOf(corners);
    // Content stored before there were any has none.
    variants = variants == null ? List.of() : List.copyOf(variants);
  }

  /** The same days, pace and use with other entries. */
  public ReferenceContent with(List<CornerEntry> entries) {
    return new ReferenceContent(entries, variants, pace, use);
  }

  /** The same entries, pace and use with other days. */
  public ReferenceContent withVariants(List<Variant> days) {
    return new ReferenceContent(corners, days, pace, use);
  }

  /** The same using other edges and gates. */
  public ReferenceContent withUse(@Nullable RoadUse other) {
    return new ReferenceContent(corners, variants, pace, other);
  }
}
