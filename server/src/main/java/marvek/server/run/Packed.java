package marvek.server.run;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.EnumMap;
import java.util.Map;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.InflaterInputStream;
import marvek.core.telemetry.Channel;
import marvek.core.telemetry.LapGrid;

/**
 * Arrays as bytes: deflated single precision numbers, the bits of each against those of the one
 * before, which makes smooth channels small.
 */
public final class Packed {
  private static final int VERSION = 1;

  private Packed() {}

  public static byte[] bytes(double[] values) {
    return packed(out -> write(out, values));
  }

  static double[] doubles(byte[] bytes) {
    return unpacked(bytes, Packed::read);
  }

  public static byte[] bytes(LapGrid grid) {
    return packed(
        out -> {
          out.writeByte(VERSION);
          out.writeDouble(grid.step());
          write(out, grid.times());
          write(out, grid.speed());
          write(out, grid.offset());
          out.writeByte(grid.channels().size());
          for (Map.Entry<Channel, double[]> e : grid.channels().entrySet()) {
            out.writeUTF(e.getKey().name());
            write(out, e.getValue());
          }
        });
  }

  static LapGrid grid(byte[] bytes) {
    return unpacked(
        bytes,
        in -> {
          if (in.readByte() != VERSION) {
            throw new IOException("unknown version of packed channels");
          }
          double step = in.readDouble();
          double[] times = read(in);
          double[] speed = read(in);
          double[] offset = read(in);
          Map<Channel, double[]> channels = new EnumMap<>(Channel.class);
          int count = in.readByte();
          for (int i = 0; i < count; i++) {
            Channel c = Channel.valueOf(in.readUTF());
            channels.put(c, read(in));
          }
          return new LapGrid(step, times, speed, offset, channels);
        });
  }

  private interface Writing {
    void to(DataOutputStream out) throws IOException;
  }

  private interface Reading<T> {
    T from(DataInputStream in) throws IOException;
  }

  private static byte[] packed(Writing writing) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (DataOutputStream out =
        new DataOutputStream(
            new java.io.BufferedOutputStream(
                new DeflaterOutputStream(bytes, new Deflater(Deflater.BEST_SPEED)), 1 << 14))) {
      writing.to(out);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return bytes.toByteArray();
  }

  private static <T> T unpacked(byte[] bytes, Reading<T> reading) {
    try (DataInputStream in =
        new DataInputStream(
            new java.io.BufferedInputStream(
                new InflaterInputStream(new ByteArrayInputStream(bytes)), 1 << 14))) {
      return reading.from(in);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static void write(DataOutputStream out, double[] values) throws IOException {
    out.writeInt(values.length);
    int before = 0;
    for (double v : values) {
      int bits = Float.floatToIntBits((float) v);
      out.writeInt(bits - before);
      before = bits;
    }
  }

  private static double[] read(DataInputStream in) throws IOException {
    double[] values = new double[in.readInt()];
    int bits = 0;
    for (int i = 0; i < values.length; i++) {
      bits += in.readInt();
      values[i] = Float.intBitsToFloat(bits);
    }
    return values;
  }
}
