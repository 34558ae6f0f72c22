package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import marvek.core.entry.PointKind;
import marvek.core.plan.CornerAnswer;
import marvek.core.said.Said;
import marvek.core.said.Value;

/** Pedals that ask for more grip than there is. */
@AutoService(Check.class)
public final class OverAsked implements Check {
  private static final String WORDS = "check.OVER_ASKED";
  // Share of the grip beyond which it is said.
  private static final double MOST = 1.03;

  @Override
  public String id() {
    return "OVER_ASKED";
  }

  @Override
  public int rank() {
    return 100;
  }

  @Override
  public void look(Case at) {
    CornerAnswer.Pressing pressing = at.answer().pressing();
    if (pressing != null && pressing.asks() > MOST) {
      at.warn(this, PointKind.BRAKE, Said.of(WORDS, Value.percent(pressing.asks())));
    }
  }
}
