package marvek.core.entry;

import java.util.List;
import marvek.core.said.Said;
import marvek.core.said.Value;

/** What else an entry can hold, each in a few words; those with choices hold one of them. */
public enum Detail {
  APPROACH_SIDE(Phase.APPROACH, false, "left", "middle", "right"),
  PREPARE(Phase.APPROACH, false),
  BRAKING_SIDE(Phase.BRAKING, false, "left", "middle", "right"),
  BRAKING_WHILE(Phase.BRAKING, false, "straight", "already turning"),
  BUMPS(Phase.BRAKING, false, "over them", "round them"),
  FRONT_SHARE(Phase.BRAKING, true),
  FOOTWORK(Phase.GEARS, false),
  HANDS(Phase.TURN_IN, false, "slow", "even", "quick"),
  AIM(Phase.TURN_IN, false),
  COAST(Phase.RELEASE, false, "yes", "no"),
  CUE(Phase.THROTTLE, false),
  PATIENCE(Phase.THROTTLE, false),
  EXIT_AIM(Phase.EXIT, false),
  NEXT_NEEDS(Phase.EXIT, false),
  LIMIT(Phase.EXIT, false),
  HAZARD(Phase.HAZARDS, false),
  MISTAKE(Phase.HAZARDS, false),
  ESCAPE(Phase.HAZARDS, false),
  OVERTAKE(Phase.RACECRAFT, false, "pass", "defend", "neither"),
  RACE_LINE(Phase.RACECRAFT, false),
  GLANCE(Phase.RACECRAFT, false),
  BREATHE(Phase.RACECRAFT, false),
  BODY(Phase.BODY, true),
  WHEEL_CARE(Phase.BODY, true),
  KNEE(Phase.BODY, true),
  FEELS_IN(Phase.TURN_IN, false, "pushes", "even", "turns"),
  FEELS_MIDDLE(Phase.RELEASE, false, "pushes", "even", "turns"),
  FEELS_OUT(Phase.THROTTLE, false, "pushes", "even", "turns");

  /** Phases of a corner, in driving order. */
  public enum Phase {
    APPROACH,
    BRAKING,
    GEARS,
    TURN_IN,
    RELEASE,
    THROTTLE,
    EXIT,
    HAZARDS,
    RACECRAFT,
    BODY
  }

  private final Phase phase;
  private final boolean motorcycle;
  private final List<String> choices;

  Detail(Phase phase, boolean motorcycle, String... choices) {
    this.phase = phase;
    this.motorcycle = motorcycle;
    this.choices = List.of(choices);
  }

  /** Where in a corner it belongs. */
  public Phase phase() {
    return phase;
  }

  /** What it is called. */
  public Said said() {
    return Said.of("detail." + name());
  }

  /** Whether it is for motorcycles only. */
  public boolean motorcycle() {
    return motorcycle;
  }

  /**
   * A text of it as it is told: one of its choices by the catalogue, else in the driver's own
   * words.
   *
   * @param text as it is stored
   */
  public Said told(String text) {
    return choices.contains(text)
        ? Said.of("choice." + text.replace(' ', '_'))
        : Said.of("entry.as_written", Value.own(text));
  }

  /** What it may hold, as it is stored; empty for free words. */
  public List<String> choices() {
    return choices;
  }
}
