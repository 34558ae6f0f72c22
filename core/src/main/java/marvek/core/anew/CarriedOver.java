package marvek.core.anew;

import java.util.ArrayList;
import java.util.List;
import marvek.core.entry.Carried;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.ReferenceContent;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.plan.LostBrakings;
import marvek.core.score.Sureness;
import marvek.core.survey.Things;

/** A reference carried over to another vehicle, set-up or state of the same circuit. */
public final class CarriedOver {
  /** Metres to which a change is rounded: what a person can use. */
  private static final double GRAIN = 0.5;

  private CarriedOver() {}

  /**
   * Each point is the driver's own plus what the computation says the other circumstances change,
   * and is marked as not proved. No braking that the other lap needs is lost.
   *
   * @param from where the content was written
   * @param there what stands along the road there
   * @param content what was written
   * @param to where it is to be driven, with the same corners
   * @param things what stands along the road here
   */
  public static ReferenceContent content(
      ComputedLap from, Things there, ReferenceContent content, ComputedLap to, Things things) {
    List<CornerEntry> was = Drafter.draft(from, there.landmarks()).corners();
    List<CornerEntry> is = Drafter.draft(to, things).corners();
    List<CornerEntry> entries = new ArrayList<>();
    for (int c = 0; c < is.size(); c++) {
      CornerEntry carried =
          Carried.entry(
              to.road(),
              content.corners().get(c),
              was.get(c),
              is.get(c),
              GRAIN,
              to.vehicle().gears(),
              Sureness.CARRIED);
      entries.add(LostBrakings.kept(to, carried, is.get(c)));
    }
    return Refresh.content(to, things, content.with(entries), content.corners());
  }
}
