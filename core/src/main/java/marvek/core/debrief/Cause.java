package marvek.core.debrief;

/**
 * Habits that cost time, with their cure; in the order in which they are named when several are
 * seen, those that bring others about first.
 */
public enum Cause {
  FROM_THE_CORNER_BEFORE(
      "It begins one corner before: you arrive at the wrong place across the road.",
      "Let the corner before end where this one begins; give that exit a place to aim for."),
  BRAKED_LATE_RAN_DEEP(
      "You brake late, arrive too deep and miss the apex.",
      "Go back to the flag. The time is in the throttle, not in the last metres of braking."),
  TURNED_IN_EARLY_RAN_WIDE(
      "You turn in early and run out of road at the exit.",
      "Wait with the hands; look at the apex, not at the place where the road bends."),
  THROTTLE_THEN_LIFT(
      "You open the throttle too soon and have to lift again.",
      "Wait until it can stay open: one application, later."),
  BEYOND_THE_EDGE(
      "You run beyond the edge of the road at the exit.",
      "A later apex, or less throttle before it; track limits are counted here."),
  KERB_STRUCK(
      "You strike the kerb hard.",
      "A hand's width less kerb, or a slower way over it; it costs grip and breaks parts."),
  WHEEL_SPUN(
      "The rear wheel spins on the way out.",
      "Less throttle at first and straighter hands before more of it."),
  WHEEL_LOCKED(
      "A wheel stands while you brake.",
      "Build the pressure up a little more slowly, and ease until the wheel turns again."),
  EXTRA_STEERING(
      "You take steering back and put it on again.",
      "Slower hands at turn-in, less speed on the way in, one movement."),
  TWO_PRESSES(
      "You press the brake twice.",
      "One press: as hard as the corner asks at the flag, then bleed it off."),
  RELEASED_LATE(
      "You hold the brake too long.",
      "Let it come off from turn-in on; the car turns better and the throttle comes sooner."),
  RELEASED_SOON(
      "You let the brake go too soon and wait.",
      "Trail it to the flag of the release, lighter and longer."),
  COASTING(
      "You roll between brake and throttle.",
      "Brake a little later or touch the throttle sooner; one foot takes over from the other."),
  HAND_OFF(
      "You wait between throttle and brake.",
      "Stay on the throttle to the flag; the change of pedal is one movement."),
  BRAKED_EARLY(
      "You brake early and lightly.",
      "Move towards the flag in steps of a few metres, each proved before the next."),
  OVER_SLOWED("You slow too much.", "Same marker, brake off a little sooner; let it roll in."),
  KERB_MISSED("You stay off the apex.", "Look at the kerb earlier and let the car come to it."),
  FULL_LATE(
      "You open the throttle fully too late.",
      "From first throttle on, squeeze steadily; if it does not hold, the apex was too early."),
  LIMITER(
      "You hold a gear into the limiter.",
      "Shift before it; where a straight is short, a gear higher in the corner saves one shift."),
  GEAR(
      "You are in another gear than planned at the slowest place.",
      "Count the shifts down; or make the other gear the plan, if it proves better."),
  UNEVEN_BRAKING(
      "You brake somewhere else each lap.",
      "Tie the flag to something that stands still, and say it aloud on the way in.");

  private final String words;
  private final String cure;

  Cause(String words, String cure) {
    this.words = words;
    this.cure = cure;
  }

  public String words() {
    return words;
  }

  public String cure() {
    return cure;
  }
}
