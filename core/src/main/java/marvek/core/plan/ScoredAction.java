package marvek.core.plan;

import java.util.List;
import marvek.core.said.Said;
import marvek.core.score.Action;
import org.jspecify.annotations.Nullable;

/**
 * An action of a corner as it was driven.
 *
 * @param action as written, where its cue puts it
 * @param line what is done and by which cue
 * @param speed m/s where it begins
 * @param time seconds from the start of the stretch
 * @param amount share that it was driven with: of the full press, also where that was left open; of
 *     the throttle; null for what has none
 * @param solved whether the amount was left open and found
 * @param asked most that it and the turn asked for together, as a share of what the tyres bore
 *     there; above 1 it was cut; null where nobody looked
 * @param before the same of the throttle in the turn before a lift; null for others
 * @param serves station of the slowest place that a braking or a lift is for; null for others
 * @param made whether that place is met
 * @param cues by which it is found, the first one first
 * @param precision metres to which the cue that counts can be met; null without one
 * @param gaze where what is looked at stands; null for what is no looking, or only words
 * @param rides what a rider's weight and brakes make of the limits; null for other kinds
 * @param trouble why its cue does not happen, or what is looked at is not seen; nothing where it,
 *     or one that stands in for it, does
 */
public record ScoredAction(
    Action action,
    Said line,
    double speed,
    double time,
    @Nullable Double amount,
    boolean solved,
    @Nullable Double asked,
    @Nullable Double before,
    @Nullable Double serves,
    boolean made,
    List<HeldCue> cues,
    @Nullable Double precision,
    @Nullable Gaze gaze,
    @Nullable Rides rides,
    Said trouble) {}
