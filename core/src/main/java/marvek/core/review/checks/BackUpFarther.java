package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import java.util.Optional;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.said.Said;
import marvek.core.said.Value;

/** A back-up marker that lies farther from the point than the primary one. */
@AutoService(Check.class)
public final class BackUpFarther implements Check {
  private static final String WORDS = "check.BACK_UP_FARTHER";

  @Override
  public String id() {
    return "BACK_UP_FARTHER";
  }

  @Override
  public int rank() {
    return 30;
  }

  @Override
  public void look(Case at) {
    Optional<CornerPoint> back = at.entry().point(PointKind.BACK_UP);
    Optional<CornerPoint> brake = at.entry().point(PointKind.BRAKE);
    if (back.isEmpty() || brake.isEmpty()) {
      return;
    }
    double first = away(at, brake.get(), brake.get().station());
    double second = away(at, back.get(), brake.get().station());
    if (second > first + 0.5) {
      at.warn(this, PointKind.BACK_UP, Said.of(WORDS, Value.length(second), Value.length(first)));
    }
  }

  private static double away(Case at, CornerPoint p, double point) {
    return at.landmark(p)
        .map(l -> Math.abs(at.road().apart(l.station(), point)))
        .orElse(Math.abs(at.road().apart(p.station(), point)));
  }
}
