package marvek.server.demo;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Stream;
import marvek.core.circuit.Centreline;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.DayKind;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Variant;
import marvek.core.logger.Mistake;
import marvek.core.logger.Planted;
import marvek.core.score.Action;
import marvek.core.session.Errand;
import marvek.core.session.SecondSet;
import marvek.core.session.SessionDay;
import marvek.core.session.SessionFuel;
import marvek.core.session.SessionFuelBuilder;
import marvek.core.session.SessionKind;
import marvek.core.session.SessionRules;
import marvek.core.session.SessionRulesBuilder;
import marvek.core.session.SessionTyres;
import marvek.core.session.SessionTyresBuilder;
import marvek.core.session.Start;
import marvek.core.session.Timing;
import marvek.core.session.Told;
import marvek.core.session.TrackSession;
import marvek.core.session.TrackSessionBuilder;
import marvek.core.technique.School;
import marvek.core.vehicle.SetupSheet;
import marvek.core.vehicle.VehicleClasses;
import marvek.core.ways.Choices;
import marvek.server.access.DemoSettings;
import marvek.server.account.Accounts;
import marvek.server.account.SignUp;
import marvek.server.circuit.LayoutVersion;
import marvek.server.debrief.Evidences;
import marvek.server.reference.Drafting;
import marvek.server.reference.Recomputing;
import marvek.server.reference.ReferenceRow;
import marvek.server.reference.References;
import marvek.server.reference.Remarks;
import marvek.server.reference.WorkingCopies;
import marvek.server.session.Sessions;
import marvek.server.sharing.Role;
import marvek.server.sharing.Sharing;
import marvek.server.simulator.SimulatedRuns;
import marvek.server.trial.Trials;
import marvek.server.vehicle.Garage;
import marvek.server.vehicle.SheetRow;
import marvek.server.vehicle.Sheets;
import marvek.server.vehicle.VehicleRow;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Loads the invented scenario of the demo, once. */
@Component
@ConditionalOnProperty("marvek.demo")
class DemoLoader implements ApplicationRunner {
  /** Laps in which a trial is driven. */
  private static final int TRIED = 18;

  private final Accounts accounts;
  private final SignUp signUp;
  private final DemoCircuits circuits;
  private final Garage garage;
  private final Sheets sheets;
  private final References references;
  private final WorkingCopies workingCopies;
  private final Recomputing recomputing;
  private final Drafting drafting;
  private final Remarks remarks;
  private final Sessions sessions;
  private final Sharing sharing;
  private final SimulatedRuns simulated;
  private final Trials trials;
  private final Evidences evidences;
  private final Clock clock;
  private final TransactionTemplate transaction;

  DemoLoader(
      Accounts accounts,
      SignUp signUp,
      DemoCircuits circuits,
      Garage garage,
      Sheets sheets,
      References references,
      WorkingCopies workingCopies,
      Recomputing recomputing,
      Drafting drafting,
      Remarks remarks,
      Sessions sessions,
      Sharing sharing,
      SimulatedRuns simulated,
      Trials trials,
      Evidences evidences,
      Clock clock,
      TransactionTemplate transaction) {
    this.accounts = accounts;
    this.signUp = signUp;
    this.circuits = circuits;
    this.garage = garage;
    this.sheets = sheets;
    this.references = references;
    this.workingCopies = workingCopies;
    this.recomputing = recomputing;
    this.drafting = drafting;
    this.remarks = remarks;
    this.sessions = sessions;
    this.sharing = sharing;
    this.simulated = simulated;
    this.trials = trials;
    this.evidences = evidences;
    this.clock = clock;
    this.transaction = transaction;
  }

  @Override
  public void run(ApplicationArguments arguments) {
    if (accounts.findByEmail(DemoSettings.Person.DRIVER.email()).isEmpty()) {
      transaction.executeWithoutResult(status -> load());
    }
  }

