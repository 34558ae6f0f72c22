package marvek.core.session;

import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.ReferenceContent;
import marvek.core.marker.MarkerJudge;
import marvek.core.numeric.Spread;
import marvek.core.plan.ComputedLap;
import marvek.core.review.Light;
import marvek.core.said.Said;
import marvek.core.survey.Things;
import org.jspecify.annotations.Nullable;

/**
 * A reference on the day of a session.
 *
 * @param full as the reference is driven
 * @param then at the session's own pace; the same where it has none
 * @param today what differs from the reference
 * @param need of fuel
 * @param straights what boost and device are worth; null where the vehicle has neither
 * @param race what a race asks besides; null in other sessions
 * @param pits null where nothing is said of the pit lane
 * @param heavier seconds a lap that the other load of fuel costs; null where there is none
 * @param light markers that the hour's light changes
 */
public record OnTheDay(
    ComputedLap full,
    ComputedLap then,
    Today today,
    FuelNeed need,
    @Nullable StraightUse straights,
    @Nullable RaceNumbers race,
    @Nullable PitEntry pits,
    @Nullable Double heavier,
    List<Said> light) {
  public OnTheDay {
    light = List.copyOf(light);
  }

  /**
   * Puts a reference on the day of a session.
   *
   * @param base the reference's own lap
   * @param full the lap on the session's day with warm tyres, {@link Today#warm}
   * @param roads laps on other days
   * @param told what was said in the session so far
   * @param view from where and when the driver looks as it begins
   */
  public static OnTheDay of(
      ComputedLap base,
      ComputedLap full,
      Today.Roads roads,
      Spread spread,
      Things things,
      ReferenceContent content,
      TrackSession session,
      List<Told> told,
      MarkerJudge.View view) {
    ComputedLap then = Today.paced(full, session);
    FuelNeed need = FuelNeed.of(then, session.fuel().used(told));
    double density = FuelNeed.density(then.vehicle());
    Today today =
        Today.of(
            base, then, roads.as(then), spread, things, content, session, need.perLap() * density);
    Double tank = session.fuel().tank();
    Double other = session.fuel().other();
    boolean uses = then.vehicle().boost() != null || then.vehicle().device() != null;
    return new OnTheDay(
        full,
        then,
        today,
        need,
        uses ? StraightUse.of(then, session.rules().device()) : null,
        session.kind() == SessionKind.RACE
            ? RaceNumbers.of(
                then,
                session.tyres().warmUp(session.day()).share(1, then.lap().lapTime()),
                session.rules().standing())
            : null,
        PitEntry.of(then, session.rules(), things),
        tank == null || other == null ? null : (Double) heavier(then, (other - tank) * density),
        Light.words(Light.of(base, things, entries(today), view), session.hour()));
  }

  /** Seconds that more mass costs in a lap. */
  private static double heavier(ComputedLap then, double mass) {
    return then.on(then.conditions().withExtraMass(then.conditions().extraMass() + mass))
            .lap()
            .lapTime()
        - then.lap().lapTime();
  }

  /** Corners as they are to be driven, in driving order. */
  public List<CornerEntry> entries() {
    return entries(today);
  }

  private static List<CornerEntry> entries(Today today) {
    return today.corners().stream().map(Today.CornerToday::entry).toList();
  }

  /** Ids of corners in which something differs from the reference in every lap. */
  public Set<String> changed() {
    return today.corners().stream()
        .filter(c -> c.differences().stream().anyMatch(d -> d.when() == Today.When.ALL))
        .map(Today.CornerToday::corner)
        .collect(Collectors.toCollection(TreeSet::new));
  }
}
