package marvek.core.words;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import marvek.core.circuit.Corner;
import marvek.core.entry.BrakedAgain;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.Detail;
import marvek.core.entry.KerbUse;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.score.Action;
import marvek.core.score.ActionBuilder;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
import marvek.core.score.CueKind;
import marvek.core.score.Sureness;
import marvek.core.survey.Kerb;
import marvek.core.technique.Pedals;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import org.junit.jupiter.api.Test;

/** What a corner is told in comes from the catalogue, at every length. */
class WordsOfCornersTest {
  private static final ComputedLap LAP = Drives.computed(RandomRoads.of(715, 240), "cup-gt");
  private static final Speech SPEECH = Speech.PLAIN.on(LAP.road().length());
  private static final Speaker MARKED = Speaker.of(SPEECH.in(Catalogue.MARKED));

  private static Corner corner(CornerEntry e) {
    return LAP.corners().get(LAP.indexOf(e.corner()));
  }

  /** An entry that holds all that can be said of a corner, by one answer to each question. */
  private static CornerEntry rich(CornerEntry e, int answer, Slowing slowing) {
    double apex = e.station(PointKind.APEX).orElseThrow();
    Map<Detail, String> details = new EnumMap<>(Detail.class);
    for (Detail d : Detail.values()) {
      details.put(d, d.choices().isEmpty() ? "as told" : d.choices().get(0));
    }
    List<School> schools = new ArrayList<>();
    for (Question q : Question.values()) {
      List<School> answers = School.answering(q);
      schools.add(answers.get(answer % answers.size()));
    }
    List<CornerPoint> points = new ArrayList<>();
    for (PointKind k : PointKind.values()) {
      double at = e.station(k).orElse(LAP.road().wrap(apex + 4 * k.ordinal() - 40));
      points.add(new CornerPoint(k, at, null, Sureness.UNSURE));
    }
    CornerEntry out =
        e.copy()
            .slowing(slowing)
            .details(details)
            .schools(schools)
            .points(points)
            .pedals(new Pedals(0.1, 0.5, 0.6, null, 0.2))
            .kerbs(
                List.of(new KerbUse(Kerb.Part.EXIT, Kerb.Verdict.HALF_THE_CAR, 10.0, 20.0, "it")))
            .again(List.of(new BrakedAgain(LAP.road().wrap(apex + 30), 50, 40)))
            .done();
    Action lift =
        Action.of("own", ActionKind.LIFT, LAP.road().wrap(apex - 60), 0.4)
            .found(Cue.of(CueKind.FEEL, 0));
    return answer == 0 ? out : Score.with(out, lift);
  }

  @Test
  void everyLengthComesFromTheCatalogue() {
    for (CornerEntry draft : Drafter.draft(LAP, List.of()).corners()) {
      for (Slowing slowing : Slowing.values()) {
        for (int answer = 0; answer < 3; answer++) {
          CornerEntry e = rich(draft, answer, slowing);
          Corner corner = corner(e);
          for (String said :
              List.of(
                  Sentence.full(corner, e, SPEECH, MARKED),
                  Sentence.line(corner, e, SPEECH, MARKED),
                  Sentence.pocket(corner, e, SPEECH, MARKED).replaceAll("\\d+ m\\b", ""))) {
            assertThat(Catalogue.outsideMarks(said)).as(said).doesNotContainPattern("\\p{L}");
            assertThat(said).contains(Catalogue.MARK);
          }
        }
      }
    }
  }

  /** Every answer to a question that the full words tell is told. */
  @Test
  void theWayChosenIsTold() {
    CornerEntry draft = Drafter.draft(LAP, List.of()).corners().get(0);
    for (School school : School.values()) {
      boolean untold =
          switch (school.question()) {
            // Told by the apex and by the release themselves.
            case APEX, RELEASE -> true;
            default -> false;
          };
      boolean lifts = school.question() == Question.LIFT || school.question() == Question.SLOW_WITH;
      CornerEntry e =
          rich(draft, 0, lifts ? Slowing.LIFT : Slowing.BRAKE)
              .copy()
              .schools(List.of(school))
              .done();
      String full = Sentence.full(corner(e), e, SPEECH).toLowerCase(java.util.Locale.ROOT);
      assertThat(full.contains(Speaker.PLAIN.say(school.said())))
          .as("%s in %s", school, full)
          .isEqualTo(!untold);
    }
  }

