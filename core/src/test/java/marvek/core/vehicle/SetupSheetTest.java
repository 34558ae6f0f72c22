package marvek.core.vehicle;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.Arrays;
import java.util.List;
import marvek.core.lap.Conditions;
import marvek.core.lap.VehicleFigures;
import marvek.core.words.Speaker;
import org.junit.jupiter.api.Test;

class SetupSheetTest {
  private static final Vehicle GT = VehicleClasses.byId("cup-gt").vehicle();

  private static SetupSheet sheet(Object... pairs) {
    SetupSheet.Setting[] settings = new SetupSheet.Setting[pairs.length / 2];
    for (int i = 0; i < settings.length; i++) {
      settings[i] =
          new SetupSheet.Setting(
              (String) pairs[2 * i], ((Number) pairs[2 * i + 1]).doubleValue(), "", "", "");
    }
    return new SetupSheet("S", SetupSheet.Purpose.DRY, Arrays.asList(settings), "");
  }

  /** Springs and camber move the balance by what they say, together and back. */
  @Test
  void springsAndCamberActAsTheySay() {
    Vehicle v = VehicleClasses.byId("cup-gt").vehicle();
    double roll = v.chassisOrUsual().rollFront();
    double rear = v.chassisOrUsual().gripRear();
    for (double steps : new double[] {-4, -1, 2, 5}) {
      Vehicle front = sheet("springs.front", steps).on(v);
      double holds = roll * (1 + 0.03 * steps);
      assertThat(front.chassisOrUsual().rollFront())
          .isCloseTo(holds / (holds + 1 - roll), within(1e-9));
      Vehicle behind = sheet("springs.rear", steps).on(v);
      double holdsRear = (1 - roll) * (1 + 0.03 * steps);
      assertThat(behind.chassisOrUsual().rollFront())
          .isCloseTo(roll / (roll + holdsRear), within(1e-9));
      Vehicle camber = sheet("cambers.front", steps).on(v);
      assertThat(camber.tyres().muY())
          .isCloseTo(v.tyres().muY() * (1 + 0.005 * steps), within(1e-9));
      // The rear grips as it did.
      assertThat(camber.tyres().muY() * camber.chassisOrUsual().gripRear())
          .isCloseTo(v.tyres().muY() * rear, within(1e-9));
      Vehicle camberRear = sheet("cambers.rear", steps).on(v);
      assertThat(camberRear.tyres().muY()).isEqualTo(v.tyres().muY());
      assertThat(camberRear.chassisOrUsual().gripRear())
          .isCloseTo(rear * (1 + 0.005 * steps), within(1e-9));
      for (Vehicle set : List.of(front, behind, camber, camberRear)) {
        assertThat(set.balanceEntered()).as("what was entered stays").isEqualTo(v.balance());
      }
    }
    assertThat(sheet("springs.front", 0).on(v).chassis()).isEqualTo(v.chassis());
  }

  /**
   * An aid is on by any step of it, off by none, and as the vehicle has it where nothing is said.
   */
  @Test
  void aidsAreOnByTheirSteps() {
    Vehicle v = VehicleClasses.byId("cup-gt").vehicle();
    assertThat(v.hasAntiLock()).isFalse();
    assertThat(sheet("electronics.abs", 3).on(v).hasAntiLock()).isTrue();
    assertThat(sheet("electronics.abs", 3).on(v).hasTractionControl()).isFalse();
    assertThat(sheet("electronics.traction", 1).on(v).hasTractionControl()).isTrue();
    Vehicle aided = v.copy().aids(new Vehicle.Aids(true, true)).build();
    assertThat(sheet("electronics.abs", 0).on(aided).hasAntiLock()).isFalse();
    assertThat(sheet("electronics.abs", 0).on(aided).hasTractionControl()).isTrue();
    assertThat(sheet("fuel.load", 20).on(aided).aids()).isEqualTo(aided.aids());
  }

