package marvek.server.rehearse;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import marvek.core.circuit.Corner;
import marvek.core.entry.Score;
import marvek.core.plan.Cues;
import marvek.core.rehearse.Known;
import marvek.core.rehearse.Remember;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.words.Speaker;
import marvek.server.access.Driver;
import marvek.server.reference.Speaking;
import marvek.server.session.Planner;
import marvek.server.words.Speakers;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** What is often missed, and ways to remember it, in its driver's words. */
@Service
class Missed {
  private final Heart heart;
  private final Speaking speaking;
  private final Speakers speakers;

  Missed(Heart heart, Speaking speaking, Speakers speakers) {
    this.heart = heart;
    this.speaking = speaking;
    this.speakers = speakers;
  }

  /**
   * A place that is often missed, and ways to remember it.
   *
   * @param called its corner as the driver calls it
   * @param better a cue that tells it more closely, in words; empty with none
   * @param metres to which that tells it; null with none
   * @param from metres to which its own cue does
   * @param photo id of a picture of what it hangs on; empty without one
   */
  record RememberView(
      String corner,
      String called,
      @Nullable ActionKind kind,
      int times,
      int missed,
      String better,
      @Nullable Double metres,
      double from,
      String photo) {}

  List<RememberView> of(Map<String, Known.Standing> known, Planner.Outing day, Driver driver) {
    Speaker speaker = speakers.of(driver);
    var speech = speaking.speech(driver);
    List<Corner> corners = day.reference().layout().counted();
    List<RememberView> out = new ArrayList<>();
    for (Remember r :
        Remember.of(day.then(), day.reference().things(), day.entries(), heart.facts(day), known)) {
      List<Action> score =
          day.entries().stream()
              .filter(e -> e.corner().equals(r.corner()))
              .findFirst()
              .map(e -> Score.of(day.then().road(), e))
              .orElse(List.of());
      Cues.Offer better = r.better();
      out.add(
          new RememberView(
              r.corner(),
              speech.corner(corners.get(day.then().indexOf(r.corner()))),
              score.stream()
                  .filter(a -> a.id().equals(r.action()))
                  .findFirst()
                  .map(Action::kind)
                  .orElse(null),
              r.times(),
              r.missed(),
              better == null ? "" : speaker.say(better.cue().said(score)),
              better == null ? null : (Double) better.precision(),
              r.from(),
              r.photo()));
    }
    return out;
  }
}
