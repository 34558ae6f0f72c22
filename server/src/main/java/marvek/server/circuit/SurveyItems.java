package marvek.server.circuit;

import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface SurveyItems extends JpaRepository<SurveyItem, UUID> {
  List<SurveyItem> findByLayoutVersionId(UUID layoutVersionId);

  boolean existsByLayoutVersionIdAndSort(UUID layoutVersionId, SurveyItem.Sort sort);
}
