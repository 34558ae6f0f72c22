package marvek.core.words;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.units.Display;
import org.junit.jupiter.api.Test;

class SpokenTest {
  private static final ComputedLap LAP = lap();
  private static final List<CornerEntry> DRAFT = Drafter.draft(LAP, Drafter.boards(LAP)).corners();

  private static ComputedLap lap() {
    return Drives.computed(RandomRoads.of(5504, 400), "cup-gt");
  }

  @Test
  void numbersAndSignsBecomeWords() {
    assertThat(Spoken.of("brake 12 m past the 150 board, hard (60 %)"))
        .isEqualTo("brake twelve metres past the one hundred fifty board, hard, sixty percent");
    assertThat(Spoken.of("100 board + 8 ft · 2 · late"))
        .isEqualTo("one hundred board plus eight feet, two, late");
    assertThat(Spoken.of("0.5 s after the hands at 87 mph"))
        .isEqualTo("zero point five seconds after the hands at eighty-seven miles an hour");
  }

  @Test
  void whatIsSaidAloudHoldsNoSigns() {
    Display imperial = new Display(Display.Speed.MPH, Display.Length.FT);
    for (Display units : List.of(Display.METRIC, imperial)) {
      Speech speech = new Speech(units, Speech.Call.NUMBERS).on(LAP.road().length());
      for (CornerEntry e : DRAFT) {
        Corner corner = LAP.corners().get(LAP.indexOf(e.corner()));
        String spoken = Sentence.spoken(corner, e, speech);
        assertThat(spoken).doesNotContainPattern("[0-9%+·/()−]");
        assertThat(spoken).doesNotContainPattern("\\b(m|ft|kmh|mph)\\b");
        // Not a word more than the full sentence, and every action is in it.
        assertThat(spoken.length()).isGreaterThan(15);
        long lifts = e.actions().stream().filter(a -> a.id().equals("lift")).count();
        assertThat(spoken.toLowerCase().contains("lift"))
            .isEqualTo(lifts > 0 || e.slowing().name().equals("LIFT"));
      }
    }
  }

  @Test
  void tenSecondsAreThirtyWordsOfTheCornersOfMostWorth() {
    Random random = new Random(8);
    Speech speech = Speech.PLAIN.on(LAP.road().length());
    for (int round = 0; round < 20; round++) {
      List<String> worth = new ArrayList<>(DRAFT.stream().map(CornerEntry::corner).toList());
      Collections.shuffle(worth, random);
      String said = TenSeconds.of(LAP.corners(), DRAFT, worth, speech);
      assertThat(said.split("[\\s-]+").length).isBetween(12, 30);
      Corner first = LAP.corners().get(LAP.indexOf(worth.get(0)));
      assertThat(said).contains(Sentence.brief(first, DRAFT.get(LAP.indexOf(first.id())), speech));
      // In driving order, whatever the order of worth.
      int before = -1;
      for (Corner c : LAP.corners()) {
        int at = said.indexOf(Sentence.brief(c, DRAFT.get(LAP.indexOf(c.id())), speech));
        if (at >= 0) {
          assertThat(at).isGreaterThan(before);
          before = at;
        }
      }
    }
  }
}
