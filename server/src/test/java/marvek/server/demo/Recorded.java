package marvek.server.demo;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import marvek.core.circuit.LocalPlane;
import marvek.core.logger.Drive;
import marvek.core.logger.Plan;
import marvek.core.logger.Planted;
import marvek.core.logger.Recorder;
import marvek.core.logger.SimulatedDriver;
import marvek.core.logger.Truth;
import marvek.core.telemetry.Blocks;
import marvek.core.telemetry.DrivenLap;
import marvek.core.telemetry.LapReader;
import marvek.core.telemetry.ReadReport;
import marvek.core.telemetry.RecordingFile;

/** A simulated drive, recorded by a noisy device and read back from its file. */
record Recorded(Truth truth, List<DrivenLap> laps, ReadReport report, String file) {
  static final LocalPlane PLACE = new LocalPlane(-8.05, 39.62);

  static Recorded table(DemoDesk demo, List<Planted> habits, int laps, long seed) {
    return table(demo, habits, laps, 50, Recorder.Noise.usual(), seed);
  }

  static Recorded table(
      DemoDesk demo, List<Planted> habits, int laps, double rate, Recorder.Noise noise, long seed) {
    Drive driven = drive(demo, habits, laps, seed);
    StringBuilder text = new StringBuilder();
    new Recorder(driven, demo.computed().road(), PLACE, noise, new Random(seed + 1))
        .table(rate, line -> text.append(line).append('\n'));
    return read(demo, driven.truth(), text.toString());
  }

  static Recorded nmea(DemoDesk demo, List<Planted> habits, int laps, long seed) {
    Drive driven = drive(demo, habits, laps, seed);
    StringBuilder text = new StringBuilder();
    new Recorder(
            driven, demo.computed().road(), PLACE, Recorder.Noise.usual(), new Random(seed + 1))
        .nmea(10, 0, (due, line) -> text.append(line).append("\r\n"));
    return read(demo, driven.truth(), text.toString());
  }

  /** Share of the computed speeds that the driver takes through corners: its square is the grip. */
  static final double PACE = 0.98;

  static Drive drive(DemoDesk demo, List<Planted> habits, int laps, long seed) {
    return SimulatedDriver.drive(
        new Plan(demo.computed(), demo.draft(), habits, laps, 1.5, PACE, 0, true),
        new Random(seed));
  }

  static Recorded read(DemoDesk demo, Truth truth, String text) {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    ReadReport report = new ReadReport();
    List<DrivenLap> laps = new ArrayList<>();
    LapReader reader =
        new LapReader(demo.computed().road(), PLACE, demo.computed().vehicle(), report, laps::add);
    try {
      RecordingFile.read(
          new ByteArrayInputStream(bytes),
          RecordingFile.sniff(
              java.util.Arrays.copyOf(bytes, Math.min(bytes.length, RecordingFile.HEAD))),
          new Blocks(reader),
          report);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return new Recorded(truth, laps, report, text);
  }
}
