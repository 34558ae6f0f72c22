package marvek.server.reference;

import java.util.List;
import java.util.UUID;
import marvek.core.anew.LapAsPlanned;
import marvek.core.day.Footing;
import marvek.core.entry.OwnPace;
import marvek.core.entry.ReferenceContent;
import marvek.core.survey.Zone;
import marvek.core.vehicle.SetupSheet;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/**
 * What a reference is computed on, and what it holds, beside its line.
 *
 * @param used of edges and gates that it was computed with; null for none
 * @param laidInPart whether its line was laid anew on a stretch only
 * @param pace of the driver's own that it was computed at; null for all of the grip
 * @param deskBy by which method its line was computed
 * @param lapTime of the lap as planned, seconds
 * @param unmade corners of it that cannot be made as they are written
 */
record Sitting(
    int vehicleVersion,
    Vehicle vehicle,
    @Nullable UUID sheetId,
    int sheetVersion,
    @Nullable SetupSheet sheet,
    List<Zone> ground,
    Footing.@Nullable Used used,
    boolean laidInPart,
    @Nullable OwnPace pace,
    int deskBy,
    ReferenceContent working,
    double lapTime,
    boolean changed,
    int unmade) {
  Sitting {
    ground = List.copyOf(ground);
  }

  LapAsPlanned planned() {
    return new LapAsPlanned(lapTime, unmade);
  }
}
