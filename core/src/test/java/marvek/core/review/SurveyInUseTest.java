package marvek.core.review;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import marvek.core.anew.Doubt;
import marvek.core.anew.Rejoin;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.Corner;
import marvek.core.circuit.OutlineFile;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Example;
import marvek.core.fixtures.Plain;
import marvek.core.fixtures.Tracks;
import marvek.core.lap.Conditions;
import marvek.core.lap.Surface;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.marker.MarkerJudge;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.survey.Place;
import marvek.core.survey.Things;
import marvek.core.survey.Zone;
import marvek.core.survey.ZoneKind;
import marvek.core.survey.Zones;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What a survey means for a reference. */
@Tag("slow")
class SurveyInUseTest {
  private static final Example GT = Example.of("cup-gt");
  private static final MarkerJudge.View ALONE = new MarkerJudge.View(null, null, false, 1);

  private static Things only(List<Landmark> landmarks, Zone... zones) {
    return new Things(landmarks, List.of(), List.of(zones), List.of(), List.of());
  }

  private static ReferenceContent tied(List<Landmark> landmarks) {
    return Drafter.draft(GT.computed, landmarks);
  }

  @Test
  void aBetterLandmarkInReachIsNamed() {
    double brake = GT.first().station(PointKind.BRAKE).orElseThrow();
    Landmark cone = new Landmark("cone", LandmarkKind.CONE, "cone", brake - 4, true, "");
    Landmark post = new Landmark("post", LandmarkKind.POST, "post 3", brake - 7, true, "");
    ReferenceContent content = tied(List.of(cone));
    MarkerReview alone = MarkerReview.of(GT.computed, content, only(List.of(cone)), ALONE);
    MarkerReview.MarkedPoint point = brakeOf(alone);
    assertThat(point.better()).isNull();
    MarkerReview both = MarkerReview.of(GT.computed, content, only(List.of(cone, post)), ALONE);
    assertThat(brakeOf(both).better()).isNotNull();
    assertThat(brakeOf(both).better().landmark()).isEqualTo("post");
    assertThat(brakeOf(both).better().past()).isCloseTo(7, within(1.0));
    assertThat(both.all()).hasSize(2);
  }

  private static MarkerReview.MarkedPoint brakeOf(MarkerReview review) {
    return review.points().stream()
        .filter(p -> p.corner().equals("c1") && p.kind() == PointKind.BRAKE)
        .findFirst()
        .orElseThrow();
  }

  @Test
  void aCornerWithNothingIsListedWithWhatCouldServe() {
    double brake = GT.first().station(PointKind.BRAKE).orElseThrow();
    Zone seam =
        new Zone(
            "z", ZoneKind.SURFACE_CHANGE, Zone.Side.BOTH, brake - 30, brake - 12, 1, null, "", "");
    MarkerReview bare = MarkerReview.of(GT.computed, tied(List.of()), only(List.of()), ALONE);
    assertThat(bare.bare()).hasSize(4);
    MarkerReview with = MarkerReview.of(GT.computed, tied(List.of()), only(List.of(), seam), ALONE);
    assertThat(with.bare().get(0).serves())
        .isNotEmpty()
        .first()
        .satisfies(
            s -> {
              assertThat(Plain.words(s.words()))
                  .contains("12 m past the end of: change of surface");
              // 0.7 m for the seam itself, 12 % of twelve metres by eye.
              assertThat(s.precision()).isCloseTo(Math.hypot(0.7, 0.12 * 12), within(0.1));
            });
  }

  @Test
  void dampGroundMovesTheBrakingMarkerBack() {
    Centreline road = GT.computed.road();
    Corner corner = GT.computed.corners().get(0);
    Zone damp =
        new Zone(
            "z", ZoneKind.DAMP, Zone.Side.BOTH, corner.entry(), corner.exit(), 3, 0.75, "", "");
    ComputedLap wet =
        ComputedLap.compute(
            road,
            GT.computed.corners(),
            Zones.ground(road, List.of(damp), Surface.damp()),
            GT.computed.vehicle(),
            Conditions.dryWarm());
    double dry = GT.first().station(PointKind.BRAKE).orElseThrow();
    double sooner =
        Drafter.draft(wet, List.of()).corners().get(0).station(PointKind.BRAKE).orElseThrow();
    assertThat(road.apart(sooner, dry)).isGreaterThan(5);
    assertThat(wet.lap().lapTime()).isGreaterThan(GT.computed.lap().lapTime() + 0.2);
    int slow = wet.slowest(0);
    assertThat(wet.lap().speed()[slow])
        .isLessThan(GT.computed.lap().speed()[GT.computed.slowest(0)] * Math.sqrt(0.78));
  }

