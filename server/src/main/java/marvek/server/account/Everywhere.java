package marvek.server.account;

import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Component;

/** All sessions of somebody, on whatever device. */
@Component
class Everywhere {
  private final FindByIndexNameSessionRepository<? extends Session> sessions;

  Everywhere(FindByIndexNameSessionRepository<? extends Session> sessions) {
    this.sessions = sessions;
  }

  /** Ends all sessions but the one with the given id. */
  void out(UUID account, @Nullable String but) {
    for (String id : sessions.findByPrincipalName(account.toString()).keySet()) {
      if (!id.equals(but)) {
        sessions.deleteById(id);
      }
    }
  }
}
