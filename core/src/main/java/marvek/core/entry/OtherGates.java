package marvek.core.entry;

import java.util.ArrayList;
import java.util.List;
import marvek.core.line.Gate;

/**
 * Places across the road that a day passes otherwise than the reference.
 *
 * @param gates each in place of the reference's with its id, or besides
 * @param without ids of the reference's that it does not pass
 */
public record OtherGates(List<Gate> gates, List<String> without) {
  public OtherGates {
    gates = gates == null ? List.of() : List.copyOf(gates);
    without = without == null ? List.of() : List.copyOf(without);
  }

  /** What the day passes. */
  public List<Gate> in(List<Gate> ofReference) {
    List<Gate> all = new ArrayList<>(ofReference);
    all.removeIf(
        g -> without.contains(g.id()) || gates.stream().anyMatch(own -> own.id().equals(g.id())));
    all.addAll(gates);
    return all;
  }
}
