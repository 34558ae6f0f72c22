package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.survey.Things;
import marvek.core.technique.Pedals;
import org.junit.jupiter.api.Test;

/** What missing a place costs, on roads and vehicles that nothing was tuned to. */
class MistakesTest {
  private static final List<ComputedLap> LAPS = new ArrayList<>();

  static {
    String[] vehicles = {"small-hatch", "single-seater", "motorcycle-600"};
    for (int k = 0; k < 3; k++) {
      LAPS.add(Drives.computed(RandomRoads.of(8800 + k, 230 + 60 * k), vehicles[k]));
    }
  }

  private static MistakeCurve curve(
      ComputedLap lap, Things things, CornerEntry e, List<Double> driven) {
    return Answers.at(lap, things, lap.indexOf(e.corner())).curve(e, "brake", driven).orElseThrow();
  }

  private static List<Double> laps(ComputedLap lap, double at, double sigma, int count) {
    Random random = new Random(6);
    List<Double> out = new ArrayList<>();
    for (int k = 0; k < count; k++) {
      out.add(lap.road().wrap(at + sigma * random.nextGaussian()));
    }
    return out;
  }

  private static CornerEntry braked(ComputedLap lap) {
    return Drafter.draft(lap, List.of()).corners().stream()
        .filter(c -> c.slowing() == Slowing.BRAKE)
        .findFirst()
        .orElseThrow();
  }

