package marvek.server.circuit;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import marvek.core.circuit.Centreline;

/** Columns of doubles as compressed bytes, as the database keeps roads and lines. */
public final class RoadBytes {
  private RoadBytes() {}

  static byte[] write(Centreline road) {
    return pack(road.columns());
  }

  static Centreline read(byte[] bytes) {
    return Centreline.of(unpack(bytes));
  }

  /** Compresses columns of any lengths. */
  public static byte[] pack(double[]... columns) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (DataOutputStream out = new DataOutputStream(new GZIPOutputStream(bytes))) {
      out.writeInt(columns.length);
      for (double[] column : columns) {
        out.writeInt(column.length);
        for (double value : column) {
          out.writeDouble(value);
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return bytes.toByteArray();
  }

  /** The columns that {@link #pack} took. */
  public static double[][] unpack(byte[] bytes) {
    try (DataInputStream in =
        new DataInputStream(new GZIPInputStream(new ByteArrayInputStream(bytes), 1 << 16))) {
      double[][] columns = new double[in.readInt()][];
      for (int c = 0; c < columns.length; c++) {
        columns[c] = new double[in.readInt()];
        for (int i = 0; i < columns[c].length; i++) {
          columns[c][i] = in.readDouble();
        }
      }
      return columns;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
