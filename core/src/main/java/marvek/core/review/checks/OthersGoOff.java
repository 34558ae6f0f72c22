package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import marvek.core.entry.PointKind;
import marvek.core.plan.CornerAnswer;
import marvek.core.review.Hazards;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.survey.Zone;
import marvek.core.survey.ZoneKind;

/** A corner in which others go off, braked for with no more in hand than any other. */
@AutoService(Check.class)
public final class OthersGoOff implements Check {
  // Seconds more than elsewhere for each step of severity (common practice, no source).
  private static final double MORE = 0.1;

  @Override
  public String id() {
    return "OTHERS_GO_OFF";
  }

  @Override
  public int rank() {
    return 108;
  }

  @Override
  public void look(Case at) {
    CornerAnswer.BrakingNumbers braking = at.answer().braking();
    int severity =
        at.things().zones().stream()
            .filter(z -> z.kind() == ZoneKind.GO_OFF && Hazards.touches(at.road(), at.corner(), z))
            .mapToInt(Zone::severity)
            .max()
            .orElse(0);
    if (braking == null || severity == 0) {
      return;
    }
    double keep = at.computed().conditions().driving().margin() + MORE * severity;
    double lacks = keep - braking.marginSeconds();
    if (lacks > 0.005) {
      at.warn(
          this,
          PointKind.BRAKE,
          Said.of(
              "check.OTHERS_GO_OFF",
              Value.figure(braking.marginSeconds(), 2),
              Value.figure(keep, 2),
              Value.length(lacks * at.answer().arrivalSpeed())));
    }
  }
}
