package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Conditions;
import marvek.core.plan.Brakings;
import marvek.core.plan.ComputedLap;
import marvek.core.review.Hazards;
import marvek.core.said.Said;
import org.junit.jupiter.api.Test;

/** Where errors gather, on a road that nobody drew. */
class GatheringTest {
  private final ComputedLap then = Drives.computed(RandomRoads.of(97, 320), "cup-gt");

  private List<Hazards> hazards(Set<String> blind, Set<String> hard) {
    return then.corners().stream()
        .map(
            c ->
                new Hazards(
                    c.id(), List.of(), hard.contains(c.id()), blind.contains(c.id()), Said.NOTHING))
        .toList();
  }

  private static Set<String> corners(List<Gathering> all, String key) {
    return all.stream()
        .filter(g -> g.others().stream().anyMatch(s -> s.key().equals(key)))
        .map(Gathering::corner)
        .collect(Collectors.toSet());
  }

  @Test
  void othersGoWrongWhereMuchSpeedIsTakenAwayAndNothingIsSeen() {
    String blind = then.corners().get(1).id();
    String hard = then.corners().get(2).id();
    List<Gathering> all =
        Gathering.of(then, hazards(Set.of(blind), Set.of(hard)), List.of(), null, 0);
    assertThat(corners(all, "gather.blind")).containsExactly(blind);
    assertThat(corners(all, "gather.room")).containsExactly(hard);
    Set<String> dives = corners(all, "gather.hard");
    for (int c = 0; c < then.corners().size(); c++) {
      boolean takes =
          then.brakings().of(c).stream()
              .anyMatch(b -> b.from() - b.to() >= 25 && b.to() <= 0.6 * b.from());
      assertThat(dives.contains(then.corners().get(c).id())).as("corner %d", c).isEqualTo(takes);
    }
    assertThat(dives).isNotEmpty().hasSizeLessThan(then.corners().size());
    assertThat(all).allMatch(g -> g.own().isEmpty());
    assertThat(all)
        .extracting(Gathering::weight)
        .isSortedAccordingTo((a, b) -> Double.compare(b, a));
  }

  /** Once is chance; well driven and early corners are no errors. */
  @Test
  void ownErrorsAreCountedFromNotes() {
    List<String> ids = then.corners().stream().map(c -> c.id()).toList();
    List<Told> said = new ArrayList<>();
    for (int k = 0; k < 3; k++) {
      said.add(Told.corner(ids.get(0), Told.Felt.DEEP));
      said.add(Told.corner(ids.get(1), Told.Felt.GREAT));
      said.add(Told.corner(ids.get(1), Told.Felt.EARLY));
    }
    said.add(Told.corner(ids.get(2), Told.Felt.WIDE));
    List<Gathering> all = Gathering.of(then, hazards(Set.of(), Set.of()), said, null, 0);
    assertThat(all.stream().filter(g -> !g.own().isEmpty()).map(Gathering::corner))
        .containsExactly(ids.get(0));
    Gathering first =
        all.stream().filter(g -> g.corner().equals(ids.get(0))).findFirst().orElseThrow();
    assertThat(first.own()).extracting(Said::key).containsExactly("gather.noted");
    assertThat(first.weight()).isEqualTo(first.others().size() + 1.5);
  }

  /** More speed is taken away of less grip only where it is still fast: wet, fewer dive in. */
  @Test
  void itFollowsTheDay() {
    Conditions day = then.conditions();
    ComputedLap slow = then.on(day.withGrip(0.35 * day.grip()));
    List<Hazards> none = hazards(Set.of(), Set.of());
    for (Gathering g : Gathering.of(slow, none, List.of(), null, 0)) {
      List<Brakings.Braking> all = slow.brakings().of(slow.indexOf(g.corner()));
      assertThat(all).anyMatch(b -> b.from() - b.to() >= 25);
    }
    assertThat(corners(Gathering.of(slow, none, List.of(), null, 0), "gather.hard"))
        .hasSizeLessThanOrEqualTo(
            corners(Gathering.of(then, none, List.of(), null, 0), "gather.hard").size());
  }
}
