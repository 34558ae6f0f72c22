package marvek.core.rehearse;

import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/**
 * One thing to know of a lap.
 *
 * @param id stable as long as the action is there: corner, action and what is asked
 * @param corner id
 * @param action id in its corner; empty for what is asked of the corner as a whole
 * @param kind of the action; null likewise
 * @param asks what is to be told
 * @param answer station in metres, share from 0 to 1, or gear
 * @param precision to which it can be told, in the same unit
 * @param worth seconds that not knowing it costs
 * @param leads whether it is asked before others: unsure, or other than it was
 */
public record Fact(
    String id,
    String corner,
    String action,
    @Nullable ActionKind kind,
    Asks asks,
    double answer,
    double precision,
    double worth,
    boolean leads) {
  /** What is asked. */
  public enum Asks {
    /** Where along the road: metres. */
    PLACE,
    /** How much of a pedal: a share. */
    SHARE,
    /** Which gear. */
    GEAR,
    /** What comes next on the pedals: the number of its kind. */
    NEXT,
    /** What came before on the pedals: the number of its kind. */
    BEFORE
  }

  /** How far an answer is off. */
  public double error(double told, double lap) {
    if (asks != Asks.PLACE) {
      return told - answer;
    }
    double off = (told - answer) % lap;
    if (off > lap / 2) {
      off -= lap;
    }
    return off < -lap / 2 ? off + lap : off;
  }

  /** The grade of an answer. */
  public Grade grade(double told, double lap) {
    return Grade.of(error(told, lap), precision);
  }
}
