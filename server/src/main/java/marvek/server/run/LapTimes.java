package marvek.server.run;

import java.util.List;
import java.util.UUID;
import marvek.core.debrief.LapData;

/** The times of a lap along the road, without what happened in its corners. */
public record LapTimes(UUID id, UUID run, int number, double lapTime, double step, byte[] times) {
  public LapData data() {
    return new LapData(
        id.toString(),
        run.toString(),
        number,
        lapTime,
        step > 0 ? step : 1,
        times.length == 0 ? new double[0] : Packed.doubles(times),
        List.of(),
        false);
  }
}
