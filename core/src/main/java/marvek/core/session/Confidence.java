package marvek.core.session;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** How a driver's confidence in a corner goes from session to session. */
public final class Confidence {
  private Confidence() {}

  /**
   * What the last that was said of each corner says of confidence, against what it was before.
   * Below zero where it falls, and where the driver was scared or unsure the last time that
   * something was said.
   *
   * @param sessions what was said in each, the oldest first
   */
  public static Map<String, Double> trend(List<List<Told>> sessions) {
    Map<String, List<Integer>> of = new LinkedHashMap<>();
    for (List<Told> told : sessions) {
      Map<String, Integer> here = new LinkedHashMap<>();
      for (Told t : told) {
        String corner = t.corner();
        Told.Felt felt = t.felt();
        if (t.about() == Told.About.CORNER && corner != null && felt != null) {
          here.put(corner, felt.confidence());
        }
      }
      here.forEach((c, v) -> of.computeIfAbsent(c, k -> new ArrayList<>()).add(v));
    }
    Map<String, Double> out = new LinkedHashMap<>();
    of.forEach(
        (c, all) -> {
          int last = all.get(all.size() - 1);
          double before =
              all.subList(0, all.size() - 1).stream()
                  .mapToInt(Integer::intValue)
                  .average()
                  .orElse(0);
          out.put(c, Math.min(last, last - before));
        });
    return out;
  }
}
