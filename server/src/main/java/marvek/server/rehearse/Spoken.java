package marvek.server.rehearse;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.rehearse.Calls;
import marvek.core.rehearse.Drive;
import marvek.core.rehearse.Fact;
import marvek.core.rehearse.Performance;
import marvek.core.rehearse.TenSeconds;
import marvek.core.score.Action;
import marvek.core.words.Speaker;
import marvek.server.access.Driver;
import marvek.server.reference.Speaking;
import marvek.server.session.Planner;
import marvek.server.words.Speakers;
import org.springframework.stereotype.Service;

/** The lap in words to be said aloud, as its driver says them. */
@Service
class Spoken {
  private final Heart heart;
  private final Speaking speaking;
  private final Speakers speakers;

  Spoken(Heart heart, Speaking speaking, Speakers speakers) {
    this.heart = heart;
    this.speaking = speaking;
    this.speakers = speakers;
  }

  record CornerCue(String corner, Calls.Cue cue) {}

  /** Of each corner what is worth most of it, or nothing. */
  static List<String> summary(List<CornerCue> cues) {
    Map<String, Calls.Cue> dearest = new LinkedHashMap<>();
    for (CornerCue c : cues) {
      dearest.merge(c.corner(), c.cue(), (a, b) -> b.worth() > a.worth() ? b : a);
    }
    return TenSeconds.of(
        dearest.values().stream()
            // Without its corner nobody knows which one is meant.
            .map(c -> new TenSeconds.Item(c.worth(), List.of(c.texts().get(0), c.texts().get(2))))
            .toList());
  }

  /** The lap aloud: what is pressed, by what it is worth. */
  List<CornerCue> cues(Planner.Driven day, Driver driver) {
    List<Fact> all = heart.facts(day);
    Speaker speaker = speakers.of(driver);
    var speech = speaking.speech(driver);
    List<Corner> corners = day.reference().layout().counted();
    List<CornerCue> cues = new ArrayList<>();
    for (Performance.DueAction d : Drive.of(day.then(), day.entries()).due()) {
      if (d.key() == Performance.Control.GEAR) {
        continue;
      }
      CornerEntry entry =
          day.entries().stream()
              .filter(e -> e.corner().equals(d.corner()))
              .findFirst()
              .orElseThrow();
      List<Action> score = Score.of(day.then().road(), entry);
      Action action =
          score.stream().filter(a -> a.id().equals(d.action())).findFirst().orElseThrow();
      String corner = speech.corner(corners.get(day.then().indexOf(d.corner())));
      double worth =
          all.stream()
              .filter(f -> f.corner().equals(d.corner()) && f.action().equals(d.action()))
              .mapToDouble(Fact::worth)
              .max()
              .orElse(0);
      String how = speaker.say(action.said(score));
      // A number of metres from the line helps nobody who listens.
      String where = action.cue() == null ? how : speaker.say(action.line(score));
      cues.add(
          new CornerCue(
              d.corner(),
              new Calls.Cue(
                  d.at(), worth, List.of(corner + ", " + where, where, corner + ", " + how, how))));
    }
    return cues;
  }
}
