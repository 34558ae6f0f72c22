package marvek.server.reference;

import jakarta.validation.Valid;
import java.util.List;
import java.util.UUID;
import marvek.core.plan.SheetLap;
import marvek.core.vehicle.SetupSheet;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleCheck;
import marvek.server.access.Driver;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** What a set-up sheet makes of the lap of a reference. */
@RestController
class SheetLapController {
  private final References references;

  SheetLapController(References references) {
    this.references = references;
  }

  /**
   * A sheet on a lap.
   *
   * @param lap what it makes of it; null while the sheet has problems
   * @param problems what is wrong with the sheet
   */
  record SheetLapView(@Nullable SheetLap lap, List<VehicleCheck.Finding> problems) {}

  /** The sheet need not be stored. */
  @PostMapping("/api/references/{id}/sheet-lap")
  SheetLapView lap(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody SetupSheet sheet) {
    References.Opened opened = references.read(driver.id(), id);
    Vehicle garage = references.vehicle(opened).numbers();
    List<VehicleCheck.Finding> problems = sheet.problems(garage);
    return new SheetLapView(
        problems.isEmpty() ? SheetLap.of(opened.computed(), garage, sheet.on(garage)) : null,
        problems);
  }
}