  private void load() {
    for (DemoSettings.Person person : DemoSettings.Person.values()) {
      signUp.make(person.email(), person.fullName(), UUID.randomUUID().toString());
    }
    UUID driver = accounts.findByEmail(DemoSettings.Person.DRIVER.email()).orElseThrow().id();
    VehicleRow gt = vehicle(driver, "Codorniz GT-C", "cup-gt");
    VehicleRow motorcycle = vehicle(driver, "Garça 600", "motorcycle-600");
    vehicle(driver, "Melro S3", "downforce-prototype");
    sheets(driver, gt, motorcycle);

    LayoutVersion hill = circuits.bring(driver, DemoCircuits.SERRA);
    circuits.survey(driver, hill, DemoCircuits.SERRA);
    ReferenceRow ride = drafting.draft(driver, hill.id(), motorcycle.id(), "");
    example(driver, ride.id(), DemoCircuits.SERRA);
    save(driver, ride.id(), "First draft from the outline and the walk, before riding.");

    LayoutVersion ring = circuits.bring(driver, DemoCircuits.FALCOEIRA);
    ReferenceRow drafted = drafting.draft(driver, ring.id(), gt.id(), "");
    circuits.survey(driver, ring, DemoCircuits.FALCOEIRA);
    recomputing.takeVehicle(driver, drafted.id());
    tellStory(driver, drafted);
  }

  private void sheets(UUID driver, VehicleRow gt, VehicleRow motorcycle) {
    SheetRow dry =
        sheets.add(
            driver,
            gt.id(),
            new SetupSheet(
                "Dry, race",
                SetupSheet.Purpose.DRY,
                List.of(
                    number("fuel.load", 60, "Forty minutes and a reserve"),
                    number("pressure.cold.front", 145, "Comes up to 190 hot"),
                    number("pressure.cold.rear", 140, "Comes up to 185 hot"),
                    number("camber.front", -3.6, "Even wear across the tyre on the first day"),
                    number("floor.front", 78, "Clears the kerb at 1"),
                    number("floor.rear", 92, ""),
                    number("brakes.bias", 65, "Rear moved into 4 with less"),
                    number("wings.downforce", 1.15, ""),
                    words("electronics.map", "2", "Full power")),
                ""));
    sheets.add(
        driver,
        gt.id(),
        new SetupSheet(
            "Wet",
            SetupSheet.Purpose.WET,
            List.of(
                number("fuel.load", 60, ""),
                number("tyres.grip", 78, "Treaded tyres on a good surface"),
                number("pressure.cold.front", 170, "Opens the tread"),
                number("floor.front", 86, "Standing water in 2"),
                number("floor.rear", 98, ""),
                number("brakes.bias", 61, "Less weight goes forward"),
                number("wings.downforce", 1.4, "All the wing there is"),
                number("wings.drag", 0.97, "The price of it"),
                words("electronics.map", "5", "Softer")),
            ""));
    sheets.putOn(driver, gt.id(), dry.id());
    sheets.add(
        driver,
        motorcycle.id(),
        new SetupSheet(
            "Hill, dry",
            SetupSheet.Purpose.DRY,
            List.of(
                number("fuel.load", 8, "Two runs"),
                number("pressure.cold.rear", 150, "Cold road under the trees"),
                number("gears.final", 6.1, "Shorter: the top gear is never reached"),
                words("electronics.wheelie", "2", "The brow after 9")),
            ""));
  }

  private static SetupSheet.Setting number(String parameter, double value, String reason) {
    return new SetupSheet.Setting(parameter, value, "", "", reason);
  }

  private static SetupSheet.Setting words(String parameter, String value, String reason) {
    return new SetupSheet.Setting(parameter, null, value, "", reason);
  }

  private VehicleRow vehicle(UUID driver, String name, String basedOn) {
    return garage.add(driver, name, basedOn, VehicleClasses.byId(basedOn).vehicle());
  }

