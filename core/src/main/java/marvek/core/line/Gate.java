package marvek.core.line;

import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Loop;
import marvek.core.lap.Ground;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.vehicle.Vehicle;

/**
 * A place across the road that the line is to pass.
 *
 * @param id stable name inside the reference
 * @param station m
 * @param left whether it is told from the left edge
 * @param metres from that edge to the nearer side of the vehicle
 * @param tolerance metres either way
 * @param over metres before the station from which on it is held: that long the vehicle runs
 *     alongside the edge; 0 where it is only passed
 */
public record Gate(
    String id, double station, boolean left, double metres, double tolerance, double over) {
  // Metres after its exit that still belong to a corner.
  private static final double AFTER = 60;

  // So narrow that a line has to be led up to it as to one that is held, metres, and over how far.
  private static final double NARROW = 0.2;
  private static final double SLOPE = 15;

  public Gate {
    Objects.requireNonNull(id, "id");
  }

  /** A place that is only passed. */
  public Gate(String id, double station, boolean left, double metres, double tolerance) {
    this(id, station, left, metres, tolerance, 0);
  }

  /** Id of the corner that it belongs to: the first that is not over there; empty without one. */
  public String corner(Centreline road, List<Corner> corners) {
    return corners.stream()
        .min(Comparator.comparingDouble(c -> road.ahead(station, road.wrap(c.exit() + AFTER))))
        .map(Corner::id)
        .orElse("");
  }

  /** Where it is: "0.5 m from the left edge at 420 m, held over 60 m". */
  public Said said() {
    Value from = Value.length(metres, 1);
    return over > 0
        ? Said.of(
            "gate.said.held", from, Value.choice(left), Value.length(station), Value.length(over))
        : Said.of("gate.said.passed", from, Value.choice(left), Value.length(station));
  }

  /** Where the middle of the vehicle is to pass, metres to the left of the centreline. */
  public double across(Centreline road, Vehicle vehicle) {
    return across(road, vehicle, road.index(station));
  }

  private double across(Centreline road, Vehicle vehicle, int i) {
    double in = metres + vehicle.width() / 2;
    return left ? road.left()[i] - in : in - road.right()[i];
  }

  /** Metres that the room of the road lacks for passing it; 0 where it can be met. */
  public double missing(Centreline road, Vehicle vehicle, Ground ground) {
    Room room = Room.on(road, vehicle, ground);
    double most = 0;
    for (int k = -steps(road); k <= 0; k++) {
      int i = road.loop().at(road.index(station) + k);
      double at = across(road, vehicle, i);
      most = Math.max(most, room.lower()[i] - (at + tolerance));
      most = Math.max(most, at - tolerance - room.upper()[i]);
    }
    return most;
  }

  private int steps(Centreline road) {
    return (int) Math.min(road.size() - 1, Math.round(over / road.step()));
  }

  /** The ground with the room that gates leave on it; one that cannot be met as near as can be. */
  public static Ground through(Centreline road, Ground ground, List<Gate> gates, Vehicle vehicle) {
    if (gates.isEmpty()) {
      return ground;
    }
    Ground.Lie was = ground.lie() == null ? Ground.Lie.of(road) : ground.lie();
    double[] left = was.keepLeft().clone();
    double[] right = was.keepRight().clone();
    Room room = Room.on(road, vehicle, ground);
    Loop loop = road.loop();
    double usual = vehicle.width() / 2 + Ground.MARGIN;
    for (Gate gate : gates) {
      int at = road.index(gate.station());
      int first = -gate.steps(road);
      double half = Math.max(gate.tolerance(), Room.LEAST);
      boolean led = gate.tolerance() < NARROW || first < 0;
      int reach = led ? (int) (SLOPE / road.step()) : 1;
      for (int k = first - reach; k <= reach; k++) {
        int i = loop.at(at + k);
        int in = loop.at(at + Math.max(first, Math.min(0, k)));
        double middle = room.clamp(in, gate.across(road, vehicle, in));
        int off = Math.max(0, Math.max(k, first - k));
        double share = led ? 1 - off / (reach + 1.0) : 1;
        double keepLeft = road.left()[i] - (middle + half) - usual;
        double keepRight = road.right()[i] + (middle - half) - usual;
        left[i] = Math.max(left[i], left[i] + share * (keepLeft - left[i]));
        right[i] = Math.max(right[i], right[i] + share * (keepRight - right[i]));
      }
    }
    return ground.with(was.keeping(left, right), List.of());
  }
}
