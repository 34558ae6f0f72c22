package marvek.core.rehearse;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Example;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.plan.ComputedLap;
import marvek.core.survey.Things;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** What is often missed, and what there is to remember it by. */
class RememberTest {
  private final Example example = Example.of("cup-gt");
  private final ComputedLap lap = example.computed;
  private final List<CornerEntry> entries = example.draft.corners();

  private List<Remember> after(Things things, @Nullable Double... off) {
    List<Fact> facts = Facts.of(lap, things, entries, Set.of());
    Fact brake =
        facts.stream()
            .filter(f -> f.asks() == Fact.Asks.PLACE && f.action().equals("brake"))
            .findFirst()
            .orElseThrow();
    List<Known.Given> given = new ArrayList<>();
    for (int i = 0; i < off.length; i++) {
      Double by = off[i];
      given.add(
          new Known.Given(
              Instant.EPOCH.plus(Duration.ofDays(i)),
              new Rehearsed(
                  brake.id(),
                  by == null ? null : (Double) (brake.answer() + by),
                  brake.answer(),
                  brake.precision(),
                  0,
                  0,
                  false,
                  null,
                  null,
                  List.of(),
                  List.of(),
                  null)));
    }
    Map<String, Known.Standing> known = Known.of(facts, given, lap.road().length(), Weights.USUAL);
    return Remember.of(lap, things, entries, facts, known);
  }

  private double brake() {
    return Facts.of(lap, Things.none(), entries, Set.of()).stream()
        .filter(f -> f.asks() == Fact.Asks.PLACE && f.action().equals("brake"))
        .findFirst()
        .orElseThrow()
        .answer();
  }

  private static Things with(List<Landmark> landmarks) {
    return new Things(landmarks, List.of(), List.of(), List.of(), List.of());
  }

  private static Landmark board(double station, String photo) {
    return new Landmark(
        "b1",
        LandmarkKind.BOARD,
        "100",
        station,
        true,
        "",
        3,
        1,
        Landmark.Permanence.FIXED,
        true,
        null,
        "",
        photo,
        0);
  }

  @Test
  void onlyWhatIsWrongEveryOtherTimeAndTheLastTimeIsNamed() {
    assertThat(after(Things.none(), 40.0, null)).isEmpty();
    assertThat(after(Things.none(), 40.0, null, 30.0)).hasSize(1);
    assertThat(after(Things.none(), 40.0, null, 0.0)).isEmpty();
    assertThat(after(Things.none(), 0.0, 0.0, 0.0, 40.0)).isEmpty();
    Remember named = after(Things.none(), 0.0, 40.0, 40.0).get(0);
    assertThat(named.times()).isEqualTo(3);
    assertThat(named.missed()).isEqualTo(2);
    assertThat(named.better()).isNull();
    assertThat(named.photo()).isEmpty();
  }

  /** A board beside a place that hung on nothing tells it better, and its picture is shown. */
  @Test
  void aBetterCueInReachAndItsPictureAreOffered() {
    Things things = with(List.of(board(brake(), "p1")));
    Remember named = after(things, 40.0, null, 30.0).get(0);
    assertThat(named.better()).isNotNull();
    assertThat(named.better().cue().thing()).isEqualTo("b1");
    assertThat(named.better().precision()).isLessThan(0.76 * named.from());
    assertThat(named.photo()).isEqualTo("p1");
    Things away = with(List.of(board(brake() + 300, "p1")));
    assertThat(after(away, 40.0, null, 30.0).get(0).photo()).isEmpty();
  }
}
