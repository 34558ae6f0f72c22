package marvek.server.rehearse;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import marvek.core.rehearse.Known;
import marvek.server.access.Driver;
import marvek.server.problem.Problem;
import marvek.server.reference.References;
import marvek.server.session.Planner;
import marvek.server.session.Sessions;
import marvek.server.sharing.Role;
import marvek.server.sharing.Sharing;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** What a driver knows by heart, for a coach who was let in. */
@RestController
class LetInController {
  private final References references;
  private final Sharing sharing;
  private final Sessions sessions;
  private final Planner planner;
  private final Heart heart;

  LetInController(
      References references, Sharing sharing, Sessions sessions, Planner planner, Heart heart) {
    this.references = references;
    this.sharing = sharing;
    this.sessions = sessions;
    this.planner = planner;
    this.heart = heart;
  }

  /**
   * What is known by heart of a reference.
   *
   * @param ready for its next session; null where it is for none
   * @param known how each fact stands that was asked
   */
  record HeartView(Known.@Nullable Readiness ready, List<Heart.StandingView> known) {}

  @GetMapping("/api/references/{id}/rehearsed")
  HeartView heart(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    References.Opened opened = references.read(driver.id(), id);
    UUID owner = opened.row().ownerId();
    if (opened.role() != Role.OWNER && !sharing.seesRehearsed(id, driver.id())) {
      throw Problem.forbidden("refusal.rehearse.what_known_heart_belongs");
    }
    Optional<UUID> session = sessions.nextOf(owner, id);
    if (session.isEmpty()) {
      return new HeartView(null, List.of());
    }
    Planner.Outing day = planner.driven(owner, session.get());
    Map<String, Known.Standing> known = heart.known(owner, day);
    return new HeartView(Known.readiness(heart.facts(day), known), heart.standing(known, day));
  }
}
