package marvek.core.day;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import marvek.core.circuit.Centreline;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Day;
import marvek.core.entry.DayBuilder;
import marvek.core.entry.DayKind;
import marvek.core.entry.OtherGates;
import marvek.core.entry.Variant;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.lap.Ground;
import marvek.core.line.Gate;
import marvek.core.line.Watch;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import org.junit.jupiter.api.Test;

/** Days that pass other places across the road than the reference. */
class GatesOfDaysTest {
  private static final double EDGE = 0.05;
  private static final List<String> CLASSES =
      List.of("cup-gt", "motorcycle-600", "downforce-prototype");

  private static double gap(ComputedLap lap, Gate gate, double station) {
    Centreline road = lap.road();
    int i = road.index(road.wrap(station));
    double offset = lap.path().offset()[i];
    double half = lap.vehicle().width() / 2;
    return (gate.left() ? road.left()[i] - offset : road.right()[i] + offset) - half;
  }

  private static Day passing(DayKind kind, List<Gate> gates, List<String> without) {
    return DayBuilder.builder(kind.usual()).gates(new OtherGates(gates, without)).build();
  }

  private static ComputedLap base(int k) {
    return Drives.computed(RandomRoads.of(611 + k, 300), CLASSES.get(k));
  }

  private static Gate gate(ComputedLap lap, Random random, String id, double over) {
    Centreline road = lap.road();
    double station = road.length() * random.nextDouble();
    double most = Double.MAX_VALUE;
    for (double s = station - over; s <= station; s++) {
      int i = road.index(road.wrap(s));
      most = Math.min(most, road.left()[i] + road.right()[i] - lap.vehicle().width());
    }
    double metres = 0.3 + (most - 0.6) * random.nextDouble();
    return new Gate(id, station, random.nextBoolean(), metres, 0.3, over);
  }

  @Test
  void aDayPassesItsOwnPlacesInPlaceOfTheReferences() {
    Random random = new Random(5);
    for (int k = 0; k < CLASSES.size(); k++) {
      ComputedLap plain = base(k);
      Gate kept = gate(plain, random, "kept", 0);
      Gate moved = gate(plain, random, "moved", 0);
      while (Math.abs(plain.road().apart(kept.station(), moved.station())) < 150) {
        moved = gate(plain, random, "moved", 0);
      }
      Footing footing =
          Footing.plain(List.of()).withUsed(new Footing.Used(List.of(), List.of(kept, moved)));
      ComputedLap base =
          plain
              .with(
                  footing.ground(
                      plain.road(), plain.corners(), plain.vehicle(), DayKind.WORN.usual().road()),
                  plain.conditions(),
                  plain.path().offset())
              .near(Watch.NOBODY);
      Gate other =
          new Gate("moved", moved.station(), !moved.left(), moved.metres(), moved.tolerance());
      Day day = passing(DayKind.TOW, List.of(other), List.of("kept"));
      ComputedLap then = Variants.computed(base, footing, day);

      assertThat(Variants.ownLine(base, then)).isTrue();
      assertThat(gap(base, moved, moved.station()))
          .isCloseTo(moved.metres(), within(moved.tolerance() + EDGE));
      assertThat(gap(base, kept, kept.station()))
          .isCloseTo(kept.metres(), within(kept.tolerance() + EDGE));
      assertThat(gap(then, other, other.station()))
          .isCloseTo(other.metres(), within(other.tolerance() + EDGE));
      // Without any left the day is as on a road that has none, but for what the search leaves.
      ComputedLap free =
          Variants.computed(
              base, footing, passing(DayKind.TOW, List.of(), List.of("kept", "moved")));
      ComputedLap never = Variants.computed(plain, Footing.plain(List.of()), DayKind.TOW.usual());
      assertThat(free.lap().lapTime() / never.lap().lapTime()).isCloseTo(1, within(0.004));
      // A day that says nothing of places passes the reference's.
      ComputedLap like = Variants.computed(base, footing, DayKind.TOW.usual());
      assertThat(like.path().offset()).isEqualTo(base.path().offset());
    }
  }

