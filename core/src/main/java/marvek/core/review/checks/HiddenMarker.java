package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import java.util.Optional;
import marvek.core.circuit.Sight;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.said.Said;
import marvek.core.said.Value;

/** A marker that lies behind a crest. */
@AutoService(Check.class)
public final class HiddenMarker implements Check {
  private static final String WORDS = "check.HIDDEN_MARKER";
  // Metres before a marker where a driver looks for it.
  private static final double LOOKS_BACK = 60;

  @Override
  public String id() {
    return "HIDDEN_MARKER";
  }

  @Override
  public int rank() {
    return 20;
  }

  @Override
  public void look(Case at) {
    double eye = at.computed().eye();
    for (CornerPoint p : at.entry().points()) {
      boolean marks = p.kind() == PointKind.BRAKE || p.kind().marksBraking();
      Optional<Landmark> l = marks ? at.landmark(p) : Optional.empty();
      if (l.isPresent() && l.get().permanence() != Landmark.Permanence.FEEL) {
        double top = l.get().kind() == LandmarkKind.SHADOW ? 0 : Math.max(0, l.get().height());
        if (!Sight.clear(at.road(), l.get().station() - LOOKS_BACK, eye, LOOKS_BACK, top)) {
          at.warn(
              this,
              p.kind(),
              Said.of(
                  WORDS,
                  p.kind().said().in(),
                  Value.own(l.get().spoken()),
                  Value.length(LOOKS_BACK)));
        }
      }
    }
  }
}
