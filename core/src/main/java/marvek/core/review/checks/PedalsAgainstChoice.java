package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import java.util.Optional;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.technique.School;

/** Pedals that do not go with the way chosen, as where they were changed since. */
@AutoService(Check.class)
public final class PedalsAgainstChoice implements Check {
  private static final String WORDS = "check.PEDALS_AGAINST_CHOICE";
  // Share of the throttle from which on some of it is kept.
  private static final double KEPT = 0.05;
  // Metres between brake and throttle up to which nothing is rolled, and seconds from which on.
  private static final double AT_ONCE = 8;
  private static final double ROLLED = 0.25;
  // Metres from the first of the throttle to all of it, up to which it is opened at once.
  private static final double OPENED = 8;

  @Override
  public String id() {
    return "PEDALS_AGAINST_CHOICE";
  }

  @Override
  public int rank() {
    return 45;
  }

  @Override
  public void look(Case at) {
    CornerEntry e = at.entry();
    settled(at, e);
    if (e.slowing() == Slowing.LIFT) {
      slowed(at, e, School.BRAKED);
      lift(at, e);
    } else if (e.slowing() == Slowing.BRAKE) {
      slowed(at, e, School.NO_BRAKE);
      roll(at, e);
      opened(at, e);
      hands(at, e);
    }
  }

  private void hands(Case at, CornerEntry e) {
    Optional<Double> brake = e.station(PointKind.BRAKE);
    Optional<Double> turnIn = e.station(PointKind.TURN_IN);
    if (brake.isEmpty() || turnIn.isEmpty()) {
      return;
    }
    double turned = at.road().apart(turnIn.get(), brake.get());
    School other = turned > 0 ? School.BRAKE_FIRST : School.HANDS_FIRST;
    if (e.schools().contains(other)) {
      at.warn(
          this,
          PointKind.BRAKE,
          Said.of(
              WORDS + ".hands",
              Value.length(Math.abs(turned)),
              Value.choice(turned > 0),
              other.said().in()));
    }
  }

  /** A lift over a crest comes back by itself. */
  private void settled(Case at, CornerEntry e) {
    boolean lifts =
        e.actions().stream().anyMatch(a -> a.kind() == ActionKind.LIFT && a.until() != null);
    School other = lifts ? School.HELD_FLAT : School.SETTLED_BEFORE;
    if (e.schools().contains(other)) {
      at.warn(
          this,
          PointKind.TURN_IN,
          Said.of(WORDS + ".settled", Value.choice(lifts), other.said().in()));
    }
  }

  private void slowed(Case at, CornerEntry e, School other) {
    if (e.schools().contains(other)) {
      at.warn(
          this,
          PointKind.TURN_IN,
          Said.of(
              WORDS + ".slowed", Value.choice(e.slowing() == Slowing.BRAKE), other.said().in()));
    }
  }

  private void opened(Case at, CornerEntry e) {
    Optional<Double> first = e.station(PointKind.FIRST_THROTTLE);
    Optional<Double> full = e.station(PointKind.FULL_THROTTLE);
    if (first.isEmpty() || full.isEmpty()) {
      return;
    }
    double metres = Math.max(0, at.road().apart(first.get(), full.get()));
    School other = metres > OPENED ? School.AT_ONCE : School.SQUEEZED;
    if (e.schools().contains(other)) {
      at.warn(
          this,
          PointKind.FULL_THROTTLE,
          Said.of(WORDS + ".opened", Value.length(metres), other.said().in()));
    }
  }

  private void lift(Case at, CornerEntry e) {
    Double kept =
        e.actions().stream()
            .filter(a -> a.kind() == ActionKind.LIFT)
            .findFirst()
            .map(Action::amount)
            .orElse(null);
    if (kept == null) {
      return;
    }
    School other = kept > KEPT ? School.LIFT_ALL : School.LIFT_SOME;
    if (e.schools().contains(other)) {
      at.warn(
          this,
          PointKind.TURN_IN,
          Said.of(WORDS + ".lift", Value.percent(kept), other.said().in()));
    }
  }

  private void roll(Case at, CornerEntry e) {
    Optional<Double> release = e.station(PointKind.RELEASE);
    Optional<Double> first = e.station(PointKind.FIRST_THROTTLE);
    if (release.isEmpty() || first.isEmpty()) {
      return;
    }
    double metres = at.road().apart(release.get(), first.get());
    if (e.schools().contains(School.NEVER_COAST) && metres > AT_ONCE) {
      roll(at, metres, School.NEVER_COAST);
    } else if (e.schools().contains(School.COAST) && metres < ROLLED * e.minimumSpeed()) {
      roll(at, metres, School.COAST);
    }
  }

  private void roll(Case at, double metres, School chosen) {
    at.warn(
        this,
        PointKind.FIRST_THROTTLE,
        Said.of(WORDS + ".roll", Value.length(Math.max(0, metres)), chosen.said().in()));
  }
}
