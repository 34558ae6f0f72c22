package marvek.core.telemetry;

import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/**
 * Something done in a lap, as it can be read from the pedals.
 *
 * @param kind lift, brake or shift
 * @param station where it begins, m; below zero before the line
 * @param until station where a lift comes back or a press is over; null where it is not
 * @param amount share that a lift keeps, or the hardest of a press; null for a shift
 * @param gear that is shifted to; 0 for other kinds
 * @param seconds that it lasts
 */
public record Act(
    ActionKind kind,
    double station,
    @Nullable Double until,
    @Nullable Double amount,
    int gear,
    double seconds) {}
