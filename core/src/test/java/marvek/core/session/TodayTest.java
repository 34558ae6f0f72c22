package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import marvek.core.day.Footing;
import marvek.core.day.Variants;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.DayKind;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Slowing;
import marvek.core.entry.Variant;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.numeric.Spread;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.score.Action;
import marvek.core.survey.Things;
import marvek.core.survey.Zone;
import marvek.core.survey.ZoneKind;
import marvek.core.technique.School;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleBuilder;
import org.junit.jupiter.api.Test;

/** The reference for a session, on roads that nobody drew. */
class TodayTest {
  private static final Things NOTHING = Things.none();
  private static final ZoneId ZONE = ZoneId.of("Europe/Lisbon");

  private static ComputedLap lap(String vehicle, long seed) {
    return Drives.computed(RandomRoads.of(seed, 380), vehicle);
  }

  private static TrackSession session(SessionDay day, SessionTyres tyres) {
    return TrackSessionBuilder.builder(
            TrackSession.of(
                SessionKind.PRACTICE,
                "Practice",
                Timing.of(new Start(LocalDateTime.of(2026, 6, 6, 14, 0), ZONE), 20)))
        .day(day)
        .tyres(tyres)
        .build();
  }

  private static SessionDay day(DayKind kind) {
    return SessionDayBuilder.builder(SessionDay.usual()).day(kind.usual()).build();
  }

  private static Today today(
      ComputedLap base, Footing footing, ReferenceContent content, TrackSession s) {
    ComputedLap then = Variants.computed(base, footing, Today.warm(s, base.vehicle()));
    return Today.of(
        base, then, Today.Roads.computed(base, footing), Spread.inTurn(), NOTHING, content, s, 0);
  }

  private static Today today(ComputedLap base, TrackSession s) {
    return today(
        base,
        Footing.plain(List.of()),
        new ReferenceContent(Drafter.draft(base, List.of()).corners()),
        s);
  }

  @Test
  void aSessionLikeTheReferenceChangesNothingOnceTheTyresAreWarm() {
    for (long seed : List.of(811L, 812L)) {
      Today today = today(lap("cup-gt", seed), session(SessionDay.usual(), SessionTyres.unknown()));
      for (Today.CornerToday c : today.corners()) {
        assertThat(c.differences()).noneMatch(d -> d.when() == Today.When.ALL);
        assertThat(c.slowest()).isCloseTo(c.slowestBase(), within(1e-9));
      }
      assertThat(today.lapTime()).isCloseTo(today.base(), within(1e-9));
    }
  }

  /** An entry of before is carried to the day as the reference's own is. */
  @Test
  void whatWasWrittenBeforeIsCarriedToTheDayLikeThePlan() {
    for (String vehicle : List.of("cup-gt", "motorcycle-600")) {
      ComputedLap base = lap(vehicle, 814);
      ReferenceContent content = new ReferenceContent(Drafter.draft(base, List.of()).corners());
      TrackSession wet = session(day(DayKind.WET), SessionTyres.unknown());
      Footing footing = Footing.plain(List.of());
      ComputedLap then = Variants.computed(base, footing, Today.warm(wet, base.vehicle()));
      Today today = today(base, footing, content, wet);
      for (int i = 0; i < content.corners().size(); i++) {
        assertThat(Today.carried(base, then, NOTHING, wet, content.corners().get(i)))
            .isEqualTo(today.corners().get(i).entry());
      }
    }
  }

  @Test
  void coldTyresAskForSoonerBrakingAndLessFromLapToLap() {
    int sooner = 0;
    for (String vehicle : List.of("cup-gt", "motorcycle-600", "downforce-prototype")) {
      Today today = today(lap(vehicle, 813), session(SessionDay.usual(), SessionTyres.unknown()));
      // A short lap has more of them: it is time that warms.
      assertThat((today.warmFrom() - 1) * today.lapTime()).isBetween(240.0, 400.0);
      for (Today.CornerToday c : today.corners()) {
        assertThat(c.early()).hasSize(today.warmFrom() - 1);
        for (int i = 0; i < c.early().size(); i++) {
          assertThat(c.early().get(i)).isBetween(0.0, 60.0);
          // A rounded metre may come between.
          assertThat(i == 0 || c.early().get(i) <= c.early().get(i - 1) + 2).isTrue();
        }
        sooner += c.brake() != null && c.early().get(0) >= 2 ? 1 : 0;
      }
    }
    assertThat(sooner).isGreaterThan(4);
  }

