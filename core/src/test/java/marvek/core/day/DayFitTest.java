package marvek.core.day;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import marvek.core.fixtures.Plain;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.junit.jupiter.api.Test;

class DayFitTest {
  private static final DayFit.Candidate DRY = new DayFit.Candidate("", called("dry, warm"), 1);
  private static final DayFit.Candidate WORN =
      new DayFit.Candidate("o", called("worn tyres"), 0.96);
  private static final DayFit.Candidate DAMP = new DayFit.Candidate("d", called("damp"), 0.85);
  private static final DayFit.Candidate WET = new DayFit.Candidate("w", called("wet"), 0.7);
  private static final List<DayFit.Candidate> ALL = List.of(DRY, WORN, DAMP, WET);

  private static Said called(String name) {
    return Said.of("day.called", Value.own(name));
  }

  private static List<DayFit.Lap> laps(double... grips) {
    return IntStream.range(0, grips.length)
        .mapToObj(i -> new DayFit.Lap("l" + i, grips[i]))
        .toList();
  }

  private static DayFit fit(List<DayFit.Candidate> days, double... grips) {
    return DayFit.of(days, laps(grips), null, Said.NOTHING);
  }

  @Test
  void theDriversWordWinsOverWhatTheLapsSay() {
    DayFit fit = DayFit.of(ALL, laps(0.99, 1, 0.98), "w", Said.NOTHING);
    assertThat(fit.said()).isTrue();
    assertThat(fit.parts()).hasSize(1);
    assertThat(fit.parts().get(0).day()).isEqualTo(WET);
    DayFit gone = DayFit.of(List.of(DRY), laps(0.99, 1, 0.98), "WET", called("wet"));
    assertThat(gone.parts().get(0).day()).as("not the dry day, though it would agree").isNull();
    assertThat(Plain.words(gone.parts().get(0).words())).contains("You said wet").contains("99 %");
  }

  @Test
  void theReferencesOwnDayGoesFirstWithinFivePerCent() {
    assertThat(fit(ALL, 0.96, 0.955, 0.97).parts().get(0).day()).isEqualTo(DRY);
    assertThat(fit(ALL, 0.94, 0.945, 0.94).parts().get(0).day()).isEqualTo(WORN);
    assertThat(fit(ALL, 0.69, 0.7).parts().get(0).day()).isEqualTo(WET);
  }

  @Test
  void betweenFiveAndTenPerCentTheNearestIsTakenAndToldToBeLookedAt() {
    DayFit.Part part = fit(List.of(DRY, WET), 0.92, 0.93).parts().get(0);
    assertThat(part.day()).isEqualTo(DRY);
    assertThat(Plain.words(part.words())).contains("look whether it is right");
    assertThat(part.sure()).isFalse();
    assertThat(fit(List.of(DRY, WET), 0.97).parts().get(0).sure()).isTrue();
    assertThat(Plain.words(fit(List.of(DRY, WET), 0.99).parts().get(0).words()))
        .doesNotContain("look whether");
  }

  @Test
  void nothingWithinTenPerCentIsNoDay() {
    DayFit.Part part = fit(List.of(DRY, WET), 0.82, 0.83).parts().get(0);
    assertThat(part.day()).isNull();
    assertThat(Plain.words(part.words())).contains("83 %", "No day");
    assertThat(fit(List.of(DRY), Double.NaN, Double.NaN).parts().get(0).day())
        .as("laps that tell nothing are not held against the dry day")
        .isNull();
  }

  @Test
  void lapsWhoseGripDriftsFitNoDay() {
    DayFit.Part part =
        fit(List.of(DRY, WET), 0.91, 0.92, 0.93, 0.99, 1.05, 1.07, 1.08).parts().get(0);
    assertThat(part.day()).isNull();
    assertThat(Plain.words(part.words())).contains("changed");
    assertThat(part.steady()).as("so there is no day to offer").isFalse();
    assertThat(fit(List.of(DRY), 0.7, 0.71, 0.7, 0.72).parts().get(0).steady()).isTrue();
    assertThat(fit(List.of(DRY, WET), 0.95, 1.02, 0.96, 1.03, 0.95, 1.02).parts().get(0).day())
        .as("scatter is no drift")
        .isEqualTo(DRY);
  }

  @Test
  void oneLapThatScattersIsNotSplitOff() {
    DayFit fit = fit(ALL, 0.97, 0.96, 0.949, 0.965, 0.99, 0.91);
    assertThat(fit.parts()).hasSize(1);
    assertThat(fit.parts().get(0).day()).isEqualTo(DRY);
    assertThat(fit(ALL, 0.97, 0.96, 0.68, 0.96).parts()).as("a wet one is").hasSize(2);
    assertThat(fit(ALL, 0.7, 0.99, 0.69, 1, 0.71, 0.98).parts()).as("half and half").hasSize(2);
  }

  @Test
  void everyLapIsInOnePartWhateverComes() {
    Random random = new Random(4);
    for (int k = 0; k < 500; k++) {
      double[] grips =
          random
              .doubles(1 + random.nextInt(20), 0.3, 1.3)
              .map(g -> g > 1.2 ? Double.NaN : g)
              .toArray();
      DayFit fit = fit(ALL, grips);
      List<String> all = new ArrayList<>();
      for (DayFit.Part p : fit.parts()) {
        all.addAll(p.laps());
        if (p.day() != null) {
          assertThat(Math.abs(p.grip() / p.day().grip() - 1)).isLessThanOrEqualTo(0.1);
        }
      }
      assertThat(all)
          .containsExactlyInAnyOrderElementsOf(
              IntStream.range(0, grips.length).mapToObj(i -> "l" + i).toList());
    }
  }
}
