package marvek.core.debrief;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import marvek.core.entry.PointKind;
import marvek.core.said.Said;
import org.jspecify.annotations.Nullable;

/**
 * A change to a point of the reference that the laps speak for, or the reason why none is proposed.
 *
 * @param corner id
 * @param kind of the point
 * @param change whether something is proposed
 * @param station where the point stands
 * @param to where it should stand; the same when nothing is proposed
 * @param gain seconds to the next corner that the step should bring; null where it is not about
 *     time
 * @param gainLow lower end of its 90 % interval
 * @param gainHigh upper end
 * @param laps that speak for it
 * @param strength of the evidence
 * @param reason why it is proposed, or why nothing is
 * @param limitedBy what kept the step from being longer; nothing where nothing did
 * @param evidence ids of the laps
 * @param late metres late on each of them
 * @param seconds to the next corner on each of them
 */
@RecordBuilder
public record Proposal(
    String corner,
    PointKind kind,
    boolean change,
    double station,
    double to,
    @Nullable Double gain,
    @Nullable Double gainLow,
    @Nullable Double gainHigh,
    int laps,
    Strength strength,
    Said reason,
    Said limitedBy,
    List<String> evidence,
    List<Double> late,
    List<Double> seconds) {
  public Proposal {
    evidence = List.copyOf(evidence);
    late = List.copyOf(late);
    seconds = List.copyOf(seconds);
  }

  /** How strong the evidence is. */
  public enum Strength {
    NONE,
    WEAK,
    FAIR,
    STRONG;

    public Said said() {
      return Said.of("proposal.strength." + name());
    }
  }
}
