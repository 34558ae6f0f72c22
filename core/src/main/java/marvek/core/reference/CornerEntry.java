package marvek.core.reference;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import marvek.core.line.ApexType;

/**
 * What a reference holds about one corner.
 *
 * @param corner id of the corner in the layout version
 * @param slowing brake, lift or flat
 * @param points in driving order; any may be missing
 * @param approachGear gear in which the corner is reached
 * @param approachSpeed m/s at the braking marker, or at turn-in where there is none
 * @param firstEffort share of the greatest braking at the first press, 0 to 1
 * @param gear at the slowest point
 * @param minimumSpeed m/s
 * @param apexType early, middle or late
 * @param apexGap metres from the inside edge to the vehicle's middle at the apex
 * @param firstThrottle share of full throttle at first throttle, 0 to 1
 * @param note the driver's own words
 */
public record CornerEntry(
    String corner,
    Slowing slowing,
    List<CornerPoint> points,
    int approachGear,
    double approachSpeed,
    double firstEffort,
    int gear,
    double minimumSpeed,
    ApexType apexType,
    double apexGap,
    double firstThrottle,
    String note) {

  public CornerEntry {
    Objects.requireNonNull(corner, "corner");
    Objects.requireNonNull(slowing, "slowing");
    Objects.requireNonNull(apexType, "apexType");
    Objects.requireNonNull(note, "note");
    points = List.copyOf(points);
  }

  public Optional<CornerPoint> point(PointKind kind) {
    return points.stream().filter(p -> p.kind() == kind).findFirst();
  }

  public Optional<Double> station(PointKind kind) {
    return point(kind).map(CornerPoint::station);
  }
}
