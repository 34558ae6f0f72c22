package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import marvek.core.said.Value;
import marvek.core.survey.Kerb;
import marvek.core.survey.TrackLimit;
import marvek.core.vehicle.Vehicle;

/** More of a kerb on the way in or at the apex than a track limit lets the wheels go. */
@AutoService(Check.class)
public final class KerbPastLimit implements Check {
  private static final String WORDS = "check.KERB_PAST_LIMIT";
  // Nearer than this nobody tells, metres.
  private static final double TOLD = 0.05;

  @Override
  public String id() {
    return "KERB_PAST_LIMIT";
  }

  @Override
  public int rank() {
    return 71;
  }

  @Override
  public void look(Case at) {
    Vehicle vehicle = at.computed().vehicle();
    at.kerbsUsed()
        .forEach(
            (k, use) -> {
              for (TrackLimit limit : at.things().limits()) {
                double lets = limit.lets(vehicle, k.width());
                boolean over =
                    limit.corner().equals(k.corner())
                        && limit.part() == k.part()
                        && limit.part() != Kerb.Part.EXIT
                        && limit.left() == k.left()
                        && FloorOnKerb.past(use.how(), k, vehicle) > lets + TOLD;
                if (over) {
                  at.warn(this, WORDS, use, Value.length(lets, 2));
                }
              }
            });
  }
}
