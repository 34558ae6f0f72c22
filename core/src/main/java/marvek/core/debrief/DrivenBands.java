package marvek.core.debrief;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import marvek.core.circuit.Loop;
import marvek.core.entry.PointKind;
import marvek.core.telemetry.Channel;
import marvek.core.telemetry.CornerEvents;
import marvek.core.telemetry.LapGrid;
import org.jspecify.annotations.Nullable;

/**
 * What several laps did along a stretch of road, to be laid behind a plan. Index i of a band is
 * station from + i·step, which may lie beyond the line.
 *
 * @param laps how many
 * @param from station of the first value, m
 * @param step metres
 * @param speed m/s
 * @param brake share of the hardest press; null where no lap recorded it
 * @param throttle share; null where no lap recorded it
 * @param points where each point was driven, stations in the order of the laps
 */
public record DrivenBands(
    int laps,
    double from,
    double step,
    Band speed,
    @Nullable Band brake,
    @Nullable Band throttle,
    Map<PointKind, List<Double>> points) {
  private static final double LOW = 0.1;
  private static final double HIGH = 0.9;

  public DrivenBands {
    points = new EnumMap<>(points);
  }

  /**
   * The lowest tenth, the middle and the highest tenth of the laps.
   *
   * @param low below it lies a tenth of the laps
   * @param middle median
   * @param high above it lies a tenth of the laps
   */
  public record Band(double[] low, double[] middle, double[] high) {}

  /**
   * One lap.
   *
   * @param told whether its pedals were recorded, and not told from the speed
   * @param events of the corner; null where it was not driven whole
   */
  public record Lap(LapGrid grid, boolean told, @Nullable CornerEvents events) {}

  /**
   * Lays laps over each other.
   *
   * @param laps on stations of the same road and step
   * @param from where to begin, m; may be below zero
   * @param to where to end, m; may be beyond the length
   */
  public static DrivenBands over(List<Lap> laps, double from, double to) {
    if (laps.isEmpty()) {
      throw new IllegalArgumentException("no laps");
    }
    double step = laps.get(0).grid().step();
    int first = (int) Math.floor(from / step);
    int count = Math.max(1, (int) Math.ceil(to / step) - first + 1);
    List<double[]> speeds = laps.stream().map(l -> l.grid().speed()).toList();
    List<Lap> told = laps.stream().filter(Lap::told).toList();
    return new DrivenBands(
        laps.size(),
        first * step,
        step,
        band(speeds, first, count),
        band(told, Channel.BRAKE, first, count),
        band(told, Channel.THROTTLE, first, count),
        points(laps));
  }

  private static @Nullable Band band(List<Lap> laps, Channel channel, int first, int count) {
    List<double[]> columns = new ArrayList<>();
    for (Lap lap : laps) {
      double[] column = lap.grid().channels().get(channel);
      if (column != null) {
        columns.add(column);
      }
    }
    return columns.isEmpty() ? null : band(columns, first, count);
  }

  private static Band band(List<double[]> columns, int first, int count) {
    double[] low = new double[count];
    double[] middle = new double[count];
    double[] high = new double[count];
    double[] here = new double[columns.size()];
    for (int i = 0; i < count; i++) {
      for (int k = 0; k < here.length; k++) {
        double[] column = columns.get(k);
        here[k] = column[new Loop(column.length).at(first + i)];
      }
      low[i] = Robust.quantile(here, LOW);
      middle[i] = Robust.median(here);
      high[i] = Robust.quantile(here, HIGH);
    }
    return new Band(low, middle, high);
  }

  private static Map<PointKind, List<Double>> points(List<Lap> laps) {
    Map<PointKind, List<Double>> out = new EnumMap<>(PointKind.class);
    for (Lap lap : laps) {
      CornerEvents e = lap.events();
      if (e != null) {
        add(out, PointKind.BRAKE, e.brake());
        add(out, PointKind.RELEASE, e.release());
        add(out, PointKind.TURN_IN, e.turnIn());
        add(out, PointKind.FIRST_APEX, e.firstApex());
        add(out, PointKind.APEX, e.apex());
        add(out, PointKind.FIRST_THROTTLE, e.firstThrottle());
        add(out, PointKind.FULL_THROTTLE, e.fullThrottle());
        add(out, PointKind.EXIT, e.exitAt());
      }
    }
    return out;
  }

  private static void add(
      Map<PointKind, List<Double>> out, PointKind kind, @Nullable Double station) {
    if (station != null) {
      out.computeIfAbsent(kind, k -> new ArrayList<>()).add(station);
    }
  }
}
