package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import marvek.core.said.Value;
import marvek.core.survey.Edges;
import marvek.core.survey.Kerb;
import marvek.core.survey.KerbClearance;
import marvek.core.vehicle.Vehicle;

/**
 * More of a kerb than the floor clears. Where it touches, the wheels lose about 30 % of their grip
 * at once (common practice, no source), in the middle of a turn.
 */
@AutoService(Check.class)
public final class FloorOnKerb implements Check {
  private static final String WORDS = "check.FLOOR_ON_KERB";

  @Override
  public String id() {
    return "FLOOR_ON_KERB";
  }

  @Override
  public int rank() {
    return 61;
  }

  @Override
  public void look(Case at) {
    Vehicle vehicle = at.computed().vehicle();
    at.kerbsUsed()
        .forEach(
            (k, use) -> {
              Double reach = KerbClearance.of(k, vehicle).reach();
              if (reach != null && past(use.how(), k, vehicle) > reach) {
                at.warn(this, WORDS, use, Value.length(reach, 2));
              }
            });
  }

  /** Metres past the kerb's inner edge to which the outer face of a tyre goes. */
  static double past(Kerb.Verdict how, Kerb kerb, Vehicle vehicle) {
    double tyre = vehicle.floorOrUsual().tyreWidth();
    return switch (how) {
      case OPEN, KEEP_OFF -> 0;
      case TOUCH -> Math.min(Edges.TOUCH, kerb.width());
      case RIDE -> Math.min(tyre + 0.1, kerb.width() + tyre);
      case HALF_THE_CAR -> Math.min(vehicle.width() / 2, kerb.width() + tyre);
      case STRADDLE -> kerb.width() + tyre;
    };
  }
}