  /** Toe rubs with the square of its angle, in or out, each axle by what it bears. */
  @Test
  void toeRubs() {
    Vehicle v = VehicleClasses.byId("cup-gt").vehicle();
    double plain = v.tyres().rolling();
    double in = sheet("toe.front", 4).on(v).tyres().rolling() - plain;
    double out = sheet("toe.front", -4).on(v).tyres().rolling() - plain;
    double twice = sheet("toe.front", 8).on(v).tyres().rolling() - plain;
    double behind = sheet("toe.rear", 4).on(v).tyres().rolling() - plain;
    // 2 mm a side at a rim of 0.469 m: 0.00426 rad; 3 · 1.5 / 0.14 · 0.00426² · the front's share.
    double front = 1 - 1.48 / 2.46;
    assertThat(in).isCloseTo(3 * 1.5 / 0.14 * 0.00426 * 0.00426 * front, within(2e-6));
    assertThat(out).isCloseTo(in, within(1e-12));
    assertThat(twice).isCloseTo(4 * in, within(1e-12));
    assertThat(behind / in).isCloseTo((1 - front) / front, within(1e-9));
    assertThat(sheet("toe.front", 0).on(v).tyres().rolling()).isEqualTo(plain);
  }

  /** A vehicle stored with the balance that it had before the rear's grip could be set. */
  @Test
  void aBalanceOfBeforeHasTheRearAsItIs() {
    Vehicle v = VehicleClasses.byId("cup-gt").vehicle().stepped(0, 2, 0);
    Vehicle.Chassis c = v.chassisOrUsual();
    Vehicle.Balance then = v.balanceEntered();
    Vehicle.Balance old = new Vehicle.Balance(then.brakes(), then.roll(), then.lift(), null);
    Vehicle stored =
        v.with(
            new Vehicle.Chassis(
                c.trackFront(),
                c.trackRear(),
                c.rollFront(),
                c.liftFront(),
                c.gripRear(),
                c.closedTorque(),
                c.brakeStep(),
                c.barStep(),
                c.wingStep(),
                c.wingDrag(),
                old));
    assertThat(stored.balanceEntered()).isEqualTo(then);
    assertThat(stored.asEntered().balance()).isEqualTo(then);
  }

  private static SetupSheet sheet(String parameter, double number) {
    return new SetupSheet(
        "s",
        SetupSheet.Purpose.DRY,
        List.of(new SetupSheet.Setting(parameter, number, "", "", "")),
        "");
  }

  @Test
  void whatIsUnderstoodChangesTheVehicle() {
    Vehicle v =
        sheet(
                "fuel.load",
                40,
                "mass.ballast",
                10,
                "wings.downforce",
                1.5,
                "gears.final",
                4.0,
                "gears.3",
                1.75,
                "brakes.bias",
                60,
                "floor.front",
                70,
                "floor.rear",
                85,
                "tyres.grip",
                90)
            .on(GT);
    // 40 litres at 0.75 kg/l and 10 kg of ballast.
    assertThat(v.mass()).isCloseTo(GT.mass() + 40, within(1e-9));
    assertThat(v.aero().clA()).isEqualTo(1.5);
    assertThat(v.gearbox().finalDrive()).isEqualTo(4.0);
    assertThat(v.gearbox().ratios().get(2)).isEqualTo(1.75);
    assertThat(v.brakes().frontShare()).isCloseTo(0.6, within(1e-12));
    assertThat(v.floorOrUsual().rideHeight()).as("the lower end").isCloseTo(0.07, within(1e-12));
    assertThat(v.tyres().muY()).isCloseTo(GT.tyres().muY() * 0.9, within(1e-12));
    assertThat(sheet("camber.front", -3).on(GT))
        .as("what is only recorded changes nothing the simulation uses")
        .usingRecursiveComparison()
        .ignoringFields("floor")
        .isEqualTo(GT);
  }

  /**
   * With less grip less load moves forward, so that brakes set for the dry lock the front first:
   * stopping takes longer than grip alone explains, and less so with the balance moved back.
   */
  @Test
  void lessGripStopsLaterAndTheBalanceMovesBack() {
    double dry = VehicleFigures.of(GT, Conditions.dryWarm()).stopDistance();
    double wet =
        VehicleFigures.of(sheet("tyres.grip", 75).on(GT), Conditions.dryWarm()).stopDistance();
    double moved =
        VehicleFigures.of(sheet("tyres.grip", 75, "brakes.bias", 60.5).on(GT), Conditions.dryWarm())
            .stopDistance();
    assertThat(wet / dry).isGreaterThan(1 / 0.75 - 0.05);
    assertThat(moved).isLessThan(wet - 1);
    assertThat(moved / dry).isBetween(1.25, 1.36);
  }

