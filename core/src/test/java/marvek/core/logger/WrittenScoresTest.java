package marvek.core.logger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import org.junit.jupiter.api.Test;

/** Scores as drafts write them, driven by the simulated driver on roads nobody drew. */
class WrittenScoresTest {
  private record Case(ComputedLap lap, List<CornerEntry> draft) {
    Drive drive(Deviation... otherwise) {
      return SimulatedDriver.drive(
          new Plan(lap, draft, List.of(), 2, 0, 1, 0, false)
              .deviating(List.of(otherwise), List.of()),
          new Random(1));
    }

    List<Truth.Act> acts(Drive d, String corner) {
      return d.truth().laps().get(1).corners().stream()
          .filter(x -> x.corner().equals(corner))
          .flatMap(x -> x.acts().stream())
          .toList();
    }
  }

  private static final List<Case> CASES = cases();

  private static List<Case> cases() {
    List<Case> out = new ArrayList<>();
    for (String vehicle : List.of("cup-gt", "single-seater", "motorcycle-1000")) {
      for (long seed : new long[] {1, 2, 3, 6}) {
        ComputedLap lap = Drives.computed(RandomRoads.of(seed, 260), vehicle);
        out.add(new Case(lap, Drafter.draft(lap, List.of()).corners()));
      }
    }
    return out;
  }

  @Test
  void writtenActionsAreDoneWhereAndAsMuchAsTheyAreWritten() {
    int acts = 0;
    for (Case c : CASES) {
      Drive d = c.drive();
      for (CornerEntry e : c.draft()) {
        List<Truth.Act> done = c.acts(d, e.corner());
        for (Action a : e.actions()) {
          for (Truth.Act t : done) {
            if (t.id().equals(a.id())) {
              assertThat(c.lap().road().apart(a.station(), t.station()))
                  .describedAs("%s", a)
                  .isCloseTo(0, within(1.1));
              Double share = a.amount();
              if (share != null) {
                assertThat(t.amount()).isCloseTo(share, within(1e-6));
              }
              acts++;
            }
          }
        }
      }
    }
    assertThat(acts).isGreaterThan(30);
  }

  /** Who drives what is written is about as quick as who only has the points. */
  @Test
  void itCostsNoTimeToDriveWhatIsWritten() {
    double sum = 0;
    for (Case c : CASES) {
      List<CornerEntry> bare =
          c.draft().stream().map(e -> e.copy().actions(List.of()).done()).toList();
      double written = c.drive().truth().laps().get(1).lapTime();
      double points = new Case(c.lap(), bare).drive().truth().laps().get(1).lapTime();
      sum += written / points - 1;
    }
    assertThat(sum / CASES.size()).isLessThan(0.005);
  }

  @Test
  void whatIsDoneOtherwiseIsDoneOtherwise() {
    int tried = 0;
    for (Case c : CASES) {
      for (CornerEntry e : c.draft()) {
        for (Action a : e.actions()) {
          if (a.kind() != ActionKind.LIFT && a.kind() != ActionKind.THROTTLE) {
            continue;
          }
          Double share = a.amount();
          if (share == null || share > 0.7) {
            continue;
          }
          Drive d =
              c.drive(
                  Deviation.late(e.corner(), a.id(), -8), Deviation.more(e.corner(), a.id(), 0.2));
          for (Truth.Act t : c.acts(d, e.corner())) {
            if (t.id().equals(a.id())) {
              assertThat(c.lap().road().apart(a.station(), t.station())).isCloseTo(-8, within(1.1));
              assertThat(t.amount()).isCloseTo(share + 0.2, within(1e-6));
              tried++;
            }
          }
          assertThat(c.acts(c.drive(Deviation.none(e.corner(), a.id())), e.corner()))
              .noneMatch(t -> t.id().equals(a.id()));
        }
      }
    }
    assertThat(tried).isGreaterThan(8);
  }
}
