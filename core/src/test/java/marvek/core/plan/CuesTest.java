package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReading;
import marvek.core.entry.Carried;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.fixtures.Device;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.numeric.Earlier;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
import marvek.core.score.CueKind;
import marvek.core.survey.Things;
import marvek.core.vehicle.Vehicle;
import marvek.core.words.Speaker;
import org.junit.jupiter.api.Test;

/** Cues found on the road: by what geometry and clocks say, and back again. */
class CuesTest {
  // 420 m of straight between bends: stations well inside the first one.
  private static final ComputedLap LAP = Device.DESK;
  private static final Centreline ROAD = LAP.road();
  private static final double STRAIGHT = straight();

  /** A station with 250 m of straight, level road ahead. */
  private static double straight() {
    for (double s = 0; s < ROAD.length(); s += 10) {
      boolean straight = true;
      for (double d = 0; d < 250; d += 5) {
        straight &=
            Math.abs(ROAD.heading()[ROAD.index(s + d)] - ROAD.heading()[ROAD.index(s)]) < 1e-6;
      }
      if (straight) {
        return s;
      }
    }
    throw new IllegalStateException("the road has a straight");
  }

  private static Landmark thing(String id, LandmarkKind kind, double ahead, double out) {
    return thing(id, kind, ahead, out, 0, 1);
  }

  private static Landmark thing(
      String id, LandmarkKind kind, double ahead, double out, double length, double height) {
    return new Landmark(
        id,
        kind,
        id,
        ROAD.wrap(STRAIGHT + ahead),
        true,
        "",
        out,
        height,
        Landmark.Permanence.FIXED,
        true,
        null,
        "",
        "",
        length);
  }

  private static Cues cues(Landmark... all) {
    return new Cues(LAP, new Things(List.of(all), List.of(), List.of(), List.of(), List.of()));
  }

  private static Action action(double ahead) {
    return Action.of("a", ActionKind.BRAKE, ROAD.wrap(STRAIGHT + ahead), null);
  }

  private static double ahead(Cues.Found found) {
    return ROAD.apart(STRAIGHT, Objects.requireNonNull(found.station()));
  }

  /** Metres outside the left edge at which a thing stands so far to the side of the line. */
  private static double outFor(double aside, double ahead) {
    int i = ROAD.index(STRAIGHT + ahead);
    return aside + LAP.path().offset()[i] - ROAD.left()[i];
  }

  @Test
  void aThingLeavesTheViewWhereItsAngleIsThatOfTheEyes() {
    // d / tan(half-angle) before: 6 m and 40° give 7.15 m (geometry). The line is not quite
    // parallel to the road, by 2° at most here.
    Cues cues = cues(thing("post", LandmarkKind.POST, 150, outFor(6, 150)));
    Cues.Found found =
        cues.find(Cue.of(CueKind.OUT_OF_VIEW, "post", "post", 0), action(140), List.of());
    assertThat(150 - ahead(found)).isCloseTo(7.15, within(0.6));
    double v = LAP.lap().speed()[ROAD.index(Objects.requireNonNull(found.station()))];
    assertThat(found.precision()).isBetween(0.1 * v, 0.1 * v + 1.5);
  }

  /** d / tan of the driver's own half-angle. */
  @Test
  void itIsTheDriversOwnSeatThatItIsSeenFrom() {
    Landmark post = thing("post", LandmarkKind.POST, 150, outFor(6, 150));
    Things things = new Things(List.of(post), List.of(), List.of(), List.of(), List.of());
    Cue leaves = Cue.of(CueKind.OUT_OF_VIEW, "post", "post", 0);
    for (double half : new double[] {25, 40, 60}) {
      ComputedLap lap =
          ComputedLap.onLine(
              ROAD,
              LAP.corners(),
              LAP.ground(),
              LAP.vehicle().copy().seat(new Vehicle.Seat(0.6, Math.toRadians(half))).build(),
              LAP.conditions(),
              LAP.path().offset());
      assertThat(lap.eye()).isEqualTo(0.6);
      Cues.Found found = new Cues(lap, things).find(leaves, action(140), List.of());
      assertThat(150 - ahead(found))
          .isCloseTo(
              6 / Math.tan(Math.toRadians(half)),
              within(0.1 * 6 / Math.tan(Math.toRadians(half)) + 0.3));
    }
    Vehicle.Seat usual = LAP.vehicle().seatOrUsual();
    assertThat(Math.toDegrees(usual.halfAngle())).isCloseTo(40, within(1e-9));
  }

