package marvek.core.telemetry;

import java.io.BufferedReader;
import java.io.IOException;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.telemetry.ReadReport.Sort;

/**
 * NMEA 0183: RMC and GGA sentences for time, place, speed and height, and lines of our own for
 * other channels, {@code $PMKV,time,brake,throttle,steering,gear,revs*hh} with seconds of the day,
 * shares, degrees and revs per minute; where the device has them, lean in degrees, the speeds of
 * the front and the rear wheel in km/h and the acceleration upwards in m/s² follow. Checksums are
 * held.
 */
final class NmeaLines {
  private static final double DAY = 86_400;
  private static final Set<Channel> PLACE =
      EnumSet.of(Channel.TIME, Channel.LATITUDE, Channel.LONGITUDE, Channel.SPEED, Channel.HEIGHT);
  private static final List<Channel> OWN =
      List.of(
          Channel.BRAKE,
          Channel.THROTTLE,
          Channel.STEERING,
          Channel.GEAR,
          Channel.REVS,
          Channel.LEAN,
          Channel.WHEEL_FRONT,
          Channel.WHEEL_REAR,
          Channel.VERTICAL);

  private NmeaLines() {}

  static Mapping mapping() {
    return new Mapping(Mapping.Format.NMEA, ',', false, 0, 1, List.of());
  }

  static void read(BufferedReader in, Blocks blocks, ReadReport report) throws IOException {
    Set<Channel> channels = EnumSet.copyOf(PLACE);
    channels.addAll(OWN);
    blocks.start(channels);
    Lines lines = new Lines(blocks);
    String line;
    while ((line = in.readLine()) != null) {
      lines.line(line);
    }
    lines.done(report);
  }

  /** The checksum of a sentence: all characters between $ and * by exclusive or. */
  static int checksum(String body) {
    int sum = 0;
    for (int i = 0; i < body.length(); i++) {
      sum ^= body.charAt(i);
    }
    return sum & 0xff;
  }

  private static final class Lines {
    private final Blocks blocks;
    private double last = Double.NaN;
    private double days;
    private int index = -1;
    private int wrong;
    private int unknown;
    private int noFix;
    private int sentences;

    Lines(Blocks blocks) {
      this.blocks = blocks;
    }

    void line(String raw) {
      String line = raw.strip();
      if (line.isEmpty()) {
        return;
      }
      int star = line.lastIndexOf('*');
      if (line.length() > 200 || !line.startsWith("$") || star < 5 || line.length() < star + 3) {
        unknown++;
        return;
      }
      String body = line.substring(1, star);
      String hex = line.substring(star + 1, star + 3);
      if (!hex.equals(String.format(Locale.ROOT, "%02X", checksum(body)))
          && !hex.equals(String.format(Locale.ROOT, "%02x", checksum(body)))) {
        wrong++;
        return;
      }
      String[] f = body.split(",", -1);
      sentences++;
      if (f[0].equals("PMKV") && f.length >= 7) {
        own(f);
      } else if (f[0].endsWith("RMC") && f.length >= 8) {
        rmc(f);
      } else if (f[0].endsWith("GGA") && f.length >= 10) {
        gga(f);
      } else {
        unknown++;
      }
    }

    /** The row of a time of day, a new one where it is later than the last. */
    private boolean at(double time) {
      if (Double.isNaN(time)) {
        return false;
      }
      double t = time + days;
      if (!Double.isNaN(last) && t < last - DAY / 2) {
        days += DAY;
        t += DAY;
      }
      if (!Double.isNaN(last) && (t < last - 1e-6 || t > last + 30)) {
        blocks.cut();
        index = -1;
      }
      if (index < 0 || t > last + 1e-6) {
        index = blocks.grow();
        blocks.open().of(Channel.TIME)[index] = t;
      }
      last = t;
      return true;
    }

    private void put(Channel channel, double value) {
      if (!Double.isNaN(value)) {
        blocks.open().of(channel)[index] = value;
      }
    }

    private void rmc(String[] f) {
      if (!f[2].equals("A")) {
        noFix++;
        return;
      }
      if (at(clock(f[1]))) {
        put(Channel.LATITUDE, angle(f[3], f[4], 2));
        put(Channel.LONGITUDE, angle(f[5], f[6], 3));
        put(Channel.SPEED, Numbers.parse(f[7], false) * Unit.KNOT.factor());
      }
    }

    private void gga(String[] f) {
      if (f[6].equals("0") || f[6].isEmpty()) {
        noFix++;
        return;
      }
      if (at(clock(f[1]))) {
        put(Channel.LATITUDE, angle(f[2], f[3], 2));
        put(Channel.LONGITUDE, angle(f[4], f[5], 3));
        put(Channel.HEIGHT, Numbers.parse(f[9], false));
      }
    }

    private void own(String[] f) {
      if (at(Numbers.parse(f[1], false))) {
        put(Channel.BRAKE, Numbers.parse(f[2], false));
        put(Channel.THROTTLE, Numbers.parse(f[3], false));
        put(Channel.STEERING, Math.toRadians(Numbers.parse(f[4], false)));
        put(Channel.GEAR, Numbers.parse(f[5], false));
        put(Channel.REVS, Numbers.parse(f[6], false));
        if (f.length >= 11) {
          put(Channel.LEAN, Math.toRadians(Numbers.parse(f[7], false)));
          put(Channel.WHEEL_FRONT, Numbers.parse(f[8], false) * Unit.KM_PER_HOUR.factor());
          put(Channel.WHEEL_REAR, Numbers.parse(f[9], false) * Unit.KM_PER_HOUR.factor());
          put(Channel.VERTICAL, Numbers.parse(f[10], false));
        }
      }
    }

    private static double clock(String hms) {
      if (hms.length() < 6) {
        return Double.NaN;
      }
      return Numbers.parse(hms.substring(0, 2), false) * 3600
          + Numbers.parse(hms.substring(2, 4), false) * 60
          + Numbers.parse(hms.substring(4), false);
    }

    private static double angle(String text, String side, int degrees) {
      if (text.length() <= degrees) {
        return Double.NaN;
      }
      double value =
          Numbers.parse(text.substring(0, degrees), false)
              + Numbers.parse(text.substring(degrees), false) / 60;
      return side.equals("S") || side.equals("W") ? -value : value;
    }

    void done(ReadReport report) {
      report.add(Sort.READ, Said.of("report.recording.sentences", Value.count(sentences)));
      if (wrong > 0) {
        report.add(
            Sort.DROPPED,
            Said.of("report.recording.sentences_with_wrong_checksum", Value.count(wrong)));
      }
      if (noFix > 0) {
        report.add(
            Sort.DROPPED, Said.of("report.recording.sentences_without_fix", Value.count(noFix)));
      }
      if (unknown > 0) {
        report.add(
            Sort.DROPPED,
            Said.of("report.recording.lines_say_nothing_place", Value.count(unknown)));
      }
    }
  }
}
