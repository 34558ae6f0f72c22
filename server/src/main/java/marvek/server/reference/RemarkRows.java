package marvek.server.reference;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface RemarkRows extends JpaRepository<Remark, UUID> {
  /** A remark with its author's name. */
  record Signed(Remark remark, String author) {}

  @Query(
      """
      select new marvek.server.reference.RemarkRows$Signed(m, a.name)
      from Remark m join Account a on a.id = m.authorId
      where m.referenceId = :reference order by m.createdAt
      """)
  List<Signed> signed(UUID reference);

  Optional<Remark> findByIdAndReferenceId(UUID id, UUID referenceId);

  long countByReferenceIdAndAuthorIdAndState(UUID reference, UUID author, Remark.State state);
}