  private static Landmark seen(Landmark l, double comes, double leaves) {
    return new Landmark(
        l.id(),
        l.kind(),
        l.label(),
        l.station(),
        l.left(),
        l.corner(),
        l.out(),
        l.height(),
        l.permanence(),
        l.readable(),
        null,
        "",
        "",
        l.length(),
        new Landmark.Seen(ROAD.wrap(STRAIGHT + comes), ROAD.wrap(STRAIGHT + leaves)));
  }

  /** A press on another piece of the lap, or a thing moved since, moves no cue. */
  @Test
  void aThingIsNotSeenFromWhereItCannotBe() {
    Landmark post = thing("post", LandmarkKind.POST, 150, outFor(12, 150));
    Cue leaves = Cue.of(CueKind.OUT_OF_VIEW, "post", "post", 0);
    Cue comes = Cue.of(CueKind.INTO_VIEW, "post", "post", 0);
    for (double[] wrong : new double[][] {{-400, 175}, {240, 600}}) {
      Landmark off = seen(post, wrong[0], wrong[1]);
      assertThat(cues(off).find(leaves, action(140), List.of()))
          .isEqualTo(cues(post).find(leaves, action(140), List.of()));
      assertThat(cues(off).find(comes, action(30), List.of()))
          .isEqualTo(cues(post).find(comes, action(30), List.of()));
    }
  }

  /** What was measured on a film stands before what is computed, and is doubted less. */
  @Test
  void aThingIsSeenFromWhereItWasMeasured() {
    Landmark post = thing("post", LandmarkKind.POST, 150, outFor(12, 150));
    Landmark measured = seen(post, 20, 128);
    Cue leaves = Cue.of(CueKind.OUT_OF_VIEW, "post", "post", 0);
    Cues.Found computed = cues(post).find(leaves, action(140), List.of());
    Cues.Found found = cues(measured).find(leaves, action(140), List.of());
    assertThat(ahead(found)).isCloseTo(128, within(1e-6));
    assertThat(found.precision()).isLessThan(computed.precision());
    Cues.Found comes =
        cues(measured).find(Cue.of(CueKind.INTO_VIEW, "post", "post", 0), action(30), List.of());
    assertThat(ahead(comes)).isCloseTo(20, within(1e-6));
  }

  @Test
  void aThingComesIntoViewWhereTheWallNoLongerCoversIt() {
    // The thing at (100, 10), a wall at 6 from 50 to 80, eyes on 0: in view from 50 on (geometry).
    Cues cues =
        cues(
            thing("post", LandmarkKind.POST, 100, outFor(10, 100)),
            thing("wall", LandmarkKind.WALL, 50, outFor(6, 65), 30, 3));
    Cues.Found found =
        cues.find(Cue.of(CueKind.INTO_VIEW, "post", "post", 0), action(60), List.of());
    assertThat(ahead(found)).isCloseTo(50, within(4.0));
  }

  @Test
  void aLowWallHidesNothingHigh() {
    Cues cues =
        cues(
            thing("tree", LandmarkKind.TREE, 100, outFor(10, 100), 0, 8),
            thing("wall", LandmarkKind.WALL, 50, outFor(6, 65), 30, 0.5));
    Cues.Found found =
        cues.find(Cue.of(CueKind.INTO_VIEW, "tree", "tree", 0), action(60), List.of());
    assertThat(found.station()).isNull();
    assertThat(found.why().key()).isEqualTo("cue.always_seen");
  }

  @Test
  void secondsAreThoseOfTheLap() {
    // A clock of its own: the lap's times, between its stations by straight lines.
    Action before = Action.of("b", ActionKind.LIFT, ROAD.wrap(STRAIGHT + 20), 0.4);
    for (double seconds : new double[] {0.3, 1, 2.5}) {
      Cues.Found found =
          cues().find(Cue.after("b", seconds), action(60), List.of(before, action(60)));
      double passed =
          LAP.lap()
              .between(
                  ROAD.index(before.station()),
                  ROAD.index(Objects.requireNonNull(found.station())));
      assertThat(passed).isCloseTo(seconds, within(0.04));
      double v = LAP.lap().speed()[ROAD.index(found.station())];
      assertThat(found.precision()).isCloseTo(v * Math.max(0.1, 0.1 * seconds), within(0.05 * v));
    }
  }

