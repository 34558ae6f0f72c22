package marvek.server.circuit;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.EntityGraph;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface LayoutVersions extends JpaRepository<LayoutVersion, UUID> {
  @EntityGraph(attributePaths = "circuit")
  Optional<LayoutVersion> findByIdAndOwnerId(UUID id, UUID ownerId);

  @EntityGraph(attributePaths = "circuit")
  Optional<LayoutVersion> findFirstByCircuitIdAndLayoutNameOrderByNumberDesc(
      UUID circuitId, String layoutName);

  @Lock(LockModeType.PESSIMISTIC_WRITE)
  @Query(
      "select l from LayoutVersion l join fetch l.circuit where l.id = :id and l.ownerId = :owner")
  Optional<LayoutVersion> lockByIdAndOwnerId(UUID id, UUID owner);

  @Query(
      """
      select new marvek.server.circuit.LayoutSummary(l.id, c.id, c.name, l.layoutName, l.number,
        l.validFrom, l.length, l.cornerCount)
      from LayoutVersion l join l.circuit c where l.ownerId = :owner
      order by c.name, l.layoutName, l.number desc
      """)
  List<LayoutSummary> summaries(UUID owner);

  /** The highest number ever given, those in the basket included. */
  @Query(
      nativeQuery = true,
      value =
          """
          select coalesce(max(number), 0) from layout_version
          where circuit_id = :circuit and layout_name = :layout
          """)
  int lastNumber(UUID circuit, String layout);
}
