package marvek.core.score;

import marvek.core.said.Said;

/** Ways in which a driver finds a place. */
public enum CueKind {
  /** Metres past a thing, negative before it. */
  PAST(true, true),
  /** Lengths of the own vehicle past a thing, negative before it. */
  LENGTHS(true, true),
  /** A share of the way along something long, 0 to 1. */
  SHARE(true, true),
  /** A share of the way from one thing to another, 0 to 1. */
  BETWEEN(true, true),
  /** A thing comes into view. */
  INTO_VIEW(true, false),
  /** A thing leaves the field of view. */
  OUT_OF_VIEW(true, false),
  /** Side by side with a thing. */
  BESIDE(true, false),
  /** Seconds after another action. */
  SECONDS(false, true),
  /** Seconds on the limiter. */
  LIMITER(false, true),
  /** Revs per minute on the way up. */
  REVS(false, true),
  /** The load is back after a crest or a dip. */
  SETTLED(false, false),
  /** Nothing but feel. */
  FEEL(false, false);

  private final boolean thing;
  private final boolean number;

  CueKind(boolean thing, boolean number) {
    this.thing = thing;
    this.number = number;
  }

  /** Whether it hangs on a thing of the survey. */
  public boolean thing() {
    return thing;
  }

  /** Whether it has a number that moves with the place. */
  public boolean number() {
    return number;
  }

  /** What it is called. */
  public Said said() {
    return Said.of("cue." + name());
  }
}