  @Test
  void cuesOnEachOtherInACircleAreRefusedWithBoth() {
    Action a = action(60).found(Cue.after("b", 1));
    Action b =
        Action.of("b", ActionKind.LIFT, ROAD.wrap(STRAIGHT + 20), 0.4).found(Cue.after("a", 1));
    Cues.Found found = cues().find(Objects.requireNonNull(a.cue()), a, List.of(a, b));
    assertThat(found.station()).isNull();
    assertThat(found.why().key()).isEqualTo("cue.circle");
    assertThat(found.why().values()).hasSize(2);
  }

  @Test
  void whatIsGoneOrHasNoLengthIsSaid() {
    Cues cues = cues(thing("post", LandmarkKind.POST, 100, 3));
    assertThat(
            cues.find(Cue.of(CueKind.PAST, "x", "the old board", 5), action(60), List.of())
                .why()
                .key())
        .isEqualTo("cue.gone");
    assertThat(
            cues.find(Cue.of(CueKind.SHARE, "post", "post", 0.5), action(60), List.of())
                .why()
                .key())
        .isEqualTo("cue.not_long");
  }

  @Test
  void aThingThatMovesTakesItsActionsAlong() {
    Action first = action(90).found(Cue.of(CueKind.PAST, "post", "post", -10));
    Action then =
        Action.of("t", ActionKind.FULL, ROAD.wrap(STRAIGHT + 200), null).found(Cue.after("a", 1));
    List<Action> was = cues(thing("post", LandmarkKind.POST, 100, 3)).placed(List.of(first, then));
    List<Action> is = cues(thing("post", LandmarkKind.POST, 112, 3)).placed(was);
    assertThat(ROAD.apart(was.get(0).station(), is.get(0).station())).isCloseTo(12, within(0.01));
    assertThat(ROAD.apart(was.get(1).station(), is.get(1).station())).isBetween(8.0, 16.0);
  }

  @Test
  void ofTwoCuesHeldTogetherTheEarlierCounts() {
    Landmark post = thing("post", LandmarkKind.POST, 100, 3);
    Landmark board = thing("board", LandmarkKind.BOARD, 120, 3);
    Action both =
        marvek.core.score.ActionBuilder.builder(action(0))
            .cue(Cue.of(CueKind.BESIDE, "board", "board", 0))
            .together(Cue.of(CueKind.PAST, "post", "post", -3))
            .build();
    assertThat(ROAD.apart(STRAIGHT, cues(post, board).placed(List.of(both)).get(0).station()))
        .isCloseTo(97, within(0.01));
    List<HeldCue> held = cues(post, board).held(both, List.of(both));
    assertThat(held).extracting(HeldCue::counts).containsExactly(false, true);
    Action theOther = both.found(both.together(), both.cue(), null);
    assertThat(cues(post, board).held(theOther, List.of(theOther)))
        .extracting(HeldCue::counts)
        .containsExactly(true, false);
  }

  @Test
  void aBackUpCountsOnlyWhereNothingElseHappens() {
    Landmark post = thing("post", LandmarkKind.POST, 100, 3);
    Landmark board = thing("board", LandmarkKind.BOARD, 60, 3);
    Cue beside = Cue.of(CueKind.BESIDE, "post", "post", 0);
    Cue past = Cue.of(CueKind.PAST, "board", "board", 35);
    Action backed = action(0).found(beside, null, past);
    // The one behind comes earlier along the road, and is not asked while the first happens.
    assertThat(ROAD.apart(STRAIGHT, cues(post, board).placed(List.of(backed)).get(0).station()))
        .isCloseTo(100, within(0.01));
    List<HeldCue> gone = cues(board).held(backed, List.of(backed));
    assertThat(gone).extracting(HeldCue::counts).containsExactly(false, true);
    assertThat(gone.get(0).why().key()).isEqualTo("cue.gone");
    assertThat(ROAD.apart(STRAIGHT, cues(board).placed(List.of(backed)).get(0).station()))
        .isCloseTo(95, within(0.01));
    // With neither it stays where it was.
    assertThat(cues().placed(List.of(backed)).get(0).station()).isEqualTo(backed.station());
    assertThat(Speaker.PLAIN.say(backed.line(List.of(backed))))
        .endsWith("beside post (hidden: 35 m past board)");
  }

