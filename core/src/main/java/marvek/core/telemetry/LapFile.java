package marvek.core.telemetry;

import java.io.IOException;
import java.io.InputStream;
import java.util.function.Consumer;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.LocalPlane;
import marvek.core.lap.Path;
import marvek.core.refusal.Refusal;
import marvek.core.said.Said;
import marvek.core.telemetry.ReadReport.Sort;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/**
 * Reads a recording into laps, and a second time where all its places turn out to lie beside the
 * road.
 *
 * @param road driven on
 * @param line that is usually driven on it
 * @param plane of the road's metres on the earth, or null where that is not known
 * @param vehicle driven
 */
public record LapFile(Centreline road, Path line, @Nullable LocalPlane plane, Vehicle vehicle) {

  /** A recording that can be read from its start as often as needed. */
  public interface Source {
    /** Opens it. */
    InputStream open() throws IOException;
  }

  /**
   * Reads.
   *
   * @param report takes what was done
   * @param taker takes each lap as it is found
   * @param anew told that what was taken so far is void and all comes again
   * @return the reader, with the laps counted
   * @throws Refusal when it cannot be read
   */
  public LapReader read(
      Source source, Mapping mapping, ReadReport report, Consumer<DrivenLap> taker, Runnable anew)
      throws IOException {
    PlaceShift beside = new PlaceShift();
    LapReader first =
        new LapReader(road, plane, vehicle, report, taker, PlaceShift.Found.NONE, beside);
    read(source, mapping, report, first);
    PlaceShift.Found found = beside.found(road, line);
    if (found.metres() == 0) {
      return first;
    }
    if (!found.settled()) {
      throw Refusal.of("refusal.telemetry.places_lie_beside_road", found.said().in());
    }
    anew.run();
    report.clear();
    report.add(Sort.CLEANED, Said.of("report.recording.all_places_lie_where", found.said().in()));
    LapReader second = new LapReader(road, plane, vehicle, report, taker, found, null);
    read(source, mapping, report, second);
    return second;
  }

  private static void read(Source source, Mapping mapping, ReadReport report, LapReader reader)
      throws IOException {
    try (InputStream in = source.open()) {
      RecordingFile.read(in, mapping, new Blocks(reader), report);
    }
  }
}
