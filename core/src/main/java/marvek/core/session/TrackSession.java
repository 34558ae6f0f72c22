package marvek.core.session;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import marvek.core.entry.ContentCheck;
import marvek.core.refusal.Refusal;
import marvek.core.refusal.Where;
import marvek.core.said.Said;
import marvek.core.said.Value;
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
      throw Refusal.of("refusal.session.session_name_up_letters").at("name");
    }
    checkTiming();
    ContentCheck.day(Where.field("conditions"), day.day());
    within("conditions", "field.road_temperature", day.road(), -30, 80);
    within("conditions", "field.pressure_of_the_air", day.pressure(), 500, 1100);
    checkTyres();
    within("fuel", "field.fuel_at_the_start", fuel.tank(), 0, 500);
    within("fuel", "field.other_load", fuel.other(), 0, 500);
    within("fuel", "field.rest", fuel.rest(), 0, 100);
    within("fuel", "field.laps_of_formation", (double) fuel.formation(), 0, 5);
    within("fuel", "field.lap_of_the_leader", fuel.leader(), 10, 3600);
    if (fuel.used().size() > 500) {
      throw Refusal.of("refusal.session.more_laps").at("fuel used");
    }
    for (Double litres : fuel.used()) {
      within("fuel", "field.fuel_of_a_lap", litres, 0.01, 200);
    }
    checkRules();
    within("pace", "field.pace", pace, 0, SLOWEST);
    if (focus.size() > Focus.MOST) {
      throw Refusal.of("refusal.session.more_three_corners_cannot").at("focus");
    }
    if (rules.must().length() > 500 || aim.length() > 500) {
      throw Refusal.of("refusal.session.what_must_done_aim").at("aim");
    }
    if (done.size() > 2 * Errand.values().length) {
      throw Refusal.of("refusal.session.list_too_long").at("session");
    }
  }

  private void checkRules() {
    within("rules", "field.speed_in_the_pit_lane", rules.pitSpeed(), 3, 40);
    within("rules", "field.pit_lane_line", rules.pitLine(), 0, 100_000);
    within("rules", "field.penalty", rules.penalty(), 0, 3600);
    within("rules", "field.number_of_warnings", (double) rules.warnings(), 0, 20);
    Integer grid = rules.grid();
    within("rules", "field.place_on_the_grid", grid == null ? null : grid.doubleValue(), 1, 100);
    if (rules.device().size() > 20) {
      throw Refusal.of("refusal.session.more_zones").at("device");
    }
    for (SessionRules.DeviceZone z : rules.device()) {
      within("device", "field.beginning_of_a_zone", z.from(), 0, 100_000);
      within("device", "field.end_of_a_zone", z.to(), 0, 100_000);
    }
    if (ways.size() > 200) {
      throw Refusal.of("refusal.session.more_corners").at("ways");
    }
  }

  private void checkTiming() {
    boolean one = (timing.minutes() == null) != (timing.laps() == null);
    if (!one) {
      throw Refusal.of("refusal.session.session_lasts_either_some").at("length");
    }
    Integer minutes = timing.minutes();
    Integer laps = timing.laps();
    within("length", "field.minutes", minutes == null ? null : minutes.doubleValue(), 1, 1440);
    within("length", "field.laps", laps == null ? null : laps.doubleValue(), 1, 500);
    within("length", "field.delay", (double) timing.later(), -600, 2880);
    Integer shortened = timing.shortened();
    within(
        "length", "field.shortened", shortened == null ? null : shortened.doubleValue(), 0, 1440);
    int year = timing.start().wall().getYear();
    if (year < 2000 || year > 2100) {
      throw Refusal.of("refusal.session.year_not_meant", Value.figure(year, 0)).at("start");
    }
  }

  private void checkTyres() {
    within("tyres", "field.age", (double) tyres.age(), 0, 1000);
    Integer life = tyres.life();
    within("tyres", "field.life", life == null ? null : life.doubleValue(), 1, 2000);
    within("tyres", "field.temperature_cold", tyres.coldAt(), -30, 110);
    within("tyres", "field.least_pressure", tyres.least(), 20, 900);
    within("tyres", "field.temperature_last_time", tyres.lastColdAt(), -30, 110);
    within("tyres", "field.road_temperature_last_time", tyres.lastRoad(), -30, 80);
    SecondSet second = tyres.second();
    if (second != null) {
      Integer its = second.life();
      within("second set", "field.grip_as_a_share_of_the_first_set_s", second.grip(), 0.5, 1.5);
      within("second set", "field.age", (double) second.age(), 0, 1000);
      within("second set", "field.life", its == null ? null : its.doubleValue(), 1, 2000);
      if (second.set().length() > 100) {
        throw Refusal.of("refusal.session.sets_name_too_long").at("second set");
      }
    }
    if (tyres.spared().size() > 200) {
      throw Refusal.of("refusal.session.more_corners").at("spared");
    }
    List<@Nullable Double> tread = tyres.tread();
    if (tread != null) {
      if (tread.size() > 3 * FOUR) {
        throw Refusal.of("refusal.session.tread_read_three_places").at("tyres");
      }
      for (Double t : tread) {
        within("tyres", "field.temperature_of_the_tread", t, -20, 250);
      }
    }
    for (List<@Nullable Double> four : List.of(tyres.hot(), tyres.lastCold(), tyres.lastHot())) {
      if (four.size() > FOUR) {
        throw Refusal.of("refusal.session.four_wheels_most").at("tyres");
      }
      for (Double p : four) {
        within("tyres", "field.pressure", p, 20, 900);
      }
    }
  }

  private static void within(
      String where, String what, @Nullable Double value, double least, double most) {
    if (value != null && !(value >= least && value <= most)) {
      throw Refusal.of(
              "refusal.session.lies_between",
              Said.of(what).in(),
              Value.number(value),
              Value.number(least),
              Value.number(most))
          .at(where);
    }
  }
}
