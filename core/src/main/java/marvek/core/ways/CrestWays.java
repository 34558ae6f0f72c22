package marvek.core.ways;

import java.util.Optional;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.technique.School;

/** Over a crest in a turn: flat, or settled before it by a short lift. */
final class CrestWays {
  private static final String SETTLES = "settle";
  // Share kept, and seconds before the lightest place from which and to which (common practice, no
  // source): the throttle is back where the tyres bear least.
  private static final double KEPT = 0.5;
  private static final double FROM = 0.8;
  private static final double TO = 0.3;
  private static final double GRAIN = 0.5;

  private final ComputedLap computed;
  private final Answers answers;

  CrestWays(ComputedLap computed, Answers answers) {
    this.computed = computed;
    this.answers = answers;
  }

  /** Whether the tyres bear little somewhere while it is turned at all of the throttle. */
  boolean arises(CornerEntry entry) {
    return lightest(entry).isPresent();
  }

  private Optional<Answers.Light> lightest(CornerEntry entry) {
    return answers.lightest(flat(entry), FROM);
  }

  /** Share of the grip that is used where the tyres bear least. */
  double asks(CornerEntry entry) {
    return lightest(entry).map(light -> answers.used(entry, light.station())).orElse(0.0);
  }

  Optional<CornerEntry> over(CornerEntry wanted, School school) {
    CornerEntry flat = flat(wanted);
    if (school == School.HELD_FLAT) {
      return Optional.of(flat);
    }
    return lightest(flat)
        .map(
            light ->
                Score.with(
                    flat.slowing() == Slowing.FLAT
                        ? flat.copy().slowing(Slowing.LIFT).done()
                        : flat,
                    Action.of(SETTLES, ActionKind.LIFT, before(light, FROM), KEPT)
                        .until(before(light, TO))));
  }

  private double before(Answers.Light light, double seconds) {
    double at = light.station() - seconds * light.speed();
    return computed.road().wrap(Math.round(at / GRAIN) * GRAIN);
  }

  /** Without the lift that settles it. */
  private static CornerEntry flat(CornerEntry entry) {
    CornerEntry plain = Score.without(entry, SETTLES);
    boolean was = plain.actions().size() < entry.actions().size();
    boolean lifts = plain.actions().stream().anyMatch(a -> a.kind() == ActionKind.LIFT);
    return was && !lifts && entry.slowing() == Slowing.LIFT
        ? plain.copy().slowing(Slowing.FLAT).done()
        : plain;
  }
}
