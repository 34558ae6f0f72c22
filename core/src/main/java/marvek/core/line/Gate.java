package marvek.core.line;

import java.util.List;
import java.util.Objects;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Loop;
import marvek.core.lap.Ground;
import marvek.core.vehicle.Vehicle;

/**
 * A place across the road that the line is to pass.
 *
 * @param id stable name inside the reference
 * @param station m
 * @param left whether it is told from the left edge
 * @param metres from that edge to the nearer side of the vehicle
 * @param tolerance metres either way
 */
public record Gate(String id, double station, boolean left, double metres, double tolerance) {
  // So narrow that a line has to be led up to it, metres, and over how far.
  private static final double NARROW = 0.2;
  private static final double SLOPE = 15;

  public Gate {
    Objects.requireNonNull(id, "id");
  }

  /** Where the middle of the vehicle is to pass, metres to the left of the centreline. */
  public double across(Centreline road, Vehicle vehicle) {
    int i = road.index(station);
    double in = metres + vehicle.width() / 2;
    return left ? road.left()[i] - in : in - road.right()[i];
  }

  /** Metres that the room of the road lacks for passing it; 0 where it can be met. */
  public double missing(Centreline road, Vehicle vehicle, Ground ground) {
    Room room = Room.on(road, vehicle, ground);
    int i = road.index(station);
    double at = across(road, vehicle);
    return Math.max(
        0, Math.max(room.lower()[i] - (at + tolerance), at - tolerance - room.upper()[i]));
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
      double middle = room.clamp(at, gate.across(road, vehicle));
      double half = Math.max(gate.tolerance(), Room.LEAST);
      int reach = gate.tolerance() < NARROW ? (int) (SLOPE / road.step()) : 1;
      for (int k = -reach; k <= reach; k++) {
        int i = loop.at(at + k);
        double share = gate.tolerance() < NARROW ? 1 - Math.abs(k) / (reach + 1.0) : 1;
        double keepLeft = road.left()[i] - (middle + half) - usual;
        double keepRight = road.right()[i] + (middle - half) - usual;
        left[i] = Math.max(left[i], left[i] + share * (keepLeft - left[i]));
        right[i] = Math.max(right[i], right[i] + share * (keepRight - right[i]));
      }
    }
    return ground.with(was.keeping(left, right), List.of());
  }
}
