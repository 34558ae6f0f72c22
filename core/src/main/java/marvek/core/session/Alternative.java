package marvek.core.session;

import java.util.List;
import java.util.Objects;
import marvek.core.entry.CornerEntry;
import marvek.core.vehicle.SetupSheet;
import org.jspecify.annotations.Nullable;

/**
 * One of the two ways of a trial, as it was when the trial was planned.
 *
 * @param source where it comes from
 * @param key what there: a school, a kind of day, the number of a revision, a parameter; or empty
 * @param label people's own words for it: name of a day or sheet, a setting; or empty
 * @param entries of the corners that it changes; empty for a sheet
 * @param sheet that is on; null for a way of driving, and for none
 */
public record Alternative(
    Source source,
    String key,
    String label,
    List<CornerEntry> entries,
    @Nullable SetupSheet sheet) {
  /** Where a way comes from. */
  public enum Source {
    /** As it is planned. */
    REFERENCE,
    SCHOOL,
    DAY,
    REVISION,
    SHEET,
    /** A sheet with one setting changed. */
    SETTING,
    /** A trial of before, of which there are the driver's words only. */
    WORDS
  }

  public Alternative {
    Objects.requireNonNull(source, "source");
    key = key == null ? "" : key;
    label = label == null ? "" : label;
    entries = entries == null ? List.of() : List.copyOf(entries);
  }

  /** A way of driving. */
  public static Alternative driving(
      Source source, String key, String label, List<CornerEntry> entries) {
    return new Alternative(source, key, label, entries, null);
  }

  /** A way of setting up. */
  public static Alternative setUp(
      Source source, String key, String label, @Nullable SetupSheet sheet) {
    return new Alternative(source, key, label, List.of(), sheet);
  }
}