  private void tellStory(UUID driver, ReferenceRow drafted) {
    UUID id = drafted.id();
    save(driver, id, "First draft from the outline, before driving. Boards only.");
    change(
        driver,
        id,
        Map.of(
            "c1", e -> noted(moved(e, PointKind.BRAKE, 2), "Stay right, the left is dusty"),
            "c4", e -> moved(e, PointKind.BRAKE, 4),
            "c8", e -> noted(e, "Blind over the crest: aim for the lone pine before it shows"),
            "c14", e -> moved(e, PointKind.FULL_THROTTLE, 6)));
    save(driver, id, "After practice 1: 1 and 4 had room to spare, 14 ran wide on full throttle.");
    change(
        driver,
        id,
        Map.of(
            "c1", e -> moved(e, PointKind.BRAKE, 1),
            "c9", e -> noted(e, "Give this one away, 10 pays for it"),
            "c12", e -> moved(moved(e, PointKind.BRAKE, 3), PointKind.RELEASE, -4),
            "c14", e -> noted(moved(e, PointKind.BRAKE, 4), "Patience: wait for the bridge")));
    save(
        driver,
        id,
        "After practice 2: one step later into 1, 12 and 14; off the brake sooner in 12.");
    runs(driver, id);
    change(
        driver,
        id,
        Map.of(
            "c5",
            e -> moved(e, PointKind.BRAKE, 3),
            "c4",
            e -> noted(e, "Bumps on the way in: firm, then wait")));
    example(driver, id, DemoCircuits.FALCOEIRA);
    coached(driver, id);
  }

  /** Two runs with different mistakes, and what the first one led to. */
  private void runs(UUID driver, UUID id) {
    Instant now = clock.instant();
    ZoneId zone = references.open(driver, id).layout().circuit().zone();
    UUID event = sessions.newEvent(driver, "Summer meeting", zone);
    UUID morning =
        simulated.run(
            driver,
            id,
            "First session",
            now.minus(Duration.ofHours(5)),
            14,
            List.of(
                new Planted(Mistake.UNEVEN_BRAKING, "c7", 1, 1),
                new Planted(Mistake.COASTS, "c12", 1, 0.8),
                new Planted(Mistake.UNEVEN_BRAKING, "c1", 0.6, 1)),
            15);
    evidences.acceptBest(driver, morning, 4, "What the first session spoke for.");
    UUID second =
        simulated.run(
            driver,
            id,
            "Second session",
            now.minus(Duration.ofHours(2)),
            18,
            List.of(
                new Planted(Mistake.COASTS, "c12", 0.8, 0.5),
                new Planted(Mistake.FULL_THROTTLE_LATE, "c6", 1, 0.7)),
            23);
    weekend(driver, id, event, zone, morning, second);
    tried(driver, id, event, zone);
  }

  /** A test the day before, with two ways of braking for the last corner driven in turn. */
  private void tried(UUID driver, UUID id, UUID event, ZoneId zone) {
    LocalDateTime wall =
        LocalDateTime.ofInstant(clock.instant(), zone).toLocalDate().minusDays(1).atTime(14, 0);
    UUID session =
        sessions.planned(
            driver,
            event,
            id,
            TrackSessionBuilder.builder(
                    session(
                        SessionKind.TEST,
                        "Private test",
                        wall,
                        zone,
                        40,
                        SessionTyresBuilder.builder(SessionTyres.unknown()).set("B").build()))
                .aim("One question only: off the brake early into 14, or late")
                .build());
    UUID trial =
        trials.plan(
            driver,
            session,
            trials.school(driver, session, "c14", School.EARLY_ROLL.name()).orElseThrow());
    UUID run =
        simulated.inTurn(
            driver,
            id,
            "How to brake into 14",
            wall.atZone(zone).toInstant(),
            trials.inTurn(driver, id, trial, TRIED),
            9);
    sessions.into(driver, run, session);
    for (Errand e : Errand.values()) {
      sessions.tick(driver, session, e);
    }
  }

