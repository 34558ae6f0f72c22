package marvek.server.vehicle;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.UUID;
import marvek.core.lap.Conditions;
import marvek.core.lap.VehicleFigures;
import marvek.core.vehicle.SetupParameter;
import marvek.core.vehicle.SetupSheet;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleCheck;
import marvek.server.access.Driver;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Set-up sheets: what can be set, what is set, what differs, what it leads to. */
@RestController
@RequestMapping("/api")
class SheetController {
  private final Sheets sheets;
  private final Garage garage;

  SheetController(Sheets sheets, Garage garage) {
    this.sheets = sheets;
    this.garage = garage;
  }

  record SheetView(UUID id, UUID vehicleId, int version, SetupSheet sheet) {
    static SheetView of(SheetRow row) {
      return new SheetView(row.id(), row.vehicleId(), row.version(), row.sheet());
    }
  }

  /** All sheets of a vehicle and the one that is on it for the next session. */
  record SheetsView(List<SheetView> sheets, @Nullable UUID next) {}

  record ChangedSheet(int version, @NotNull SetupSheet sheet) {}

  record NextSheet(@Nullable UUID sheet) {}

  /**
   * What a sheet leads to.
   *
   * @param without figures of the vehicle as it stands in the garage
   * @param with figures with the sheet on it; null while the sheet has problems
   */
  record EffectView(
      VehicleFigures without,
      @Nullable VehicleFigures with,
      @Nullable Vehicle vehicle,
      List<VehicleCheck.Finding> problems) {}

  @GetMapping("/setup-parameters")
  List<SetupParameter> parameters() {
    return SetupParameter.all();
  }

  @GetMapping("/vehicles/{id}/sheets")
  SheetsView all(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    return new SheetsView(
        sheets.of(driver.id(), id).stream().map(SheetView::of).toList(),
        garage.get(driver.id(), id).nextSheetId());
  }

  @PostMapping("/vehicles/{id}/sheets")
  @ResponseStatus(HttpStatus.CREATED)
  SheetView add(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody SetupSheet sheet) {
    return SheetView.of(sheets.add(driver.id(), id, sheet));
  }

  @PutMapping("/vehicles/{id}/next-sheet")
  SheetsView putOn(
      @AuthenticationPrincipal Driver driver, @PathVariable UUID id, @RequestBody NextSheet body) {
    sheets.putOn(driver.id(), id, body.sheet());
    return all(driver, id);
  }

  /** Figures with and without a sheet, which need not be stored. */
  @PostMapping("/vehicles/{id}/sheet-effect")
  EffectView effect(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestBody SetupSheet sheet) {
    Vehicle vehicle = garage.get(driver.id(), id).numbers();
    List<VehicleCheck.Finding> problems = sheet.problems(vehicle);
    Vehicle set = problems.isEmpty() ? sheet.on(vehicle) : null;
    return new EffectView(
        VehicleFigures.of(vehicle, Conditions.dryWarm()),
        set == null ? null : VehicleFigures.of(set, Conditions.dryWarm()),
        set,
        problems);
  }

  @PutMapping("/sheets/{id}")
  SheetView change(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody ChangedSheet body) {
    return SheetView.of(sheets.change(driver.id(), id, body.version(), body.sheet()));
  }

  @DeleteMapping("/sheets/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    sheets.remove(driver.id(), id);
  }

  @GetMapping("/sheets/{id}/against/{other}")
  List<SetupSheet.SettingDifference> compare(
      @AuthenticationPrincipal Driver driver, @PathVariable UUID id, @PathVariable UUID other) {
    return sheets.get(driver.id(), id).sheet().against(sheets.get(driver.id(), other).sheet());
  }
}
