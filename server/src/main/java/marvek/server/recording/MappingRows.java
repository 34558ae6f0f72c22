package marvek.server.recording;

import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface MappingRows extends JpaRepository<MappingMemory, UUID> {
  Optional<MappingMemory> findByOwnerIdAndSignature(UUID ownerId, String signature);
}
