package marvek.core.anew;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.ReferenceContent;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;

/** Brings a reference into line with corners that were split, merged, added or left out since. */
public final class Rejoin {
  private Rejoin() {}

  /** Whether the content has one entry for each corner, in their order. */
  public static boolean fits(List<Corner> corners, ReferenceContent content) {
    return corners.stream()
        .map(Corner::id)
        .toList()
        .equals(content.corners().stream().map(CornerEntry::corner).toList());
  }

  /** Entries of corners that there are, in driving order; corners without one are drafted. */
  public static ReferenceContent entries(ComputedLap computed, ReferenceContent content) {
    Map<String, CornerEntry> had =
        content.corners().stream()
            .collect(
                Collectors.toMap(
                    CornerEntry::corner, Function.identity(), (a, b) -> a, LinkedHashMap::new));
    List<CornerEntry> entries = new ArrayList<>();
    for (int c = 0; c < computed.corners().size(); c++) {
      CornerEntry entry = had.get(computed.corners().get(c).id());
      entries.add(entry == null ? Drafter.entry(computed, c) : entry);
    }
    return content.with(entries);
  }
}
