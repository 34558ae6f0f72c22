package marvek.core.reference;

import java.util.List;

/**
 * A whole reference: one entry for each corner, in driving order.
 *
 * @param corners entries
 */
public record ReferenceContent(List<CornerEntry> corners) {
  public ReferenceContent {
    corners = List.copyOf(corners);
  }
}
