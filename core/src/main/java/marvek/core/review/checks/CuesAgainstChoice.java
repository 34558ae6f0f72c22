package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import java.util.Optional;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.technique.Question;
import marvek.core.technique.School;

/** A braking marker that is not found by as many things as chosen. */
@AutoService(Check.class)
public final class CuesAgainstChoice implements Check {
  @Override
  public String id() {
    return "CUES_AGAINST_CHOICE";
  }

  @Override
  public int rank() {
    return 42;
  }

  @Override
  public void look(Case at) {
    CornerEntry e = at.entry();
    Optional<School> chosen = School.chosen(e.schools(), Question.MARKERS);
    Optional<Action> marker =
        Score.of(at.road(), e).stream()
            .filter(a -> a.id().equals(Score.id(PointKind.BRAKE)))
            .findFirst();
    if (chosen.isEmpty() || marker.isEmpty()) {
      return;
    }
    boolean two = marker.get().together() != null;
    if (two != (chosen.get() == School.TWO_MARKERS)) {
      at.warn(
          this,
          PointKind.BRAKE,
          Said.of("check.CUES_AGAINST_CHOICE", Value.choice(two), chosen.get().said().in()));
    }
  }
}
