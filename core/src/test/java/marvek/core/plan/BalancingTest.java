package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReading;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Kerbs;
import marvek.core.fixtures.Plain;
import marvek.core.fixtures.RandomRoads;
import marvek.core.line.SteeringRate;
import marvek.core.plan.CornerBalance.How;
import marvek.core.plan.CornerBalance.Move;
import marvek.core.plan.CornerBalance.What;
import marvek.core.survey.Edge;
import marvek.core.survey.Edges;
import marvek.core.survey.Kerb;
import marvek.core.survey.Things;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import marvek.core.vehicle.VehicleKind;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class BalancingTest {
  private static final double NOTHING = 1e-3;
  private int locked;

  private static ComputedLap on(long seed, String vehicle) {
    CircuitReading read = RandomRoads.of(seed, 240);
    return Drives.computed(read, vehicle);
  }

  /** What drivers know of each step holds in every corner of every road. */
  @ParameterizedTest
  @CsvSource({
    "36, cup-gt",
    "7, small-hatch",
    "12, single-seater",
    "91, downforce-prototype",
    "5, motorcycle-600"
  })
  void everyCornerIsToldAndEveryStepMovesItsOwnWay(long seed, String vehicle) {
    ComputedLap computed = on(seed, vehicle);
    Centreline road = computed.road();
    List<CornerEntry> draft = Drafter.draft(computed, Drafter.boards(computed)).corners();
    int trailed = 0;
    int rolled = 0;
    for (int c = 0; c < draft.size(); c++) {
      CornerBalance b = Answers.at(computed, Things.none(), c).balance(draft.get(c));
      assertThat(b.front()).hasSameSizeAs(b.rear()).hasSameSizeAs(b.bears());
      for (int k = 0; k < b.front().length; k++) {
        assertThat(b.front()[k]).isBetween(0.0, 2.0);
        assertThat(b.rear()[k]).isBetween(0.0, 2.0);
        assertThat(b.bears()[k]).isBetween(0.0, 1.0);
      }
      assertThat(road.apart(b.entry().station(), b.middle().station())).isNotNegative();
      assertThat(road.apart(b.middle().station(), b.exit().station())).isPositive();
      assertThat(b.usual()).isTrue();
      for (CornerBalance.Part p : List.of(b.entry(), b.middle(), b.exit())) {
        double by = p.front() - p.rear();
        assertThat(p.how())
            .isEqualTo(
                Math.max(p.front(), p.rear()) < 0.7
                    ? How.FREE
                    : Math.abs(by) < 0.03 ? How.EVEN : by > 0 ? How.PUSHES : How.TURNS);
        assertThat(p.words().key()).isEqualTo("balance." + p.how().name().toLowerCase(Locale.ROOT));
        if (Math.min(p.front(), p.rear()) < 1) {
          assertThat(Math.signum(p.understeer())).isEqualTo(Math.signum(by));
        }
      }
      Map<What, Move> moves =
          b.moves().stream().collect(Collectors.toMap(Move::what, Function.identity()));
      trailed += moves.containsKey(What.TRAIL) ? 1 : 0;
      lockedAndSteered(computed, draft.get(c), b);
      if (vehicle.startsWith("motorcycle")) {
        assertThat(moves).doesNotContainKeys(What.BAR, What.WING, What.BRAKES, What.GEAR);
        continue;
      }
      // Forward brakes push while braking; a stiffer front bar and more rear wing push anywhere.
      assertThat(moves.get(What.BRAKES).entry()).isGreaterThanOrEqualTo(-NOTHING);
      for (What what : List.of(What.BAR, What.WING, What.SPRINGS)) {
        Move m = moves.get(what);
        if (m != null) {
          assertThat(Math.min(m.entry(), Math.min(m.middle(), m.exit())))
              .as("%s in %s", what, c)
              .isGreaterThan(-NOTHING);
        }
      }
      // Camber at the front lets it turn; a spring does less than a bar of the same sort.
      Move camber = moves.get(What.CAMBER);
      assertThat(Math.max(camber.entry(), Math.max(camber.middle(), camber.exit())))
          .isLessThan(NOTHING);
      assertThat(camber.middle()).isNegative();
      // Dampers hold while it rolls in, and let go while it rolls out.
      Move dampers = moves.get(What.DAMPERS);
      assertThat(dampers.middle()).isZero();
      assertThat(Math.abs(dampers.entry())).isLessThan(0.1);
      CornerAnswer.Profile p =
          Answers.at(computed, Things.none(), c).answer(draft.get(c)).profile();
      rolled += rolling(computed, p, b.entry().station(), dampers.entry());
      rolled += rolling(computed, p, b.exit().station(), dampers.exit());
      Move gear = moves.get(What.GEAR);
      if (gear != null && computed.vehicle().gearbox().drive() == Vehicle.Drive.REAR) {
        assertThat(gear.entry()).as("a lower gear turns a rear-driven car").isLessThan(NOTHING);
      }
    }
    if (!vehicle.startsWith("motorcycle")) {
      assertThat(rolled).as("places where it rolls").isGreaterThan(draft.size() / 2);
    }
    assertThat(trailed).isPositive();
    assertThat(locked).as("places at which a wheel is told").isPositive();
  }

  /** While what it turns with grows it rolls in, and firmer dampers in front push; 1 if it does. */
  private static int rolling(
      ComputedLap computed, CornerAnswer.Profile p, double station, double told) {
    Centreline road = computed.road();
    int k = (int) Math.round(road.ahead(p.from(), station) / p.step());
    if (k < 5 || k + 5 >= p.speed().length) {
      return 0;
    }
    double before = across(computed, p, k - 4);
    double after = across(computed, p, k + 4);
    double now = across(computed, p, k);
    // With a wheel off the ground dampers move nothing more.
    if (now < 2 || Math.abs(after - before) < 0.05 * now || Math.abs(told) < 1e-12) {
      return 0;
    }
    assertThat(Math.signum(told)).as("at %.0f m", station).isEqualTo(Math.signum(after - before));
    return 1;
  }

  private static double across(ComputedLap computed, CornerAnswer.Profile p, int k) {
    int i = computed.road().index(computed.road().wrap(p.from() + k * p.step()));
    return p.speed()[k] * p.speed()[k] * Math.abs(computed.path().curvature()[i]);
  }

  /** Where nothing may be set, no setting is offered, and what is said to be done makes it even. */
  @ParameterizedTest
  @CsvSource({"36, cup-gt", "7, small-hatch", "12, single-seater", "5, motorcycle-600"})
  void aFixedSetupIsDrivenRound(long seed, String vehicle) {
    CircuitReading read = RandomRoads.of(seed, 240);
    Vehicle own = VehicleClasses.byId(vehicle).vehicle();
    ComputedLap free = Drives.computed(read, vehicle);
    ComputedLap fixed =
        ComputedLap.onLine(
            read.centreline(),
            read.corners(),
            free.ground(),
            own.copy().fixedSetup(true).build(),
            free.conditions(),
            free.path().offset());
    assertThat(fixed.lap().lapTime()).isEqualTo(free.lap().lapTime());
    List<CornerEntry> draft = Drafter.draft(free, Drafter.boards(free)).corners();
    int told = 0;
    for (int c = 0; c < draft.size(); c++) {
      CornerBalance was = Answers.at(free, Things.none(), c).balance(draft.get(c));
      CornerBalance is = Answers.at(fixed, Things.none(), c).balance(draft.get(c));
      assertThat(was.around()).isEmpty();
      assertThat(is.moves()).noneMatch(m -> m.what().isSet());
      Map<What, Move> moves =
          is.moves().stream().collect(Collectors.toMap(Move::what, Function.identity()));
      for (CornerBalance.Around a : is.around()) {
        told++;
        boolean in = a.words().key().equals("around.brake");
        if (in || a.words().key().equals("around.throttle")) {
          CornerBalance.Part part = in ? is.entry() : is.exit();
          Move m = moves.get(a.what());
          double moved = (in ? m.entry() : m.exit()) * a.by() / 0.1;
          assertThat(part.front() - part.rear() + moved).isCloseTo(0, within(1e-9));
          assertThat(part.how()).isIn(How.PUSHES, How.TURNS);
          assertThat(Math.abs(a.by())).isLessThanOrEqualTo(0.4);
        }
      }
    }
    assertThat(told).isPositive();
  }

  /** An anti-lock holds the wheel that would lock first; which and when is the same. */
  @ParameterizedTest
  @CsvSource({"36, cup-gt", "5, motorcycle-600"})
  void anAntiLockIsSaidWhereAWheelWouldLock(long seed, String vehicle) {
    ComputedLap bare = on(seed, vehicle);
    ComputedLap aided =
        ComputedLap.onLine(
            bare.road(),
            bare.corners(),
            bare.ground(),
            bare.vehicle().copy().aids(new Vehicle.Aids(true, false)).build(),
            bare.conditions(),
            bare.path().offset());
    List<CornerEntry> draft = Drafter.draft(bare, List.of()).corners();
    int told = 0;
    for (int c = 0; c < draft.size(); c++) {
      CornerBalance was = Answers.at(bare, Things.none(), c).balance(draft.get(c));
      CornerBalance is = Answers.at(aided, Things.none(), c).balance(draft.get(c));
      assertThat(was.antiLock()).isFalse();
      assertThat(is.antiLock()).isTrue();
      for (int k = 0; k < was.locks().size(); k++) {
        assertThat(is.locks().get(k).at()).isEqualTo(was.locks().get(k).at());
        assertThat(Plain.words(was.locks().get(k).words())).contains(" locks first");
        assertThat(Plain.words(is.locks().get(k).words())).contains("the anti-lock holds");
        told++;
      }
    }
    assertThat(told).isPositive();
  }

  /** A kerb that turns spares the front, one that pushes the rear, and neither does more. */
  @ParameterizedTest
  @CsvSource({"70, cup-gt", "71, small-hatch"})
  void whatAKerbDoesMovesTheBalanceOnItAlone(long seed, String vehicle) {
    assertThat(ridden(seed, vehicle) + ridden(seed + 30, vehicle))
        .as("places on kerbs")
        .isGreaterThan(10);
  }

  private static int ridden(long seed, String vehicle) {
    CircuitReading read = RandomRoads.of(seed, 260);
    ComputedLap bare = Drives.computed(read, vehicle);
    Centreline road = bare.road();
    Things turns = Kerbs.atExits(read, false, Kerb.Does.TURNS);
    Things pushes = Kerbs.atExits(read, false, Kerb.Does.PUSHES);
    Things plain = Kerbs.atExits(read, false);
    List<Edge> edges = Edges.all(road, read.corners(), turns, bare.vehicle());
    ComputedLap on =
        ComputedLap.compute(
            road,
            read.corners(),
            Edges.open(road, bare.ground(), edges, bare.vehicle()),
            bare.vehicle(),
            bare.conditions());
    List<CornerEntry> draft = Drafter.draft(on, Drafter.boards(on)).corners();
    int ridden = 0;
    for (int c = 0; c < draft.size(); c++) {
      CornerBalance as = Answers.at(on, plain, c).balance(draft.get(c));
      CornerBalance turned = Answers.at(on, turns, c).balance(draft.get(c));
      CornerBalance pushed = Answers.at(on, pushes, c).balance(draft.get(c));
      for (int k = 0; k < as.front().length; k++) {
        int i = road.index(road.wrap(as.from() + k * as.step()));
        double offset = on.path().offset()[i];
        boolean under = Edges.under(road, plain, on.vehicle(), i, offset - 0.1).isPresent();
        under &= Edges.under(road, plain, on.vehicle(), i, offset + 0.1).isPresent();
        boolean off = Edges.under(road, plain, on.vehicle(), i, offset - 0.1).isEmpty();
        off &= Edges.under(road, plain, on.vehicle(), i, offset + 0.1).isEmpty();
        assertThat(turned.rear()[k]).isEqualTo(as.rear()[k]);
        assertThat(pushed.front()[k]).isEqualTo(as.front()[k]);
        if (off) {
          assertThat(turned.front()[k]).isEqualTo(as.front()[k]);
          assertThat(pushed.rear()[k]).isEqualTo(as.rear()[k]);
        } else if (under && as.front()[k] > 0.2 && as.rear()[k] > 0.2) {
          assertThat(turned.front()[k]).isLessThan(as.front()[k]);
          assertThat(pushed.rear()[k]).isLessThan(as.rear()[k]);
          ridden++;
        }
      }
    }
    return ridden;
  }

  /**
   * What is said of locking lies where the brakes are on, and nearer to it with harder brakes; what
   * is said of the hands is the most that the path asks for there.
   */
  private void lockedAndSteered(ComputedLap computed, CornerEntry entry, CornerBalance told) {
    Centreline road = computed.road();
    if (entry.slowing() != Slowing.BRAKE) {
      assertThat(told.locks()).isEmpty();
    }
    locked += told.locks().size();
    for (CornerBalance.Locks locks : told.locks()) {
      double brake = entry.station(PointKind.BRAKE).orElseThrow();
      assertThat(road.apart(brake, locks.station())).isGreaterThan(-2);
      assertThat(road.apart(locks.station(), told.middle().station())).isGreaterThan(-2);
      assertThat(locks.at()).isBetween(0.0, 3.0);
      assertThat(locks.planned()).isBetween(0.0, 1.6);
      assertThat(locks.use()).hasSize(4);
      double most = locks.use().stream().mapToDouble(u -> u).max().orElseThrow();
      if (Math.abs(locks.at() / locks.planned() - 1) > 0.02) {
        assertThat(most > 1).as("%s", locks).isEqualTo(locks.planned() > locks.at());
      }
    }
    CornerBalance.Hands hands = told.hands();
    SteeringRate usual = SteeringRate.usual(computed.vehicle());
    assertThat(hands.rolls()).isEqualTo(computed.vehicle().kind() == VehicleKind.MOTORCYCLE);
    assertThat(hands.rate() / usual.most()).isCloseTo(hands.share(), within(1e-9));
    // Driven as drafted, about as much as the lap asks for there.
    double lap = usual.asked(computed.path(), computed.lap().speed())[road.index(hands.station())];
    assertThat(hands.rate()).isCloseTo(lap, within(0.35 * lap + 0.1));
  }

  /** There is a best brake balance: far from it to either side a lap is slower. */
  @ParameterizedTest
  @CsvSource({"36, cup-gt", "7, small-hatch", "12, single-seater"})
  void farFromTheBestBalanceALapIsSlower(long seed, String vehicle) {
    ComputedLap computed = on(seed, vehicle);
    double best = Double.MAX_VALUE;
    for (int steps = -30; steps <= 30; steps += 5) {
      best = Math.min(best, lap(computed, steps));
    }
    assertThat(lap(computed, -40)).isGreaterThan(best + 0.01);
    assertThat(lap(computed, 40)).isGreaterThan(best + 0.01);
  }

  private static double lap(ComputedLap computed, double steps) {
    return computed.driven(computed.vehicle().stepped(steps, 0, 0)).lapTime();
  }

  /** A step as told is what a lap of the stepped vehicle says, computed from the start. */
  @ParameterizedTest
  @CsvSource({"36, cup-gt", "12, single-seater"})
  void aStepAsToldIsThatOfALapComputedFromTheStart(long seed, String vehicle) {
    ComputedLap computed = on(seed, vehicle);
    CornerEntry first = Drafter.draft(computed, List.of()).corners().get(0);
    for (Move m : Answers.at(computed, Things.none(), 0).balance(first).moves()) {
      if (m.lap() == null) {
        continue;
      }
      double more = from(computed, m.what(), 1);
      double less = from(computed, m.what(), -1);
      assertThat((more - less) / 2 - m.lap()).as("%s", m.what()).isBetween(-0.003, 0.003);
    }
  }

  private static Vehicle stepped(ComputedLap computed, What what, double steps) {
    return computed
        .vehicle()
        .sprung(what == What.SPRINGS ? steps : 0, 0)
        .cambered(what == What.CAMBER ? steps : 0, 0)
        .stepped(
            what == What.BRAKES ? steps : 0,
            what == What.BAR ? steps : 0,
            what == What.WING ? steps : 0);
  }

  private static double from(ComputedLap computed, What what, double steps) {
    Vehicle v = stepped(computed, what, steps);
    return ComputedLap.onLine(
            computed.road(),
            computed.corners(),
            computed.ground(),
            v,
            computed.conditions(),
            computed.path().offset())
        .lap()
        .lapTime();
  }

  /**
   * A line that is the quickest gains nothing at first order by being moved, so a step is worth on
   * it what it is worth with a line searched anew. Several steps each way, to rise above what two
   * searches differ by.
   */
  @ParameterizedTest
  @CsvSource({"36, cup-gt, BRAKES, 10", "12, single-seater, BAR, 10"})
  void aStepIsWorthTheSameOnALineSearchedForIt(long seed, String vehicle, What what, double steps) {
    ComputedLap computed = on(seed, vehicle);
    double hand = from(computed, what, steps) - from(computed, what, -steps);
    double anew = anew(computed, what, steps) - anew(computed, what, -steps);
    assertThat(Math.abs(hand)).as("seconds of all the steps").isGreaterThan(0.02);
    assertThat(anew).isCloseTo(hand, within(0.1 * Math.abs(hand) + 0.05));
  }

  private static double anew(ComputedLap computed, What what, double steps) {
    return ComputedLap.compute(
            computed.road(),
            computed.corners(),
            computed.ground(),
            stepped(computed, what, steps),
            computed.conditions())
        .lap()
        .lapTime();
  }
}