  /** Every cold lap is told on its own grip; from the coldest alone markers would be metres off. */
  @Test
  void whatIsBetweenTheColdestLapAndTheWarmIsAsIfComputed() {
    for (String vehicle : List.of("cup-gt", "motorcycle-600")) {
      ComputedLap base = lap(vehicle, 817);
      TrackSession s = session(SessionDay.usual(), SessionTyres.unknown());
      Today today = today(base, s);
      Footing footing = Footing.plain(List.of());
      double lapTime = base.lap().lapTime();
      for (int lap = 1; lap < today.warmFrom(); lap++) {
        double share = s.tyres().warmUp(s.day()).share(lap, lapTime);
        ComputedLap exact = Variants.held(base, base, footing, s.day().at("", share, 0));
        for (Today.CornerToday c : today.corners()) {
          if (c.entry().station(PointKind.BRAKE).isEmpty()) {
            continue;
          }
          CornerEntry e = Drafter.entry(exact, exact.indexOf(c.corner()));
          if (e.station(PointKind.BRAKE).isEmpty()) {
            continue;
          }
          double sooner =
              -base.road()
                  .apart(
                      c.entry().station(PointKind.BRAKE).get(), e.station(PointKind.BRAKE).get());
          assertThat(c.early().get(lap - 1))
              .describedAs("%s, corner %s, lap %d", vehicle, c.corner(), lap)
              .isCloseTo(Math.max(0, sooner), within(2.6));
        }
      }
    }
  }

  @Test
  void warmersShortenWhatIsColdAndAnInstallationOfTwoLapsHasNoMore() {
    SessionTyres warm = SessionTyresBuilder.builder(SessionTyres.unknown()).warmers(true).build();
    ComputedLap base = lap("cup-gt", 813);
    Today cold = today(base, session(SessionDay.usual(), SessionTyres.unknown()));
    Today today = today(base, session(SessionDay.usual(), warm));
    assertThat(today.warmFrom()).isLessThan(cold.warmFrom());
    TrackSession two = session(SessionDay.usual(), SessionTyres.unknown());
    two =
        TrackSessionBuilder.builder(two)
            .timing(TimingBuilder.builder(two.timing()).minutes(null).laps(2).build())
            .build();
    for (Today.CornerToday c : today(base, two).corners()) {
      assertThat(c.early()).hasSize(2);
    }
  }

  @Test
  void inTheWetBrakingComesSoonerAndSaysWhy() {
    int braked = 0;
    int sooner = 0;
    for (String vehicle : List.of("cup-gt", "motorcycle-1000")) {
      ComputedLap base = lap(vehicle, 814);
      TrackSession wet = session(day(DayKind.WET), SessionTyres.unknown());
      ComputedLap then =
          Variants.computed(base, Footing.plain(List.of()), Today.warm(wet, base.vehicle()));
      Today today = today(base, wet);
      assertThat(today.lapTime()).isGreaterThan(today.base() * 1.05);
      for (Today.CornerToday c : today.corners()) {
        assertThat(c.slowest()).isLessThan(c.slowestBase());
        // What is said of the corner is what it is like in the wet, and not in the dry.
        assertThat(c.entry().minimumSpeed()).isLessThan(0.97 * c.slowestBase());
        Double brake = c.brake();
        if (brake != null && Math.abs(brake) >= 2) {
          braked++;
          sooner += brake < 0 ? 1 : 0;
          // A reference as drafted becomes what would be drafted for that day.
          CornerEntry drafted = Drafter.entry(then, then.indexOf(c.corner()));
          assertThat(
                  base.road()
                      .apart(
                          drafted.station(PointKind.BRAKE).orElseThrow(),
                          c.entry().station(PointKind.BRAKE).orElseThrow()))
              .isCloseTo(0, within(1.01));
          Today.Differing d =
              c.differences().stream()
                  .filter(x -> x.kind() == PointKind.BRAKE && x.when() == Today.When.ALL)
                  .findFirst()
                  .orElseThrow();
          assertThat(d.reason().key()).isEqualTo("today.why.grip");
          // Whole metres, as far as the marker went.
          assertThat(d.metres()).isCloseTo(brake, within(0.51)).isEqualTo(Math.rint(d.metres()));
        }
      }
    }
    assertThat(braked).isGreaterThan(4);
    // Where one arrives slower by as much as the grip is less, the way is as long as before.
    assertThat((double) sooner / braked).isGreaterThan(0.6);
  }

