package marvek.core.session;

import java.time.Duration;

/**
 * What is due for a session, in order, with how many minutes before its start, or after its end, it
 * begins and is done (common practice, no source; the organiser's times come first).
 */
public enum Errand {
  /** The circuit on foot; once for an event, before its first session. */
  WALK(-180, -120, false),
  REHEARSE(-75, -55, false),
  BRIEF(-50, -40, false),
  /** Tyres are set as late as they can be, at the temperature at which they are told. */
  PRESSURES(-30, -20, false),
  WARM(-12, -5, false),
  OUT(-5, 0, false),
  LOG(0, 10, true),
  DEBRIEF(20, 50, true),
  REVISE(50, 80, true);

  private final int from;
  private final int until;
  private final boolean after;

  Errand(int from, int until, boolean after) {
    this.from = from;
    this.until = until;
    this.after = after;
  }

  /** Minutes to the start, or the end where it comes after. */
  int from() {
    return from;
  }

  int until() {
    return until;
  }

  /** How long it is still worth doing when its time is over. */
  Duration stays() {
    // What was felt fades within the hour; data does not.
    return after ? Duration.ofHours(this == LOG ? 2 : 6) : Duration.ZERO;
  }

  /** Whether it comes after the session and not before. */
  public boolean after() {
    return after;
  }
}
