package marvek.core.anew;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import marvek.core.circuit.CircuitReading;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Plain;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Conditions;
import marvek.core.lap.Ground;
import marvek.core.line.MinimumCurvature;
import marvek.core.line.Room;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.plan.LostBrakings;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A reference on the line of least bending, computed anew on the quickest one. */
@Tag("slow")
class RecomputedTest {
  private final List<ComputedLap> both = new ArrayList<>();

  private void computedLaps(long seed, String vehicle) {
    CircuitReading survey = RandomRoads.of(seed, 190);
    Vehicle v = VehicleClasses.byId(vehicle).vehicle();
    both.add(
        ComputedLap.onLine(
            survey.centreline(),
            survey.corners(),
            Ground.good(survey.centreline().size()),
            v,
            Conditions.dryWarm(),
            MinimumCurvature.offsets(survey.centreline(), Room.on(survey.centreline(), v))));
    both.add(Drives.computed(survey, v));
  }

  @ParameterizedTest
  @CsvSource({"60, cup-gt", "61, small-hatch", "62, downforce-prototype"})
  void aDraftBecomesTheNewDraftAndTheDriversOwnMovesAlong(long seed, String vehicle) {
    computedLaps(seed, vehicle);
    ComputedLap was = both.get(0);
    ComputedLap is = both.get(1);
    ReferenceContent old = Drafter.draft(was, List.of());
    ReferenceContent anew = Drafter.draft(is, List.of());
    Recomputed drafted = Recomputed.of(was, is, old);
    List<CornerEntry> own = new ArrayList<>();
    for (CornerEntry e : old.corners()) {
      own.add(
          e.station(PointKind.BRAKE).isPresent()
              ? e.copy()
                  .moved(
                      PointKind.BRAKE,
                      is.road().wrap(e.station(PointKind.BRAKE).orElseThrow() - 12))
                  .done()
              : e);
    }
    Recomputed moved = Recomputed.of(was, is, old.with(own));
    assertThat(LostBrakings.in(is, drafted.content())).isEmpty();
    assertThat(LostBrakings.in(is, moved.content())).isEmpty();
    int compared = 0;
    for (int c = 0; c < own.size(); c++) {
      CornerEntry got = drafted.content().corners().get(c);
      CornerEntry want = anew.corners().get(c);
      assertThat(got.slowing()).isEqualTo(want.slowing());
      for (CornerPoint p : got.points()) {
        if (want.station(p.kind()).isPresent()
            && old.corners().get(c).station(p.kind()).isPresent()) {
          assertThat(is.road().apart(want.station(p.kind()).orElseThrow(), p.station()))
              .as(got.corner() + " " + p.kind())
              .isCloseTo(0, within(0.51));
          compared++;
        }
      }
      boolean mine =
          own.get(c).station(PointKind.BRAKE).isPresent()
              && got.station(PointKind.BRAKE).isPresent();
      if (mine) {
        assertThat(
                is.road()
                    .apart(
                        got.station(PointKind.BRAKE).orElseThrow(),
                        moved.content().corners().get(c).station(PointKind.BRAKE).orElseThrow()))
            .isCloseTo(-12, within(0.01));
      }
    }
    assertThat(compared).isGreaterThan(3 * own.size());
    double said = drafted.corners().stream().mapToDouble(Recomputed.Change::seconds).sum();
    double truth = is.lap().lapTime() - was.lap().lapTime();
    assertThat(truth).isLessThan(-0.1);
    assertThat(said).isCloseTo(truth, within(0.15 + 0.2 * Math.abs(truth)));
    assertThat(drafted.corners()).allMatch(k -> Plain.words(k.words()).endsWith("."));
  }

  @ParameterizedTest
  @CsvSource({"60, cup-gt", "63, small-hatch"})
  void aBrakingThatTheReferenceLeftOutIsSaidAndMended(long seed, String vehicle) {
    computedLaps(seed, vehicle);
    ComputedLap is = both.get(1);
    List<CornerEntry> own = new ArrayList<>();
    String left = null;
    for (CornerEntry e : Drafter.draft(is, List.of()).corners()) {
      boolean out = left == null && e.slowing() == Slowing.BRAKE;
      left = out ? e.corner() : left;
      own.add(out ? e.copy().slowing(Slowing.LIFT).done() : e);
    }
    String corner = left;
    Recomputed mended = Recomputed.of(is, is, new ReferenceContent(own));
    assertThat(mended.corners()).hasSize(1);
    Recomputed.Change said = mended.corners().get(0);
    assertThat(said.corner()).isEqualTo(corner);
    assertThat(said.lost()).isTrue();
    assertThat(Plain.words(said.words())).startsWith("The lap brakes here from ").contains("km/h");
    assertThat(LostBrakings.in(is, mended.content())).isEmpty();
  }
}
