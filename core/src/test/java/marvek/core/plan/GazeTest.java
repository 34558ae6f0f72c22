package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Objects;
import marvek.core.circuit.Centreline;
import marvek.core.entry.ContentCheck;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.fixtures.Device;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.refusal.Refusal;
import marvek.core.said.Said;
import marvek.core.score.Action;
import marvek.core.score.ActionBuilder;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
import marvek.core.score.CueKind;
import marvek.core.survey.Things;
import marvek.core.words.Speaker;
import org.junit.jupiter.api.Test;

/** Where what is looked at stands. */
class GazeTest {
  private static final ComputedLap LAP = Device.DESK;
  private static final Centreline ROAD = LAP.road();

  private static Landmark thing(
      String id, LandmarkKind kind, double at, double out, double length, double height) {
    return new Landmark(
        id,
        kind,
        id,
        ROAD.wrap(at),
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

  private static Action look(double at, Cue target) {
    return ActionBuilder.builder(Action.of("look", ActionKind.EYES, ROAD.wrap(at), null))
        .target(target)
        .build();
  }

  private static Cue at(String thing) {
    return Cue.of(CueKind.BESIDE, thing, thing, 0);
  }

  private static Gaze gaze(Action look, Landmark... things) {
    return cues(things).gaze(look, List.of(look)).orElseThrow();
  }

  private static Cues cues(Landmark... things) {
    return new Cues(LAP, new Things(List.of(things), List.of(), List.of(), List.of(), List.of()));
  }

  /** A station with 200 m of straight road on which the line runs straight as well. */
  private static double straight() {
    for (double s = 0; s < ROAD.length(); s += 5) {
      boolean straight = true;
      for (double d = 0; d < 120; d += 4) {
        int i = ROAD.index(ROAD.wrap(s + d));
        int first = ROAD.index(ROAD.wrap(s));
        straight &= Math.abs(ROAD.heading()[i] - ROAD.heading()[first]) < 1e-6;
        straight &= Math.abs(LAP.path().heading()[i] - ROAD.heading()[i]) < 0.01;
      }
      if (straight) {
        return s;
      }
    }
    throw new IllegalStateException("the road has a straight");
  }

  @Test
  void aThingStandsAsFarToTheSideAndAheadAsGeometrySays() {
    double from = straight();
    int i = ROAD.index(ROAD.wrap(from));
    for (double ahead : new double[] {20, 60, 110}) {
      for (double out : new double[] {0, 4, 9}) {
        Gaze gaze =
            gaze(look(from, at("post")), thing("post", LandmarkKind.POST, from + ahead, out, 0, 1));
        double aside = ROAD.left()[i] + out - LAP.path().offset()[i];
        assertThat(gaze.metres()).isCloseTo(ahead, within(0.01));
        assertThat(gaze.angle()).isCloseTo(Math.atan2(aside, ahead), within(0.012));
        double v = LAP.lap().speed()[i];
        assertThat(gaze.seconds()).isBetween(ahead / (1.35 * v), ahead / (0.75 * v));
        assertThat(gaze.why().key().equals("gaze.aside"))
            .isEqualTo(gaze.angle() > Math.toRadians(40));
      }
    }
    assertThat(
            gaze(look(from, at("post")), thing("post", LandmarkKind.POST, from - 8, 3, 0, 1))
                .why()
                .key())
        .isEqualTo("gaze.behind");
  }

  @Test
  void whatIsHiddenIsSaidToBeSo() {
    double from = straight();
    Landmark far = thing("far", LandmarkKind.POST, from + 100, 12, 0, 1);
    assertThat(gaze(look(from, at("far")), far).why()).isEqualTo(Said.NOTHING);
    Landmark hedge = thing("hedge", LandmarkKind.WALL, from + 30, 1, 60, 3);
    assertThat(gaze(look(from, at("far")), far, hedge).why().key()).isEqualTo("gaze.hidden");
    Landmark low = thing("hedge", LandmarkKind.WALL, from + 30, 1, 60, 0.2);
    assertThat(gaze(look(from, at("far")), far, low).why()).isEqualTo(Said.NOTHING);
    Action gone = look(from, at("gone"));
    assertThat(cues(far).gaze(gone, List.of(gone))).isEmpty();
    assertThat(cues(far).gaze(look(from, null), List.of())).isEmpty();
  }

  @Test
  void anotherActionIsLookedAtWhereItIsOnTheLine() {
    ComputedLap lap = Drives.computed(RandomRoads.of(5150, 240), "cup-gt");
    Centreline road = lap.road();
    int looked = 0;
    for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
      double turnIn = e.station(PointKind.TURN_IN).orElseThrow();
      double apex = e.station(PointKind.APEX).orElseThrow();
      Action look =
          ActionBuilder.builder(Action.of("look", ActionKind.EYES, turnIn, null))
              .target(Cue.where(Score.id(PointKind.APEX)))
              .note("late")
              .build();
      CornerEntry with = Score.with(e, look);
      ScoredAction scored =
          Answers.answer(lap, with).score().stream()
              .filter(s -> s.action().id().equals("look"))
              .findFirst()
              .orElseThrow();
      Gaze gaze = Objects.requireNonNull(scored.gaze());
      double[] here = place(lap, turnIn);
      double[] there = place(lap, apex);
      double towards = Math.atan2(there[1] - here[1], there[0] - here[0]);
      double heading = lap.path().heading()[road.index(turnIn)];
      assertThat(gaze.angle())
          .isCloseTo(Math.abs(Math.IEEEremainder(towards - heading, 2 * Math.PI)), within(0.03));
      assertThat(gaze.metres()).isCloseTo(road.apart(turnIn, apex), within(0.01));
      assertThat(scored.trouble()).isEqualTo(gaze.why());
      assertThat(Speaker.PLAIN.say(scored.line())).startsWith("look at apex, late");
      assertThat(Speaker.PLAIN.say(look.said())).isEqualTo("look at apex, late");
      looked += gaze.angle() > 0.02 ? 1 : 0;
    }
    assertThat(looked).isGreaterThan(4);
  }

  @Test
  void whatIsGoneIsSaidToBeSo() {
    CornerEntry e = Drafter.draft(LAP, List.of()).corners().get(0);
    double at = e.station(PointKind.TURN_IN).orElseThrow();
    assertThat(trouble(e, look(at, at("gone")))).isEqualTo("gaze.gone");
    assertThat(trouble(e, look(at, Cue.where("gone")))).isEqualTo("gaze.no_action");
    assertThat(trouble(e, look(at, null))).isEqualTo(Said.NOTHING.key());
  }

  @Test
  void onlyEyesLookAndOnlyAtAPlace() {
    CornerEntry e = Drafter.draft(LAP, List.of()).corners().get(0);
    double at = e.station(PointKind.TURN_IN).orElseThrow();
    checked(Score.with(e, look(at, at("post"))));
    checked(Score.with(e, look(at, Cue.where("apex"))));
    Action lift =
        ActionBuilder.builder(Action.of("lift", ActionKind.LIFT, at, 0.4))
            .target(at("post"))
            .build();
    List<Action> wrong =
        List.of(
            lift,
            look(at, Cue.of(CueKind.LIMITER, 2)),
            look(at, Cue.after("apex", 1)),
            look(at, Cue.where("")),
            look(at, at("")));
    for (Action a : wrong) {
      assertThatThrownBy(() -> checked(Score.with(e, a))).as("%s", a).isInstanceOf(Refusal.class);
    }
  }

  private static void checked(CornerEntry e) {
    ContentCheck.entry(LAP.corners(), ROAD.length(), 6, e);
  }

  private static String trouble(CornerEntry e, Action look) {
    return Answers.answer(LAP, Score.with(e, look)).score().stream()
        .filter(s -> s.action().id().equals("look"))
        .findFirst()
        .orElseThrow()
        .trouble()
        .key();
  }

  @Test
  void wordsAloneAreSaidAsTheyAre() {
    Action plain = look(100, null);
    assertThat(Speaker.PLAIN.say(plain.said())).isEqualTo("eyes");
    Action words = ActionBuilder.builder(plain).note("the far kerb").build();
    assertThat(Speaker.PLAIN.say(words.said())).isEqualTo("look at the far kerb");
  }

  private static double[] place(ComputedLap lap, double station) {
    Centreline road = lap.road();
    int i = road.index(station);
    double h = road.heading()[i];
    double across = lap.path().offset()[i];
    return new double[] {road.x()[i] - across * Math.sin(h), road.y()[i] + across * Math.cos(h)};
  }
}
