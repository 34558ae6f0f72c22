package marvek.core.session;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import marvek.core.debrief.LapData;
import marvek.core.debrief.Sections;
import marvek.core.entry.CornerEntry;
import marvek.core.lap.Ground;
import marvek.core.line.Room;
import marvek.core.line.Watch;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * What keeping off the edges costs in a session, against what leaving the road costs there.
 *
 * @param seconds a lap that {@link #KEPT} less road on both sides costs
 * @param corners what of it is lost in which, most first
 * @param breach seconds that leaving the road costs once it costs anything; null where not said
 * @param pays laps of which one may go over the edge before it would be quicker to keep off it;
 *     null where nothing is said of what it costs
 */
public record LimitCost(
    double seconds, List<InCorner> corners, @Nullable Double breach, @Nullable Double pays) {
  /** Metres kept from the edges. */
  public static final double KEPT = 0.5;

  private static final double USE = 0.005;

  public LimitCost {
    corners = List.copyOf(corners);
  }

  /** Seconds lost in a corner. */
  public record InCorner(String corner, double seconds) {}

  /**
   * Lays the line anew with less road.
   *
   * @param then lap of the session
   * @param entries as they are to be driven
   */
  public static LimitCost of(
      ComputedLap then, List<CornerEntry> entries, SessionRules rules, Watch watch) {
    Ground narrow = then.ground().keeping(then.road(), KEPT);
    ComputedLap kept = then.with(narrow, then.conditions(), within(then, narrow)).near(watch);
    Sections sections = new Sections(then, entries);
    LapData wide = LapData.of(then, 5);
    LapData held = LapData.of(kept, 5);
    List<InCorner> corners = new ArrayList<>();
    for (int c = 0; c < then.corners().size(); c++) {
      double lost = sections.time(held, c) - sections.time(wide, c);
      if (lost >= USE) {
        corners.add(new InCorner(then.corners().get(c).id(), lost));
      }
    }
    corners.sort(Comparator.comparingDouble((InCorner c) -> -c.seconds()));
    double seconds = kept.lap().lapTime() - then.lap().lapTime();
    Double penalty = rules.penalty();
    Double breach =
        rules.limits() == SessionRules.Limits.FREE || penalty == null
            ? null
            : (Double) (penalty / (rules.warnings() + 1));
    return new LimitCost(
        seconds,
        corners,
        breach,
        breach == null || seconds <= 0 ? null : (Double) (breach / seconds));
  }

  /** The line of a lap, as far between the edges that are kept as it is between those there are. */
  private static double[] within(ComputedLap then, Ground narrow) {
    Room wide = Room.on(then.road(), then.vehicle(), then.ground());
    Room kept = Room.on(then.road(), then.vehicle(), narrow);
    double[] offset = then.path().offset().clone();
    for (int i = 0; i < offset.length; i++) {
      double share = (offset[i] - wide.lower()[i]) / (wide.upper()[i] - wide.lower()[i]);
      offset[i] = kept.lower()[i] + share * (kept.upper()[i] - kept.lower()[i]);
    }
    return offset;
  }

  /**
   * In words.
   *
   * @param laps that count in the session
   */
  public Said words(SessionRules rules, int laps) {
    Double one = pays;
    return Said.of(
        "limits.cost",
        Value.length(KEPT, 1),
        Value.figure(seconds, 2),
        Value.choice(rules.limits()),
        Value.count(laps),
        Value.choice(one != null),
        Value.figure(one == null ? 0 : Math.ceil(one), 0));
  }
}
