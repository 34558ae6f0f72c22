package marvek.server.vehicle;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Optional;
import java.util.UUID;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import marvek.server.Refused;
import marvek.server.problem.Problem;
import org.junit.jupiter.api.Test;

class GarageTest {
  private static final Instant NOW = Instant.parse("2026-05-16T10:00:00Z");
  private static final Vehicle GT = VehicleClasses.byId("cup-gt").vehicle();

  private final VehicleRows rows = mock(VehicleRows.class);
  private final Garage garage = new Garage(rows, Clock.fixed(NOW, ZoneOffset.UTC));
  private final UUID owner = UUID.randomUUID();

  private static Vehicle weighing(double mass) {
    return new Vehicle(
        GT.kind(),
        mass,
        GT.width(),
        GT.wheelbase(),
        GT.cogHeight(),
        GT.cogToFront(),
        GT.engine(),
        GT.gearbox(),
        GT.tyres(),
        GT.aero(),
        GT.brakes(),
        null,
        null);
  }

  @Test
  void whatMakesNoSenseIsNeverStored() {
    assertThatThrownBy(() -> garage.add(owner, "X", "cup-gt", weighing(Double.NaN)))
        .isInstanceOf(Problem.class)
        .satisfies(e -> assertThat(Refused.what(e)).contains("out of range"));
    verify(rows, never()).save(any());
  }

  @Test
  void aStaleWindowIsRefusedAndChangesNothing() {
    VehicleRow row = new VehicleRow(owner, "X", "cup-gt", GT, NOW);
    when(rows.findByIdAndOwnerId(row.id(), owner)).thenReturn(Optional.of(row));
    assertThatThrownBy(() -> garage.change(owner, row.id(), 7, "Y", weighing(1200)))
        .satisfies(e -> assertThat(Refused.what(e)).contains("Another window"));
    assertThat(row.numbers()).isEqualTo(GT);
    assertThat(row.name()).isEqualTo("X");
  }

  @Test
  void anotherOwnersVehicleDoesNotExist() {
    UUID id = UUID.randomUUID();
    when(rows.findByIdAndOwnerId(id, owner)).thenReturn(Optional.empty());
    assertThatThrownBy(() -> garage.get(owner, id))
        .satisfies(e -> assertThat(Refused.what(e)).contains("no such vehicle"));
  }

  @Test
  void namesAreTrimmedAndTheOwnerIsKept() {
    when(rows.save(any())).thenAnswer(i -> i.getArgument(0));
    VehicleRow row = garage.add(owner, "  Mine ", "cup-gt", GT);
    assertThat(row.name()).isEqualTo("Mine");
    assertThat(row.ownerId()).isEqualTo(owner);
    assertThat(row.createdAt()).isEqualTo(NOW);
  }
}
