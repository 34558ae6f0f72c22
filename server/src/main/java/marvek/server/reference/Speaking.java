package marvek.server.reference;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.ReferenceContent;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.review.Consistency;
import marvek.core.review.Hazards;
import marvek.core.review.LoadAlong;
import marvek.core.survey.Things;
import marvek.core.units.Display;
import marvek.core.words.Sentence;
import marvek.core.words.Speech;
import marvek.server.access.Driver;
import marvek.server.words.Speakers;
import org.springframework.stereotype.Component;

/** Says corners as the person who looks likes them said. */
@Component
public class Speaking {
  private final Speakers speakers;

  Speaking(Speakers speakers) {
    this.speakers = speakers;
  }

  Display units(Driver driver) {
    return speakers.units(driver);
  }

  public Speech speech(Driver driver) {
    return speakers.speech(driver);
  }

  /** A driver's words for what is done on a lap. */
  Speech speech(ComputedLap computed, Driver driver) {
    return speech(driver).on(computed.road().length()).braked(computed.braked());
  }

  public List<Sentence.Words> words(ComputedLap computed, ReferenceContent content, Driver driver) {
    Map<String, Corner> byId =
        computed.corners().stream().collect(Collectors.toMap(Corner::id, Function.identity()));
    Speech speech = speech(computed, driver);
    return content.corners().stream()
        .map(
            e ->
                Sentence.words(byId.getOrDefault(e.corner(), computed.corners().get(0)), e, speech))
        .toList();
  }

  AnswerView answer(References.Opened opened, References.Answered answered, Driver driver) {
    return answer(opened.computed(), opened.things(), answered, driver);
  }

  AnswerView answer(
      ComputedLap computed, Things things, References.Answered answered, Driver driver) {
    CornerEntry entry = answered.entry();
    CornerAnswer answer = answered.answer();
    Corner corner = computed.corners().get(computed.indexOf(entry.corner()));
    return new AnswerView(
        entry,
        answer,
        Sentence.words(corner, entry, speech(computed, driver)),
        Hazards.of(computed, things, entry),
        Consistency.corner(computed, things, entry, answer),
        LoadAlong.of(computed, things, entry, answer));
  }
}
