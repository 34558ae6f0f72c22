package marvek.server.circuit;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import java.util.UUID;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** One thing of a survey, kept as the JSON of its core record. */
@Entity
class SurveyItem {
  @Id private UUID id;
  private UUID ownerId;
  private UUID layoutVersionId;
  private String itemId;

  @Enumerated(EnumType.STRING)
  private Sort sort;

  @JdbcTypeCode(SqlTypes.JSON)
  private String body;

  @Version private int version;

  enum Sort {
    LANDMARK,
    KERB,
    ZONE,
    LIMIT,
    PLACE,
    SEVERITY
  }

  @SuppressWarnings("NullAway.Init")
  protected SurveyItem() {}

  SurveyItem(LayoutVersion layout, String itemId, Sort sort, String body) {
    this.id = UUID.randomUUID();
    this.ownerId = layout.ownerId();
    this.layoutVersionId = layout.id();
    this.itemId = itemId;
    this.sort = sort;
    this.body = body;
  }

  UUID id() {
    return id;
  }

  UUID ownerId() {
    return ownerId;
  }

  UUID layoutVersionId() {
    return layoutVersionId;
  }

  String itemId() {
    return itemId;
  }

  Sort sort() {
    return sort;
  }

  String body() {
    return body;
  }

  int version() {
    return version;
  }

  void take(Sort newSort, String newBody) {
    sort = newSort;
    body = newBody;
  }
}
