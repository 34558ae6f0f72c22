package marvek.core.circuit;

import static marvek.core.circuit.OutlineProblem.Kind.NOT_A_NUMBER;
import static marvek.core.circuit.OutlineProblem.Kind.OUT_OF_RANGE;
import static marvek.core.circuit.OutlineProblem.Kind.SWAPPED_COORDINATES;
import static marvek.core.circuit.OutlineProblem.Kind.TOO_FEW_POINTS;
import static marvek.core.circuit.OutlineProblem.Kind.TOO_LARGE;
import static marvek.core.circuit.OutlineProblem.Kind.UNKNOWN_FORMAT;

import java.nio.charset.StandardCharsets;
import java.util.Locale;

/** Reads a circuit outline from a file: GeoJSON (RFC 7946), GPX 1.0 or 1.1, or CSV (RFC 4180). */
public final class OutlineFile {
  /** Largest file taken, in bytes. */
  public static final int MOST_BYTES = 12_000_000;

  /** Most points taken. */
  public static final int MOST_POINTS = 200_000;

  private static final int FEWEST_POINTS = 8;
  private static final double FARTHEST = 1e7;
  private static final double HIGHEST = 9000;

  private OutlineFile() {}

  /**
   * Reads the file; its kind is told by its contents, not by its name.
   *
   * @param content the bytes as uploaded
   * @throws OutlineProblem when it cannot be read or its numbers make no sense
   */
  public static Outline read(byte[] content) {
    if (content.length > MOST_BYTES) {
      throw new OutlineProblem(
          TOO_LARGE,
          String.format(
              Locale.ROOT,
              "The file is %.1f MB; %d MB is the most.",
              content.length / 1e6,
              MOST_BYTES / 1_000_000),
          null,
          "Bring one lap only, or thin the points to one a metre.");
    }
    return checked(parse(content));
  }

  /**
   * The same points, held against what can be on a circuit.
   *
   * @throws OutlineProblem with the first that cannot
   */
  public static Outline checked(Outline outline) {
    check(outline);
    return outline;
  }

  private static Outline parse(byte[] content) {
    int first = 0;
    if (content.length > 2 && content[0] == (byte) 0xEF && content[1] == (byte) 0xBB) {
      first = 3;
    }
    while (first < content.length && Character.isWhitespace(content[first])) {
      first++;
    }
    if (first >= content.length) {
      throw new OutlineProblem(
          TOO_FEW_POINTS, "The file is empty.", null, "Choose a file with the points of one lap.");
    }
    return switch (content[first]) {
      case '{' -> GeoJsonOutline.read(content);
      case '<' -> GpxOutline.read(content);
      default -> {
        for (int i = first; i < Math.min(content.length, first + 2000); i++) {
          if (content[i] == 0) {
            throw new OutlineProblem(
                UNKNOWN_FORMAT,
                "This is not a text file.",
                "byte " + (i + 1),
                "Bring GeoJSON, GPX or CSV. If it is zipped, unpack it first.");
          }
        }
        yield CsvOutline.read(
            new String(content, first, content.length - first, StandardCharsets.UTF_8));
      }
    };
  }

  private static void check(Outline o) {
    if (o.size() < FEWEST_POINTS) {
      throw new OutlineProblem(
          TOO_FEW_POINTS,
          o.size() == 1 ? "There is only one point." : "There are only " + o.size() + " points.",
          null,
          "A circuit needs at least " + FEWEST_POINTS + "; one every 5 to 10 m is good.");
    }
    if (o.size() > MOST_POINTS) {
      throw new OutlineProblem(
          TOO_LARGE,
          "There are " + o.size() + " points; " + MOST_POINTS + " is the most.",
          null,
          "Bring one lap only, or thin the points to one a metre.");
    }
    int latitudesPastPole = 0;
    for (int i = 0; i < o.size(); i++) {
      requireNumber(o, i, o.x()[i], o.geographic() ? "longitude" : "x");
      requireNumber(o, i, o.y()[i], o.geographic() ? "latitude" : "y");
      if (o.geographic() && Math.abs(o.y()[i]) > 90) {
        latitudesPastPole++;
      }
    }
    if (latitudesPastPole > 0) {
      refuseLatitudes(o);
    }
    for (int i = 0; i < o.size(); i++) {
      double limit = o.geographic() ? 180 : FARTHEST;
      if (Math.abs(o.x()[i]) > limit || Math.abs(o.y()[i]) > limit) {
        throw new OutlineProblem(
            OUT_OF_RANGE,
            "The place " + o.x()[i] + ", " + o.y()[i] + " cannot be on a circuit.",
            o.where(i),
            o.geographic()
                ? "Give WGS84 degrees; if these are metres, bring them as CSV with x_m,y_m."
                : "Give metres from an origin near the circuit.");
      }
      checkHeightsAndWidths(o, i);
    }
  }

  private static void refuseLatitudes(Outline o) {
    boolean swappable = true;
    int first = -1;
    for (int i = 0; i < o.size(); i++) {
      swappable &= Math.abs(o.x()[i]) <= 90 && Math.abs(o.y()[i]) <= 180;
      if (first < 0 && Math.abs(o.y()[i]) > 90) {
        first = i;
      }
    }
    throw new OutlineProblem(
        swappable ? SWAPPED_COORDINATES : OUT_OF_RANGE,
        "A latitude of " + o.y()[first] + " lies past the pole.",
        o.where(first),
        swappable
            ? "Longitude and latitude look swapped: longitude comes first in GeoJSON."
            : "Give WGS84 degrees; if these are metres, bring them as CSV with x_m,y_m.");
  }

  private static void checkHeightsAndWidths(Outline o, int i) {
    double[] z = o.z();
    if (z != null) {
      requireNumber(o, i, z[i], "height");
      if (Math.abs(z[i]) > HIGHEST) {
        throw new OutlineProblem(
            OUT_OF_RANGE,
            "A height of " + z[i] + " m cannot be right.",
            o.where(i),
            "Give heights in metres, or leave them out.");
      }
    }
    checkWidth(o, i, o.right(), "right");
    checkWidth(o, i, o.left(), "left");
    double[] crossfall = o.crossfall();
    if (crossfall != null) {
      requireNumber(o, i, crossfall[i], "crossfall");
      if (Math.abs(crossfall[i]) > Math.toRadians(45)) {
        throw new OutlineProblem(
            OUT_OF_RANGE,
            String.format(
                Locale.ROOT, "A crossfall of %.1f° cannot be right.", Math.toDegrees(crossfall[i])),
            o.where(i),
            "Give degrees, positive when the left edge is lower.");
      }
    }
  }

  private static void checkWidth(
      Outline o, int i, double @org.jspecify.annotations.Nullable [] w, String side) {
    if (w == null) {
      return;
    }
    requireNumber(o, i, w[i], "width to the " + side);
    if (w[i] < 0.5 || w[i] > 60) {
      throw new OutlineProblem(
          OutlineProblem.Kind.WIDTH,
          "A width to the " + side + " of " + w[i] + " m cannot be right.",
          o.where(i),
          "Give metres from the line to the edge, 0.5 to 60, or leave the widths out.");
    }
  }

  private static void requireNumber(Outline o, int i, double value, String what) {
    if (!Double.isFinite(value)) {
      throw new OutlineProblem(
          NOT_A_NUMBER,
          "The " + what + " is not a number.",
          o.where(i),
          "Correct or remove that point.");
    }
  }
}