  @Test
  void pointsAreInDoubtWhereTheGroundOrTheirLandmarkChanged() {
    ReferenceContent content = tied(GT.boards);
    Centreline road = GT.computed.road();
    double brake = GT.first().station(PointKind.BRAKE).orElseThrow();
    List<Doubt> none = Doubt.about(road, content, GT.boards, GT.boards, List.of());
    assertThat(none).isEmpty();
    List<Doubt> stretch =
        Doubt.about(
            road,
            content,
            GT.boards,
            GT.boards,
            List.of(new Doubt.Change(road.wrap(brake - 5), road.wrap(brake + 5), "new tarmac")));
    assertThat(stretch)
        .containsExactly(
            new Doubt("c1", PointKind.BRAKE, Said.of("doubt.changed", Value.own("new tarmac"))));
    String tiedTo =
        GT.first().points().stream()
            .filter(p -> p.kind() == PointKind.BRAKE)
            .findFirst()
            .orElseThrow()
            .tie()
            .landmark();
    List<Landmark> moved = new ArrayList<>();
    for (Landmark l : GT.boards) {
      moved.add(
          l.id().equals(tiedTo)
              ? new Landmark(l.id(), l.kind(), l.label(), l.station() - 10, l.left(), l.corner())
              : l);
    }
    assertThat(Doubt.about(road, content, GT.boards, moved, List.of()))
        .anySatisfy(d -> assertThat(Plain.words(d.why())).contains("moved 10 m back"));
    moved.removeIf(l -> l.id().equals(tiedTo));
    assertThat(Doubt.about(road, content, GT.boards, moved, List.of()))
        .anySatisfy(d -> assertThat(Plain.words(d.why())).contains("has gone"));
  }

  private static ComputedLap square(double straight) {
    CircuitReading reading =
        CircuitReader.read(
            OutlineFile.read(Tracks.square(straight, 60, 4).csv()),
            new CircuitReader.Choices(false, straight / 3, 12, false));
    return Drives.computed(reading, GT.computed.vehicle());
  }

  @Test
  void longStraightsLetOneLookAtTheInstruments() {
    assertThat(Glances.on(square(110))).as("too short").isEmpty();
    ComputedLap computed = square(1100);
    List<Place> places = Glances.on(computed);
    assertThat(places).hasSize(4);
    for (Place p : places) {
      double seconds = 0;
      double span = computed.road().ahead(p.from(), p.to());
      for (double s = 0; s < span; s += 1) {
        int i = computed.road().index(p.from() + s);
        assertThat(computed.lap().brake()[i]).as("no braking there").isZero();
        seconds += 1 / computed.lap().speed()[i];
      }
      assertThat(seconds).isGreaterThan(1);
    }
  }

  @Test
  void entriesFollowTheCornersThatThereAre() {
    List<Corner> three = GT.computed.corners().subList(0, 3);
    ComputedLap fewer =
        ComputedLap.onLine(
            GT.computed.road(),
            three,
            GT.computed.ground(),
            GT.computed.vehicle(),
            Conditions.dryWarm(),
            GT.computed.path().offset());
    assertThat(Rejoin.fits(GT.computed.corners(), GT.draft)).isTrue();
    assertThat(Rejoin.fits(three, GT.draft)).isFalse();
    assertThat(Rejoin.entries(fewer, GT.draft).corners())
        .isEqualTo(GT.draft.corners().subList(0, 3));
    ReferenceContent two = new ReferenceContent(GT.draft.corners().subList(0, 2));
    assertThat(Rejoin.entries(GT.computed, two).corners())
        .hasSize(4)
        .startsWith(GT.draft.corners().get(0), GT.draft.corners().get(1));
  }

  @Test
  void theBoostNeverSpendsMoreThanBrakingGivesBack() {
    Example hybrid = Example.of("downforce-prototype");
    var boost = hybrid.computed.vehicle().boost();
    double spent =
        marvek.core.lap.LapSimulatorAccess.spent(
            hybrid.computed.path(), hybrid.computed.lap(), hybrid.computed.vehicle());
    double stored =
        marvek.core.lap.LapSimulatorAccess.stored(
            hybrid.computed.path(), hybrid.computed.lap(), hybrid.computed.vehicle());
    assertThat(boost).isNotNull();
    assertThat(spent).isPositive().isLessThanOrEqualTo(stored * 1.02);
  }
}
