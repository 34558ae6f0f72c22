package marvek.core.score;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * One thing that a driver does in a corner.
 *
 * @param id stable name inside its corner
 * @param kind what is done
 * @param station metres from the start/finish line; follows from the cue where there is one
 * @param until station at which a lift comes back or a kerb is left; null where the next action of
 *     the same pedal ends it
 * @param cue how the place is found; null for the bare station
 * @param together a second cue that is held with it, the earlier of the two counts; or null
 * @param backUp cue for when the first is hidden, or null
 * @param amount share from 0 to 1 of a pedal, of the braking at a rider's front wheel, metres from
 *     an edge; null where it is left open and solved, or has none
 * @param tolerance metres either way, for a place across the road; null for others
 * @param left whether metres are told from the left edge
 * @param manner how quickly
 * @param gear shifted to; null for other kinds
 * @param target what is looked at: a thing ({@link CueKind#BESIDE}) or where another action is
 *     ({@link CueKind#SECONDS}, none after it); null for other kinds, and where only words say it
 * @param stance where a rider's weight is; null for other kinds, and where it stays as it was
 * @param sure how sure the driver is of it; null when not said
 * @param note in the driver's words
 */
@RecordBuilder
public record Action(
    String id,
    ActionKind kind,
    double station,
    @Nullable Double until,
    @Nullable Cue cue,
    @Nullable Cue together,
    @Nullable Cue backUp,
    @Nullable Double amount,
    @Nullable Double tolerance,
    boolean left,
    Manner manner,
    @Nullable Integer gear,
    @Nullable Cue target,
    @Nullable Stance stance,
    @Nullable Sureness sure,
    String note) {
  public Action {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(kind, "kind");
    manner = manner == null ? kind.manners().get(0) : manner;
    note = note == null ? "" : note;
  }

  /** An action found by nothing yet. */
  public static Action of(String id, ActionKind kind, double station, @Nullable Double amount) {
    return new Action(
        id,
        kind,
        station,
        null,
        null,
        null,
        null,
        amount,
        null,
        false,
        kind.manners().get(0),
        null,
        null,
        null,
        null,
        "");
  }

  /** The same at another station, m. */
  public Action at(double other) {
    return ActionBuilder.builder(this).station(other).build();
  }

  /** The same found by nothing: what a cue leads to is not where it is any more. */
  public Action unfound() {
    return found(null, null, null);
  }

  /** The same with another share or number; null where it is left open. */
  public Action amounting(@Nullable Double other) {
    return ActionBuilder.builder(this).amount(other).build();
  }

  /** The same found by another cue; null for none. */
  public Action found(@Nullable Cue other) {
    return ActionBuilder.builder(this).cue(other).build();
  }

  /** The same found by other cues: a first, one held with it, and one for when that is hidden. */
  public Action found(@Nullable Cue first, @Nullable Cue with, @Nullable Cue behind) {
    return ActionBuilder.builder(this).cue(first).together(with).backUp(behind).build();
  }

  /** The same lasting until another station, m; null where it does not last. */
  public Action until(@Nullable Double other) {
    return ActionBuilder.builder(this).until(other).build();
  }

  /** The same in another manner. */
  public Action in(Manner other) {
    return ActionBuilder.builder(this).manner(other).build();
  }

  /** What is done, without its place: "lift to 40 %". */
  public Said said() {
    Double share = amount;
    Value per = Value.percent(share == null ? 0 : share);
    Value how = Value.choice(manner);
    return switch (kind) {
      case PLACE ->
          Said.of(
              "action.said.place",
              new Value.Length(share == null ? 0 : share, 1),
              Value.choice(left));
      case LIFT ->
          share == null
              ? Said.of("action.said.lift_open")
              : share == 0 ? Said.of("action.said.lift_off") : Said.of("action.said.lift", per);
      case BRAKE ->
          share == null
              ? Said.of("action.said.brake_open", how)
              : Said.of("action.said.brake", how, per);
      case EASE ->
          share == null
              ? Said.of("action.said.bleed")
              : share == 0 ? Said.of("action.said.off") : Said.of("action.said.ease", per, how);
      case SHIFT -> {
        Value to = Value.count(gear == null ? 0 : gear);
        Double end = until;
        yield end == null
            ? Said.of("action.said.shift", to)
            : Said.of("action.said.shift_held", to, Value.length(end));
      }
      case HANDS -> Said.of("action.said.hands", how);
      case APEX -> Said.of("action.said.apex");
      case THROTTLE -> Said.of("action.said.throttle", per, how);
      case FULL -> Said.of("action.said.full");
      case EYES -> looking(List.of());
      case BODY -> riding();
    };
  }

  /** "weight forward, 80 % of the brake at the front, knee out"; only what is said. */
  private Said riding() {
    List<Said> parts = new ArrayList<>();
    Stance where = stance;
    if (where != null) {
      parts.add(Said.of("action.said.weight", Value.choice(where)));
    }
    Double front = amount;
    if (front != null) {
      parts.add(Said.of("action.said.front_share", Value.percent(front)));
    }
    if (!note.isBlank() || parts.isEmpty()) {
      parts.add(Said.of("action.said.body", Value.own(note), Value.choice(!note.isBlank())));
    }
    return Said.listed(parts);
  }

  /** Whether it is a rider's action that the computation feels. */
  public boolean rides() {
    return kind == ActionKind.BODY && (stance != null || amount != null);
  }

  private Said looking(List<Action> score) {
    return target == null
        ? Said.of("action.said.eyes", Value.own(note), Value.choice(!note.isBlank()))
        : Said.of(
            "action.said.eyes_at",
            target.named(score),
            Value.choice(!note.isBlank()),
            Value.own(note));
  }

  /**
   * What is done, without its place, and whether it is done again: "brake again".
   *
   * @param score of the corner in driving order
   */
  public Said said(List<Action> score) {
    if (kind == ActionKind.EYES) {
      return looking(score);
    }
    boolean again =
        kind == ActionKind.BRAKE
            && score.stream()
                .takeWhile(a -> !a.id().equals(id))
                .anyMatch(a -> a.kind() == ActionKind.BRAKE);
    if (!again) {
      return said();
    }
    Double share = amount;
    Value how = Value.choice(manner);
    return share == null
        ? Said.of("action.said.again_open", how)
        : Said.of("action.said.again", how, Value.percent(share));
  }

  /**
   * All of it in driving order of words: "brake hard, 60 %, when the barrier's end leaves the
   * view".
   *
   * @param score of the corner, for cues on other actions
   */
  public Said line(List<Action> score) {
    return cue == null
        ? Said.of("action.said.where", said(score).in(), Value.length(station))
        : Said.of("action.said.by", said(score).in(), by(score).in(), Value.choice(kind));
  }

  /**
   * By which cues it is found: "by the post or when the wall ends, whichever comes first; if that
   * is hidden, 5 m past the board"; nothing without one.
   *
   * @param score of the corner, for cues on other actions
   */
  public Said by(List<Action> score) {
    Cue first = cue;
    if (first == null) {
      return Said.NOTHING;
    }
    Cue with = together;
    Cue behind = backUp;
    Said found =
        with == null
            ? first.said(score)
            : Said.of("action.said.together", first.said(score).in(), with.said(score).in());
    return behind == null
        ? found
        : Said.of("action.said.backed", found.in(), behind.said(score).in());
  }
}
