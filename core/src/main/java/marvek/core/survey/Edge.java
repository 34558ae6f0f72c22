package marvek.core.survey;

import java.util.List;
import marvek.core.said.Said;
import org.jspecify.annotations.Nullable;

/**
 * An edge of the road that may be driven over, where a driver chooses to: a kerb, or ground beyond
 * the edge.
 *
 * @param id of the kerb or zone
 * @param kerb whether it is a kerb
 * @param left which edge
 * @param from station, m
 * @param to station, m
 * @param reach metres past the edge that the outer face of a tyre may go; 0 where it must not
 * @param grip share of it that is left to the tyres there in the dry
 * @param wetLoss share of that which is lost in the wet, beyond what the road loses
 * @param never why it cannot be used; null where it can
 * @param risks of using it
 */
public record Edge(
    String id,
    boolean kerb,
    boolean left,
    double from,
    double to,
    double reach,
    double grip,
    double wetLoss,
    @Nullable Never never,
    List<Risk> risks) {
  public Edge {
    risks = List.copyOf(risks);
    reach = never == null ? Math.max(0, reach) : 0;
  }

  /** Why an edge is not to be used. */
  public enum Never {
    KEEP_OFF,
    LIMIT,
    BITES,
    WALL,
    LOOSE,
    UNKNOWN,
    FLOOR,
    RIDER;

    /** What it is called. */
    public Said said() {
      return Said.of("edge.never." + name());
    }
  }

  /** What may go wrong on an edge. */
  public enum Risk {
    THROWS,
    LOCKS,
    BITES,
    PAINT,
    SOFT,
    DROP,
    NO_RUN_OFF,
    LIMIT_NEAR,
    LIP,
    LESS_GRIP;

    /** What it is called. */
    public Said said() {
      return Said.of("edge.risk." + name());
    }
  }

  /**
   * Share of the grip that is left to the tyres there.
   *
   * @param water how wet the road is, 0 to 1
   */
  public double grip(double water) {
    return grip * (1 - wetLoss * water);
  }

  /** The same used less far. */
  public Edge within(double metres) {
    return new Edge(id, kerb, left, from, to, Math.min(reach, metres), grip, wetLoss, never, risks);
  }

  /** Whether a reference may open it. */
  public boolean usable() {
    return never == null && reach > 0;
  }
}
