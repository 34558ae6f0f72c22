package marvek.server.circuit;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface Landmarks extends JpaRepository<LandmarkRow, UUID> {
  List<LandmarkRow> findByLayoutVersionIdOrderByStation(UUID layoutVersionId);

  Optional<LandmarkRow> findByIdAndOwnerId(UUID id, UUID ownerId);

  boolean existsByLayoutVersionId(UUID layoutVersionId);
}