  /** What is in the tank weighs, and no more is burnt than is in it. */
  @Test
  void theTankWeighsAtTheStartAndIsLighterAtTheEnd() {
    ComputedLap bare = lap("cup-gt", 816);
    Vehicle.Fuel own = new Vehicle.Fuel(30, 90, 0.75);
    ComputedLap base =
        ComputedLap.onLine(
            bare.road(),
            bare.corners(),
            bare.ground(),
            VehicleBuilder.builder(bare.vehicle()).fuel(own).build(),
            bare.conditions(),
            bare.path().offset());
    TrackSession plain = session(SessionDay.usual(), SessionTyres.unknown());
    TrackSession full =
        TrackSessionBuilder.builder(plain)
            .fuel(SessionFuelBuilder.builder(SessionFuel.unknown()).tank(own.load() + 40.0).build())
            .build();
    assertThat(Today.warm(full, base.vehicle()).extraMass())
        .isCloseTo(40 * own.density(), within(1e-9));
    assertThat(Today.warm(plain, base.vehicle()).extraMass()).isZero();
    // Where nobody has said how much fuel the vehicle's mass holds, no litre is weighed twice.
    assertThat(Today.warm(full, bare.vehicle()).extraMass()).isZero();
    Footing footing = Footing.plain(List.of());
    ReferenceContent content = new ReferenceContent(Drafter.draft(base, List.of()).corners());
    List<Double> masses = new ArrayList<>();
    Today.of(
        base,
        Variants.computed(base, footing, Today.warm(full, base.vehicle())),
        (line, day) -> {
          masses.add(day.extraMass());
          return Variants.held(base, line, footing, day);
        },
        Spread.inTurn(),
        NOTHING,
        content,
        full,
        1000);
    // Burning a ton a lap leaves it with an empty tank.
    assertThat(masses)
        .allMatch(m -> m >= -own.load() * own.density() - 1e-9)
        .anyMatch(m -> Math.abs(m + own.load() * own.density()) < 1e-9);
  }

  @Test
  void fuelIsTheReasonWhereItIsWhatDiffers() {
    Today today =
        today(lap("cup-gt", 814), session(day(DayKind.FULL_TANK), SessionTyres.unknown()));
    List<Today.Differing> all = new ArrayList<>();
    today
        .corners()
        .forEach(
            c ->
                c.differences().stream().filter(d -> d.when() == Today.When.ALL).forEach(all::add));
    assertThat(all).allMatch(d -> d.reason().key().equals("today.why.mass"));
    assertThat(today.lapTime()).isGreaterThan(today.base());
  }

  @Test
  void whereWaterStandsThatIsTheReasonAndElsewhereTheGripIs() {
    ComputedLap base = lap("cup-gt", 815);
    int at = 1;
    double entry = base.corners().get(at).entry();
    double exit = base.corners().get(at).exit();
    Zone puddle =
        new Zone(
            "z", ZoneKind.DAMP, Zone.Side.BOTH, entry, exit, 2, null, null, null, null, "", "");
    Footing footing = Footing.plain(List.of(puddle));
    Today today =
        today(
            base,
            footing,
            new ReferenceContent(Drafter.draft(base, List.of()).corners()),
            session(day(DayKind.DAMP), SessionTyres.unknown()));
    for (int c = 0; c < today.corners().size(); c++) {
      List<Today.Differing> all =
          today.corners().get(c).differences().stream()
              .filter(d -> d.when() == Today.When.ALL && d.kind() != null)
              .toList();
      String why = c == at ? "today.why.damp" : "today.why.grip";
      assertThat(all).allMatch(d -> d.reason().key().equals(why));
      assertThat(c != at || !all.isEmpty()).isTrue();
    }
  }

