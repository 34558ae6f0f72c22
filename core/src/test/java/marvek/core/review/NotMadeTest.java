package marvek.core.review;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.Drafter;
import marvek.core.plan.LostBrakings;
import marvek.core.score.Action;
import marvek.core.score.ActionBuilder;
import marvek.core.score.ActionKind;
import marvek.core.survey.Things;
import marvek.core.words.Speaker;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** The last look before going out is silent of no corner that cannot be made as it is written. */
@Tag("slow")
class NotMadeTest {
  private static final String[] VEHICLES = {"cup-gt", "small-hatch", "motorcycle-600"};

  /** A corner with one of its actions done worse: later, or with less or more than there is. */
  private static CornerEntry worse(ComputedLap lap, CornerEntry e, Action of, double by) {
    List<Action> actions =
        e.actions().stream().map(a -> a.id().equals(of.id()) ? worse(lap, a, by) : a).toList();
    return e.copy().actions(actions).done();
  }

  private static Action worse(ComputedLap lap, Action a, double by) {
    Double amount = a.amount();
    if (amount != null && a.kind() == ActionKind.LIFT) {
      amount = Math.min(1, amount + by);
    }
    boolean opens = a.kind() == ActionKind.THROTTLE || a.kind() == ActionKind.FULL;
    return ActionBuilder.builder(a)
        .station(lap.road().wrap(a.station() + (opens ? -60 : 60) * by))
        .amount(amount)
        .build();
  }

  @Test
  void whatCannotBeMadeIsWarnedOfAndNothingElseIs() {
    Map<String, Integer> seen = new TreeMap<>();
    for (int k = 0; k < 6; k++) {
      ComputedLap lap = Drives.computed(RandomRoads.of(1210 + k, 220 + 20 * k), VEHICLES[k % 3]);
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        assertThat(look(lap, e, seen)).as("draft of %s", e.corner()).isEqualTo("made");
        Optional<Double> brake = e.station(PointKind.BRAKE);
        if (brake.isPresent()) {
          double later = lap.road().wrap(brake.get() + 25);
          look(lap, e.copy().moved(PointKind.BRAKE, later).done(), seen);
        }
        look(lap, e.copy().slowing(Slowing.FLAT).actions(List.of()).done(), seen);
        look(lap, e.copy().slowing(Slowing.LIFT).actions(List.of()).done(), seen);
        for (Action a : e.actions()) {
          if (a.kind().pedal()) {
            look(lap, worse(lap, e, a, 0.4), seen);
            look(lap, worse(lap, e, a, 0.9), seen);
          }
        }
      }
    }
    // Each way in which one is not made has come up, and what is made too.
    assertThat(seen.keySet())
        .containsExactlyInAnyOrder(
            "check.CANNOT_BE_MADE",
            "check.NOT_MADE.action",
            "check.NOT_MADE.lost",
            "plan.not_flat",
            "made");
    assertThat(seen.values()).allMatch(n -> n > 2);
  }

  private static String look(ComputedLap lap, CornerEntry e, Map<String, Integer> seen) {
    CornerAnswer answer = Answers.answer(lap, e);
    List<Warning> warned =
        Consistency.corner(lap, Things.none(), e, answer).stream()
            .filter(w -> w.rule().equals("CANNOT_BE_MADE"))
            .toList();
    boolean lost =
        e.slowing() != Slowing.BRAKE
            && !LostBrakings.in(lap, new ReferenceContent(List.of(e))).isEmpty();
    assertThat(warned.isEmpty())
        .as("%s %s %s", e.corner(), e.slowing(), e.actions())
        .isEqualTo(answer.time() != null && !lost);
    String how = warned.isEmpty() ? "made" : warned.get(0).words().key();
    seen.merge(how, 1, Integer::sum);
    if (how.equals("check.NOT_MADE.action")) {
      // It names what is written in this corner.
      String words = Speaker.PLAIN.say(warned.get(0).words());
      assertThat(answer.score())
          .anyMatch(a -> !a.made() && words.contains(Speaker.PLAIN.say(a.action().said())));
    }
    return how;
  }
}
