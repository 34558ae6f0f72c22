package marvek.server.session;

import java.util.List;
import java.util.UUID;
import marvek.core.session.FeltDriven;
import marvek.core.session.Told;
import marvek.server.debrief.Evidences;
import marvek.server.run.RunRow;
import marvek.server.run.Runs;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Holds what was felt in a session against its laps. */
@Component
class FeltBeside {
  private final Sessions sessions;
  private final Runs runs;
  private final Evidences evidences;

  FeltBeside(Sessions sessions, Runs runs, Evidences evidences) {
    this.sessions = sessions;
    this.runs = runs;
    this.evidences = evidences;
  }

  /**
   * What was felt beside what was driven.
   *
   * @param run whose laps it is held against; null while there are none
   * @param agreement of both; null where the laps can say it of no corner
   */
  record FeltView(
      @Nullable UUID run, List<FeltDriven> corners, FeltDriven.@Nullable Agreement agreement) {}

  FeltView of(UUID owner, UUID session) {
    sessions.own(owner, session);
    List<Told> told = sessions.told(session);
    for (RunRow r : sessions.runs(session)) {
      Evidences.Judged judged = evidences.judged(runs.read(owner, r.id()), null);
      if (!judged.laps().isEmpty()) {
        List<FeltDriven> all = FeltDriven.of(told, evidences.debrief(judged));
        return new FeltView(r.id(), all, FeltDriven.agreement(all));
      }
    }
    return new FeltView(null, List.of(), null);
  }
}
