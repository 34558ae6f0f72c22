package marvek.server.reference;

import marvek.core.vehicle.Vehicle;
import marvek.server.vehicle.SheetRow;
import marvek.server.vehicle.VehicleRow;
import org.jspecify.annotations.Nullable;

/** A vehicle with the set-up sheet that is on it, if any. */
record AsSetUp(VehicleRow vehicle, @Nullable SheetRow sheet) {
  /** What it can do, set up so. */
  Vehicle numbers() {
    return sheet == null ? vehicle.numbers() : sheet.sheet().on(vehicle.numbers());
  }
}