  /** A meeting around today: two sessions driven and said of, qualifying in the wet, a race. */
  private void weekend(UUID driver, UUID id, UUID event, ZoneId zone, UUID morning, UUID second) {
    Instant now = clock.instant();
    LocalDateTime wall = LocalDateTime.ofInstant(now, zone).truncatedTo(ChronoUnit.HOURS);
    SessionTyres tyres =
        SessionTyresBuilder.builder(SessionTyres.unknown())
            .set("A")
            .hot(List.of(190.0, 190.0, 185.0, 185.0))
            .lastCold(List.of(145.0, 145.0, 140.0, 140.0))
            .lastColdAt(18.0)
            .lastHot(List.of(193.0, 188.0, 186.0, 182.0))
            .least(120.0)
            .life(60)
            .build();
    UUID first =
        sessions.planned(
            driver,
            event,
            id,
            session(SessionKind.PRACTICE, "Practice 1", wall.minusHours(5), zone, 25, tyres));
    UUID next =
        sessions.planned(
            driver,
            event,
            id,
            session(SessionKind.PRACTICE, "Practice 2", wall.minusHours(2), zone, 30, tyres));
    sessions.into(driver, morning, first);
    sessions.into(driver, second, next);
    for (Errand e : Errand.values()) {
      sessions.tick(driver, first, e);
      if (e != Errand.DEBRIEF && e != Errand.REVISE) {
        sessions.tick(driver, next, e);
      }
    }
    say(driver, next, now, Told.corner("c4", Told.Felt.GREAT), Told.corner("c12", Told.Felt.DEEP));
    LocalDateTime tomorrow = wall.toLocalDate().plusDays(1).atTime(10, 20);
    TrackSession wet = session(SessionKind.QUALIFYING, "Qualifying", tomorrow, zone, 20, tyres);
    Variant like =
        references.open(driver, id).working().variants().stream()
            .filter(v -> v.kind() == DayKind.WET)
            .findFirst()
            .orElse(null);
    SessionDay day =
        new SessionDay(
            like == null ? "" : like.id(),
            like == null ? DayKind.WET.usual() : like.day(),
            SessionDay.Rubber.USUAL,
            16.0,
            1006.0);
    sessions.planned(
        driver,
        event,
        id,
        TrackSessionBuilder.builder(wet)
            .day(day)
            .aim("Two clean laps before the road dries")
            .build());
    TrackSession race =
        session(
            SessionKind.RACE,
            "Race",
            wall.toLocalDate().plusDays(1).atTime(15, 0),
            zone,
            40,
            tyres);
    sessions.planned(
        driver,
        event,
        id,
        TrackSessionBuilder.builder(race)
            .fuel(
                SessionFuelBuilder.builder(SessionFuel.unknown())
                    .tank(60.0)
                    .other(52.0)
                    .rest(3)
                    .formation(1)
                    .build())
            .rules(
                SessionRulesBuilder.builder(SessionRules.unknown())
                    .limits(SessionRules.Limits.WARNINGS)
                    .warnings(3)
                    .penalty(5.0)
                    .pitSpeed(60 / 3.6)
                    .pitLine(3900.0)
                    .grid(6)
                    .must("One stop")
                    .build())
            .tyres(
                SessionTyresBuilder.builder(race.tyres())
                    .life(30)
                    .second(new SecondSet("harder", 0.985, 0, 60))
                    .build())
            .build());
  }

  private static TrackSession session(
      SessionKind kind,
      String name,
      LocalDateTime wall,
      ZoneId zone,
      int minutes,
      SessionTyres tyres) {
    return TrackSessionBuilder.builder(
            TrackSession.of(kind, name, Timing.of(new Start(wall, zone), minutes)))
        .tyres(tyres)
        .build();
  }

  private void say(UUID driver, UUID session, Instant now, Told... told) {
    List<Sessions.Sent> lines = new ArrayList<>();
    for (Told t : told) {
      lines.add(new Sessions.Sent(UUID.randomUUID(), "phone", now, t, false));
    }
    sessions.take(driver, session, lines);
  }

  /** One corner with all that an entry can hold, and other days, as made in the interface. */
  private void example(UUID driver, UUID id, DemoCircuits.DemoCircuit circuit) {
    References.Opened opened = references.open(driver, id);
    ReferenceContent example = circuits.example(circuit);
    List<CornerEntry> entries = new ArrayList<>();
    for (CornerEntry e : opened.working().corners()) {
      CornerEntry other =
          example.corners().stream()
              .filter(x -> x.corner().equals(e.corner()))
              .findFirst()
              .orElse(null);
      entries.add(other == null ? e : references.answer(opened, placed(opened, e, other)).entry());
    }
    workingCopies.work(
        driver, id, opened.row().version(), new ReferenceContent(entries, example.variants()));
  }

