package marvek.core.session;

import java.util.ArrayList;
import java.util.List;
import marvek.core.day.Paced;
import marvek.core.debrief.LapData;
import marvek.core.debrief.Pace;
import marvek.core.debrief.Sections;
import marvek.core.entry.CornerEntry;
import marvek.core.plan.ComputedLap;
import org.jspecify.annotations.Nullable;

/**
 * Lap times to aim at in a session.
 *
 * @param tiers from the easiest to the best computed
 * @param own best of the driver's own sections put together, s; null without laps
 * @param now tier that the driver's own laps are in; null without laps
 */
public record Targets(List<Tier> tiers, @Nullable Double own, @Nullable Integer now) {
  /**
   * A tier.
   *
   * @param off share over the best computed for the session
   * @param lap s
   * @param corners seconds of each corner's section
   */
  public record Tier(double off, double lap, List<Double> corners) {
    public Tier {
      corners = List.copyOf(corners);
    }
  }

  // A lap that is in a tier is not sent to it again.
  private static final double SAME = 0.002;

  public Targets {
    tiers = List.copyOf(tiers);
  }

  /**
   * Tiers of a session.
   *
   * @param then computed for it
   * @param entries as they are to be driven
   * @param own theoretical best of the driver, in conditions like the session's, s
   * @param median lap of the driver in such conditions, s
   */
  public static Targets of(
      ComputedLap then, List<CornerEntry> entries, @Nullable Double own, @Nullable Double median) {
    Sections sections = new Sections(then, entries);
    LapData plan = LapData.of(then, 5);
    int n = then.corners().size();
    double[] asks = new double[n];
    double all = 0;
    for (int c = 0; c < n; c++) {
      asks[c] = Pace.asks(then, sections.begin(c), sections.begin((c + 1) % n));
      all += asks[c];
    }
    double lap = then.lap().lapTime();
    List<Tier> tiers = new ArrayList<>();
    Integer now = null;
    for (double off : Paced.TIERS) {
      List<Double> corners = new ArrayList<>();
      for (int c = 0; c < n; c++) {
        // On a straight there is nothing to be slower with.
        corners.add(sections.time(plan, c) + (all > 0 ? off * lap * asks[c] / all : 0));
      }
      if (median != null && median <= lap * (1 + off + SAME)) {
        now = tiers.size();
      }
      tiers.add(new Tier(off, lap * (1 + off), corners));
    }
    return new Targets(tiers, own, now);
  }
}
