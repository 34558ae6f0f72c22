package marvek.core.logger;

import marvek.core.said.Said;

/** Mistakes that a simulated driver can make on purpose. */
public enum Mistake {
  OVER_SLOWED,
  BRAKES_LATE_RUNS_DEEP,
  TURNS_IN_EARLY_RUNS_WIDE,
  SLOW_HAND_OFF,
  RELEASES_SOON,
  RELEASES_LATE,
  COASTS,
  THROTTLE_THEN_LIFT,
  MISSES_THE_KERB,
  LIMITER,
  EXTRA_STEERING,
  PLACED_WRONG_BEFORE,
  BRAKES_EARLY,
  TWO_PRESSES,
  GEAR_TOO_HIGH,
  FULL_THROTTLE_LATE,
  BEYOND_THE_EDGE,
  UNEVEN_BRAKING,
  LOCKS_THE_FRONT,
  SPINS_THE_REAR,
  STRIKES_THE_KERB;

  /** What it is called. */
  public Said said() {
    return Said.of("mistake." + name());
  }
}
