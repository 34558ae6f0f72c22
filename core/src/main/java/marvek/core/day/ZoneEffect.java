package marvek.core.day;

import java.util.ArrayList;
import java.util.List;
import marvek.core.circuit.Loop;
import marvek.core.entry.Day;
import marvek.core.lap.LapTrace;
import marvek.core.plan.ComputedLap;
import marvek.core.survey.Zone;

/**
 * What a zone does to a lap on a day: the lap with it less the lap without, both on the line at
 * hand.
 *
 * @param counts whether the computation feels it on that day
 * @param seconds that it costs; negative where it helps
 * @param speed by which the lap is quicker with it where the speeds differ most, m/s
 * @param station of that place, m
 * @param passed the least that is left between the vehicle's side and what narrows the road, m;
 *     negative where the line at hand passes through; NaN for a zone that narrows nothing
 */
public record ZoneEffect(
    boolean counts, double seconds, double speed, double station, double passed) {

  /**
   * The effect of one zone.
   *
   * @param base the computed lap of a reference
   * @param others what the base is driven on beside it
   * @param zone with its amount told
   */
  public static ZoneEffect of(ComputedLap base, Footing others, Zone zone, Day day) {
    List<Zone> with = new ArrayList<>(others.zones());
    with.add(zone);
    LapTrace before = lap(base, others, day);
    LapTrace after = lap(base, others.withZones(with), day);
    int most = 0;
    for (int i = 0; i < before.speed().length; i++) {
      if (Math.abs(after.speed()[i] - before.speed()[i])
          > Math.abs(after.speed()[most] - before.speed()[most])) {
        most = i;
      }
    }
    return new ZoneEffect(
        zone.counts(day.road(), day.windSpeed()),
        after.lapTime() - before.lapTime(),
        after.speed()[most] - before.speed()[most],
        most * base.road().step(),
        passed(base, zone));
  }

  private static LapTrace lap(ComputedLap base, Footing footing, Day day) {
    return base.with(
            footing.ground(base.road(), base.corners(), base.vehicle(), day.road()),
            Variants.conditions(base.conditions(), day),
            base.path().offset())
        .lap();
  }

  private static double passed(ComputedLap base, Zone zone) {
    if (zone.kind().effect() != Zone.Effect.ROOM) {
      return Double.NaN;
    }
    double half = base.vehicle().width() / 2;
    double least = Double.POSITIVE_INFINITY;
    Loop loop = base.road().loop();
    int last = base.road().index(zone.to());
    for (int i : loop.between(base.road().index(zone.from()), last).indices().toArray()) {
      double offset = base.path().offset()[i];
      double left = base.road().left()[i] - offset - half - zone.size();
      double right = base.road().right()[i] + offset - half - zone.size();
      least = zone.side() == Zone.Side.RIGHT ? least : Math.min(least, left);
      least = zone.side() == Zone.Side.LEFT ? least : Math.min(least, right);
    }
    return least;
  }
}
