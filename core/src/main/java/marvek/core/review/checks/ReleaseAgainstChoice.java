package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import java.util.Optional;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.said.Said;
import marvek.core.technique.School;

/** A release that does not go with the way chosen. */
@AutoService(Check.class)
public final class ReleaseAgainstChoice implements Check {
  private static final String WORDS = "check.RELEASE_AGAINST_CHOICE";
  // Metres from the apex within which a release is at it.
  private static final double TO_APEX = 12;
  // Metres past turn-in up to which a release is not in the turn.
  private static final double STRAIGHT = 8;

  @Override
  public String id() {
    return "RELEASE_AGAINST_CHOICE";
  }

  @Override
  public int rank() {
    return 40;
  }

  @Override
  public void look(Case at) {
    CornerEntry e = at.entry();
    Optional<Double> release = e.station(PointKind.RELEASE);
    Optional<Double> turnIn = e.station(PointKind.TURN_IN);
    Optional<Double> apex = e.station(PointKind.APEX);
    Optional<Double> first = e.station(PointKind.FIRST_APEX);
    if (release.isEmpty() || turnIn.isEmpty()) {
      return;
    }
    double released = release.get();
    boolean held =
        apex.isPresent() && at.road().apart(released, apex.get()) < TO_APEX
            || first.isPresent() && Math.abs(at.road().apart(released, first.get())) < TO_APEX;
    if (e.schools().contains(School.TO_APEX) && at.road().apart(turnIn.get(), released) < 0) {
      warn(at, "early", School.TO_APEX);
    } else if (e.schools().contains(School.EARLY_ROLL) && held) {
      warn(at, "held", School.EARLY_ROLL);
    } else if (e.schools().contains(School.STRAIGHT)
        && at.road().apart(turnIn.get(), released) > STRAIGHT) {
      warn(at, "turning", School.STRAIGHT);
    }
  }

  private void warn(Case at, String how, School chosen) {
    at.warn(this, PointKind.RELEASE, Said.of(WORDS + "." + how, chosen.said().in()));
  }
}
