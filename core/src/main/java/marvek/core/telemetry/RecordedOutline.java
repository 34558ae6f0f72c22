package marvek.core.telemetry;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Arrays;
import marvek.core.circuit.Outline;
import marvek.core.circuit.OutlineFile;
import marvek.core.circuit.OutlineProblem;
import marvek.core.refusal.Refusal;
import org.jspecify.annotations.Nullable;

/**
 * Reads a circuit from whatever holds its places: an outline, or laps that a device recorded on it.
 */
public final class RecordedOutline {
  private RecordedOutline() {}

  /**
   * Reads the file; its kind is told by its contents.
   *
   * @param content the bytes as uploaded
   * @throws OutlineProblem when it is neither
   */
  public static Outline read(byte[] content) {
    try {
      return OutlineFile.read(content);
    } catch (OutlineProblem problem) {
      int first = 0;
      while (first < content.length && Character.isWhitespace(content[first])) {
        first++;
      }
      boolean marked = first < content.length && (content[first] == '{' || content[first] == '<');
      boolean large = content.length > OutlineFile.MOST_BYTES;
      if (marked || large || first >= content.length) {
        throw problem;
      }
      Outline recorded = recorded(content);
      if (recorded == null) {
        throw problem;
      }
      return OutlineFile.checked(recorded);
    }
  }

  private static @Nullable Outline recorded(byte[] content) {
    Places places = new Places();
    try {
      byte[] head = Arrays.copyOf(content, Math.min(content.length, RecordingFile.HEAD));
      Mapping mapping = RecordingFile.sniff(head);
      RecordingFile.read(
          new ByteArrayInputStream(content), mapping, new Blocks(places), new ReadReport());
    } catch (Refusal | IOException e) {
      return null;
    }
    return places.count < 8 ? null : places.outline();
  }

  /** Gathers the places of a recording. */
  private static final class Places implements Blocks.Taker {
    private double[] x = new double[4096];
    private double[] y = new double[4096];
    private boolean geographic;
    private int count;

    @Override
    public int take(Samples block, boolean last) {
      boolean degrees = block.has(Channel.LATITUDE) && block.has(Channel.LONGITUDE);
      boolean metres = block.has(Channel.EAST) && block.has(Channel.NORTH);
      if (!degrees && !metres || count > 0 && degrees != geographic) {
        return block.size();
      }
      geographic = degrees;
      double[] east = block.of(degrees ? Channel.LONGITUDE : Channel.EAST);
      double[] north = block.of(degrees ? Channel.LATITUDE : Channel.NORTH);
      for (int i = 0; i < block.size() && count < OutlineFile.MOST_POINTS; i++) {
        if (Double.isFinite(east[i]) && Double.isFinite(north[i])) {
          if (count == x.length) {
            x = Arrays.copyOf(x, 2 * count);
            y = Arrays.copyOf(y, 2 * count);
          }
          x[count] = east[i];
          y[count] = north[i];
          count++;
        }
      }
      return block.size();
    }

    Outline outline() {
      int[] number = new int[count];
      Arrays.setAll(number, i -> i + 1);
      return new Outline(
          geographic,
          Arrays.copyOf(x, count),
          Arrays.copyOf(y, count),
          null,
          null,
          null,
          null,
          "sample",
          number);
    }
  }
}
