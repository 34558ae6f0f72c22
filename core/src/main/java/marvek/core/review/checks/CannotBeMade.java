package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import java.util.List;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Slowing;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.LostBrakings;
import marvek.core.said.Said;
import marvek.core.said.Value;

/**
 * A corner that cannot be made as it is written: from its marker, by its lift, or flat; and one in
 * which nothing is written for a braking of the lap.
 */
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
    } else if (at.answer().time() == null) {
      at.warn(this, null, failing(at));
    } else if (braking == null) {
      LostBrakings.in(at.computed(), new ReferenceContent(List.of(at.entry())))
          .forEach(
              l ->
                  at.warn(
                      this,
                      null,
                      Said.of("check.NOT_MADE.lost", Value.speed(l.from()), Value.speed(l.to()))));
    }
  }

  /**
   * Which action it fails at, where one does: a lift that comes late, a press that is too light.
   */
  private static Said failing(Case at) {
    if (at.entry().slowing() == Slowing.FLAT) {
      return Said.of("plan.not_flat");
    }
    return at.answer().score().stream()
        .filter(a -> !a.made())
        .findFirst()
        .map(a -> Said.of("check.NOT_MADE.action", a.action().said().in()))
        .orElseGet(() -> Said.of("check.NOT_MADE.written"));
  }
}
