package marvek.server.vehicle;

import java.time.Clock;
import java.util.List;
import java.util.UUID;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleCheck;
import marvek.server.problem.Problem;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Vehicles of one owner. */
@Service
public class Garage {
  private final VehicleRows rows;
  private final Clock clock;

  Garage(VehicleRows rows, Clock clock) {
    this.rows = rows;
    this.clock = clock;
  }

  @Transactional(readOnly = true)
  public List<VehicleRow> of(UUID owner) {
    return rows.findByOwnerIdOrderByName(owner);
  }

  @Transactional(readOnly = true)
  public VehicleRow get(UUID owner, UUID id) {
    return rows.findByIdAndOwnerId(id, owner)
        .orElseThrow(() -> Problem.none("refusal.none.no_vehicle_among_yours"));
  }

  @Transactional
  public VehicleRow add(UUID owner, String name, String basedOn, Vehicle numbers) {
    check(numbers);
    return rows.save(new VehicleRow(owner, name.strip(), basedOn, numbers, clock.instant()));
  }

  @Transactional
  public VehicleRow change(UUID owner, UUID id, int version, String name, Vehicle numbers) {
    check(numbers);
    VehicleRow row = get(owner, id);
    if (row.version() != version) {
      throw Problem.conflict(row.numbers(), "refusal.vehicle.another_window_changed_vehicle");
    }
    row.change(name.strip(), numbers);
    return rows.saveAndFlush(row);
  }

  /** Refuses numbers that make no sense, naming the first. */
  static void check(Vehicle numbers) {
    List<VehicleCheck.Finding> findings = VehicleCheck.problems(numbers);
    if (!findings.isEmpty()) {
      VehicleCheck.Finding first = findings.get(0);
      throw Problem.bad("refusal.vehicle.number_wrong", first.message().in()).at(first.field());
    }
  }
}
