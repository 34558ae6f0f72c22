package marvek.core.logger;

/** Mistakes that a simulated driver can make on purpose. */
public enum Mistake {
  OVER_SLOWED("slows too much"),
  BRAKES_LATE_RUNS_DEEP("brakes late and runs deep"),
  TURNS_IN_EARLY_RUNS_WIDE("turns in early and runs wide"),
  SLOW_HAND_OFF("waits between throttle and brake"),
  RELEASES_SOON("lets the brake go too soon"),
  RELEASES_LATE("holds the brake too long"),
  COASTS("rolls between brake and throttle"),
  THROTTLE_THEN_LIFT("opens the throttle too soon, then lifts"),
  MISSES_THE_KERB("stays off the apex"),
  LIMITER("holds the gear into the limiter"),
  EXTRA_STEERING("corrects the steering"),
  PLACED_WRONG_BEFORE("leaves the corner before at the wrong place"),
  BRAKES_EARLY("brakes early and lightly"),
  TWO_PRESSES("presses the brake twice"),
  GEAR_TOO_HIGH("is a gear too high"),
  FULL_THROTTLE_LATE("opens the throttle fully too late"),
  BEYOND_THE_EDGE("leaves the road at the exit"),
  UNEVEN_BRAKING("brakes somewhere else each lap"),
  LOCKS_THE_FRONT("locks the front wheel"),
  SPINS_THE_REAR("spins the rear wheel"),
  STRIKES_THE_KERB("strikes the kerb");

  private final String words;

  Mistake(String words) {
    this.words = words;
  }

  public String words() {
    return words;
  }
}
