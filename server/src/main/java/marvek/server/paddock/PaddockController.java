package marvek.server.paddock;

import java.util.List;
import java.util.UUID;
import marvek.server.access.Driver;
import marvek.server.circuit.LayoutSummary;
import marvek.server.circuit.Layouts;
import marvek.server.reference.ReferenceSummary;
import marvek.server.reference.References;
import marvek.server.reference.SharedReference;
import marvek.server.session.Sessions;
import marvek.server.vehicle.Garage;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What is due next. */
@RestController
@RequestMapping("/api/paddock")
class PaddockController {
  private final Layouts layouts;
  private final Garage garage;
  private static final int SOON = 3;

  private final References references;
  private final Sessions sessions;

  PaddockController(Layouts layouts, Garage garage, References references, Sessions sessions) {
    this.layouts = layouts;
    this.garage = garage;
    this.references = references;
    this.sessions = sessions;
  }

  /** The step that is due. */
  enum Step {
    BRING_CIRCUIT,
    PICK_VEHICLE,
    DRAFT,
    SAVE_FIRST,
    SAVE_CHANGES,
    READY
  }

  record VehicleLine(UUID id, String name, String basedOn) {}

  /**
   * The paddock.
   *
   * @param step what is due
   * @param reference that it is about, if any
   * @param shared references of others that are open to this person
   * @param due what is due next for sessions, the next first
   */
  record PaddockView(
      Step step,
      @Nullable UUID reference,
      List<LayoutSummary> layouts,
      List<VehicleLine> vehicles,
      List<ReferenceSummary> references,
      List<SharedReference> shared,
      List<Sessions.NextDue> due) {}

  @GetMapping
  PaddockView paddock(@AuthenticationPrincipal Driver driver) {
    List<LayoutSummary> mine = layouts.of(driver.id());
    List<VehicleLine> vehicles =
        garage.of(driver.id()).stream()
            .map(v -> new VehicleLine(v.id(), v.name(), v.basedOn()))
            .toList();
    List<ReferenceSummary> all = references.of(driver.id());
    ReferenceSummary latest = all.isEmpty() ? null : all.get(0);
    return new PaddockView(
        step(mine, vehicles, latest),
        latest == null ? null : latest.id(),
        mine,
        vehicles,
        all,
        references.sharedWith(driver.id()),
        sessions.next(driver.id(), SOON));
  }

  private static Step step(
      List<LayoutSummary> layouts, List<VehicleLine> vehicles, @Nullable ReferenceSummary latest) {
    if (layouts.isEmpty()) {
      return Step.BRING_CIRCUIT;
    }
    if (vehicles.isEmpty()) {
      return Step.PICK_VEHICLE;
    }
    if (latest == null) {
      return Step.DRAFT;
    }
    if (latest.revision() == 0) {
      return Step.SAVE_FIRST;
    }
    return latest.changed() ? Step.SAVE_CHANGES : Step.READY;
  }
}
