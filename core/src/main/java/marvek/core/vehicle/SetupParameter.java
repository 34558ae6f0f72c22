package marvek.core.vehicle;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A thing that can be set on a vehicle. The list is a start; a driver adds their own.
 *
 * @param id stable name
 * @param group heading that it stands under
 * @param label as shown
 * @param unit of its number; empty for clicks, steps and words
 * @param least sensible number
 * @param most sensible number
 * @param step of one nudge
 * @param understood whether the computation uses it
 */
public record SetupParameter(
    String id,
    String group,
    String label,
    String unit,
    double least,
    double most,
    double step,
    boolean understood) {

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
    all.add(new SetupParameter("fuel.load", "Load", "Fuel", "l", 0, 300, 1, true));
    all.add(new SetupParameter("mass.ballast", "Load", "Ballast", "kg", -50, 300, 1, true));
    all.add(
        new SetupParameter("tyres.grip", "Tyres", "Grip against the base", "%", 30, 130, 1, true));
    all.add(recorded("tyres.compound", "Tyres", "Compound", "", 0, 99, 1));
    for (String end : List.of("front", "rear")) {
      String name = end.equals("front") ? "Front" : "Rear";
      all.add(
          recorded("pressure.cold." + end, "Tyres", name + " cold pressure", "kPa", 50, 400, 1));
      all.add(recorded("pressure.hot." + end, "Tyres", name + " hot pressure", "kPa", 50, 450, 1));
      all.add(recorded("camber." + end, "Wheels", name + " camber", "°", -8, 3, 0.1));
      all.add(new SetupParameter("toe." + end, "Wheels", name + " toe", "mm", -20, 20, 0.5, true));
      all.add(
          new SetupParameter(
              "floor." + end, "Chassis", name + " ride height", "mm", 10, 600, 1, true));
      all.add(recorded("spring." + end, "Chassis", name + " spring", "N/mm", 1, 500, 1));
      all.add(recorded("bump." + end, "Chassis", name + " bump damping", "clicks", 0, 60, 1));
      all.add(recorded("rebound." + end, "Chassis", name + " rebound damping", "clicks", 0, 60, 1));
      all.add(recorded("bar." + end, "Chassis", name + " anti-roll bar", "", 0, 60, 1));
      all.add(recorded("wing." + end, "Wings", name + " wing position", "", 0, 60, 1));
    }
    all.add(
        new SetupParameter("wings.downforce", "Wings", "Downforce area", "m²", -1, 8, 0.05, true));
    all.add(
        new SetupParameter("wings.front", "Wings", "Downforce at the front", "%", 0, 100, 1, true));
    all.add(
        new SetupParameter("wings.steps", "Wings", "Rear wing, steps up", "", -20, 20, 1, true));
    all.add(
        new SetupParameter("roll.front", "Chassis", "Roll held at the front", "%", 5, 95, 1, true));
    all.add(
        new SetupParameter(
            "bar.steps", "Chassis", "Front bar, steps stiffer", "", -20, 20, 1, true));
    for (String end : List.of("front", "rear")) {
      String name = end.equals("front") ? "Front" : "Rear";
      all.add(
          new SetupParameter(
              "springs." + end, "Chassis", name + " springs, steps stiffer", "", -10, 10, 1, true));
      all.add(
          new SetupParameter(
              "cambers." + end, "Wheels", name + " camber, half degrees more", "", -8, 8, 1, true));
    }
    all.add(new SetupParameter("wings.drag", "Wings", "Drag area", "m²", 0.05, 4, 0.01, true));
    all.add(
        new SetupParameter(
            "brakes.bias", "Brakes", "Brakes at the front", "%", 20, 100, 0.5, true));
    all.add(recorded("brakes.pads", "Brakes", "Pads", "", 0, 99, 1));
    all.add(new SetupParameter("gears.final", "Gears", "Final drive", "", 0.5, 20, 0.01, true));
    for (int g = 1; g <= 8; g++) {
      all.add(new SetupParameter("gears." + g, "Gears", "Gear " + g, "", 0.2, 20, 0.01, true));
    }
    all.add(
        new SetupParameter(
            "electronics.traction", "Electronics", "Traction control", "", 0, 20, 1, true));
    all.add(
        new SetupParameter(
            "electronics.abs", "Electronics", "Anti-lock braking", "", 0, 20, 1, true));
    all.add(recorded("electronics.map", "Electronics", "Engine map", "", 0, 20, 1));
    all.add(recorded("electronics.wheelie", "Electronics", "Front lift control", "", 0, 20, 1));
    return List.copyOf(all);
  }

  private static SetupParameter recorded(
      String id, String group, String label, String unit, double least, double most, double step) {
    return new SetupParameter(id, group, label, unit, least, most, step, false);
  }
}
