package marvek.core.circuit;

import static marvek.core.circuit.OutlineProblem.Kind.NOT_A_NUMBER;
import static marvek.core.circuit.OutlineProblem.Kind.OUT_OF_RANGE;
import static marvek.core.circuit.OutlineProblem.Kind.SWAPPED_COORDINATES;
import static marvek.core.circuit.OutlineProblem.Kind.TOO_FEW_POINTS;
import static marvek.core.circuit.OutlineProblem.Kind.TOO_LARGE;
import static marvek.core.circuit.OutlineProblem.Kind.UNKNOWN_FORMAT;

import java.nio.charset.StandardCharsets;
import marvek.core.refusal.Where;
import marvek.core.said.Said;
import marvek.core.said.Value;

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
      throw OutlineProblem.of(
          TOO_LARGE,
          "refusal.circuit.file_most",
          Value.figure(content.length / 1e6, 1),
          Value.figure(MOST_BYTES / 1_000_000, 0));
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
      throw OutlineProblem.of(TOO_FEW_POINTS, "refusal.circuit.file_empty");
    }
    return switch (content[first]) {
      case '{' -> GeoJsonOutline.read(content);
      case '<' -> GpxOutline.read(content);
      default -> {
        for (int i = first; i < Math.min(content.length, first + 2000); i++) {
          if (content[i] == 0) {
            throw OutlineProblem.of(UNKNOWN_FORMAT, "refusal.circuit.not_text_file")
                .at(Where.byteOf(i + 1));
          }
        }
        yield CsvOutline.read(
            new String(content, first, content.length - first, StandardCharsets.UTF_8));
      }
    };
  }

  private static void check(Outline o) {
    if (o.size() < FEWEST_POINTS) {
      throw OutlineProblem.of(
          TOO_FEW_POINTS,
          "refusal.circuit.few_points",
          Value.count(o.size()),
          Value.figure(FEWEST_POINTS, 0));
    }
    if (o.size() > MOST_POINTS) {
      throw OutlineProblem.of(
          TOO_LARGE,
          "refusal.circuit.points_most",
          Value.figure(o.size(), 0),
          Value.figure(MOST_POINTS, 0));
    }
    int latitudesPastPole = 0;
    for (int i = 0; i < o.size(); i++) {
      requireNumber(o, i, o.x()[i], Said.of(o.geographic() ? "field.longitude" : "field.along_x"));
      requireNumber(o, i, o.y()[i], Said.of(o.geographic() ? "field.latitude" : "field.along_y"));
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
        throw OutlineProblem.of(
                OUT_OF_RANGE,
                "refusal.circuit.place_range",
                Value.number(o.x()[i]),
                Value.number(o.y()[i]),
                Value.choice(o.geographic()))
            .at(o.where(i));
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
    throw OutlineProblem.of(
            swappable ? SWAPPED_COORDINATES : OUT_OF_RANGE,
            "refusal.circuit.past_pole",
            Value.number(o.y()[first]),
            Value.choice(swappable))
        .at(o.where(first));
  }

  private static void checkHeightsAndWidths(Outline o, int i) {
    double[] z = o.z();
    if (z != null) {
      requireNumber(o, i, z[i], Said.of("field.height"));
      if (Math.abs(z[i]) > HIGHEST) {
        throw OutlineProblem.of(
                OUT_OF_RANGE, "refusal.circuit.height_cannot_right", Value.number(z[i]))
            .at(o.where(i));
      }
    }
    checkWidth(o, i, o.right(), "right");
    checkWidth(o, i, o.left(), "left");
    double[] crossfall = o.crossfall();
    if (crossfall != null) {
      requireNumber(o, i, crossfall[i], Said.of("field.crossfall"));
      if (Math.abs(crossfall[i]) > Math.toRadians(45)) {
        throw OutlineProblem.of(
                OUT_OF_RANGE,
                "refusal.circuit.crossfall_cannot_right",
                Value.figure(Math.toDegrees(crossfall[i]), 1))
            .at(o.where(i));
      }
    }
  }

  private static void checkWidth(
      Outline o, int i, double @org.jspecify.annotations.Nullable [] w, String side) {
    if (w == null) {
      return;
    }
    requireNumber(o, i, w[i], Said.of("field.width", new Value.Choice(side)));
    if (w[i] < 0.5 || w[i] > 60) {
      throw OutlineProblem.of(
              OutlineProblem.Kind.WIDTH,
              "refusal.circuit.width_cannot_right",
              new Value.Choice(side),
              Value.number(w[i]))
          .at(o.where(i));
    }
  }

  private static void requireNumber(Outline o, int i, double value, Said what) {
    if (!Double.isFinite(value)) {
      throw OutlineProblem.of(NOT_A_NUMBER, "refusal.circuit.not_number_b", what.in())
          .at(o.where(i));
    }
  }
}
