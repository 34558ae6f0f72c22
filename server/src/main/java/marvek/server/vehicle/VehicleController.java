package marvek.server.vehicle;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import marvek.core.lap.Conditions;
import marvek.core.lap.VehicleFigures;
import marvek.core.survey.Kerb;
import marvek.core.survey.KerbClearance;
import marvek.core.survey.ThingsCheck;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleCheck;
import marvek.core.vehicle.VehicleClasses;
import marvek.server.access.Driver;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Vehicle classes, vehicles of one's own, and what their numbers lead to. */
@RestController
@RequestMapping("/api")
class VehicleController {
  private final Garage garage;

  VehicleController(Garage garage) {
    this.garage = garage;
  }

  /**
   * A vehicle.
   *
   * @param chassis what tells its axles apart, or what is usual where nothing was entered
   */
  record VehicleView(
      UUID id, int version, String name, String basedOn, Vehicle numbers, Vehicle.Chassis chassis) {
    static VehicleView of(VehicleRow row) {
      return new VehicleView(
          row.id(),
          row.version(),
          row.name(),
          row.basedOn(),
          row.numbers(),
          row.numbers().chassisOrUsual());
    }
  }

  record NewVehicle(
      @NotBlank @Size(max = 100) String name,
      @NotBlank @Size(max = 60) String basedOn,
      @NotNull Vehicle numbers) {}

  record ChangedVehicle(
      int version, @NotBlank @Size(max = 100) String name, @NotNull Vehicle numbers) {}

  /** Figures, or what stands in the way of them. */
  record FiguresView(@Nullable VehicleFigures figures, List<VehicleCheck.Finding> problems) {}

  @GetMapping("/vehicle-classes")
  List<VehicleClasses.VehicleClass> classes() {
    return VehicleClasses.all();
  }

  @GetMapping("/vehicles")
  List<VehicleView> all(@AuthenticationPrincipal Driver driver) {
    return garage.of(driver.id()).stream().map(VehicleView::of).toList();
  }

  @GetMapping("/vehicles/{id}")
  VehicleView one(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    return VehicleView.of(garage.get(driver.id(), id));
  }

  @PostMapping("/vehicles")
  @ResponseStatus(HttpStatus.CREATED)
  VehicleView add(@AuthenticationPrincipal Driver driver, @Valid @RequestBody NewVehicle body) {
    return VehicleView.of(garage.add(driver.id(), body.name(), body.basedOn(), body.numbers()));
  }

  @PutMapping("/vehicles/{id}")
  VehicleView change(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody ChangedVehicle body) {
    return VehicleView.of(
        garage.change(driver.id(), id, body.version(), body.name(), body.numbers()));
  }

  /** How far each kerb lets this vehicle's tyre go, in the order given. */
  @PostMapping("/vehicles/{id}/clearances")
  List<KerbClearance> clearances(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestBody List<Kerb> kerbs) {
    Vehicle vehicle = garage.get(driver.id(), id).numbers();
    kerbs.forEach(ThingsCheck::section);
    return kerbs.stream().limit(500).map(k -> KerbClearance.of(k, vehicle)).toList();
  }

  @PostMapping("/vehicles/figures")
  FiguresView figures(@RequestBody Vehicle numbers) {
    List<VehicleCheck.Finding> problems = VehicleCheck.problems(numbers);
    return new FiguresView(
        problems.isEmpty() ? VehicleFigures.of(numbers, Conditions.dryWarm()) : null, problems);
  }
}
