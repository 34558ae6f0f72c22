package marvek.core.session;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.Objects;

/**
 * When something starts, as it stands on a time table: the clock on the wall at the circuit is what
 * is kept, and the instant follows from it. An hour that the clock leaves out when it is put
 * forward counts from after the gap, and of an hour that comes twice the first is meant
 * (java.time's rule; RFC 5545, 3.3.5).
 *
 * @param wall date and time at the circuit
 * @param zone of the circuit
 */
public record Start(LocalDateTime wall, ZoneId zone) {
  public Start {
    Objects.requireNonNull(wall, "wall");
    Objects.requireNonNull(zone, "zone");
  }

  /** The instant that this is, with the clock at the circuit. */
  public ZonedDateTime zoned() {
    return ZonedDateTime.ofLocal(wall, zone, null);
  }

  /** The same moment anywhere. */
  public Instant instant() {
    return zoned().toInstant();
  }

  /** Whether the clock leaves this time out, so that another is meant. */
  public boolean leftOut() {
    return zone.getRules().getValidOffsets(wall).isEmpty();
  }

  /** Whether this time comes twice that day, of which the first is meant. */
  public boolean twice() {
    return zone.getRules().getValidOffsets(wall).size() > 1;
  }
}
