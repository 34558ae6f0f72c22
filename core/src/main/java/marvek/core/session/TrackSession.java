package marvek.core.session;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import marvek.core.entry.ContentCheck;
import marvek.core.refusal.Refusal;
import org.jspecify.annotations.Nullable;

/**
 * One session on the track, as it is planned.
 *
 * @param kind what it is for
 * @param name in the driver's words
 * @param timing when it is
 * @param day what it will be like
 * @param tyres that are on
 * @param fuel that is in
 * @param rules that matter
 * @param focus corners that the driver chose to work on, in place of those proposed
 * @param done errands that are done
 * @param aim in the driver's words
 * @param ways of corners that are driven otherwise in this session
 * @param pace by how much of the best lap computed it is driven slower; null as in the reference
 */
@RecordBuilder
public record TrackSession(
    SessionKind kind,
    String name,
    Timing timing,
    SessionDay day,
    SessionTyres tyres,
    SessionFuel fuel,
    SessionRules rules,
    List<String> focus,
    List<Errand> done,
    String aim,
    List<SessionWay> ways,
    @Nullable Double pace) {
  private static final int FOUR = 4;

  /** Share of the best by which nobody who plans is slower. */
  private static final double SLOWEST = 0.3;

  public TrackSession {
    Objects.requireNonNull(kind, "kind");
    Objects.requireNonNull(name, "name");
    Objects.requireNonNull(timing, "timing");
    day = day == null ? SessionDay.usual() : day;
    tyres = tyres == null ? SessionTyres.unknown() : tyres;
    fuel = fuel == null ? SessionFuel.unknown() : fuel;
    rules = rules == null ? SessionRules.unknown() : rules;
    focus = focus == null ? List.of() : List.copyOf(focus);
    done = done == null ? List.of() : List.copyOf(done);
    aim = aim == null ? "" : aim;
    // Sessions planned before there were any have none.
    ways = ways == null ? List.of() : List.copyOf(ways);
  }

  /** A session with nothing said but when it is. */
  public static TrackSession of(SessionKind kind, String name, Timing timing) {
    return new TrackSession(
        kind,
        name,
        timing,
        SessionDay.usual(),
        SessionTyres.unknown(),
        SessionFuel.unknown(),
        SessionRules.unknown(),
        List.of(),
        List.of(),
        "",
        List.of(),
        null);
  }

  /** The hour at the circuit when it starts, like 14:05. */
  public String hour() {
    return String.format(Locale.ROOT, "%tR", timing.begins().atZone(timing.start().zone()));
  }

  /** The same for another time, with nothing done for it yet. */
  public TrackSession again(Timing other) {
    return TrackSessionBuilder.builder(this).timing(other).done(List.of()).build();
  }

  /**
   * Checks it.
   *
   * @throws Refusal naming the first field that is wrong
   */
  public void check() {
    if (name.isBlank() || name.length() > 100) {
      throw new Refusal("A session has a name of up to 100 letters.", "name", "Give it a name.");
    }
    checkTiming();
    ContentCheck.day("conditions", day.day());
    within("conditions", "road temperature", day.road(), -30, 80);
    within("conditions", "pressure of the air", day.pressure(), 500, 1100);
    checkTyres();
    within("fuel", "fuel at the start", fuel.tank(), 0, 500);
    within("fuel", "other load", fuel.other(), 0, 500);
    within("fuel", "rest", fuel.rest(), 0, 100);
    within("fuel", "laps of formation", (double) fuel.formation(), 0, 5);
    within("fuel", "lap of the leader", fuel.leader(), 10, 3600);
    if (fuel.used().size() > 500) {
      throw new Refusal("There are more than 500 laps.", "fuel used", "Leave the oldest out.");
    }
    for (Double litres : fuel.used()) {
      within("fuel", "fuel of a lap", litres, 0.01, 200);
    }
    checkRules();
    within("pace", "pace", pace, 0, SLOWEST);
    if (focus.size() > Focus.MOST) {
      throw new Refusal(
          "More than three corners cannot be worked on at once.", "focus", "Choose three.");
    }
    if (rules.must().length() > 500 || aim.length() > 500) {
      throw new Refusal(
          "What must be done, or the aim, is longer than 500 letters.", "aim", "Shorten it.");
    }
    if (done.size() > 2 * Errand.values().length) {
      throw new Refusal("A list is too long.", "session", "Leave something out.");
    }
  }

  private void checkRules() {
    within("rules", "speed in the pit lane", rules.pitSpeed(), 3, 40);
    within("rules", "pit-lane line", rules.pitLine(), 0, 100_000);
    within("rules", "penalty", rules.penalty(), 0, 3600);
    within("rules", "number of warnings", (double) rules.warnings(), 0, 20);
    Integer grid = rules.grid();
    within("rules", "place on the grid", grid == null ? null : grid.doubleValue(), 1, 100);
    if (rules.device().size() > 20) {
      throw new Refusal("There are more than 20 zones.", "device", "Leave some out.");
    }
    for (SessionRules.DeviceZone z : rules.device()) {
      within("device", "beginning of a zone", z.from(), 0, 100_000);
      within("device", "end of a zone", z.to(), 0, 100_000);
    }
    if (ways.size() > 200) {
      throw new Refusal("There are more than 200 corners.", "ways", "Leave some out.");
    }
  }

  private void checkTiming() {
    boolean one = (timing.minutes() == null) != (timing.laps() == null);
    if (!one) {
      throw new Refusal(
          "A session lasts either some minutes or some laps.", "length", "Give one of them.");
    }
    Integer minutes = timing.minutes();
    Integer laps = timing.laps();
    within("length", "minutes", minutes == null ? null : minutes.doubleValue(), 1, 1440);
    within("length", "laps", laps == null ? null : laps.doubleValue(), 1, 500);
    within("length", "delay", (double) timing.later(), -600, 2880);
    Integer shortened = timing.shortened();
    within("length", "shortened", shortened == null ? null : shortened.doubleValue(), 0, 1440);
    int year = timing.start().wall().getYear();
    if (year < 2000 || year > 2100) {
      throw new Refusal("The year " + year + " is not meant.", "start", "Give another date.");
    }
  }

  private void checkTyres() {
    within("tyres", "age", (double) tyres.age(), 0, 1000);
    Integer life = tyres.life();
    within("tyres", "life", life == null ? null : life.doubleValue(), 1, 2000);
    within("tyres", "temperature cold", tyres.coldAt(), -30, 110);
    within("tyres", "least pressure", tyres.least(), 20, 900);
    within("tyres", "temperature last time", tyres.lastColdAt(), -30, 110);
    within("tyres", "road temperature last time", tyres.lastRoad(), -30, 80);
    SecondSet second = tyres.second();
    if (second != null) {
      Integer its = second.life();
      within("second set", "grip as a share of the first set's", second.grip(), 0.5, 1.5);
      within("second set", "age", (double) second.age(), 0, 1000);
      within("second set", "life", its == null ? null : its.doubleValue(), 1, 2000);
      if (second.set().length() > 100) {
        throw new Refusal("A set's name is too long.", "second set", "Shorten it.");
      }
    }
    if (tyres.spared().size() > 200) {
      throw new Refusal("There are more than 200 corners.", "spared", "Leave some out.");
    }
    List<@Nullable Double> tread = tyres.tread();
    if (tread != null) {
      if (tread.size() > 3 * FOUR) {
        throw new Refusal(
            "A tread is read at three places of four wheels at most.", "tyres", "Leave one out.");
      }
      for (Double t : tread) {
        within("tyres", "temperature of the tread", t, -20, 250);
      }
    }
    for (List<@Nullable Double> four : List.of(tyres.hot(), tyres.lastCold(), tyres.lastHot())) {
      if (four.size() > FOUR) {
        throw new Refusal("There are four wheels at most.", "tyres", "Leave one out.");
      }
      for (Double p : four) {
        within("tyres", "pressure", p, 20, 900);
      }
    }
  }

  private static void within(
      String where, String what, @Nullable Double value, double least, double most) {
    if (value != null && !(value >= least && value <= most)) {
      throw new Refusal(
          String.format(
              Locale.ROOT, "The %s is %s, and lies between %s and %s.", what, value, least, most),
          where,
          "Correct it.");
    }
  }
}
