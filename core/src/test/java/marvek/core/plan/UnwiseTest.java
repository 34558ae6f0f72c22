package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReading;
import marvek.core.entry.CornerEntry;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.survey.Edge;
import marvek.core.survey.Edges;
import marvek.core.survey.Kerb;
import marvek.core.survey.KerbProfile;
import marvek.core.survey.Things;
import marvek.core.survey.Zone;
import marvek.core.survey.ZoneKind;
import marvek.core.units.Units;
import org.junit.jupiter.api.Test;

/** Stretches on which something is unwise, held against what a driver would reckon. */
class UnwiseTest {
  private static final ComputedLap LAP = lap();
  private static final Centreline ROAD = LAP.road();

  private static ComputedLap lap() {
    CircuitReading road = RandomRoads.of(4711, 300);
    return Drives.computed(road, "small-hatch");
  }

  private static boolean in(List<Unwise> all, Unwise.What what, double station) {
    return all.stream()
        .filter(u -> u.what() == what)
        .anyMatch(u -> ROAD.ahead(u.from(), station) <= ROAD.ahead(u.from(), u.to()));
  }

  @Test
  void shiftsAreUnwiseWhereTheCarTurnsHardAndNowhereOnAStraight() {
    // Without wings the tyres give about mu g across: the planned speed squared times the bend.
    int hard = 0;
    int easy = 0;
    for (CornerEntry e : Drafter.draft(LAP, List.of()).corners()) {
      Answers answers = Answers.at(LAP, Things.none(), LAP.indexOf(e.corner()));
      List<Unwise> unwise = answers.unwise(e);
      CornerAnswer.Profile p = answers.answer(e).profile();
      for (int k = 0; k < p.speed().length - 1; k++) {
        double station = ROAD.wrap(p.from() + k * p.step());
        int i = ROAD.index(station);
        double v = p.speed()[k];
        double across =
            Math.abs(v * v * LAP.path().curvature()[i]) / (LAP.vehicle().tyres().muY() * Units.G);
        if (across > 0.75) {
          assertThat(in(unwise, Unwise.What.SHIFT, station)).describedAs("%.2f", across).isTrue();
          hard++;
        } else if (across < 0.3) {
          boolean light =
              LAP.limits().load(LAP.path(), i, v * v) < 0.85 * LAP.limits().levelLoad(v);
          if (!light) {
            assertThat(in(unwise, Unwise.What.SHIFT, station)).isFalse();
            easy++;
          }
        }
      }
    }
    assertThat(hard).isGreaterThan(100);
    assertThat(easy).isGreaterThan(100);
  }

  @Test
  void brakingIsUnwiseOverSurveyedBumps() {
    Random random = new Random(8);
    for (CornerEntry e : Drafter.draft(LAP, List.of()).corners()) {
      double at = e.points().get(0).station();
      double from = ROAD.wrap(at + 5 * random.nextDouble());
      Zone bumps =
          new Zone("b", ZoneKind.BUMP, Zone.Side.BOTH, from, ROAD.wrap(from + 20), 2, null, "", "");
      Things things = new Things(List.of(), List.of(), List.of(bumps), List.of(), List.of());
      int c = LAP.indexOf(e.corner());
      assertThat(in(Answers.at(LAP, things, c).unwise(e), Unwise.What.BRAKE, ROAD.wrap(from + 10)))
          .isTrue();
    }
  }

  @Test
  void allOfTheThrottleIsUnwiseOnlyWhereTheTyresBearLessThanTheEngineGives() {
    for (CornerEntry e : Drafter.draft(LAP, List.of()).corners()) {
      Answers answers = Answers.at(LAP, Things.none(), LAP.indexOf(e.corner()));
      CornerAnswer.Profile p = answers.answer(e).profile();
      for (Unwise u : answers.unwise(e)) {
        assertThat(ROAD.ahead(u.from(), u.to())).isBetween(4.0, ROAD.length() / 2);
        if (u.what() == Unwise.What.THROTTLE) {
          double middle = ROAD.wrap(u.from() + ROAD.ahead(u.from(), u.to()) / 2);
          int k = (int) Math.round(ROAD.ahead(ROAD.wrap(p.from()), middle) / p.step());
          int i = ROAD.index(middle);
          if (k < p.speed().length) {
            double bears = LAP.limits().driveMost(LAP.path(), i, p.speed()[k]);
            assertThat(bears).isLessThan(LAP.limits().engineDrive(p.speed()[k]));
          }
        }
      }
    }
  }

  /**
   * On a kerb that throws the wheels nothing is wise; on one that locks or is just a kerb, no
   * brake.
   */
  @Test
  void onAKerbItIsWhatTheKerbDoesThatCounts() {
    for (Kerb.Does does : Kerb.Does.values()) {
      ComputedLap lap = opened(does);
      int ridden = 0;
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        List<Unwise> all = Answers.at(lap, kerbs(does), lap.indexOf(e.corner())).unwise(e);
        for (Unwise u : all) {
          boolean throwing = u.why().key().equals("unwise.launched");
          boolean locks = u.why().key().equals("unwise.locks");
          boolean plain = u.why().key().equals("unwise.kerb");
          ridden += throwing || locks || plain ? 1 : 0;
          assertThat(throwing).as("%s", does).isIn(false, does == Kerb.Does.LAUNCHES);
          assertThat(locks).as("%s", does).isIn(false, does == Kerb.Does.LOCKS);
          assertThat(plain)
              .as("%s", does)
              .isIn(false, does != Kerb.Does.LOCKS && does != Kerb.Does.LAUNCHES);
          if (locks || plain) {
            assertThat(u.what()).isEqualTo(Unwise.What.BRAKE);
          }
        }
      }
      assertThat(ridden).as("%s", does).isGreaterThan(1);
    }
  }

  private static Things kerbs(Kerb.Does does) {
    List<Kerb> kerbs =
        LAP.corners().stream()
            .map(
                c ->
                    new Kerb(
                        "k-" + c.id(),
                        !c.left(),
                        ROAD.wrap(c.apex() + 10),
                        ROAD.wrap(c.exit() + 40),
                        c.id(),
                        Kerb.Part.EXIT,
                        KerbProfile.FLAT,
                        1,
                        0.02,
                        Kerb.Behind.TARMAC,
                        false,
                        Kerb.Verdict.OPEN,
                        "",
                        "",
                        null,
                        List.of(does)))
            .toList();
    return new Things(List.of(), kerbs, List.of(), List.of(), List.of());
  }

  private static ComputedLap opened(Kerb.Does does) {
    List<Edge> edges = Edges.all(ROAD, LAP.corners(), kerbs(does), LAP.vehicle());
    return ComputedLap.compute(
        ROAD,
        LAP.corners(),
        Edges.open(ROAD, LAP.ground(), edges, LAP.vehicle()),
        LAP.vehicle(),
        LAP.conditions());
  }
}
