package marvek.core.survey;

import java.util.Objects;

/**
 * What slight, plain and severe mean here for a kind of zone, in the unit of its {@link
 * Zone.Effect}; in place of what is usual.
 *
 * @param id stable name inside the layout version, one for each kind
 * @param kind of zone
 * @param slight amount
 * @param plain amount
 * @param severe amount
 */
public record Severity(String id, ZoneKind kind, double slight, double plain, double severe) {
  public Severity {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(kind, "kind");
  }

  /** The amount of a severity, 1 to 3. */
  public double of(int severity) {
    return severity <= 1 ? slight : severity == 2 ? plain : severe;
  }
}
