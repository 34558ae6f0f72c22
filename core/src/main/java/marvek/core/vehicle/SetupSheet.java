package marvek.core.vehicle;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * What is set on a vehicle, with reasons.
 *
 * @param name of the sheet
 * @param purpose what it is for
 * @param settings in the order of the driver
 * @param note in the driver's words
 */
public record SetupSheet(String name, Purpose purpose, List<Setting> settings, String note) {
  public SetupSheet {
    Objects.requireNonNull(name, "name");
    Objects.requireNonNull(purpose, "purpose");
    Objects.requireNonNull(note, "note");
    settings = List.copyOf(settings);
  }

  /** What a sheet is for. */
  public enum Purpose {
    DRY,
    WET,
    QUALIFYING,
    RACE
  }

  /**
   * One thing that is set.
   *
   * @param parameter id of {@link SetupParameter}, or "own:" and a name for one of the driver's own
   * @param number value in the parameter's unit; null where it is words
   * @param words value in words, or empty
   * @param unit for a parameter of the driver's own
   * @param reason why it is so
   */
  public record Setting(
      String parameter, @Nullable Double number, String words, String unit, String reason) {
    public Setting {
      Objects.requireNonNull(parameter, "parameter");
      Objects.requireNonNull(words, "words");
      Objects.requireNonNull(unit, "unit");
      Objects.requireNonNull(reason, "reason");
    }
  }

  /** The number set for a parameter, if any. */
  Optional<Double> number(String parameter) {
    return settings.stream()
        .filter(s -> s.parameter().equals(parameter))
        .map(Setting::number)
        .filter(n -> n != null)
        .findFirst();
  }

  /**
   * A difference between two sheets.
   *
   * @param parameter id
   * @param first setting of the first sheet, or null
   * @param second setting of the second, or null
   */
  public record SettingDifference(
      String parameter, @Nullable Setting first, @Nullable Setting second) {}

  /** What differs, in the order of the first sheet and then what only the second has. */
  public List<SettingDifference> against(SetupSheet other) {
    List<SettingDifference> out = new ArrayList<>();
    for (Setting s : settings) {
      Setting o = other.find(s.parameter());
      if (o == null || !sameValue(s, o)) {
        out.add(new SettingDifference(s.parameter(), s, o));
      }
    }
    for (Setting o : other.settings) {
      if (find(o.parameter()) == null) {
        out.add(new SettingDifference(o.parameter(), null, o));
      }
    }
    return List.copyOf(out);
  }

  private @Nullable Setting find(String parameter) {
    return settings.stream().filter(s -> s.parameter().equals(parameter)).findFirst().orElse(null);
  }

  private static boolean sameValue(Setting a, Setting b) {
    Double x = a.number();
    Double y = b.number();
    boolean same = x == null || y == null ? Objects.equals(x, y) : Math.abs(x - y) < 1e-9;
    return same && a.words().equals(b.words());
  }

  /** The vehicle with what the computation understands of the sheet. */
  public Vehicle on(Vehicle v) {
    Vehicle.Fuel fuel = v.fuel();
    double mass = v.mass() + number("mass.ballast").orElse(0.0);
    Optional<Double> litres = number("fuel.load");
    if (litres.isPresent()) {
      Vehicle.Fuel tank = fuel == null ? new Vehicle.Fuel(0, litres.get(), 0.75) : fuel;
      mass += (litres.get() - tank.load()) * tank.density();
      fuel =
          new Vehicle.Fuel(
              litres.get(),
              Math.max(tank.capacity(), litres.get()),
              tank.density(),
              tank.heating(),
              tank.efficiency());
    }
    double grip = number("tyres.grip").orElse(100.0) / 100;
    Vehicle.Floor floor = v.floorOrUsual();
    Optional<Double> front = number("floor.front");
    Optional<Double> rear = number("floor.rear");
    if (front.isPresent() || rear.isPresent()) {
      double low = Math.min(front.orElse(rear.orElse(0.0)), rear.orElse(front.orElse(0.0))) / 1000;
      floor = new Vehicle.Floor(low, floor.width(), floor.track(), floor.tyreWidth());
    }
    List<Double> ratios = new ArrayList<>(v.gearbox().ratios());
    for (int g = 0; g < ratios.size(); g++) {
      ratios.set(g, number("gears." + (g + 1)).orElse(ratios.get(g)));
    }
    Vehicle set =
        v.copy()
            .mass(mass)
            .gearbox(
                new Vehicle.Gearbox(
                    ratios,
                    number("gears.final").orElse(v.gearbox().finalDrive()),
                    v.gearbox().rollingRadius(),
                    v.gearbox().efficiency(),
                    v.gearbox().shiftTime(),
                    v.gearbox().drive()))
            .tyres(
                new Vehicle.Tyres(
                    v.tyres().muX() * grip,
                    v.tyres().muY() * grip,
                    v.tyres().loadSensitivity(),
                    v.tyres().rolling() + rubs(v)))
            .aero(
                new Vehicle.Aero(
                    number("wings.drag").orElse(v.aero().cdA()),
                    number("wings.downforce").orElse(v.aero().clA())))
            .floor(floor)
            .fuel(fuel)
            .aids(aids(v))
            .build();
    Vehicle.Balance is = set.balance();
    Vehicle.Balance to =
        new Vehicle.Balance(
            number("brakes.bias").map(b -> b / 100).orElse(is.brakes()),
            number("roll.front").map(r -> r / 100).orElse(is.roll()),
            number("wings.front").map(l -> l / 100).orElse(is.lift()),
            is.rear());
    set = to.equals(is) ? set : set.balanced(to);
    double bar = number("bar.steps").orElse(0.0);
    double wing = number("wings.steps").orElse(0.0);
    set = bar == 0 && wing == 0 ? set : set.stepped(0, bar, wing);
    return set.sprung(steps("springs.front"), steps("springs.rear"))
        .cambered(steps("cambers.front"), steps("cambers.rear"));
  }

