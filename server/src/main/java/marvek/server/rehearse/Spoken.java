package marvek.server.rehearse;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.rehearse.Calls;
import marvek.core.rehearse.Drive;
import marvek.core.rehearse.Fact;
import marvek.core.rehearse.Performance;
import marvek.core.rehearse.TenSeconds;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.words.Speaker;
import marvek.server.access.Driver;
import marvek.server.reference.Speaking;
import marvek.server.session.Planner;
import marvek.server.words.Speakers;
import org.springframework.stereotype.Service;

/** The lap in words to be said aloud, as its driver says them. */
@Service
class Spoken {
  // Seconds that not knowing a flat corner is worth.
  private static final double FLAT = 0.01;

  private final Heart heart;
  private final Speaking speaking;
  private final Speakers speakers;

  Spoken(Heart heart, Speaking speaking, Speakers speakers) {
    this.heart = heart;
    this.speaking = speaking;
    this.speakers = speakers;
  }

  /**
   * A call of a corner.
   *
   * @param slows whether it is how it is slowed for
   */
  record CornerCue(String corner, boolean slows, Calls.Cue cue) {}

  /**
   * The lap in ten seconds: of each corner how it is slowed for and by which cue, or its gear
   * alone.
   */
  List<String> summary(Planner.Outing day, List<CornerCue> cues, Driver driver) {
    Speaker speaker = speakers.of(driver);
    var speech = speaking.speech(driver);
    List<Corner> corners = day.reference().layout().counted();
    List<TenSeconds.Item> items = new ArrayList<>();
    for (CornerEntry e : day.entries()) {
      Corner corner = corners.get(day.then().indexOf(e.corner()));
      String gear =
          speaker.say(
              Said.of(
                  "summary.corner",
                  Value.own(speech.corner(corner)),
                  Value.choice(e.slowing()),
                  Value.count(e.gear())));
      // A corner that is flat is told by its gear, and where there is room.
      items.add(
          cues.stream()
              .filter(c -> c.corner().equals(e.corner()) && c.slows())
              .max(Comparator.comparingDouble(c -> c.cue().worth()))
              .map(c -> new TenSeconds.Item(c.cue().worth(), List.of(c.cue().texts().get(0), gear)))
              .orElseGet(() -> new TenSeconds.Item(FLAT, List.of(gear))));
    }
    return TenSeconds.of(items);
  }

  /** The lap aloud: what is pressed, by what it is worth. */
  List<CornerCue> cues(Planner.Outing day, Driver driver) {
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
              action.kind() == ActionKind.BRAKE || action.kind() == ActionKind.LIFT,
              new Calls.Cue(
                  d.at(), worth, List.of(corner + ", " + where, where, corner + ", " + how, how))));
    }
    return cues;
  }
}
