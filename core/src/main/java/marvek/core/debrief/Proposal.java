package marvek.core.debrief;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.said.Said;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/**
 * A change to an action of the reference that the laps speak for, or the reason why none is
 * proposed.
 *
 * @param corner id
 * @param action id of the action
 * @param kind of it
 * @param what the action in words
 * @param share whether it is about the share of a pedal, and not about the place
 * @param change whether something is proposed
 * @param from station where it stands, or share that is written
 * @param to where it should stand, or the share; the same when nothing is proposed
 * @param gain seconds to the next corner that the step should bring; null where it is not about
 *     time
 * @param gainLow lower end of its 90 % interval
 * @param gainHigh upper end
 * @param laps that speak for it
 * @param strength of the evidence
 * @param reason why it is proposed, or why nothing is
 * @param limitedBy what kept the step from being longer; nothing where nothing did
 * @param evidence ids of the laps
 * @param off metres late on each of them, or share more
 * @param seconds to the next corner on each of them
 */
@RecordBuilder
public record Proposal(
    String corner,
    String action,
    ActionKind kind,
    Said what,
    boolean share,
    boolean change,
    double from,
    double to,
    @Nullable Double gain,
    @Nullable Double gainLow,
    @Nullable Double gainHigh,
    int laps,
    Strength strength,
    Said reason,
    Said limitedBy,
    List<String> evidence,
    List<Double> off,
    List<Double> seconds) {
  public Proposal {
    evidence = List.copyOf(evidence);
    off = List.copyOf(off);
    seconds = List.copyOf(seconds);
  }

  // A rounding is no longer step.
  private static final double ROUNDED_METRES = 0.01;
  private static final double ROUNDED_SHARE = 1e-4;

  /** Metres from where it starts, or share. */
  public double by(Centreline road, double at) {
    return share ? at - from : road.apart(from, at);
  }

  /** Whether a step may be taken of it: the same way, and no farther than the laps bear out. */
  public boolean allows(Centreline road, double at) {
    double whole = by(road, to);
    double part = by(road, at);
    double most = Math.abs(whole) + (share ? ROUNDED_SHARE : ROUNDED_METRES);
    return part * whole >= 0 && Math.abs(part) <= most;
  }

  /** How strong the evidence is. */
  public enum Strength {
    NONE,
    WEAK,
    FAIR,
    STRONG;

    /** What it is called. */
    public Said said() {
      return Said.of("proposal.strength." + name());
    }
  }
}
