package marvek.server.vehicle;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface SheetRows extends JpaRepository<SheetRow, UUID> {
  List<SheetRow> findByVehicleIdAndOwnerIdOrderByCreatedAt(UUID vehicleId, UUID ownerId);

  Optional<SheetRow> findByIdAndOwnerId(UUID id, UUID ownerId);
}
