package marvek.server.vehicle;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import marvek.core.said.Value;
import marvek.core.vehicle.SetupSheet;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleCheck;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Set-up sheets of one owner's vehicles. */
@Service
public class Sheets {
  private static final int MOST = 100;

  private final SheetRows rows;
  private final Garage garage;
  private final Clock clock;

  Sheets(SheetRows rows, Garage garage, Clock clock) {
    this.rows = rows;
    this.garage = garage;
    this.clock = clock;
  }

  @Transactional(readOnly = true)
  public List<SheetRow> of(UUID owner, UUID vehicle) {
    return rows.findByVehicleIdAndOwnerIdOrderByCreatedAt(garage.get(owner, vehicle).id(), owner);
  }

  @Transactional(readOnly = true)
  public SheetRow get(UUID owner, UUID id) {
    return find(owner, id).orElseThrow(() -> Problem.none("refusal.none.no_set_up_sheet"));
  }

  /** A sheet that may have been removed since. */
  @Transactional(readOnly = true)
  public Optional<SheetRow> find(UUID owner, UUID id) {
    return rows.findByIdAndOwnerId(id, owner);
  }

  @Transactional
  public SheetRow add(UUID owner, UUID vehicleId, SetupSheet sheet) {
    VehicleRow vehicle = garage.get(owner, vehicleId);
    check(vehicle.numbers(), sheet);
    if (of(owner, vehicleId).size() >= MOST) {
      throw Problem.bad("refusal.vehicle.vehicle_sheets_most", Value.figure(MOST, 0));
    }
    return rows.save(new SheetRow(vehicle, sheet, clock.instant()));
  }

  @Transactional
  SheetRow change(UUID owner, UUID id, int version, SetupSheet sheet) {
    SheetRow row = get(owner, id);
    if (row.version() != version) {
      throw Problem.conflict(row.sheet(), "refusal.vehicle.another_window_changed_sheet");
    }
    check(garage.get(owner, row.vehicleId()).numbers(), sheet);
    row.change(sheet);
    return rows.saveAndFlush(row);
  }

  @Transactional
  void remove(UUID owner, UUID id) {
    SheetRow row = get(owner, id);
    VehicleRow vehicle = garage.get(owner, row.vehicleId());
    if (id.equals(vehicle.nextSheetId())) {
      vehicle.putOn(null);
    }
    rows.delete(row);
  }

  /** Says which sheet is on the vehicle for the next session; null for none. */
  @Transactional
  public VehicleRow putOn(UUID owner, UUID vehicleId, @Nullable UUID sheet) {
    VehicleRow vehicle = garage.get(owner, vehicleId);
    if (sheet != null && !get(owner, sheet).vehicleId().equals(vehicleId)) {
      throw Problem.bad("refusal.vehicle.sheet_belongs_another_vehicle").at("sheet");
    }
    vehicle.putOn(sheet);
    return vehicle;
  }

  private static void check(Vehicle vehicle, SetupSheet sheet) {
    if (sheet.name().isBlank() || sheet.name().length() > 100) {
      throw Problem.bad("refusal.vehicle.sheet_no_name_very").at("name");
    }
    boolean tooLong =
        sheet.note().length() > 2000
            || sheet.settings().size() > 200
            || sheet.settings().stream()
                .anyMatch(
                    s ->
                        s.reason().length() > 500
                            || s.words().length() > 200
                            || s.unit().length() > 20
                            || s.parameter().length() > 60);
    if (tooLong) {
      throw Problem.bad("refusal.vehicle.something_sheet_too_long").at("settings");
    }
    List<VehicleCheck.Finding> findings = sheet.problems(vehicle);
    if (!findings.isEmpty()) {
      VehicleCheck.Finding first = findings.get(0);
      throw Problem.bad("refusal.vehicle.number_wrong", first.message().in()).at(first.field());
    }
  }
}
