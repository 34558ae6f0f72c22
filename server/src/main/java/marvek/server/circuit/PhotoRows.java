package marvek.server.circuit;

import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface PhotoRows extends JpaRepository<Photo, UUID> {
  Optional<Photo> findByIdAndOwnerId(UUID id, UUID ownerId);
}
