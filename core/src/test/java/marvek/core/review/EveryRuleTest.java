package marvek.core.review;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.OutlineFile;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Example;
import marvek.core.fixtures.Tracks;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.marker.Tie;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.review.checks.Checks;
import marvek.core.survey.Things;
import marvek.core.technique.Pedals;
import marvek.core.technique.School;
import marvek.core.ways.ConsequencesTest;
import org.junit.jupiter.api.Test;

/**
 * Goes through all rules of consistency: each has a corner that breaks it, here or in {@link
 * ConsequencesTest}. A rule that is added without one fails.
 */
class EveryRuleTest {
  private static final Example GT = Example.of("cup-gt");

  /** Rules whose corners stand in {@link ConsequencesTest}. */
  private static final Set<String> THERE =
      Set.of(
          "BACK_UP_FARTHER",
          "RELEASE_AGAINST_CHOICE",
          "PEDALS_AGAINST_CHOICE",
          "CUES_AGAINST_CHOICE",
          "OVER_REV",
          "KERB_AGAINST_VERDICT",
          "FLOOR_ON_KERB",
          "KERB_FRONT",
          "KERB_THROWS",
          "KERB_PAST_LIMIT",
          "LIMIT_AT_EXIT",
          "APEX_AFTER_FULL",
          "CANNOT_BE_MADE",
          "NO_ESCAPE",
          "OTHERS_GO_OFF",
          "WORDING_DUE");

  /** A corner, and what the survey found round it, before and after a rule is broken. */
  private record Case(ComputedLap computed, CornerEntry kept, CornerEntry broken, Things things) {}

  private static List<String> rules(Case c, CornerEntry e) {
    return Consistency.corner(
            c.computed(), c.things(), e, Answers.answer(c.computed(), c.things(), e))
        .stream()
        .map(Warning::rule)
        .toList();
  }

  private static Things with(Landmark landmark) {
    return new Things(List.of(landmark), List.of(), List.of(), List.of(), List.of());
  }

  private static CornerEntry tied(CornerEntry e, Landmark to) {
    List<CornerPoint> points = new ArrayList<>(e.points());
    points.replaceAll(
        p ->
            p.kind() == PointKind.BRAKE
                ? new CornerPoint(p.kind(), p.station(), new Tie(to.id(), to.label(), 0))
                : p);
    return e.copy().points(points).done();
  }

  private static Case order() {
    CornerEntry plain = GT.first();
    double turnIn = plain.station(PointKind.TURN_IN).orElseThrow();
    return new Case(
        GT.computed, plain, plain.copy().moved(PointKind.APEX, turnIn - 5).done(), Things.none());
  }

  private static Case light() {
    CornerEntry plain = GT.first();
    double brake = plain.station(PointKind.BRAKE).orElseThrow();
    Landmark shadow =
        new Landmark("s", LandmarkKind.SHADOW, "shadow of the bridge", brake, true, "c1");
    CornerEntry tied = tied(plain, shadow);
    return new Case(
        GT.computed, tied, tied.copy().schools(List.of(School.NO_LIGHT)).done(), with(shadow));
  }

  private static Case overAsked() {
    return new Case(
        GT.computed,
        GT.moved(PointKind.BRAKE, -45).copy().pedals(Pedals.FRONT_LOADED).done(),
        GT.first().copy().pedals(Pedals.FRONT_LOADED.withPeak(1.15)).done(),
        Things.none());
  }

  /** The same loop with a crest of six metres shortly before the marker. */
  private static Case hidden() {
    double brake = GT.first().station(PointKind.BRAKE).orElseThrow();
    double crest = brake - 28;
    StringBuilder csv = new StringBuilder("x_m,y_m,z_m\n");
    String[] rows =
        new String(Tracks.square(420, 45, 4).csv(), StandardCharsets.UTF_8).strip().split("\\R");
    double at = 0;
    double[] before = null;
    // Choices of the example: the line lies 200 m on.
    double line = 200;
    for (int i = 1; i < rows.length; i++) {
      String[] cells = rows[i].split(",");
      double[] here = {Double.parseDouble(cells[0]), Double.parseDouble(cells[1])};
      at += before == null ? 0 : Math.hypot(here[0] - before[0], here[1] - before[1]);
      before = here;
      double from = (at - line - crest) / 14;
      csv.append(
          String.format(
              Locale.ROOT, "%.4f,%.4f,%.4f%n", here[0], here[1], 6 * Math.exp(-from * from / 2)));
    }
    CircuitReading survey =
        CircuitReader.read(
            OutlineFile.read(csv.toString().getBytes(StandardCharsets.UTF_8)),
            new CircuitReader.Choices(false, line, 12, false));
    ComputedLap computed = Drives.computed(survey, "cup-gt");
    CornerEntry plain = Drafter.draft(computed, List.of()).corners().get(0);
    Landmark low = new Landmark("l", LandmarkKind.SEAM, "seam", brake, true, "c1");
    return new Case(computed, plain, tied(plain, low), with(low));
  }

  @Test
  void eachHasACornerThatBreaksItAndOneThatDoesNot() {
    Map<String, Case> here = new LinkedHashMap<>();
    here.put("ORDER", order());
    here.put("LIGHT_AGAINST_CHOICE", light());
    here.put("OVER_ASKED", overAsked());
    here.put("HIDDEN_MARKER", hidden());
    here.forEach(
        (rule, c) -> {
          assertThat(rules(c, c.kept())).as("kept: " + rule).doesNotContain(rule);
          assertThat(rules(c, c.broken())).as("broken: " + rule).contains(rule);
        });
    Set<String> tried = new LinkedHashSet<>(THERE);
    tried.addAll(here.keySet());
    assertThat(tried)
        .containsExactlyInAnyOrderElementsOf(Checks.all().stream().map(c -> c.id()).toList());
  }
}