  /** What is written besides the points stands in the full words where it comes in driving. */
  @Test
  void theFullWordsAreInOrder() {
    int tried = 0;
    for (CornerEntry draft : Drafter.draft(LAP, List.of()).corners()) {
      double turnIn = draft.station(PointKind.TURN_IN).orElseThrow();
      double apex = draft.station(PointKind.APEX).orElseThrow();
      double throttle = draft.station(PointKind.FIRST_THROTTLE).orElse(apex);
      if (draft.slowing() != Slowing.BRAKE || LAP.road().apart(turnIn, apex) < 8) {
        continue;
      }
      double brake = draft.station(PointKind.BRAKE).orElseThrow();
      double after = LAP.road().apart(apex, throttle) > 0 ? throttle : apex;
      double[] at = {brake - 12, turnIn - 0.5, apex - 4, after + 6};
      CornerEntry e = draft.copy().actions(List.of()).done();
      for (int k = 0; k < at.length; k++) {
        e =
            Score.with(
                e,
                ActionBuilder.builder(
                        Action.of("own-" + k, ActionKind.EYES, LAP.road().wrap(at[k]), null))
                    .note("board " + k)
                    .build());
      }
      String full = Sentence.full(corner(e), e, SPEECH).toLowerCase(java.util.Locale.ROOT);
      assertThat(full)
          .containsSubsequence("board 0", "board 1", "turn in ", "board 2", "lowest", "board 3");
      tried++;
    }
    assertThat(tried).isGreaterThan(1);
  }

  /** Where no apex is written what follows is told by its station, not by nothing. */
  @Test
  void withoutAnApexPlacesAreToldByTheirStation() {
    for (CornerEntry draft : Drafter.draft(LAP, List.of()).corners()) {
      CornerEntry e =
          draft
              .copy()
              .points(draft.points().stream().filter(p -> p.kind() != PointKind.APEX).toList())
              .done();
      String line = Sentence.line(corner(e), e, SPEECH);
      assertThat(line).doesNotContain(" ,").doesNotContain(" ;").doesNotContain(" .");
      e.station(PointKind.FULL_THROTTLE)
          .filter(f -> e.slowing() != Slowing.FLAT)
          .ifPresent(f -> assertThat(line).contains("all of it at " + Math.round(f) + " m"));
    }
  }

  /** The throttle in stages is told as it is opened, and a lift once, from the apex by its name. */
  @Test
  void stagesOfTheThrottleAreToldInDrivingOrder() {
    CornerEntry draft =
        Drafter.draft(LAP, List.of()).corners().stream()
            .filter(e -> e.slowing() == Slowing.BRAKE && e.point(PointKind.FIRST_APEX).isEmpty())
            .findFirst()
            .orElseThrow();
    double apex = draft.station(PointKind.APEX).orElseThrow();
    List<CornerPoint> points = new ArrayList<>(draft.points());
    points.removeIf(
        p -> p.kind() == PointKind.FIRST_THROTTLE || p.kind() == PointKind.FULL_THROTTLE);
    CornerEntry first =
        draft
            .copy()
            .actions(List.of())
            .firstThrottle(0.2)
            .points(and(points, PointKind.FIRST_THROTTLE, LAP.road().wrap(apex + 10)))
            .done();
    assertThat(full(first)).contains("20 % throttle 10 m past it.");
    CornerEntry both =
        first
            .copy()
            .points(and(first.points(), PointKind.FULL_THROTTLE, LAP.road().wrap(apex + 40)))
            .done();
    assertThat(full(both)).contains("20 % throttle 10 m past it, all of it 40 m past it.");
    Action stage = Action.of("own-1", ActionKind.THROTTLE, LAP.road().wrap(apex + 25), 0.3);
    assertThat(full(Score.with(both, stage)))
        .contains(
            "20 % throttle 10 m past it; 30 % throttle 25 m past it;"
                + " all the throttle 40 m past it.");
    // At the apex too, where all of it is.
    CornerEntry there =
        both.copy()
            .moved(PointKind.FIRST_THROTTLE, LAP.road().wrap(apex - 9))
            .moved(PointKind.FULL_THROTTLE, LAP.road().wrap(apex + 1))
            .done();
    Action soon = Action.of("own-1", ActionKind.THROTTLE, LAP.road().wrap(apex - 2), 0.3);
    CornerEntry soonAll = Score.with(there, soon);
    assertThat(full(soonAll)).containsSubsequence("30 % throttle at", "all the throttle at");
    assertThat(Sentence.line(corner(soonAll), soonAll, SPEECH))
        .containsSubsequence("30 % throttle at", "all of it at");
    Action lift = Action.of("lift", ActionKind.LIFT, LAP.road().wrap(apex - 50), 0.5);
    CornerEntry lifted = both.copy().slowing(Slowing.LIFT).done();
    assertThat(full(lifted)).contains("Lift to ");
    assertThat(full(Score.with(lifted, lift)))
        .containsOnlyOnce("ift to ")
        .contains("ift to 50 % 50 m before the apex");
  }

  private static List<CornerPoint> and(List<CornerPoint> points, PointKind kind, double at) {
    List<CornerPoint> out = new ArrayList<>(points);
    out.add(new CornerPoint(kind, at, null, null));
    return out;
  }

  private static String full(CornerEntry e) {
    return Sentence.full(corner(e), e, SPEECH);
  }
}
