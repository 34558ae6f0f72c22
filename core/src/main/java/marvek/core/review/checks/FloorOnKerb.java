package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import marvek.core.entry.KerbUse;
import marvek.core.said.Said;
import marvek.core.said.Value;
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

  // Metres past a kerb's inner edge of a touch.
  private static final double TOUCH = 0.3;

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
    for (KerbUse use : at.entry().kerbs()) {
      for (Kerb k : at.things().kerbs()) {
        if (!k.corner().equals(at.entry().corner()) || k.part() != use.part()) {
          continue;
        }
        Double reach = KerbClearance.of(k, vehicle).reach();
        if (reach != null && past(use.how(), k, vehicle) > reach) {
          at.warn(
              this,
              null,
              Said.of(
                  WORDS,
                  Said.of("kerb.part." + use.part()).in(),
                  Said.of("kerb.verdict." + use.how()).in(),
                  Value.length(reach, 2)));
        }
      }
    }
  }

  /** Metres past the kerb's inner edge to which the outer face of a tyre goes. */
  private static double past(Kerb.Verdict how, Kerb kerb, Vehicle vehicle) {
    double tyre = vehicle.floorOrUsual().tyreWidth();
    return switch (how) {
      case OPEN, KEEP_OFF -> 0;
      case TOUCH -> Math.min(TOUCH, kerb.width());
      case RIDE -> Math.min(tyre + 0.1, kerb.width() + tyre);
      case HALF_THE_CAR -> Math.min(vehicle.width() / 2, kerb.width() + tyre);
      case STRADDLE -> kerb.width() + tyre;
    };
  }
}
