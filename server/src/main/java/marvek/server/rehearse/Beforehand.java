package marvek.server.rehearse;

import marvek.server.session.Planner;
import marvek.server.session.Sessions;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Works out what there is to know of the next sessions before anybody asks: the first question
 * after the server's start would wait for it otherwise.
 */
@Component
class Beforehand {
  private static final Logger LOG = LoggerFactory.getLogger(Beforehand.class);

  private final Sessions sessions;
  private final Planner planner;
  private final Heart heart;

  Beforehand(Sessions sessions, Planner planner, Heart heart) {
    this.sessions = sessions;
    this.planner = planner;
    this.heart = heart;
  }

  @Scheduled(fixedDelay = 60_000, initialDelay = 5_000)
  void all() {
    for (Sessions.Coming next : sessions.coming()) {
      try {
        heart.facts(planner.driven(next.owner(), next.session()));
      } catch (RuntimeException e) {
        // Whoever opens it is told what is wrong; here there is nobody to tell.
        LOG.info("A session is not worked out beforehand: {}", e.getMessage());
      }
    }
  }
}
