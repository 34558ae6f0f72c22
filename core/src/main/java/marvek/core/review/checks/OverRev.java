package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.said.Said;
import marvek.core.said.Value;

/** A gear or a shift that would turn the engine too fast. */
@AutoService(Check.class)
public final class OverRev implements Check {
  private static final String WORDS = "check.OVER_REV";

  @Override
  public String id() {
    return "OVER_REV";
  }

  @Override
  public int rank() {
    return 50;
  }

  @Override
  public void look(Case at) {
    CornerEntry e = at.entry();
    if (at.answer().gears().stream().anyMatch(g -> g.gear() == e.gear() && !g.usable())) {
      at.warn(this, null, Said.of(WORDS + ".gear", Value.count(e.gear())));
    }
    at.answer().shifts().down().stream()
        .filter(d -> !d.safe())
        .forEach(
            d ->
                at.warn(
                    this,
                    PointKind.DOWNSHIFT,
                    Said.of(WORDS + ".shift", Value.count(d.gear()), Value.figure(d.revs(), 0))));
  }
}
