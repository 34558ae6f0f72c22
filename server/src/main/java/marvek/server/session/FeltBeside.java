package marvek.server.session;

import java.util.List;
import java.util.UUID;
import marvek.core.day.RunDays;
import marvek.core.said.Said;
import marvek.core.said.Value;
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
   * @param otherwise where the laps were driven with another grip than was planned for; else
   *     nothing
   */
  record FeltView(
      @Nullable UUID run,
      List<FeltDriven> corners,
      FeltDriven.@Nullable Agreement agreement,
      Said otherwise) {}

  /** Share of the grip by which a day is another one than was planned for. */
  private static final double OTHER = 0.1;

  FeltView of(UUID owner, UUID session) {
    double planned = sessions.own(owner, session).body().day().day().grip();
    List<Told> told = sessions.told(session);
    for (RunRow r : sessions.runs(session)) {
      Evidences.Judged judged = evidences.judged(runs.read(owner, r.id()), null);
      if (!judged.laps().isEmpty()) {
        List<FeltDriven> all = FeltDriven.of(told, evidences.debrief(judged));
        return new FeltView(r.id(), all, FeltDriven.agreement(all), otherwise(judged, planned));
      }
    }
    return new FeltView(null, List.of(), null, Said.NOTHING);
  }

  private static Said otherwise(Evidences.Judged judged, double planned) {
    RunDays.PartLine part = judged.part();
    // What the laps use is less than there is; the day that they are held against is what counts.
    double grip =
        judged.computed().conditions().grip()
            / judged.opened().reference().computed().conditions().grip();
    return part == null || part.day() == null || Math.abs(grip / planned - 1) <= OTHER
        ? Said.NOTHING
        : Said.of("felt.otherwise", Value.percent(grip), Value.percent(planned));
  }
}
