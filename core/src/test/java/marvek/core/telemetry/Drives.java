package marvek.core.telemetry;

import java.util.List;
import java.util.Random;
import marvek.core.circuit.CircuitReading;
import marvek.core.debrief.LapData;
import marvek.core.lap.Conditions;
import marvek.core.logger.Driven;
import marvek.core.logger.Plan;
import marvek.core.logger.Recorder;
import marvek.core.logger.SimulatedDriver;
import marvek.core.reference.Desk;
import marvek.core.vehicle.VehicleClasses;

/** Laps of the simulated driver on any desk, recorded by a usual device and read. */
public final class Drives {
  private Drives() {}

  /** A vehicle class on a road on a dry, warm day. */
  public static Desk desk(CircuitReading read, String vehicle) {
    return Desk.compute(
        read.centreline(),
        read.corners(),
        VehicleClasses.byId(vehicle).vehicle(),
        Conditions.dryWarm());
  }

  /** Drives a plan and reads the whole laps from what a usual device writes. */
  public static List<DrivenLap> read(Plan plan, long seed) {
    return read(
        SimulatedDriver.drive(plan, new Random(seed)),
        plan.desk(),
        50,
        Recorder.Noise.usual(),
        seed + 1);
  }

  /** Reads the whole laps from what a device writes of a drive. */
  public static List<DrivenLap> read(
      Driven driven, Desk desk, double rate, Recorder.Noise noise, long seed) {
    StringBuilder text = new StringBuilder();
    new Recorder(driven, desk.road(), null, noise, new Random(seed))
        .table(rate, row -> text.append(row).append('\n'));
    return Device.read(text.toString(), desk, null).whole();
  }

  /** What a debrief sees of a lap, its events found by the line of a desk. */
  public static LapData data(DrivenLap lap, Desk by) {
    LapGrid grid = LapGrid.of(lap, by.road().length(), by.road().size() / 5);
    return new LapData(
        "lap" + lap.number(),
        "run",
        lap.number(),
        lap.lapTime(),
        grid.step(),
        grid.times(),
        new EventFinder(by.road(), by.corners(), by.limits(), by.path()).find(lap),
        true);
  }
}
