package marvek.core.entry;

import java.util.List;

/**
 * A whole reference.
 *
 * @param corners one entry for each corner, in driving order
 * @param variants what differs on other days
 */
public record ReferenceContent(List<CornerEntry> corners, List<Variant> variants) {
  /** A reference with no variants. */
  public ReferenceContent(List<CornerEntry> corners) {
    this(corners, List.of());
  }

  public ReferenceContent {
    corners = List.copyOf(corners);
    // Content stored before there were any has none.
    variants = variants == null ? List.of() : List.copyOf(variants);
  }

  /** The same days with other entries. */
  public ReferenceContent with(List<CornerEntry> entries) {
    return new ReferenceContent(entries, variants);
  }
}
