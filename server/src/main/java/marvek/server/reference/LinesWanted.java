package marvek.server.reference;

import java.util.List;
import java.util.UUID;
import marvek.core.circuit.Centreline;
import marvek.core.day.Footing;
import marvek.core.entry.ReferenceContent;
import marvek.server.circuit.LayoutVersion;
import marvek.server.circuit.Layouts;
import marvek.server.circuit.SurveyBook;
import marvek.server.problem.Problem;
import marvek.server.vehicle.Garage;
import marvek.server.vehicle.SheetRow;
import marvek.server.vehicle.Sheets;
import marvek.server.vehicle.VehicleRow;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Gathers what a line is computed for: road, ground, and a vehicle as it is set up. */
@Service
class LinesWanted {
  private final Layouts layouts;
  private final SurveyBook book;
  private final Garage garage;
  private final Sheets sheets;

  LinesWanted(Layouts layouts, SurveyBook book, Garage garage, Sheets sheets) {
    this.layouts = layouts;
    this.book = book;
    this.garage = garage;
    this.sheets = sheets;
  }

  /** For a vehicle on the sheet that is on it next, with nothing written about the road. */
  Wanted wanted(UUID owner, UUID layoutId, UUID vehicleId) {
    VehicleRow vehicle = garage.get(owner, vehicleId);
    UUID next = vehicle.nextSheetId();
    return wanted(
        layouts.get(owner, layoutId),
        new AsSetUp(vehicle, next == null ? null : sheets.get(owner, next)),
        new ReferenceContent(List.of()));
  }

  /** For a vehicle as it is set up, on the road as a content uses it. */
  Wanted wanted(LayoutVersion layout, AsSetUp machine, ReferenceContent content) {
    Centreline road = layouts.road(layout);
    return new Wanted(
        layout,
        road,
        machine,
        Footing.of(
            road, layout.counted(), book.found(layout.id()).things(), machine.numbers(), content));
  }

  /** A vehicle on a sheet of its own, or on none for null. */
  AsSetUp machine(UUID owner, UUID vehicleId, @Nullable UUID sheetId) {
    VehicleRow vehicle = garage.get(owner, vehicleId);
    SheetRow sheet = sheetId == null ? null : sheets.get(owner, sheetId);
    if (sheet != null && !sheet.vehicleId().equals(vehicle.id())) {
      throw Problem.bad("refusal.reference.sheet_belongs_another_vehicle").at("sheet");
    }
    return new AsSetUp(vehicle, sheet);
  }
}
