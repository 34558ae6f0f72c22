package marvek.server.run;

import java.util.List;
import java.util.UUID;
import marvek.core.day.DayFit;
import marvek.core.said.Said;
import marvek.core.telemetry.LapKind;
import org.jspecify.annotations.Nullable;

/**
 * A lap in a list, without what happened in its corners.
 *
 * @param measured whether it holds more than a time
 * @param told whether its pedals were recorded
 * @param grip used across, as a factor on the reference's computed lap; null where not known
 */
public record LapLine(
    UUID id,
    UUID run,
    @Nullable UUID recording,
    int number,
    LapKind kind,
    Said kindWords,
    boolean counts,
    double lapTime,
    List<Double> sectors,
    Said remark,
    String note,
    boolean measured,
    boolean told,
    @Nullable Double grip) {

  /** As the database holds it. */
  @SuppressWarnings("unchecked")
  LapLine(
      UUID id,
      UUID run,
      @Nullable UUID recording,
      int number,
      LapKind kind,
      boolean counts,
      double lapTime,
      Object sectors,
      Object remark,
      String note,
      double step,
      boolean told,
      @Nullable Double grip) {
    this(
        id,
        run,
        recording,
        number,
        kind,
        kind.said(),
        counts,
        lapTime,
        (List<Double>) sectors,
        (Said) remark,
        note,
        step > 0,
        told,
        grip);
  }

  /** Values as finely as a drawing can show them; what is not known is zero. */
  public static double[] rounded(double[] column) {
    double[] out = new double[column.length];
    for (int i = 0; i < out.length; i++) {
      out[i] = Double.isNaN(column[i]) ? 0 : Math.round(column[i] * 1000) / 1000.0;
    }
    return out;
  }

  /** Those that count and hold more than a time, as days are found for them. */
  public static List<DayFit.Lap> ofDays(List<LapLine> laps) {
    return laps.stream()
        .filter(l -> l.counts() && l.measured())
        .map(l -> DayFit.Lap.of(l.id().toString(), l.grip()))
        .toList();
  }

  public static LapLine of(LapRow l) {
    return new LapLine(
        l.id(),
        l.runId(),
        l.recordingId(),
        l.number(),
        l.kind(),
        l.counts(),
        l.lapTime(),
        l.sectors(),
        l.remark(),
        l.note(),
        l.step(),
        l.told(),
        l.grip());
  }
}
