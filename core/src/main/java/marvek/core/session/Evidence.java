package marvek.core.session;

import java.util.ArrayList;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.debrief.Debriefer;
import marvek.core.debrief.LapData;
import marvek.core.debrief.Proposal;
import marvek.core.debrief.Sections;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/**
 * What spoke for a change of an action.
 *
 * @param corner id
 * @param kind of a point; null for another action
 * @param from station before, or share
 * @param to station after, or share
 * @param gain seconds promised, or null where it was not about time
 * @param low lower end of the interval
 * @param high upper end
 * @param laps that spoke for it
 * @param strength name of it; those stored before the end of November 2026 hold words
 * @param run from which it was taken
 * @param lapIds of the laps
 * @param day that it is for: empty for the reference's own, id of a variant; null in evidence from
 *     before there were days, which is of the reference's own
 * @param action id; null in evidence from before there were actions, which is of a point
 * @param does kind of the action; null in evidence of a point
 * @param share whether its share was changed, and not its place; null is not
 */
public record Evidence(
    String corner,
    @Nullable PointKind kind,
    double from,
    double to,
    @Nullable Double gain,
    @Nullable Double low,
    @Nullable Double high,
    int laps,
    String strength,
    String run,
    List<String> lapIds,
    @Nullable String day,
    @Nullable String action,
    @Nullable ActionKind does,
    @Nullable Boolean share) {
  public Evidence {
    lapIds = List.copyOf(lapIds);
  }

  /** The day that it is for. */
  public String on() {
    return day == null ? "" : day;
  }

  /** Id of the action that it is of. */
  public String of() {
    PointKind point = kind;
    String id = action;
    return id != null ? id : point == null ? "" : Score.id(point);
  }

  /** What was changed. */
  public Said what() {
    PointKind point = kind;
    ActionKind act = does;
    return point != null ? point.said() : act != null ? act.said() : Said.NOTHING;
  }

  /** Whether a share was changed, and not a place. */
  public boolean shared() {
    return Boolean.TRUE.equals(share);
  }

  /**
   * What speaks for a step that is taken of a proposal, as it stands or altered: as much of the
   * promise as of the way.
   *
   * @param to where the step ends, station or share
   * @param run that the proposal rests on
   * @param on day that it is for; null where none fits
   */
  public static Evidence of(
      Proposal p, Centreline road, double to, String run, @Nullable String on) {
    double whole = p.by(road, p.to());
    double share = whole == 0 ? 0 : p.by(road, to) / whole;
    Double gain = p.gain();
    Double low = p.gainLow();
    Double high = p.gainHigh();
    return new Evidence(
        p.corner(),
        Score.point(p.action()).orElse(null),
        p.from(),
        to,
        gain == null ? null : gain * share,
        low == null || Double.isInfinite(low) ? null : low * share,
        high == null || Double.isInfinite(high) ? null : high * share,
        p.laps(),
        p.strength().name(),
        run,
        p.evidence(),
        on,
        p.action(),
        p.kind(),
        p.share());
  }

  /** What promises of a reference are held against: its lap, sections and corners as revised. */
  public record Grounds(ComputedLap computed, Sections sections, List<CornerEntry> entries) {}

  /**
   * What became of it.
   *
   * @param changes all that the revision changed
   * @param before laps without it
   * @param after laps with it, like those before
   * @param driven whether the revision was driven at all
   */
  public Promise kept(
      List<Evidence> changes,
      Grounds on,
      List<LapData> before,
      List<LapData> after,
      boolean driven) {
    Promise found =
        Promise.of(
            shared() ? Promise.About.SHARE : Promise.About.PLACE,
            by(on.computed().road(), to),
            gain,
            seen(changes, on, before),
            seen(changes, on, after));
    return found.verdict() == Promise.Verdict.OPEN && after.isEmpty()
        ? found.saying(Said.of(driven ? "promise.open.unlike" : "promise.open.undriven"))
        : found;
  }

  private Promise.Seen seen(List<Evidence> changes, Grounds on, List<LapData> laps) {
    ComputedLap computed = on.computed();
    Sections sections = on.sections();
    int c = computed.indexOf(corner);
    List<Integer> others = new ArrayList<>();
    for (int k = 0; k < computed.corners().size(); k++) {
      String id = computed.corners().get(k).id();
      if (changes.stream().noneMatch(x -> x.corner().equals(id))) {
        others.add(k);
      }
    }
    return new Promise.Seen(
        laps.stream().mapToDouble(l -> sections.time(l, c)).toArray(),
        laps.stream()
            .mapToDouble(l -> others.stream().mapToDouble(k -> sections.time(l, k)).sum())
            .toArray(),
        Debriefer.driven(computed, on.entries(), laps, corner, of(), shared()).stream()
            .mapToDouble(at -> by(computed.road(), at))
            .toArray());
  }

  private double by(Centreline road, double at) {
    return shared() ? at - from : road.apart(from, at);
  }
}
