package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import marvek.core.entry.Detail;
import marvek.core.review.Hazards;
import marvek.core.said.Said;

/** A short run-off and no plan of the driver's own for it. */
@AutoService(Check.class)
public final class NoEscape implements Check {
  private static final String WORDS = "check.NO_ESCAPE";

  @Override
  public String id() {
    return "NO_ESCAPE";
  }

  @Override
  public int rank() {
    return 110;
  }

  @Override
  public void look(Case at) {
    Hazards hazards = Hazards.of(at.computed(), at.things(), at.entry());
    if (hazards.shortRunOff() && at.entry().detail(Detail.ESCAPE).isBlank()) {
      at.warn(this, null, Said.of(WORDS, hazards.escape().in()));
    }
  }
}
