package marvek.core.vehicle;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import marvek.core.said.Said;
import marvek.core.said.Value;

/**
 * A thing that can be set on a vehicle. The list is a start; a driver adds their own.
 *
 * @param id stable name
 * @param group heading that it stands under
 * @param label as shown
 * @param unit of its number; nothing for steps and words
 * @param least sensible number
 * @param most sensible number
 * @param step of one nudge
 * @param understood whether the computation uses it
 */
public record SetupParameter(
    String id,
    Said group,
    Said label,
    Said unit,
    double least,
    double most,
    double step,
    boolean understood) {

  private SetupParameter(
      String id,
      Said group,
      Said label,
      String symbol,
      double least,
      double most,
      double step,
      boolean understood) {
    this(id, group, label, unit(symbol), least, most, step, understood);
  }

  /** A symbol is the same in every language; clicks are not. */
  private static Said unit(String symbol) {
    return switch (symbol) {
      case "" -> Said.NOTHING;
      case CLICKS -> Said.of("setup.clicks");
      default -> Said.of("entry.as_written", Value.own(symbol));
    };
  }

  private static final String CLICKS = "clicks";
  private static final Said BRAKES = Said.of("setup.group.brakes");
  private static final Said CHASSIS = Said.of("setup.group.chassis");
  private static final Said ELECTRONICS = Said.of("setup.group.electronics");
  private static final Said GEARS = Said.of("setup.group.gears");
  private static final Said LOAD = Said.of("setup.group.load");
  private static final Said TYRES = Said.of("setup.group.tyres");
  private static final Said WHEELS = Said.of("setup.group.wheels");
  private static final Said WINGS = Said.of("setup.group.wings");

  private static final List<SetupParameter> ALL = make();

  /** All of them, in the order of a sheet. */
  public static List<SetupParameter> all() {
    return ALL;
  }

  /** The one of an id; nothing for one of the driver's own. */
  public static Optional<SetupParameter> find(String id) {
    return ALL.stream().filter(p -> p.id().equals(id)).findFirst();
  }

  private static List<SetupParameter> make() {
    List<SetupParameter> all = new ArrayList<>();
    all.add(new SetupParameter("fuel.load", LOAD, Said.of("setup.fuel"), "l", 0, 300, 1, true));
    all.add(
        new SetupParameter(
            "mass.ballast", LOAD, Said.of("setup.ballast"), "kg", -50, 300, 1, true));
    all.add(
        new SetupParameter(
            "tyres.grip", TYRES, Said.of("setup.grip_against_the_base"), "%", 30, 130, 1, true));
    all.add(recorded("tyres.compound", TYRES, Said.of("setup.compound"), "", 0, 99, 1));
    for (String end : List.of("front", "rear")) {
      Value front = Value.choice(end.equals("front"));
      all.add(
          recorded(
              "pressure.cold." + end,
              TYRES,
              Said.of("setup.end.cold_pressure", front),
              "kPa",
              50,
              400,
              1));
      all.add(
          recorded(
              "pressure.hot." + end,
              TYRES,
              Said.of("setup.end.hot_pressure", front),
              "kPa",
              50,
              450,
              1));
      all.add(
          recorded("camber." + end, WHEELS, Said.of("setup.end.camber", front), "°", -8, 3, 0.1));
      all.add(
          new SetupParameter(
              "toe." + end, WHEELS, Said.of("setup.end.toe", front), "mm", -20, 20, 0.5, true));
      all.add(
          new SetupParameter(
              "floor." + end,
              CHASSIS,
              Said.of("setup.end.ride_height", front),
              "mm",
              10,
              600,
              1,
              true));
      all.add(
          recorded(
              "spring." + end, CHASSIS, Said.of("setup.end.spring", front), "N/mm", 1, 500, 1));
      all.add(
          recorded(
              "bump." + end, CHASSIS, Said.of("setup.end.bump_damping", front), CLICKS, 0, 60, 1));
      all.add(
          recorded(
              "rebound." + end,
              CHASSIS,
              Said.of("setup.end.rebound_damping", front),
              CLICKS,
              0,
              60,
              1));
      all.add(
          recorded("bar." + end, CHASSIS, Said.of("setup.end.anti_roll_bar", front), "", 0, 60, 1));
      all.add(
          recorded("wing." + end, WINGS, Said.of("setup.end.wing_position", front), "", 0, 60, 1));
    }
    all.add(
        new SetupParameter(
            "wings.downforce", WINGS, Said.of("setup.downforce_area"), "m²", -1, 8, 0.05, true));
    all.add(
        new SetupParameter(
            "wings.front", WINGS, Said.of("setup.downforce_at_the_front"), "%", 0, 100, 1, true));
    all.add(
        new SetupParameter(
            "wings.steps", WINGS, Said.of("setup.rear_wing_steps_up"), "", -20, 20, 1, true));
    all.add(
        new SetupParameter(
            "roll.front", CHASSIS, Said.of("setup.roll_held_at_the_front"), "%", 5, 95, 1, true));
    all.add(
        new SetupParameter(
            "bar.steps", CHASSIS, Said.of("setup.front_bar_steps_stiffer"), "", -20, 20, 1, true));
    for (String end : List.of("front", "rear")) {
      Value front = Value.choice(end.equals("front"));
      all.add(
          new SetupParameter(
              "springs." + end,
              CHASSIS,
              Said.of("setup.end.springs_steps_stiffer", front),
              "",
              -10,
              10,
              1,
              true));
      all.add(
          new SetupParameter(
              "cambers." + end,
              WHEELS,
              Said.of("setup.end.camber_half_degrees_more", front),
              "",
              -8,
              8,
              1,
              true));
    }
    all.add(
        new SetupParameter(
            "wings.drag", WINGS, Said.of("setup.drag_area"), "m²", 0.05, 4, 0.01, true));
    all.add(
        new SetupParameter(
            "brakes.bias", BRAKES, Said.of("setup.brakes_at_the_front"), "%", 20, 100, 0.5, true));
    all.add(recorded("brakes.pads", BRAKES, Said.of("setup.pads"), "", 0, 99, 1));
    all.add(
        new SetupParameter(
            "gears.final", GEARS, Said.of("setup.final_drive"), "", 0.5, 20, 0.01, true));
    for (int g = 1; g <= 8; g++) {
      all.add(
          new SetupParameter(
              "gears." + g,
              GEARS,
              Said.of("setup.gear", Value.figure(g, 0)),
              "",
              0.2,
              20,
              0.01,
              true));
    }
    all.add(
        new SetupParameter(
            "electronics.traction",
            ELECTRONICS,
            Said.of("setup.traction_control"),
            "",
            0,
            20,
            1,
            true));
    all.add(
        new SetupParameter(
            "electronics.abs",
            ELECTRONICS,
            Said.of("setup.anti_lock_braking"),
            "",
            0,
            20,
            1,
            true));
    all.add(recorded("electronics.map", ELECTRONICS, Said.of("setup.engine_map"), "", 0, 20, 1));
    all.add(
        recorded(
            "electronics.wheelie", ELECTRONICS, Said.of("setup.front_lift_control"), "", 0, 20, 1));
    return List.copyOf(all);
  }

  private static SetupParameter recorded(
      String id, Said group, Said label, String unit, double least, double most, double step) {
    return new SetupParameter(id, group, label, unit, least, most, step, false);
  }
}
