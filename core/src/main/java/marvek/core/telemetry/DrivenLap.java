package marvek.core.telemetry;

import java.util.Map;
import marvek.core.said.Said;

/**
 * A lap cut from a recording.
 *
 * @param number in the recording, from 1
 * @param kind what sort of lap
 * @param start seconds of the recording's clock when it began
 * @param lapTime seconds from line to line; for a part of a lap, seconds recorded
 * @param trace what was driven
 * @param remark why it is of its kind, or nothing
 */
public record DrivenLap(
    int number, LapKind kind, double start, double lapTime, Trace trace, Said remark) {
  /** The same lap as another kind. */
  public DrivenLap as(LapKind other, Said why) {
    return new DrivenLap(number, other, start, lapTime, trace, why);
  }

  /** What is to be remembered of a lap whose samples have been used: a long file holds many. */
  public DrivenLap withoutSamples() {
    double[] none = {};
    return new DrivenLap(
        number,
        kind,
        start,
        lapTime,
        new Trace(
            trace.rate(),
            trace.sampled(),
            none,
            none,
            none,
            none,
            none,
            Map.of(),
            trace.derived(),
            0,
            0),
        remark);
  }
}
