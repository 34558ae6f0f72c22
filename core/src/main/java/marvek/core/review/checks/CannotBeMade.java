package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import marvek.core.entry.PointKind;
import marvek.core.plan.CornerAnswer;
import marvek.core.said.Said;
import marvek.core.said.Value;

/** A marker from which the corner cannot be made. */
@AutoService(Check.class)
public final class CannotBeMade implements Check {
  private static final String WORDS = "check.CANNOT_BE_MADE";

  @Override
  public String id() {
    return "CANNOT_BE_MADE";
  }

  @Override
  public int rank() {
    return 90;
  }

  @Override
  public void look(Case at) {
    CornerAnswer.BrakingNumbers braking = at.answer().braking();
    if (braking != null && !braking.makesIt()) {
      double sooner = Math.max(1, -braking.marginMetres());
      at.warn(this, PointKind.BRAKE, Said.of(WORDS, Value.length(sooner)));
    }
  }
}
