package marvek.core.entry;

import java.util.ArrayList;
import java.util.List;
import marvek.core.line.Gate;
import org.jspecify.annotations.Nullable;

/**
 * What of the road a reference uses beside the road itself, and where it must pass.
 *
 * @param opened ids of kerbs and of ground beyond the edge that the driver chose to use
 * @param gates places across the road that the line passes
 */
public record RoadUse(List<String> opened, List<Gate> gates) {
  /** Nothing but the road, and no gates. */
  public static final RoadUse NONE = new RoadUse(List.of(), List.of());

  public RoadUse {
    opened = opened == null ? List.of() : List.copyOf(opened);
    gates = gates == null ? List.of() : List.copyOf(gates);
  }

  /** That of a reference that may have none of its own. */
  public static RoadUse of(@Nullable RoadUse use) {
    return use == null ? NONE : use;
  }

  /** The same through other gates too; those of the same ids are replaced. */
  public RoadUse through(List<Gate> more) {
    List<Gate> all = new ArrayList<>(gates);
    all.removeIf(g -> more.stream().anyMatch(m -> m.id().equals(g.id())));
    all.addAll(more);
    return new RoadUse(opened, all);
  }

  /** Null where it asks for nothing. */
  public @Nullable RoadUse orNone() {
    return equals(NONE) ? null : this;
  }

  /** The same with an edge opened. */
  public RoadUse open(String edge) {
    List<String> all = new ArrayList<>(opened);
    if (!all.contains(edge)) {
      all.add(edge);
    }
    return new RoadUse(all, gates);
  }

  /** The same with an edge shut. */
  public RoadUse shut(String edge) {
    return new RoadUse(opened.stream().filter(e -> !e.equals(edge)).toList(), gates);
  }
}
