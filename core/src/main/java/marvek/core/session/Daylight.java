package marvek.core.session;

import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.LocalPlane;
import marvek.core.sun.SunPosition;

/** When the sun rises and sets at the circuit on the session's day, to twenty minutes. */
public record Daylight(Instant rises, Instant sets) {
  /**
   * Nothing where it does not rise.
   *
   * @param plane where the circuit lies
   * @param height over the sea, m
   */
  public static Optional<Daylight> of(TrackSession session, LocalPlane plane, double height) {
    ZoneId zone = session.timing().start().zone();
    List<SunPosition.Moment> path =
        SunPosition.path(
            session.timing().begins().atZone(zone).toLocalDate(),
            zone,
            plane.latitude(),
            plane.longitude(),
            height);
    return path.isEmpty()
        ? Optional.empty()
        : Optional.of(new Daylight(path.get(0).time(), path.get(path.size() - 1).time()));
  }
}
