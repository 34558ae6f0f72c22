package marvek.server.vehicle;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface VehicleRows extends JpaRepository<VehicleRow, UUID> {
  List<VehicleRow> findByOwnerIdOrderByName(UUID ownerId);

  Optional<VehicleRow> findByIdAndOwnerId(UUID id, UUID ownerId);
}
