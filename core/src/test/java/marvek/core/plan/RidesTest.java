package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Limits;
import marvek.core.score.Action;
import marvek.core.score.ActionBuilder;
import marvek.core.score.ActionKind;
import marvek.core.score.Stance;
import marvek.core.survey.Things;
import marvek.core.units.Units;
import marvek.core.vehicle.Vehicle;
import marvek.core.words.Speaker;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** A rider's weight and share of the front brake, and what they do to braking and drive. */
class RidesTest {
  private static final List<ComputedLap> LAPS =
      List.of(
          Drives.computed(RandomRoads.of(511, 320), "motorcycle-1000"),
          Drives.computed(RandomRoads.of(512, 320), "motorcycle-600"));

  private static CornerEntry with(
      CornerEntry entry, double station, @Nullable Stance stance, @Nullable Double front) {
    Action body =
        ActionBuilder.builder(Action.of("body-1", ActionKind.BODY, station, front))
            .stance(stance)
            .build();
    return Score.with(entry, body);
  }

  /**
   * Braking is at its best when each wheel's share of it is its share of the load: Nf = mg·b/p +
   * ma·h/p (Cossalter, Motorcycle Dynamics, from memory).
   */
  @Test
  void theBestShareIsThatOfTheLoad() {
    for (ComputedLap lap : LAPS) {
      Limits limits = lap.limits();
      Vehicle v = lap.vehicle();
      double load = Units.G;
      double front = 1 - v.cogToFront() / v.wheelbase();
      for (double wet : new double[] {0.45, 0.6, 0.75}) {
        double mu = limits.ridden(0, null).brakingGrip(load, wet) / load;
        double best = front + mu * v.cogHeight() / v.wheelbase();
        assertThat(best).isBetween(0.5, 1.0);
        assertThat(limits.ridden(0, best).brakingGrip(load, wet) / load)
            .isCloseTo(mu, within(1e-6));
        for (double off : new double[] {-0.2, -0.1, 0.1}) {
          if (best + off <= 1) {
            assertThat(limits.ridden(0, best + off).brakingGrip(load, wet) / load)
                .isLessThan(mu - 0.01);
          }
        }
      }
    }
  }

  /** 75 kg moved by 0.15 m move the whole by 75·0.15/m, and the two lifts of a wheel with it. */
  @Test
  void weightMovesBothLimits() {
    for (ComputedLap lap : LAPS) {
      Limits limits = lap.limits();
      Vehicle v = lap.vehicle();
      double moved = 75 * 0.15 / limits.mass();
      double grippy = 3;
      Limits forward = limits.ridden(Stance.FORWARD.moves(), null);
      assertThat(forward.brakingGrip(Units.G, grippy))
          .isCloseTo(Units.G * (v.cogToFront() - moved) / v.cogHeight(), within(1e-6));
      assertThat(forward.frontUp(Units.G))
          .isCloseTo(
              Units.G * (v.wheelbase() - v.cogToFront() + moved) / v.cogHeight(), within(1e-6));
      Limits back = limits.ridden(Stance.BACK.moves(), null);
      assertThat(back.brakingGrip(Units.G, grippy))
          .isGreaterThan(limits.brakingGrip(Units.G, grippy));
      assertThat(back.frontUp(Units.G)).isLessThan(limits.frontUp(Units.G));
      assertThat(limits.ridden(0, null)).isSameAs(limits);
    }
    Limits car = Drives.computed(RandomRoads.of(513, 320), "cup-gt").limits();
    assertThat(car.ridden(0.15, 0.5)).isSameAs(car);
  }

  @Test
  void itIsDrivenFromWhereItIsWritten() {
    int brakings = 0;
    int drives = 0;
    for (ComputedLap lap : LAPS) {
      List<CornerEntry> draft = Drafter.draft(lap, List.of()).corners();
      for (int c = 0; c < draft.size(); c++) {
        CornerEntry entry = draft.get(c);
        if (entry.slowing() != Slowing.BRAKE) {
          continue;
        }
        Answers answers = Answers.at(lap, Things.none(), c);
        double marker = entry.station(PointKind.BRAKE).orElseThrow();
        double before = lap.road().wrap(marker - 10);
        CornerAnswer middle = answers.answer(with(entry, before, Stance.MIDDLE, null));
        // Half of the braking at the rear wheel stops less, on every motorcycle.
        CornerAnswer half = answers.answer(with(entry, before, null, 0.5));
        Rides told = rides(half);
        assertThat(told.stops()).isBetween(0.2, 0.999);
        assertThat(told.drives()).isEqualTo(1);
        CornerAnswer.BrakingNumbers least = middle.braking();
        CornerAnswer.BrakingNumbers less = half.braking();
        assertThat(least).isNotNull();
        assertThat(less).isNotNull();
        assertThat(less.marginMetres()).as("corner %d", c).isLessThan(least.marginMetres() - 0.05);
        brakings++;
        // At the slowest place: what follows is drive.
        double apex = entry.station(PointKind.APEX).orElseThrow();
        CornerAnswer forward = answers.answer(with(entry, apex, Stance.FORWARD, null));
        CornerAnswer back = answers.answer(with(entry, apex, Stance.BACK, null));
        assertThat(rides(forward).stops()).isLessThanOrEqualTo(1);
        assertThat(rides(back).stops()).isGreaterThanOrEqualTo(1);
        if (Math.abs(back.exitSpeed() - forward.exitSpeed()) > 0.02) {
          // More weight on the front lets more drive through only where the front would rise.
          drives++;
        }
      }
    }
    assertThat(brakings).isGreaterThan(8);
    assertThat(drives).isGreaterThan(3);
  }

  @Test
  void whatGoesWrongWithItIsNoGear() {
    WhatIf less = new WhatIf("body-1", WhatIf.Change.LESS, null, false);
    assertThat(Speaker.PLAIN.say(less.look(ActionKind.BODY)))
        .isEqualTo("a wheel comes up or slides sooner")
        .isNotEqualTo(Speaker.PLAIN.say(less.look(ActionKind.SHIFT)));
  }

  private static Rides rides(CornerAnswer answer) {
    List<Rides> out = new ArrayList<>();
    answer
        .score()
        .forEach(
            s -> {
              if (s.rides() != null) {
                out.add(s.rides());
              }
            });
    assertThat(out).hasSize(1);
    return out.get(0);
  }
}