  @Test
  void lateBrakingIsBoundedByItsMarginAndEarlyBrakingIsSlower() {
    int braked = 0;
    for (ComputedLap lap : LAPS) {
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        if (e.slowing() != Slowing.BRAKE) {
          continue;
        }
        MistakeCurve curve = curve(lap, Things.none(), e, List.of());
        CornerAnswer answer = Answers.answer(lap, e);
        assertThat(curve.seconds().get(curve.metres().indexOf(0.0))).isZero();
        Double early = curve.seconds().get(0);
        if (early != null) {
          // Sooner is slower, but for what the last thousandths of a stretch are worth.
          assertThat(early).describedAs("%s", e).isGreaterThan(-0.004);
        }
        Double last = curve.last();
        double margin = answer.braking().marginMetres();
        // A score needs its feet to move, and may be made no further than any braking can.
        assertThat(last).describedAs("%s", e).isNotNull();
        assertThat(last).isLessThan(margin + 1.5);
        assertThat(last).isGreaterThan(margin - (e.actions().isEmpty() ? 1.5 : 4));
        if (last != null) {
          // One in two hundred, and not more, passes it from the aim.
          assertThat(curve.aim()).isLessThanOrEqualTo(Math.max(-15, last - 2.57 * curve.sigma()));
        }
        braked++;
      }
    }
    assertThat(braked).isGreaterThan(12);
  }

  /** However the brake is shaped: what even all the braking there is would not do is too late. */
  @Test
  void noShapeOfTheBrakeHasMoreInHandThanAllTheBrakingThereIs() {
    int shaped = 0;
    for (ComputedLap lap : LAPS) {
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        if (e.slowing() != Slowing.BRAKE || e.actions().isEmpty()) {
          continue;
        }
        Answers answers = Answers.at(lap, Things.none(), lap.indexOf(e.corner()));
        double most = answers.margin(e);
        for (Pedals pedals : List.of(Pedals.FRONT_LOADED, Pedals.PROGRESSIVE, Pedals.DAB)) {
          assertThat(answers.margin(e.copy().pedals(pedals).done()))
              .describedAs("%s of %s", pedals, e)
              .isLessThanOrEqualTo(most + 0.03);
          shaped++;
        }
      }
    }
    assertThat(shaped).isGreaterThan(10);
  }

  @Test
  void theDriversOwnSpreadCountsFromEightLapsOn() {
    ComputedLap lap = LAPS.get(0);
    CornerEntry e = braked(lap);
    double at = e.station(PointKind.BRAKE).orElseThrow();
    MistakeCurve few = curve(lap, Things.none(), e, laps(lap, at, 9, 7));
    assertThat(few.laps()).isZero();
    assertThat(few.sigma()).isEqualTo(Mistakes.USUAL);
    MistakeCurve wide = curve(lap, Things.none(), e, laps(lap, at, 9, 60));
    assertThat(wide.laps()).isEqualTo(60);
    assertThat(wide.sigma()).isCloseTo(9, within(2.0));
    MistakeCurve sure = curve(lap, Things.none(), e, laps(lap, at, 1.2, 60));
    assertThat(sure.sigma()).isCloseTo(1.2, within(0.3));
    assertThat(sure.aim()).isGreaterThan(wide.aim()).isLessThanOrEqualTo(0);
    assertThat(sure.aimed()).isLessThan(wide.aimed());
    // Two laps gone wrong do not widen it.
    List<Double> some = new ArrayList<>(laps(lap, at, 1.2, 40));
    some.add(lap.road().wrap(at - 60));
    some.add(lap.road().wrap(at + 50));
    assertThat(curve(lap, Things.none(), e, some).sigma()).isLessThan(1.7);
  }

  @Test
  void aWallOutsideKeepsMoreRoom() {
    ComputedLap lap = LAPS.get(0);
    CornerEntry e = braked(lap);
    boolean left = lap.corners().get(lap.indexOf(e.corner())).left();
    double exit = e.station(PointKind.EXIT).orElseThrow();
    Landmark wall =
        new Landmark("w", LandmarkKind.WALL, "wall", lap.road().wrap(exit - 15), !left, "");
    Landmark inside =
        new Landmark("i", LandmarkKind.WALL, "wall", lap.road().wrap(exit - 15), left, "");
    MistakeCurve open = curve(lap, with(inside), e, List.of());
    MistakeCurve tight = curve(lap, with(wall), e, List.of());
    assertThat(open.tight()).isFalse();
    assertThat(tight.tight()).isTrue();
    assertThat(tight.aim()).isLessThanOrEqualTo(open.aim());
    Double last = tight.last();
    assertThat(last).isNotNull();
    if (last != null) {
      // One in a thousand of a normal scatter lies beyond 3.09 of its standard deviations.
      assertThat(tight.aim()).isLessThanOrEqualTo(Math.max(-15, last - 3.09 * tight.sigma()));
    }
  }

  private static Things with(Landmark wall) {
    return new Things(List.of(wall), List.of(), List.of(), List.of(), List.of());
  }

  @Test
  void theDearestComeFirst() {
    for (ComputedLap lap : LAPS) {
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        Answers answers = Answers.at(lap, Things.none(), lap.indexOf(e.corner()));
        List<WhatIf> all = answers.whatIfs(e);
        List<WhatIf> dear = answers.dearest(e, all, 3);
        boolean made = false;
        double before = Double.MAX_VALUE;
        for (WhatIf w : dear) {
          // What leaves the road before what only costs time, and of that the dearest first.
          assertThat(made && !w.makes()).isFalse();
          made |= w.makes();
          Double seconds = w.seconds();
          if (seconds != null) {
            assertThat(seconds).isLessThanOrEqualTo(before);
            before = seconds;
          }
        }
        double most =
            all.stream()
                .filter(w -> w.change() != WhatIf.Change.WITHOUT && w.seconds() != null)
                .mapToDouble(WhatIf::seconds)
                .max()
                .orElse(0);
        boolean off = all.stream().anyMatch(w -> !w.makes());
        if (!off && most > 0.01) {
          assertThat(dear.get(0).seconds()).isEqualTo(most);
        }
      }
    }
  }

  /** A lift that comes late asks for more than there is; it is no mistake that costs nothing. */
  @Test
  void aLiftHasALastPlaceAlsoWhereTheTyresCutWhatIsTooMuch() {
    int lifts = 0;
    int bounded = 0;
    for (int k = 0; k < 8; k++) {
      ComputedLap lap =
          Drives.computed(RandomRoads.of(43 + k / 2, 300), k % 2 == 0 ? "cup-gt" : "single-seater");
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        Answers answers = Answers.at(lap, Things.none(), lap.indexOf(e.corner()));
        for (Action a : e.actions()) {
          Double kept = a.amount();
          if (e.slowing() != Slowing.LIFT || a.kind() != ActionKind.LIFT || kept == null) {
            continue;
          }
          Optional<MistakeCurve> curve = answers.curve(e, a.id(), List.of());
          if (curve.isEmpty()) {
            continue;
          }
          lifts++;
          Double last = curve.get().last();
          bounded += last != null ? 1 : 0;
          // As written, and sooner, it is made.
          List<Double> metres = curve.get().metres();
          for (int i = 0; i < metres.size(); i++) {
            if (metres.get(i) <= 0) {
              assertThat(curve.get().seconds().get(i)).as("%s %s", e.corner(), metres).isNotNull();
            }
          }
        }
      }
    }
    assertThat(lifts).isGreaterThan(3);
    // One of them by the slowest place alone; the other by what throttle and turn ask for.
    assertThat(bounded).isGreaterThanOrEqualTo(2);
  }

  /**
   * The curve over an amount goes through what one what-if says of ten points and of half a metre,
   * is nothing where it is written, and a lift that keeps more of the throttle is quicker until it
   * is not made.
   */
  @Test
  void moreAndLessOfAnActionCostWhatItsWhatIfsSay() {
    int shares = 0;
    int apexes = 0;
    int lifts = 0;
    for (ComputedLap lap : LAPS) {
      for (CornerEntry e : Drafter.draft(lap, List.of()).corners()) {
        Answers answers = Answers.at(lap, Things.none(), lap.indexOf(e.corner()));
        List<WhatIf> all = answers.whatIfs(e);
        for (Action a : Score.of(lap.road(), e)) {
          Optional<AmountCurve> told = answers.amounts(e, a.id());
          if (told.isEmpty()) {
            assertThat(all)
                .noneMatch(w -> w.action().equals(a.id()) && w.change() == WhatIf.Change.MORE);
            continue;
          }
          AmountCurve curve = told.get();
          assertThat(curve.amounts()).isSorted().hasSameSizeAs(curve.seconds());
          assertThat(at(curve, curve.written())).isZero();
          for (WhatIf w : all) {
            double by =
                switch (w.change()) {
                  case LESS -> -0.1;
                  case MORE -> 0.1;
                  case WIDER -> 0.5;
                  default -> 0;
                };
            if (by != 0 && w.action().equals(a.id())) {
              assertThat(at(curve, curve.written() + by)).as("%s", w).isEqualTo(w.seconds());
              shares += curve.across() ? 0 : 1;
              apexes += curve.across() ? 1 : 0;
            }
          }
          if (curve.across()) {
            assertThat(curve.amounts().get(0)).isGreaterThanOrEqualTo(0);
          } else {
            assertThat(curve.amounts()).allMatch(x -> x >= 0 && x <= 1);
          }
          Double least = curve.seconds().get(0);
          if (a.kind() == ActionKind.LIFT && least != null && curve.amounts().size() > 4) {
            assertThat(least).as("%s", e).isGreaterThan(-0.01);
            lifts++;
          }
        }
      }
    }
    assertThat(shares).isGreaterThan(8);
    assertThat(apexes).isGreaterThan(8);
    assertThat(lifts).isPositive();
  }

  private static Double at(AmountCurve curve, double amount) {
    for (int k = 0; k < curve.amounts().size(); k++) {
      if (Math.abs(curve.amounts().get(k) - amount) < 1e-9) {
        return curve.seconds().get(k);
      }
    }
    throw new AssertionError("no " + amount + " in " + curve);
  }
}
