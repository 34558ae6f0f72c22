package marvek.server.reference;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface ReferenceRows extends JpaRepository<ReferenceRow, UUID> {
  Optional<ReferenceRow> findByIdAndOwnerId(UUID id, UUID ownerId);

  @Query(
      """
      select new marvek.server.reference.ReferenceSummary(r.id, r.name, l.id, c.name,
        l.layoutName, l.number, v.id, v.name, r.lapTime, r.unmade, r.basedOnRevision, r.changed,
        v.version <> r.vehicleVersion, r.changedAt)
      from ReferenceRow r
        join LayoutVersion l on l.id = r.layoutVersionId
        join l.circuit c
        join VehicleRow v on v.id = r.vehicleId
      where r.ownerId = :owner
      order by r.changedAt desc
      """)
  List<ReferenceSummary> summaries(UUID owner);

  @Query(
      """
      select new marvek.server.reference.SharedReference(r.id, r.name, c.name, v.name, a.name,
        s.role, r.lapTime, r.unmade, r.basedOnRevision,
        (select count(m) from Remark m where m.referenceId = r.id and m.state = 'OPEN'))
      from Share s
        join ReferenceRow r on r.id = s.referenceId
        join LayoutVersion l on l.id = r.layoutVersionId
        join l.circuit c
        join VehicleRow v on v.id = r.vehicleId
        join Account a on a.id = r.ownerId
      where s.personId = :person and s.confirmed
      order by r.changedAt desc
      """)
  List<SharedReference> sharedWith(UUID person);
}