  @Test
  void whatDiffersIsListedOnceEachWay() {
    SetupSheet a = sheet("fuel.load", 40, "brakes.bias", 60, "camber.front", -3);
    SetupSheet b = sheet("fuel.load", 20, "brakes.bias", 60, "wing.rear", 4);
    assertThat(a.against(b))
        .extracting(SetupSheet.SettingDifference::parameter)
        .containsExactly("fuel.load", "camber.front", "wing.rear");
    assertThat(a.against(a)).isEmpty();
    assertThat(a.against(b).get(1).second()).isNull();
    assertThat(a.against(b).get(2).first()).isNull();
  }

  @Test
  void whatCannotBeIsSaidWithTheReason() {
    assertThat(sheet("tyres.grip", 400).problems(GT))
        .singleElement()
        .satisfies(f -> assertThat(Speaker.PLAIN.say(f.message())).contains("30 to 130 %"));
    assertThat(sheet("no.such", 4).problems(GT)).hasSize(1);
    assertThat(sheet("own:Seat", 4).problems(GT)).isEmpty();
    assertThat(sheet("gears.2", 0.5).problems(GT))
        .as("gear 3 would be the longer one")
        .anySatisfy(f -> assertThat(Speaker.PLAIN.say(f.message())).contains("Gear 3"));
    assertThat(sheet("fuel.load", 5, "fuel.load", 6).problems(GT)).isNotEmpty();
  }

  @Test
  void aVehicleStoredBeforeFloorsAndFuelStillReads() throws Exception {
    ObjectMapper json = new ObjectMapper();
    var tree = (com.fasterxml.jackson.databind.node.ObjectNode) json.valueToTree(GT);
    tree.remove(List.of("floor", "fuel"));
    assertThat(json.treeToValue(tree, Vehicle.class)).isEqualTo(GT);
  }

  /**
   * By hand: 180 Nm at its peak × 3.45 × 4.1 × 0.92 / 0.290 m = 8077 N in first gear; the speed at
   * 5500 rpm is 5500 · 2π/60 · 0.290 / (3.45 · 4.1) = 11.81 m/s.
   */
  @Test
  void tractiveForceAgreesWithAHandWorkedExample() {
    VehicleFigures f =
        VehicleFigures.of(VehicleClasses.byId("small-hatch").vehicle(), Conditions.dryWarm());
    VehicleFigures.GearPull first = f.pulls().get(0);
    double most = Arrays.stream(first.force()).max().orElse(0);
    assertThat(most).isCloseTo(8077, within(30.0));
    int at = 0;
    for (int i = 0; i < first.force().length; i++) {
      at = first.force()[i] > first.force()[at] ? i : at;
    }
    assertThat(first.speed()[at]).isCloseTo(11.81, within(0.4));
    assertThat(f.pulls()).hasSize(5);
  }

  /**
   * V. Cossalter, Motorcycle Dynamics (from memory): with the wheelbase p, b from the front contact
   * to the centre of gravity and h its height, the front lifts at (p − b)/h, the rear at b/h. For p
   * 1.39, b 0.70, h 0.63: 1.0952 g and 1.1111 g.
   */
  @Test
  void aMotorcyclesWheelsLiftWhereTheBookSays() {
    VehicleFigures f =
        VehicleFigures.of(VehicleClasses.byId("motorcycle-600").vehicle(), Conditions.dryWarm());
    assertThat(f.motorcycle()).isNotNull();
    assertThat(f.motorcycle().frontLift() / 9.80665).isCloseTo(1.0952, within(1e-4));
    assertThat(f.motorcycle().rearLift() / 9.80665).isCloseTo(1.1111, within(1e-4));
    // tan(lean) is the cornering in g.
    assertThat(Math.tan(f.motorcycle().lean())).isCloseTo(1.32, within(1e-3));
    assertThat(VehicleFigures.of(GT, Conditions.dryWarm()).motorcycle()).isNull();
  }

  @Test
  void theEnvelopeIsAsWideAsTheCorneringAndGrowsWithDownforce() {
    VehicleFigures f =
        VehicleFigures.of(
            VehicleClasses.byId("downforce-prototype").vehicle(), Conditions.dryWarm());
    double before = 0;
    for (VehicleFigures.Envelope e : f.envelopes()) {
      double widest = Arrays.stream(e.across()).max().orElse(0);
      assertThat(widest).isGreaterThan(before);
      before = widest;
      assertThat(e.along()[0]).isGreaterThan(0);
      assertThat(e.along()[e.along().length - 1]).isLessThan(-8);
    }
    assertThat(f.stops()).isSortedAccordingTo((a, b) -> Double.compare(a.metres(), b.metres()));
  }
}
