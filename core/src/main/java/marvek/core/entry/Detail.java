package marvek.core.entry;

import java.util.List;

/** What else an entry can hold, each in a few words; those with choices hold one of them. */
public enum Detail {
  APPROACH_SIDE(Phase.APPROACH, "place on the road", false, "left", "middle", "right"),
  PREPARE(Phase.APPROACH, "prepare from the corner before", false),
  BRAKING_SIDE(Phase.BRAKING, "side while braking", false, "left", "middle", "right"),
  BRAKING_WHILE(Phase.BRAKING, "brake", false, "straight", "already turning"),
  BUMPS(Phase.BRAKING, "bumps", false, "over them", "round them"),
  FRONT_SHARE(Phase.BRAKING, "front brake, % of all", true),
  FOOTWORK(Phase.GEARS, "clutch and feet", false),
  HANDS(Phase.TURN_IN, "hands", false, "slow", "even", "quick"),
  AIM(Phase.TURN_IN, "look at", false),
  COAST(Phase.RELEASE, "roll on purpose", false, "yes", "no"),
  CUE(Phase.THROTTLE, "throttle when", false),
  PATIENCE(Phase.THROTTLE, "patience", false),
  EXIT_AIM(Phase.EXIT, "let it run to", false),
  NEXT_NEEDS(Phase.EXIT, "the next corner needs", false),
  LIMIT(Phase.EXIT, "track limit", false),
  HAZARD(Phase.HAZARDS, "hazard", false),
  MISTAKE(Phase.HAZARDS, "a mistake looks like", false),
  ESCAPE(Phase.HAZARDS, "escape plan", false),
  OVERTAKE(Phase.RACECRAFT, "pass or defend", false, "pass", "defend", "neither"),
  RACE_LINE(Phase.RACECRAFT, "line for that", false),
  GLANCE(Phase.RACECRAFT, "look at the instruments", false),
  BREATHE(Phase.RACECRAFT, "breathe", false),
  BODY(Phase.BODY, "body", true),
  WHEEL_CARE(Phase.BODY, "wheelie and stoppie", true),
  KNEE(Phase.BODY, "knee and kerb", true),
  FEELS_IN(Phase.TURN_IN, "feels on the way in", false, "pushes", "even", "turns"),
  FEELS_MIDDLE(Phase.RELEASE, "feels in the middle", false, "pushes", "even", "turns"),
  FEELS_OUT(Phase.THROTTLE, "feels on the way out", false, "pushes", "even", "turns");

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
  private final String words;
  private final boolean motorcycle;
  private final List<String> choices;

  Detail(Phase phase, String words, boolean motorcycle, String... choices) {
    this.phase = phase;
    this.words = words;
    this.motorcycle = motorcycle;
    this.choices = List.of(choices);
  }

  public Phase phase() {
    return phase;
  }

  public String words() {
    return words;
  }

  /** Whether it is for motorcycles only. */
  public boolean motorcycle() {
    return motorcycle;
  }

  /** What it may hold; empty for free words. */
  public List<String> choices() {
    return choices;
  }
}
