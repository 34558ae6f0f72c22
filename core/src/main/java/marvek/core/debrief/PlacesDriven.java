package marvek.core.debrief;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.debrief.Debrief.PlaceFinding;
import marvek.core.line.Gate;
import marvek.core.plan.ComputedLap;
import marvek.core.telemetry.Knots;
import marvek.core.telemetry.LapSketch;

/** Where laps passed the places across the road that a reference asks for. */
final class PlacesDriven {
  /**
   * Metres by which a recorded place across the road is usually wrong (common practice, no source):
   * what lies nearer to a gate than that cannot be told from it.
   */
  static final double PRECISION = 0.5;

  // Metres after its exit that still belong to a corner.
  private static final double AFTER = 60;

  private PlacesDriven() {}

  static List<PlaceFinding> of(ComputedLap computed, List<Gate> gates, List<LapData> laps) {
    List<PlaceFinding> out = new ArrayList<>();
    Centreline road = computed.road();
    double half = computed.vehicle().width() / 2;
    for (Gate gate : gates) {
      List<String> ids = new ArrayList<>();
      List<Double> metres = new ArrayList<>();
      int i = road.index(gate.station());
      for (LapData lap : laps) {
        LapSketch sketch = lap.sketch();
        Knots across = sketch == null ? null : sketch.across();
        double at = across == null ? Double.NaN : across.valueAt(road.wrap(gate.station()));
        if (!Double.isNaN(at)) {
          ids.add(lap.id());
          metres.add((gate.left() ? road.left()[i] - at : at + road.right()[i]) - half);
        }
      }
      if (ids.isEmpty()) {
        continue;
      }
      double[] x = metres.stream().mapToDouble(Double::doubleValue).toArray();
      double within = gate.tolerance() + PRECISION;
      long met = metres.stream().filter(m -> Math.abs(m - gate.metres()) <= within).count();
      out.add(
          new PlaceFinding(
              gate.id(),
              gate.station(),
              gate.left(),
              gate.metres(),
              gate.tolerance(),
              road.left()[i] + road.right()[i] - 2 * half,
              corner(computed, gate.station()),
              Robust.median(x) - gate.metres(),
              Robust.spread(x),
              PRECISION,
              met / (double) x.length,
              Math.abs(Robust.median(x) - gate.metres()) > within,
              ids,
              metres));
    }
    return out;
  }

  /** The corner that a place belongs to: the first that is not over there. */
  private static String corner(ComputedLap computed, double station) {
    Centreline road = computed.road();
    return computed.corners().stream()
        .min(Comparator.comparingDouble(c -> road.ahead(station, road.wrap(c.exit() + AFTER))))
        .map(Corner::id)
        .orElse("");
  }
}
