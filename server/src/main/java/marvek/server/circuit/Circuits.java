package marvek.server.circuit;

import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface Circuits extends JpaRepository<Circuit, UUID> {
  Optional<Circuit> findFirstByOwnerIdAndName(UUID ownerId, String name);
}
