package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.survey.Things;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * A corner told by its points alone and the same corner with something written beside them that
 * changes nothing are the same plan, as far as a throttle by hand can follow the lap's.
 */
@Tag("slow")
class PointsAndScoreTest {
  private static final String[] VEHICLES = {
    "cup-gt", "small-hatch", "downforce-prototype", "motorcycle-1000"
  };

  @Test
  void whatIsWrittenBesideADraftDoesNotUnmakeIt() {
    List<Double> dearer = new ArrayList<>();
    List<String> unmade = new ArrayList<>();
    for (int k = 0; k < 12; k++) {
      String vehicle = VEHICLES[k % VEHICLES.length];
      long seed = 401 + k / VEHICLES.length;
      ComputedLap lap = Drives.computed(RandomRoads.of(seed, 300), vehicle);
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        if (e.slowing() != Slowing.BRAKE) {
          continue;
        }
        Answers answers = Answers.at(lap, Things.none(), lap.indexOf(e.corner()));
        Double alone = answers.answer(e).time();
        assertThat(alone).as("%s %d %s", vehicle, seed, e.corner()).isNotNull();
        CornerEntry beside = answers.played(e);
        Double played = answers.answer(beside).time();
        if (played == null || !Score.plays(beside)) {
          unmade.add(vehicle + " " + seed + " " + e.corner());
        } else {
          dearer.add(played - alone);
        }
      }
    }
    dearer.sort(null);
    assertThat(dearer).hasSizeGreaterThan(80);
    assertThat(unmade).hasSizeLessThanOrEqualTo(3);
    assertThat(dearer.get(dearer.size() / 2)).isBetween(-0.02, 0.02);
    assertThat(dearer.get(dearer.size() * 9 / 10)).isLessThan(0.2);
  }
}
