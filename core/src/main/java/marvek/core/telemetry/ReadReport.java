package marvek.core.telemetry;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import marvek.core.said.Said;
import marvek.core.said.Value;

/** What was done to a recording while it was read. */
public final class ReadReport {
  /** Sorts of remarks. */
  public enum Sort {
    READ,
    CLEANED,
    DERIVED,
    DROPPED
  }

  /**
   * A remark.
   *
   * @param sort what was done
   * @param words what and why
   */
  public record Remark(Sort sort, Said words) {}

  private static final int MOST = 60;
  private final Map<Said, Remark> remarks = new LinkedHashMap<>();
  private int left;

  /** Adds a remark; the same words count once. */
  public void add(Sort sort, Said words) {
    if (remarks.size() >= MOST && !remarks.containsKey(words)) {
      left++;
      return;
    }
    remarks.put(words, new Remark(sort, words));
  }

  /** Forgets all remarks: the recording is read once more. */
  void clear() {
    remarks.clear();
    left = 0;
  }

  /** All remarks, the sorts in order. */
  public List<Remark> remarks() {
    List<Remark> out = new ArrayList<>(remarks.values());
    if (left > 0) {
      out.add(new Remark(Sort.DROPPED, Said.of("report.recording.further", Value.count(left))));
    }
    out.sort(java.util.Comparator.comparing(Remark::sort));
    return out;
  }
}