  /**
   * An example's words and choices, on the points that the computation proposes for those choices.
   */
  private static CornerEntry placed(
      References.Opened opened, CornerEntry drafted, CornerEntry example) {
    CornerEntry chosen = drafted;
    for (School school : example.schools()) {
      chosen =
          Choices.choose(
                  opened.computed(), opened.things(), List.of(chosen), chosen.corner(), school)
              .stream()
              .findFirst()
              .orElse(chosen);
    }
    Centreline road = opened.computed().road();
    List<CornerPoint> points = new ArrayList<>();
    for (CornerPoint p : example.points()) {
      PointKind leads =
          switch (p.kind()) {
            case BUILD_UP, BACK_UP, TARGET, DOWNSHIFT -> PointKind.BRAKE;
            case SHORT_SHIFT -> PointKind.FULL_THROTTLE;
            default -> p.kind();
          };
      double was = example.station(leads).orElse(p.station());
      double now = chosen.station(leads).orElse(was);
      points.add(
          new CornerPoint(p.kind(), road.wrap(now + road.apart(was, p.station())), null, p.sure()));
    }
    List<Action> actions = new ArrayList<>();
    for (Action a : example.actions()) {
      // Each goes with the point that it belongs to.
      PointKind leads = nearest(example, a.station(), road);
      double was = example.station(leads).orElse(a.station());
      double now = chosen.station(leads).orElse(was);
      actions.add(a.at(road.wrap(now + road.apart(was, a.station()))));
    }
    double origin = chosen.station(PointKind.APEX).orElse(0.0) - road.length() / 2;
    points.sort(
        Comparator.<CornerPoint>comparingDouble(p -> road.ahead(origin, p.station()))
            .thenComparing(CornerPoint::kind));
    return example
        .copy()
        .points(points)
        .approach(chosen.approachGear(), chosen.approachSpeed())
        .firstEffort(chosen.firstEffort())
        .gear(chosen.gear())
        .minimumSpeed(chosen.minimumSpeed())
        .apex(chosen.apexType(), chosen.apexGap())
        .firstThrottle(chosen.firstThrottle())
        .pedals(chosen.pedals())
        .again(chosen.again())
        .actions(actions)
        .done();
  }

  /** Of marker, turn-in and first throttle the one nearest to a place. */
  private static PointKind nearest(CornerEntry entry, double station, Centreline road) {
    return Stream.of(PointKind.BRAKE, PointKind.TURN_IN, PointKind.FIRST_THROTTLE)
        .min(
            Comparator.comparingDouble(
                k ->
                    entry
                        .station(k)
                        .map(s -> Math.abs(road.apart(s, station)))
                        .orElse(Double.MAX_VALUE)))
        .orElseThrow();
  }

  /** The coach may read the reference, and proposes something. */
  private void coached(UUID driver, UUID id) {
    UUID coach = accounts.findByEmail(DemoSettings.Person.COACH.email()).orElseThrow().id();
    sharing.open(driver, id, DemoSettings.Person.COACH.email(), Role.COACH);
    References.Opened opened = references.read(coach, id);
    CornerEntry ten =
        opened.working().corners().stream()
            .filter(e -> e.corner().equals("c10"))
            .findFirst()
            .orElseThrow();
    remarks.pin(
        coach,
        id,
        "c10",
        PointKind.BRAKE,
        "You arrive in a hurry and wait for the car to turn. Brake a little sooner, and the throttle"
            + " comes sooner too.",
        references
            .answer(opened, moved(moved(ten, PointKind.BRAKE, -3), PointKind.FULL_THROTTLE, -3))
            .entry());
    remarks.pin(
        coach,
        id,
        "c4",
        null,
        "The bumps: are you over them or round them with the brake on?",
        null);
  }

  private void save(UUID driver, UUID id, String reason) {
    workingCopies.save(driver, id, references.open(driver, id).row().version(), reason);
  }

  private void change(UUID driver, UUID id, Map<String, Function<CornerEntry, CornerEntry>> how) {
    References.Opened opened = references.open(driver, id);
    List<CornerEntry> entries = new ArrayList<>();
    for (CornerEntry e : opened.working().corners()) {
      Function<CornerEntry, CornerEntry> edit = how.get(e.corner());
      entries.add(edit == null ? e : references.answer(opened, edit.apply(e)).entry());
    }
    workingCopies.work(driver, id, opened.row().version(), opened.working().with(entries));
  }

  private static CornerEntry moved(CornerEntry e, PointKind kind, double by) {
    return e.copy().moved(kind, e.station(kind).orElse(0.0) + by).done();
  }

  private static CornerEntry noted(CornerEntry e, String note) {
    return e.copy().note(note).done();
  }
}
