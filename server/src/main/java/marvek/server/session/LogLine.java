package marvek.server.session;

import java.time.Instant;
import java.util.UUID;
import marvek.core.session.Told;

/** A line of a log, as it is shown. */
record LogLine(UUID id, String device, Instant at, Told told, boolean removed) {
  static LogLine of(LineRow l) {
    return new LogLine(l.id(), l.device(), l.saidAt(), l.body(), l.removed());
  }
}