  /** Metres that a line goes across the road around a gate, to and fro together. */
  private static double sways(ComputedLap lap, Gate gate) {
    double all = 0;
    for (double s = gate.station() - gate.over() - 80; s < gate.station() + 80; s++) {
      all += Math.abs(gap(lap, gate, s + 1) - gap(lap, gate, s));
    }
    return all;
  }

  @Test
  void alongsideTheEdgeItKeepsItsDistanceAllTheWay() {
    Random random = new Random(8);
    List<Double> beside = new ArrayList<>();
    for (int k = 0; k < CLASSES.size(); k++) {
      ComputedLap base = base(k);
      Footing footing = Footing.plain(List.of());
      for (int n = 0; n < 4; n++) {
        Gate any = gate(base, random, "g", 30 + 70 * random.nextDouble());
        // The last of each road across the start line.
        Gate gate = n < 3 ? any : new Gate("g", 20, any.left(), Math.min(3, any.metres()), 0.3, 60);
        ComputedLap then =
            Variants.computed(base, footing, passing(DayKind.TOW, List.of(gate), List.of()));
        Ground without = base.ground();
        assertThat(gate.missing(base.road(), base.vehicle(), without)).isZero();
        double most = 0;
        for (double s = gate.station() - gate.over(); s <= gate.station(); s += 2) {
          most = Math.max(most, Math.abs(gap(then, gate, s) - gate.metres()));
        }
        beside.add(most - gate.tolerance());
        double plain = Variants.computed(base, footing, DayKind.TOW.usual()).lap().lapTime();
        // It costs time, and nobody weaves for it.
        assertThat(then.lap().lapTime()).isBetween(0.998 * plain, 1.2 * plain);
        assertThat(sways(then, gate)).isLessThan(sways(base, gate) + 16);
      }
    }
    // Anywhere on the road, in the tightest corner too: there the line keeps to what can be
    // steered.
    assertThat(beside).hasSize(12).allMatch(m -> m < 0.3);
    assertThat(beside.stream().filter(m -> m > EDGE)).hasSizeLessThan(3);
  }

  @Test
  void whatLiesFartherThanTheRoadSomewhereOnTheWayIsSaid() {
    ComputedLap base = base(0);
    Centreline road = base.road();
    // The narrowest place lies on the way, not at its end.
    int narrow = 0;
    for (int i = 0; i < road.size(); i++) {
      if (road.left()[i] + road.right()[i] < road.left()[narrow] + road.right()[narrow]) {
        narrow = i;
      }
    }
    double width = road.left()[narrow] + road.right()[narrow] - base.vehicle().width();
    double end = road.wrap(narrow * road.step() + 60);
    int i = road.index(end);
    double there = road.left()[i] + road.right()[i] - base.vehicle().width();
    Gate passed = new Gate("g", end, true, (width + there) / 2, 0);
    Gate held = new Gate("g", end, true, (width + there) / 2, 0, 80);
    double more = held.missing(road, base.vehicle(), base.ground());
    assertThat(there).isGreaterThan(width);
    assertThat(more - passed.missing(road, base.vehicle(), base.ground())).isPositive();
    assertThat(more).isCloseTo((there - width) / 2 + Ground.MARGIN, within(0.02));
  }

  @Test
  void theDaySaysWhichPlacesItPasses() {
    ComputedLap base = base(0);
    Gate gate = new Gate("g", base.road().wrap(base.corners().get(2).apex()), true, 1.5, 0.3);
    Day day = passing(DayKind.TOW, List.of(gate), List.of());
    ComputedLap then = Variants.computed(base, Footing.plain(List.of()), day);
    Variant variant = new Variant("v", DayKind.TOW, "", day, List.of());
    List<CornerEntry> draft = Drafter.draft(base, List.of()).corners();
    for (int c = 0; c < draft.size(); c++) {
      boolean says =
          Variants.adjust(base, then, variant, draft.get(c)).changes().stream()
              .anyMatch(a -> a.byHand() && a.words().key().equals("variant.gate"));
      assertThat(says).as("corner %d", c).isEqualTo(c == 2);
    }
  }
}