  @Test
  void ofTwoThatAreHeldTogetherBothScatter() {
    Landmark post = thing("post", LandmarkKind.POST, 100, 3);
    Landmark board = thing("board", LandmarkKind.BOARD, 90, 3);
    Cue one = Cue.of(CueKind.PAST, "post", "post", 10);
    Cue alike = Cue.of(CueKind.PAST, "board", "board", 21);
    Cues cues = cues(post, board);
    Action alone = action(110).found(one, null, null);
    Action both = alone.found(one, alike, null);
    Action backed = alone.found(one, null, alike);
    Cues.Met single = cues.met(alone, List.of(alone)).orElseThrow();
    assertThat(single.by()).isZero();
    assertThat(single.precision())
        .isEqualTo(cues.find(one, alone, List.of(alone)).precision())
        .isEqualTo(cues.met(backed, List.of(backed)).orElseThrow().precision());
    Earlier earlier =
        Earlier.of(0, single.precision(), 1, cues.find(alike, both, List.of(both)).precision());
    Cues.Met met = cues.met(both, List.of(both)).orElseThrow();
    assertThat(met.by()).isCloseTo(earlier.mean(), within(1e-9)).isNegative();
    assertThat(met.precision()).isCloseTo(earlier.sigma(), within(1e-9));
    // The one of them that is gone does not scatter; where both are, the one behind counts alone.
    assertThat(cues(post).met(both, List.of(both)).orElseThrow()).isEqualTo(single);
    Action gone = both.found(Cue.of(CueKind.PAST, "no", "no", 1), null, one);
    assertThat(cues.met(gone, List.of(gone)).orElseThrow()).isEqualTo(single);
    assertThat(cues().met(both, List.of(both))).isEmpty();
  }

  @Test
  void theGearOfAShiftAndTheMetresToItsThingAreToldApart() {
    Action shift =
        marvek.core.score.ActionBuilder.builder(
                Action.of("s", ActionKind.SHIFT, ROAD.wrap(STRAIGHT + 112), null))
            .gear(3)
            .cue(Cue.of(CueKind.PAST, "post", "post", 12))
            .build();
    assertThat(Speaker.PLAIN.say(shift.line(List.of(shift))))
        .isEqualTo("take gear 3, 12 m past post");
    Action lift = Action.of("l", ActionKind.LIFT, 0, 0.4).found(shift.cue());
    assertThat(Speaker.PLAIN.say(lift.line(List.of(lift))))
        .isEqualTo("lift to 40 % 12 m past post");
  }

  @Test
  void anActionMovedByHandTakesAllItsCuesAlong() {
    Landmark post = thing("post", LandmarkKind.POST, 100, 3);
    Landmark board = thing("board", LandmarkKind.BOARD, 60, 3);
    Landmark tree = thing("tree", LandmarkKind.TREE, 96, 9);
    Things things =
        new Things(List.of(post, board, tree), List.of(), List.of(), List.of(), List.of());
    CornerEntry draft =
        Device.DRAFT.stream()
            .filter(e -> e.point(PointKind.BRAKE).isPresent())
            .findFirst()
            .orElseThrow();
    Action lift =
        Action.of("l", ActionKind.LIFT, ROAD.wrap(STRAIGHT + 110), 0.4)
            .found(
                Cue.of(CueKind.PAST, "post", "post", -10),
                Cue.of(CueKind.PAST, "board", "board", 30),
                Cue.of(CueKind.BESIDE, "tree", "tree", 0));
    Action now =
        Score.of(ROAD, Answers.moved(LAP, things, Score.with(draft, lift), "l")).stream()
            .filter(a -> a.id().equals("l"))
            .findFirst()
            .orElseThrow();
    assertThat(Objects.requireNonNull(now.cue()).number()).isCloseTo(10, within(1e-6));
    assertThat(Objects.requireNonNull(now.together()).number()).isCloseTo(50, within(1e-6));
    // Side by side with the tree is 14 m from there, and has no number that could follow.
    assertThat(now.backUp()).isNull();
  }