  @Test
  void whatTheDriverSetForSuchADayStandsAndIsSaidToBe() {
    ComputedLap base = lap("cup-gt", 816);
    List<CornerEntry> entries = Drafter.draft(base, List.of()).corners();
    CornerEntry own =
        entries.stream().filter(e -> e.slowing() == Slowing.BRAKE).findFirst().orElseThrow();
    double marker = base.road().wrap(own.station(PointKind.BRAKE).orElseThrow() - 33);
    Variant wet =
        new Variant(
            "wet",
            DayKind.WET,
            "",
            DayKind.WET.usual(),
            List.of(
                new Variant.ByHand(
                    own.corner(),
                    List.of(new CornerPoint(PointKind.BRAKE, marker, null, null)),
                    null,
                    null,
                    null,
                    "",
                    null,
                    List.of(),
                    List.of(),
                    null)));
    SessionDay day = SessionDayBuilder.builder(day(DayKind.WET)).like("wet").build();
    Today today =
        today(
            base,
            Footing.plain(List.of()),
            new ReferenceContent(entries, List.of(wet)),
            session(day, SessionTyres.unknown()));
    Today.CornerToday c =
        today.corners().stream()
            .filter(x -> x.corner().equals(own.corner()))
            .findFirst()
            .orElseThrow();
    assertThat(c.brake()).isNotNull().isCloseTo(-33.0, within(0.01));
    assertThat(c.differences())
        .anyMatch(d -> d.kind() == PointKind.BRAKE && d.reason().key().equals("today.why.hand"));
  }

  @Test
  void wornTyresAndAnEmptyTankShowInTheLastLapsAlone() {
    SessionTyres old = SessionTyresBuilder.builder(SessionTyres.unknown()).age(0).life(14).build();
    ComputedLap base = lap("cup-gt", 816);
    Today today = today(base, session(SessionDay.usual(), old));
    List<Today.Differing> last = new ArrayList<>();
    today
        .corners()
        .forEach(
            c ->
                c.differences().stream()
                    .filter(d -> d.when() == Today.When.LAST)
                    .forEach(last::add));
    assertThat(last).isNotEmpty().allMatch(d -> d.reason().key().equals("today.why.worn"));
    List<Today.Differing> braking = last.stream().filter(d -> d.kind() == PointKind.BRAKE).toList();
    assertThat(braking.stream().filter(d -> d.metres() < 0).count())
        .isGreaterThan(braking.size() / 2);
  }

  /** With laps at the end that differ too, the first lap is still told from the first. */
  @Test
  void theFirstLapIsToldFromTheFirstWhereTheLastDiffersToo() {
    SessionTyres old = SessionTyresBuilder.builder(SessionTyres.unknown()).age(0).life(14).build();
    ComputedLap base = lap("cup-gt", 816);
    TrackSession s = session(SessionDay.usual(), old);
    Today today = today(base, s);
    Footing footing = Footing.plain(List.of());
    ComputedLap then = Variants.computed(base, footing, Today.warm(s, base.vehicle()));
    double share =
        old.warmUp(s.day()).share(1, then.lap().lapTime())
            * old.worn(1, TyreWork.rate(base, then, List.of()));
    ComputedLap first = Variants.held(base, then, footing, s.day().at("", share, 0));
    double worn = old.worn(today.laps(), TyreWork.rate(base, then, List.of()));
    ComputedLap last = Variants.held(base, then, footing, s.day().at("", worn, 0));
    int told = 0;
    int ends = 0;
    for (Today.CornerToday c : today.corners()) {
      Optional<Double> planned = c.entry().station(PointKind.BRAKE);
      Optional<Double> marker = Variants.marker(then, first, c.entry());
      if (planned.isPresent() && marker.isPresent()) {
        double sooner = -base.road().apart(planned.get(), marker.get());
        assertThat(c.early().get(0)).isCloseTo(Math.max(0, sooner), within(0.51));
        told += sooner > 4 ? 1 : 0;
        told(base, c, Today.When.FIRST, marker.get());
        ends +=
            told(base, c, Today.When.LAST, Variants.marker(then, last, c.entry()).orElseThrow());
      }
    }
    assertThat(told).isPositive();
    assertThat(ends).isPositive();
  }

