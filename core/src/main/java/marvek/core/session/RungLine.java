package marvek.core.session;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.lap.Surface;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.survey.Things;

/**
 * A marker to be approached.
 *
 * @param called corner as the driver calls it
 * @param firstLap on which tyres and driver are ready for the first rung
 * @param words what is done and when the next rung may be taken
 */
public record RungLine(Rungs rungs, String called, int firstLap, Said words) {
  // Less than a metre before the marker is at it.
  private static final double AT_IT = 1;

  /**
   * Where a marker is not where it was driven last, it is approached.
   *
   * @param laps of the session
   * @param ready first lap on which tyres and driver are
   * @param lines corners of the session
   * @param focus what is worked on
   */
  public static List<RungLine> of(
      TrackSession session,
      Things things,
      ComputedLap then,
      int laps,
      int ready,
      List<PlannedLine> lines,
      List<FocusLine> focus) {
    List<RungLine> out = new ArrayList<>();
    Map<Double, ComputedLap> careful = new TreeMap<>();
    boolean dry = session.day().day().road().state() == Surface.State.DRY;
    int there = Math.max(0, laps - ready + 1);
    for (PlannedLine l : lines) {
      CornerEntry e = l.today().entry();
      boolean unsure = l.unsure().contains(PointKind.BRAKE);
      Focus worked =
          focus.stream()
              .map(FocusLine::focus)
              .filter(f -> f.corner().equals(l.corner()))
              .findFirst()
              .orElse(null);
      Double marker = e.station(PointKind.BRAKE).orElse(null);
      if (marker == null || !Rungs.wanted(unsure, worked)) {
        continue;
      }
      int c = then.indexOf(l.corner());
      double less = unsure || l.blind() || !dry ? Rungs.LESS_UNKNOWN : Rungs.LESS;
      double margin = Answers.at(then, things, c).margin(e);
      double inHand = margin * Math.max(1, then.lap().speed()[then.road().index(marker)]);
      ComputedLap lessGrip =
          careful.computeIfAbsent(
              less,
              share -> then.on(then.conditions().withGrip(then.conditions().grip() * (1 - share))));
      double early = Answers.at(lessGrip, things, c).markerAt(e, Math.max(0, margin));
      double before = -then.road().apart(marker, early);
      Rungs rungs = Rungs.of(l.corner(), Math.max(0, before), Math.max(0, inHand), there);
      if (before >= AT_IT && !rungs.rungs().isEmpty()) {
        out.add(
            new RungLine(
                rungs,
                l.called(),
                ready,
                Said.of(
                    rungs.reached() ? "rungs.reached" : "rungs.short",
                    Value.length(before),
                    Value.count(rungs.rungs().size()))));
      }
    }
    return List.copyOf(out);
  }
}
