package marvek.core.score;

import java.util.List;
import java.util.Objects;
import marvek.core.said.Said;
import marvek.core.said.Value;

/**
 * How a place is found. The place is computed from it, never the other way round. The words for its
 * things are kept with it, so that a revision can still be read when one has been moved or removed.
 *
 * @param kind of cue
 * @param thing id of the landmark that it hangs on; empty without one
 * @param spoken how that is called
 * @param other id of the second thing for {@link CueKind#BETWEEN}, of the action before for {@link
 *     CueKind#SECONDS}; empty for others
 * @param otherSpoken how the second thing is called
 * @param number metres, lengths, share, seconds or revs per minute, as its kind says; 0 without one
 */
public record Cue(
    CueKind kind, String thing, String spoken, String other, String otherSpoken, double number) {
  // Nearer than half a metre is at the thing.
  private static final double HERE = 0.5;

  public Cue {
    Objects.requireNonNull(kind, "kind");
    thing = thing == null ? "" : thing;
    spoken = spoken == null ? "" : spoken;
    other = other == null ? "" : other;
    otherSpoken = otherSpoken == null ? "" : otherSpoken;
  }

  /** A cue of one thing. */
  public static Cue of(CueKind kind, String thing, String spoken, double number) {
    return new Cue(kind, thing, spoken, "", "", number);
  }

  /** A cue without a thing. */
  public static Cue of(CueKind kind, double number) {
    return new Cue(kind, "", "", "", "", number);
  }

  /** Seconds after an action. */
  public static Cue after(String action, double seconds) {
    return new Cue(CueKind.SECONDS, "", "", action, "", seconds);
  }

  /** Where another action is: what is looked at there. */
  public static Cue where(String action) {
    return after(action, 0);
  }

  /**
   * What it hangs on by its name alone: of a thing, or of another action.
   *
   * @param score of the corner
   */
  public Value named(List<Action> score) {
    return kind.thing()
        ? Value.own(spoken)
        : score.stream()
            .filter(a -> a.id().equals(other))
            .findFirst()
            .map(a -> a.kind().said().in())
            .orElse(Value.own(other));
  }

  /** The same with another number: metres, lengths, share or seconds, as its kind has it. */
  public Cue with(double now) {
    return new Cue(kind, thing, spoken, other, otherSpoken, now);
  }

  /**
   * How it is said: "when the end of the barrier leaves the view".
   *
   * @param score of the corner, for cues on other actions
   */
  public Said said(List<Action> score) {
    Value name = Value.own(spoken);
    return switch (kind) {
      case PAST ->
          Math.abs(number) < HERE
              ? Said.of("cue.said.at", name)
              : Said.of("cue.said.past", Value.length(number), Value.choice(number > 0), name);
      case LENGTHS ->
          Said.of(
              "cue.said.lengths",
              Value.figure(Math.abs(number), 1),
              Value.choice(number > 0),
              name);
      case SHARE ->
          Math.abs(number - 0.5) < 0.02
              ? Said.of("cue.said.half", name)
              : Said.of("cue.said.share", Value.percent(number), name);
      case BETWEEN ->
          Said.of("cue.said.between", Value.percent(number), name, Value.own(otherSpoken));
      case INTO_VIEW -> Said.of("cue.said.into_view", name);
      case OUT_OF_VIEW -> Said.of("cue.said.out_of_view", name);
      case BESIDE -> Said.of("cue.said.beside", name);
      case SECONDS -> Said.of("cue.said.seconds", Value.figure(number, 1), named(score));
      case LIMITER -> Said.of("cue.said.limiter", Value.figure(number, 1));
      case REVS -> Said.of("cue.said.revs", Value.figure(number, 0));
      case SETTLED -> Said.of("cue.said.settled");
      case FEEL -> Said.of("cue.said.feel");
    };
  }
}
