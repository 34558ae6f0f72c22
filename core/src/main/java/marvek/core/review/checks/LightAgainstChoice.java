package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import marvek.core.entry.CornerPoint;
import marvek.core.marker.Landmark;
import marvek.core.said.Said;
import marvek.core.technique.School;

/** A marker that is a shadow, where shadows are not to be used. */
@AutoService(Check.class)
public final class LightAgainstChoice implements Check {
  private static final String WORDS = "check.LIGHT_AGAINST_CHOICE";

  @Override
  public String id() {
    return "LIGHT_AGAINST_CHOICE";
  }

  @Override
  public int rank() {
    return 120;
  }

  @Override
  public void look(Case at) {
    for (CornerPoint p : at.entry().points()) {
      boolean shadow =
          at.landmark(p).map(l -> l.permanence() == Landmark.Permanence.LIGHT).orElse(false);
      if (shadow && at.entry().schools().contains(School.NO_LIGHT)) {
        at.warn(this, p.kind(), Said.of(WORDS, p.kind().said().in()));
      }
    }
  }
}
