package marvek.server.session;

import jakarta.validation.Valid;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import marvek.server.access.Driver;
import marvek.server.reference.References;
import marvek.server.sharing.Role;
import marvek.server.sharing.Sharing;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/**
 * What was felt and said of a session is the driver's alone, until a coach of the reference is let
 * in to it: session by session, and taken back at once.
 */
@RestController
@RequestMapping("/api")
class CoachesController {
  /** Latest sessions that are held against their laps at once. */
  private static final int LATEST = 10;

  private final Sessions sessions;
  private final References references;
  private final Sharing sharing;
  private final FeltBeside felt;

  CoachesController(Sessions sessions, References references, Sharing sharing, FeltBeside felt) {
    this.sessions = sessions;
    this.references = references;
    this.sharing = sharing;
    this.felt = felt;
  }

  /**
   * A coach of the session's reference.
   *
   * @param share by which they are one
   * @param sees whether they see what was felt and said of the session
   */
  record CoachOfSession(UUID share, String name, boolean sees) {}

  record SeesRequest(boolean sees) {}

  @GetMapping("/sessions/{id}/coaches")
  List<CoachOfSession> coaches(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    UUID reference = sessions.own(driver.id(), id).referenceId();
    if (reference == null) {
      return List.of();
    }
    Set<UUID> in = sharing.letInto(id);
    return sharing.people(driver.id(), reference).stream()
        .filter(p -> p.role() == Role.COACH && p.seen() && !p.asks())
        .map(p -> new CoachOfSession(p.id(), p.name(), in.contains(p.id())))
        .toList();
  }

  @PutMapping("/sessions/{id}/coaches/{share}")
  List<CoachOfSession> letIn(
      @PathVariable UUID id,
      @PathVariable UUID share,
      @Valid @RequestBody SeesRequest body,
      @AuthenticationPrincipal Driver driver) {
    UUID reference = sessions.referenceOf(driver.id(), id);
    sharing.letInto(driver.id(), reference, id, share, body.sees());
    return coaches(id, driver);
  }

  /**
   * A session that a coach was let in to.
   *
   * @param lines of the log that stand
   */
  record SessionSeen(
      UUID id,
      String name,
      Instant begins,
      ZoneId zone,
      List<LogLine> lines,
      FeltBeside.FeltView felt) {}

  @GetMapping("/references/{id}/sessions-seen")
  List<SessionSeen> seen(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    UUID owner = references.read(driver.id(), id).row().ownerId();
    return sharing.sessionsSeen(id, driver.id()).stream()
        .map(s -> sessions.own(owner, s))
        .filter(s -> id.equals(s.referenceId()) && s.removedAt() == null)
        .sorted(Comparator.comparing(SessionRow::startsAt).reversed())
        .limit(LATEST)
        .map(
            s ->
                new SessionSeen(
                    s.id(),
                    s.body().name(),
                    s.startsAt(),
                    s.body().timing().start().zone(),
                    sessions.lines(owner, s.id()).stream()
                        .filter(l -> !l.removed())
                        .map(LogLine::of)
                        .toList(),
                    felt.of(owner, s.id())))
        .toList();
  }
}
