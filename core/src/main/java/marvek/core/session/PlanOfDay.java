package marvek.core.session;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.LocalPlane;
import marvek.core.entry.ReferenceContent;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;
import marvek.core.survey.Things;
import marvek.core.vehicle.VehicleKind;
import org.jspecify.annotations.Nullable;

/**
 * What is planned for a session.
 *
 * @param lines corners in driving order
 * @param notToday what is not to be tried, and why
 * @param motorcycle whether it is driven on two wheels
 * @param device whether the vehicle has a device whose zones can be said
 * @param split of a race between two sets of tyres; null where one does
 * @param warming how brakes are warmed; null where there is nothing to warm them for
 * @param evidence laps that focus and targets rest on
 * @param alike whether they were driven on a day like that of the session
 * @param settling when the driver settles in; null where no sessions tell
 * @param daylight null where nobody has said where the circuit lies, and where it does not rise
 */
public record PlanOfDay(
    OnTheDay day,
    List<PlannedLine> lines,
    List<FocusLine> focus,
    List<Said> notToday,
    List<RungLine> rungs,
    Targets targets,
    FuelLine fuel,
    List<Wheels> wheels,
    List<Tread> tread,
    boolean motorcycle,
    boolean device,
    @Nullable StintSplit split,
    @Nullable BrakeWarming warming,
    List<Said> cautions,
    int evidence,
    boolean alike,
    @Nullable SettlingLine settling,
    @Nullable Daylight daylight) {
  public PlanOfDay {
    lines = List.copyOf(lines);
    focus = List.copyOf(focus);
    notToday = List.copyOf(notToday);
    rungs = List.copyOf(rungs);
    wheels = List.copyOf(wheels);
    tread = List.copyOf(tread);
    cautions = List.copyOf(cautions);
  }

  // °C where nobody has said how warm the air is.
  private static final double AIR = 15;

  /** When the driver settles in, by sessions before. */
  public record SettlingLine(Settling by, Said words) {}

  /**
   * What a plan rests on.
   *
   * @param lately null without laps
   * @param stints seconds of the first stint of each of the sessions before
   * @param felt what was said in sessions before, newest last
   * @param plane where the circuit lies; null where nobody has said
   * @param height of the circuit over the sea, m
   */
  public record Ground(
      ComputedLap base,
      Things things,
      ReferenceContent content,
      TrackSession session,
      @Nullable Lately lately,
      List<? extends List<@Nullable Double>> stints,
      List<List<Told>> felt,
      @Nullable LocalPlane plane,
      double height) {
    private double air() {
      Double air = session.day().day().airTemperature();
      return air == null ? AIR : air;
    }

    /** kPa at the place: as read, or that of the standard atmosphere at its height. */
    private double atmosphere() {
      Double read = session.day().pressure();
      return read == null ? Pressures.atmosphere(height) : read / 10;
    }
  }

  /**
   * Plans a session.
   *
   * @param lines corners as they are to be driven
   */
  public static PlanOfDay of(OnTheDay day, Ground on, List<PlannedLine> lines) {
    TrackSession session = on.session();
    ComputedLap then = day.then();
    Lately lately = on.lately();
    boolean alike = lately != null && lately.alike(then);
    boolean motorcycle = then.vehicle().kind() == VehicleKind.MOTORCYCLE;
    int wheels = motorcycle ? 2 : 4;
    List<FocusLine> focus =
        FocusLine.of(session, lines, on.content(), lately, alike, Confidence.trend(on.felt()));
    // Who is there from the first lap need not be told of it.
    Optional<Settling> settles = Settling.of(on.stints()).filter(s -> s.lap() > 1);
    int warm = day.today().warmFrom();
    int ready = Math.max(warm, settles.map(Settling::lap).orElse(1));
    FuelLine fuel = FuelLine.of(session, day);
    return new PlanOfDay(
        day,
        lines,
        focus,
        PlannedLine.notToday(lines),
        RungLine.of(session, on.things(), then, day.today().laps(), ready, lines, focus),
        Targets.of(
            day.full(),
            day.entries(),
            lately != null && alike ? lately.debrief().theoretical() : null,
            lately != null && alike ? lately.debrief().median() : null),
        fuel,
        Wheels.of(session.tyres(), wheels, on.air(), session.day().road(), on.atmosphere()),
        Tread.of(session.tyres(), wheels),
        motorcycle,
        then.vehicle().device() != null,
        split(session, then, fuel.laps() - session.fuel().formation(), on.base()),
        BrakeWarming.of(then).orElse(null),
        cautions(session),
        lately == null ? 0 : lately.laps(),
        alike,
        settles.map(by -> new SettlingLine(by, by.words(warm))).orElse(null),
        Optional.ofNullable(on.plane())
            .flatMap(plane -> Daylight.of(session, plane, on.height()))
            .orElse(null));
  }

  private static @Nullable StintSplit split(
      TrackSession session, ComputedLap then, int laps, ComputedLap base) {
    return session.kind() == SessionKind.RACE
        ? StintSplit.of(then, session, laps, TyreWork.rate(base, then, session.tyres().spared()))
        : null;
  }

  private static List<Said> cautions(TrackSession session) {
    List<Said> out = new ArrayList<>();
    out.add(Said.of("caution.flags"));
    if (!session.tyres().hot().isEmpty()) {
      out.add(Said.of("caution.pressures"));
    }
    return List.copyOf(out);
  }
}
