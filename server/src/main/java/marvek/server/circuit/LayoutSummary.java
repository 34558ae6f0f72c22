package marvek.server.circuit;

import java.time.LocalDate;
import java.util.UUID;

/** A layout version in a list. */
public record LayoutSummary(
    UUID id,
    UUID circuitId,
    String circuit,
    String layout,
    int version,
    LocalDate validFrom,
    double length,
    int corners) {
  static LayoutSummary of(LayoutVersion l) {
    return new LayoutSummary(
        l.id(),
        l.circuit().id(),
        l.circuit().name(),
        l.layoutName(),
        l.number(),
        l.validFrom(),
        l.length(),
        l.cornerCount());
  }
}
