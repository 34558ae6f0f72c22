package marvek.core.entry;

import java.util.Objects;

/**
 * The driver's own words for a corner.
 *
 * @param text what the driver wrote
 * @param about what the points said at the time; when they say something else, the words are due
 *     for another look
 */
public record Wording(String text, String about) {
  public Wording {
    Objects.requireNonNull(text, "text");
    Objects.requireNonNull(about, "about");
  }
}
