package marvek.core.score;

import java.util.Objects;

/**
 * How a place is found. The place is computed from it, never the other way round. The words for its
 * things are kept with it, so that a revision can still be read when one has been moved or removed.
 *
 * @param kind of cue
 * @param thing id of the landmark that it hangs on; empty without one
 * @param spoken how that is called
 * @param other id of the second thing for {@link CueKind#BETWEEN}, of the action before for {@link
 *     CueKind#SECONDS}; empty for others
 * @param number metres, lengths, share, seconds or revs per minute, as its kind says; 0 without one
 */
public record Cue(CueKind kind, String thing, String spoken, String other, double number) {
  public Cue {
    Objects.requireNonNull(kind, "kind");
    thing = thing == null ? "" : thing;
    spoken = spoken == null ? "" : spoken;
    other = other == null ? "" : other;
  }

  /** A cue of one thing. */
  public static Cue of(CueKind kind, String thing, String spoken, double number) {
    return new Cue(kind, thing, spoken, "", number);
  }

  /** A cue without a thing. */
  public static Cue of(CueKind kind, double number) {
    return new Cue(kind, "", "", "", number);
  }

  /** Seconds after an action. */
  public static Cue after(String action, double seconds) {
    return new Cue(CueKind.SECONDS, "", "", action, seconds);
  }

  public Cue with(double other) {
    return new Cue(kind, thing, spoken, this.other, other);
  }
}