  /** Aids as they are set: 0 is off, any step of it on, words alone say nothing. */
  private Vehicle.@Nullable Aids aids(Vehicle v) {
    Optional<Double> abs = number("electronics.abs");
    Optional<Double> traction = number("electronics.traction");
    return abs.isEmpty() && traction.isEmpty()
        ? v.aids()
        : new Vehicle.Aids(
            abs.map(n -> n > 0).orElse(v.hasAntiLock()),
            traction.map(n -> n > 0).orElse(v.hasTractionControl()));
  }

  /**
   * What toe adds to the rolling resistance: each wheel is dragged at its angle, and slips for it
   * with a force of 3µN/s at small angles (brush model with full sliding at s; Pacejka, "Tire and
   * Vehicle Dynamics", chapter 3), of which the angle's share pulls back. What toe does while
   * turning in is not told.
   */
  private double rubs(Vehicle v) {
    if (v.kind() == VehicleKind.MOTORCYCLE) {
      return 0;
    }
    double rear = v.cogToFront() / v.wheelbase();
    double rim = RIM * 2 * v.gearbox().rollingRadius();
    double front = steps("toe.front") / 2000 / rim;
    double behind = steps("toe.rear") / 2000 / rim;
    double each = 3 * v.tyres().muY() / SLIDES;
    return each * ((1 - rear) * front * front + rear * behind * behind);
  }

  // Toe is measured at the rim, so much of the wheel's height; slip of full sliding, radians
  // (common
  // practice, no source).
  private static final double RIM = 0.7;
  private static final double SLIDES = 0.14;

  private double steps(String parameter) {
    return number(parameter).orElse(0.0);
  }

  /** What cannot be on a sheet, each with the reason; empty when all is well. */
  public List<VehicleCheck.Finding> problems(Vehicle v) {
    List<VehicleCheck.Finding> found = new ArrayList<>();
    List<String> seen = new ArrayList<>();
    for (Setting s : settings) {
      if (seen.contains(s.parameter())) {
        found.add(new VehicleCheck.Finding(s.parameter(), Said.of("vehicle.sheet.twice")));
      }
      seen.add(s.parameter());
      Double number = s.number();
      Optional<SetupParameter> known = SetupParameter.find(s.parameter());
      boolean own = s.parameter().startsWith("own:") && s.parameter().length() > 4;
      if (known.isEmpty() && !own) {
        found.add(new VehicleCheck.Finding(s.parameter(), Said.of("vehicle.sheet.no_parameter")));
      } else if (known.isPresent() && number != null) {
        SetupParameter p = known.get();
        if (!(number >= p.least() && number <= p.most())) {
          found.add(
              new VehicleCheck.Finding(
                  s.parameter(),
                  Said.of(
                      "vehicle.sheet.range",
                      p.label().in(),
                      Value.number(p.least()),
                      Value.number(p.most()),
                      Value.choice(!p.unit().equals(Said.NOTHING)),
                      p.unit().in())));
        }
      } else if (number != null && !Double.isFinite(number)) {
        found.add(new VehicleCheck.Finding(s.parameter(), Said.of("vehicle.sheet.number")));
      }
    }
    if (found.isEmpty()) {
      found.addAll(VehicleCheck.problems(on(v)));
    }
    return List.copyOf(found);
  }
}