  /** What is told of a corner's marker in some laps is by how far it is away there. */
  private static int told(ComputedLap base, Today.CornerToday c, Today.When when, double marker) {
    double metres = base.road().apart(c.entry().station(PointKind.BRAKE).orElseThrow(), marker);
    List<Double> said =
        c.differences().stream()
            .filter(d -> d.when() == when && d.kind() == PointKind.BRAKE)
            .map(Today.Differing::metres)
            .toList();
    if (said.isEmpty()) {
      assertThat(Math.abs(metres)).isLessThan(2);
      return 0;
    }
    assertThat(said).containsExactly((double) Math.round(metres));
    return 1;
  }

  /** On a lap with less grip a lift keeps its share, and comes where it is made there. */
  @Test
  void aLiftOfAColdLapComesWhereItIsMadeThere() {
    int lifts = 0;
    int moved = 0;
    int others = 0;
    for (String vehicle : List.of("cup-gt", "motorcycle-600", "downforce-prototype")) {
      for (long seed : List.of(819L, 820L, 821L)) {
        ComputedLap base = lap(vehicle, seed);
        ComputedLap cold =
            Variants.held(base, base, Footing.plain(List.of()), SessionDay.usual().at("", 0.95, 0));
        for (CornerEntry own : Drafter.draft(base, List.of()).corners()) {
          Action was = Drafter.lift(own).orElse(null);
          Double share = was == null ? null : was.amount();
          int c = base.indexOf(own.corner());
          CornerEntry there = share == null ? null : Drafter.lifting(cold, c, share).orElse(null);
          if (was == null || there == null) {
            continue;
          }
          Action made = Drafter.lift(there).orElseThrow();
          Action is = Drafter.lift(Variants.placed(base, cold, own)).orElseThrow();
          if (!Objects.equals(is.amount(), share)) {
            // Another only where the same would cost.
            Answers answers = Answers.at(cold, Things.none(), c);
            assertThat(answers.answer(there).time())
                .isGreaterThan(answers.answer(Drafter.entry(cold, c)).time() + 0.05);
            others++;
            continue;
          }
          assertThat(base.road().apart(made.station(), is.station()))
              .as(own.corner())
              .isCloseTo(0, within(1.01));
          moved += Math.abs(base.road().apart(was.station(), is.station())) > 1.5 ? 1 : 0;
          lifts++;
        }
      }
    }
    assertThat(lifts).isGreaterThan(4);
    assertThat(others).isLessThanOrEqualTo(lifts / 4);
    assertThat(moved).isGreaterThan(2);
  }

  @Test
  void rubberCountsOnADryRoadOnly() {
    SessionDay green =
        SessionDayBuilder.builder(SessionDay.usual()).rubber(SessionDay.Rubber.GREEN).build();
    assertThat(green.at("", 1, 0).grip()).isCloseTo(0.97, within(1e-9));
    SessionDay wet =
        SessionDayBuilder.builder(day(DayKind.WET)).rubber(SessionDay.Rubber.GREEN).build();
    assertThat(wet.at("", 1, 0).grip()).isEqualTo(DayKind.WET.usual().grip());
  }

  /** Places moved alone are where the whole corner carried over has them. */
  @Test
  void placesMovedAloneAreWhereTheWholeCornerHasThem() {
    int told = 0;
    for (String vehicle : List.of("cup-gt", "motorcycle-600", "downforce-prototype")) {
      for (long seed : List.of(817L, 818L)) {
        ComputedLap base = lap(vehicle, seed);
        for (double share : List.of(0.93, 0.98)) {
          ComputedLap then =
              Variants.held(
                  base, base, Footing.plain(List.of()), SessionDay.usual().at("", share, 20));
          for (CornerEntry own : Drafter.draft(base, List.of()).corners()) {
            Variant plain =
                new Variant("v", DayKind.OTHER_HOUR, "", SessionDay.usual().day(), List.of());
            CornerEntry whole = Variants.adjust(base, then, plain, own).entry();
            CornerEntry placed = Variants.placed(base, then, own);
            assertThat(placed.slowing()).isEqualTo(whole.slowing());
            assertThat(placed.gear()).isEqualTo(whole.gear());
            for (PointKind kind : List.of(PointKind.BRAKE, PointKind.TURN_IN, PointKind.RELEASE)) {
              assertThat(placed.station(kind)).isEqualTo(whole.station(kind));
            }
            assertThat(Variants.marker(base, then, own)).isEqualTo(whole.station(PointKind.BRAKE));
            told += whole.station(PointKind.BRAKE).isPresent() ? 1 : 0;
          }
        }
      }
    }
    assertThat(told).isGreaterThan(40);
  }

