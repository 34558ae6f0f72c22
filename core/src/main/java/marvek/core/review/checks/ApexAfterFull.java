package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import java.util.Optional;
import marvek.core.entry.PointKind;
import marvek.core.said.Said;
import marvek.core.said.Value;

/** Full throttle before the apex. */
@AutoService(Check.class)
public final class ApexAfterFull implements Check {
  private static final String WORDS = "check.APEX_AFTER_FULL";

  @Override
  public String id() {
    return "APEX_AFTER_FULL";
  }

  @Override
  public int rank() {
    return 80;
  }

  @Override
  public void look(Case at) {
    Optional<Double> full = at.entry().station(PointKind.FULL_THROTTLE);
    Optional<Double> apex = at.entry().station(PointKind.APEX);
    if (full.isPresent() && apex.isPresent() && at.road().apart(apex.get(), full.get()) < 0) {
      double before = at.road().apart(full.get(), apex.get());
      at.warn(this, PointKind.APEX, Said.of(WORDS, Value.length(before)));
    }
  }
}
