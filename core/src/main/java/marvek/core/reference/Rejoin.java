package marvek.core.reference;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import marvek.core.circuit.Corner;

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
  public static ReferenceContent entries(Desk desk, ReferenceContent content) {
    Map<String, CornerEntry> had =
        content.corners().stream()
            .collect(
                Collectors.toMap(
                    CornerEntry::corner, Function.identity(), (a, b) -> a, LinkedHashMap::new));
    List<CornerEntry> entries = new ArrayList<>();
    for (int c = 0; c < desk.corners().size(); c++) {
      CornerEntry entry = had.get(desk.corners().get(c).id());
      entries.add(entry == null ? Drafter.entry(desk, c) : entry);
    }
    return content.with(entries);
  }
}
