package marvek.core.debrief;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import marvek.core.circuit.Centreline;
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

  // Metres between the places that are looked at where one is held.
  private static final double STEP = 5;

  private PlacesDriven() {}

  static List<PlaceFinding> of(ComputedLap computed, List<Gate> gates, List<LapData> laps) {
    List<PlaceFinding> out = new ArrayList<>();
    Centreline road = computed.road();
    double half = computed.vehicle().width() / 2;
    for (Gate gate : gates) {
      List<String> ids = new ArrayList<>();
      List<Double> metres = new ArrayList<>();
      List<Double> drifts = new ArrayList<>();
      int i = road.index(gate.station());
      for (LapData lap : laps) {
        LapSketch sketch = lap.sketch();
        Knots across = sketch == null ? null : sketch.across();
        double[] way = across == null ? new double[0] : way(road, gate, across, half);
        if (way.length > 0) {
          ids.add(lap.id());
          metres.add(Arrays.stream(way).average().orElseThrow());
          drifts.add(drift(way));
        }
      }
      if (ids.isEmpty()) {
        continue;
      }
      double[] x = metres.stream().mapToDouble(Double::doubleValue).toArray();
      double drift = Robust.median(drifts.stream().mapToDouble(Double::doubleValue).toArray());
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
              gate.corner(road, computed.corners()),
              gate.over(),
              drift,
              Robust.median(x) - gate.metres(),
              Robust.spread(x),
              PRECISION,
              met / (double) x.length,
              Math.max(Math.abs(Robust.median(x) - gate.metres()), Math.abs(drift)) > within,
              ids,
              metres));
    }
    return out;
  }

  /**
   * Metres from its edge along the way on which a gate is held; nothing where a place is missing.
   */
  private static double[] way(Centreline road, Gate gate, Knots across, double half) {
    int steps = (int) Math.round(gate.over() / STEP);
    double[] out = new double[steps + 1];
    for (int k = 0; k <= steps; k++) {
      double s =
          road.wrap(gate.station() - gate.over() + (steps == 0 ? 0 : k * gate.over() / steps));
      int i = road.index(s);
      double at = across.valueAt(s);
      if (Double.isNaN(at)) {
        return new double[0];
      }
      out[k] = (gate.left() ? road.left()[i] - at : at + road.right()[i]) - half;
    }
    return out;
  }

  /** Metres from the start of a way to its end on the straight line that fits it best. */
  private static double drift(double[] way) {
    double middle = (way.length - 1) / 2.0;
    double with = 0;
    double of = 0;
    for (int k = 0; k < way.length; k++) {
      with += (k - middle) * way[k];
      of += (k - middle) * (k - middle);
    }
    return of > 0 ? with / of * (way.length - 1) : 0;
  }
}