  /** A corner driven otherwise in one session: told so, priced, and nothing else is touched. */
  @Test
  void aWayChosenForTheSessionIsDrivenInIt() {
    ComputedLap base = lap("cup-gt", 813);
    Today usual = today(base, session(SessionDay.usual(), SessionTyres.unknown()));
    int chosen = 0;
    for (Today.CornerToday c : usual.corners()) {
      Optional<Alternatives.Offer> offer =
          Alternatives.school(base, NOTHING, List.of(c.entry()), c.corner(), School.LATE_APEX);
      TrackSession with =
          TrackSessionBuilder.builder(session(SessionDay.usual(), SessionTyres.unknown()))
              .ways(List.of(new SessionWay(c.corner(), School.LATE_APEX)))
              .build();
      Today other = today(base, with);
      for (int k = 0; k < usual.corners().size(); k++) {
        Today.CornerToday was = usual.corners().get(k);
        Today.CornerToday is = other.corners().get(k);
        if (!is.corner().equals(c.corner())) {
          assertThat(is).isEqualTo(was);
          continue;
        }
        assertThat(is.way()).isEqualTo(School.LATE_APEX);
        assertThat(is.wayCosts()).isEqualTo(offer.map(Alternatives.Offer::predicted).orElse(null));
        if (offer.isPresent()) {
          chosen++;
          assertThat(is.entry()).isEqualTo(offer.get().way().entries().get(0));
          assertThat(is.entry()).isNotEqualTo(was.entry());
          assertThat(is.differences())
              .filteredOn(d -> d.when() == Today.When.ALL)
              .allMatch(d -> d.reason().key().equals("today.why.way"));
        } else {
          assertThat(is.entry()).isEqualTo(was.entry());
        }
      }
    }
    assertThat(chosen).isPositive();
  }

  /**
   * An easier pace: the lap is so much slower, every marker comes sooner or stays, and it says so.
   */
  @Test
  void anEasierPaceIsALapOfItsOwn() {
    for (double off : List.of(0.045, 0.105)) {
      ComputedLap base = lap("cup-gt", 814);
      TrackSession usual = session(SessionDay.usual(), SessionTyres.unknown());
      TrackSession easy = TrackSessionBuilder.builder(usual).pace(off).build();
      ComputedLap then = Today.paced(base, easy);
      assertThat(then.lap().lapTime() / base.lap().lapTime() - 1).isCloseTo(off, within(0.004));
      Footing footing = Footing.plain(List.of());
      ReferenceContent content = new ReferenceContent(Drafter.draft(base, List.of()).corners());
      Today.Roads roads = Today.Roads.computed(base, footing).as(then);
      Today today = Today.of(base, then, roads, Spread.inTurn(), NOTHING, content, easy, 0);
      int sooner = 0;
      for (Today.CornerToday c : today.corners()) {
        assertThat(c.slowest()).isLessThanOrEqualTo(c.slowestBase() + 1e-6);
        Double moved = c.brake();
        if (moved != null) {
          assertThat(moved).as("marker of %s", c.corner()).isLessThan(1);
          sooner += moved < -1 ? 1 : 0;
        }
        assertThat(c.differences())
            .filteredOn(d -> d.when() == Today.When.ALL)
            .allMatch(d -> d.reason().key().equals("today.why.pace"));
      }
      // A cold lap at that pace is slower still, and driven with the same shares of the grip.
      ComputedLap cold = roads.held(then, easy.day().at("", 0.94, 0));
      assertThat(cold.conditions().driving()).isEqualTo(then.conditions().driving());
      assertThat(cold.lap().lapTime()).isGreaterThan(1.01 * then.lap().lapTime());
      assertThat(sooner).isPositive();
    }
    ComputedLap base = lap("cup-gt", 814);
    TrackSession usual = session(SessionDay.usual(), SessionTyres.unknown());
    assertThat(Today.paced(base, usual)).isSameAs(base);
  }
}
