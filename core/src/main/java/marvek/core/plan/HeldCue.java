package marvek.core.plan;

import marvek.core.said.Said;
import marvek.core.score.Cue;
import org.jspecify.annotations.Nullable;

/**
 * A cue by which an action is found.
 *
 * @param role what it is for the action
 * @param cue as written
 * @param words as it is said
 * @param station where it is; null where it does not happen
 * @param precision metres to which it can be met, 0 where it does not happen
 * @param counts whether the action is where this cue is
 * @param why it does not happen; nothing where it does
 */
public record HeldCue(
    Role role,
    Cue cue,
    Said words,
    @Nullable Double station,
    double precision,
    boolean counts,
    Said why) {

  /** What a cue is for an action. */
  public enum Role {
    /** By which it is found. */
    MAIN,
    /** Held together with the first: the earlier of the two counts. */
    TOGETHER,
    /** For when the others do not happen. */
    BACK_UP
  }

  HeldCue counting() {
    return new HeldCue(role, cue, words, station, precision, true, why);
  }
}