  @Test
  void whatARuleMovesStaysThereAndItsCueTakesAnotherNumber() {
    Landmark post = thing("post", LandmarkKind.POST, 100, 3);
    Things things = new Things(List.of(post), List.of(), List.of(), List.of(), List.of());
    CornerEntry draft =
        Device.DRAFT.stream()
            .filter(e -> e.point(PointKind.BRAKE).isPresent())
            .findFirst()
            .orElseThrow();
    Cue cue = Cue.of(CueKind.PAST, "post", "post", -10);
    double at = ROAD.wrap(STRAIGHT + 90);
    Action brake = Action.of("brake", ActionKind.BRAKE, at, 0.6).found(cue);
    Action lift =
        Action.of("l", ActionKind.LIFT, ROAD.wrap(STRAIGHT + 60), 0.4).found(cue.with(-40));
    CornerEntry had = Score.with(Score.with(draft, brake), lift);
    // A proposal, a way or another day moves the marker by metres, and knows no cues.
    double to = ROAD.wrap(at - 4);
    CornerEntry moved = had.copy().moved(PointKind.BRAKE, to).done();
    CornerEntry followed = Answers.followed(LAP, things, had, moved);
    CornerEntry placed = Answers.placed(LAP, things, followed);
    assertThat(placed.station(PointKind.BRAKE)).hasValue(to);
    Action now = Objects.requireNonNull(placed.point(PointKind.BRAKE).orElseThrow().play());
    assertThat(Objects.requireNonNull(now.cue()).number()).isCloseTo(-14, within(1e-6));
    assertThat(now.amount()).isEqualTo(0.6);
    assertThat(placed.actions()).isEqualTo(had.actions());
    // To the same place it is no move.
    assertThat(had.copy().moved(PointKind.BRAKE, at).done()).isEqualTo(had);

    // Carried to where the draft brakes 6 m sooner, the lift goes along, and its cue with it.
    CornerEntry sooner =
        draft
            .copy()
            .moved(PointKind.BRAKE, ROAD.wrap(draft.station(PointKind.BRAKE).orElseThrow() - 6))
            .done();
    CornerEntry carried =
        Answers.placed(
            LAP,
            things,
            Answers.followed(
                LAP, things, had, Carried.entry(ROAD, had, draft, sooner, 0.5, 6, null)));
    Action there = carried.actions().get(0);
    assertThat(ROAD.apart(lift.station(), there.station())).isCloseTo(-6, within(1e-6));
    assertThat(Objects.requireNonNull(there.cue()).number()).isCloseTo(-46, within(1e-6));
  }

  @Test
  void aNumberThatIsMovedPutsItsCueThere() {
    // Any road, any place: the number asked for a station leads back to it.
    Random random = new Random(3);
    int tried = 0;
    for (int k = 0; k < 3; k++) {
      CircuitReading read = RandomRoads.of(900 + k, 260);
      ComputedLap lap = Drives.computed(read, k == 0 ? "motorcycle-600" : "cup-gt");
      Centreline road = lap.road();
      List<Landmark> all = new ArrayList<>();
      for (int i = 0; i < 60; i++) {
        all.add(
            new Landmark(
                "l" + i,
                LandmarkKind.values()[random.nextInt(LandmarkKind.values().length)],
                "thing " + i,
                random.nextDouble() * road.length(),
                random.nextBoolean(),
                "",
                1 + 8 * random.nextDouble(),
                2 * random.nextDouble(),
                Landmark.Permanence.FIXED,
                true,
                null,
                "",
                "",
                random.nextInt(3) == 0 ? 60 * random.nextDouble() : 0));
      }
      Cues cues = new Cues(lap, new Things(all, List.of(), List.of(), List.of(), List.of()));
      for (int i = 0; i < 40; i++) {
        Action b = Action.of("b", ActionKind.BRAKE, random.nextDouble() * road.length(), null);
        Action a =
            Action.of(
                "a", ActionKind.EASE, road.wrap(b.station() + 15 + 40 * random.nextDouble()), 0.0);
        List<Action> score = List.of(b, a);
        List<Cues.Offer> reach = cues.reach(a, score);
        assertThat(reach).isNotEmpty();
        for (Cues.Offer o : reach) {
          if (o.cue().kind().number()) {
            assertThat(Math.abs(road.apart(o.station(), a.station())))
                .describedAs("%s", o)
                .isLessThan(o.cue().kind() == CueKind.REVS ? 3.0 : 0.6);
            tried++;
          }
          assertThat(o.precision()).isPositive();
          assertThat(Math.abs(o.moves())).isLessThanOrEqualTo(14);
        }
      }
    }
    assertThat(tried).isGreaterThan(200);
  }
}
