package marvek.core.marker;

import java.time.Instant;
import java.util.Objects;
import marvek.core.said.Said;
import org.jspecify.annotations.Nullable;

/**
 * A thing that the driver can see.
 *
 * @param id stable name inside the layout version
 * @param kind what it is
 * @param label what is written on it or what it is called: "100"
 * @param station metres from the start/finish line
 * @param left true when it stands on the left
 * @param corner id of the corner that it announces, or empty
 * @param out metres outside the edge of the road on its side; negative on the road
 * @param height of its top over the road, metres; for a shadow, of the thing that throws it
 * @param permanence how it lasts
 * @param readable false for a board whose writing cannot be read at speed: "the second board"
 * @param noted when a shadow was where it is noted; null for anything else
 * @param note in the driver's words
 * @param photo id of a picture, or empty
 * @param length metres along the road from its station on; 0 for a thing at one place
 * @param seen where it was measured to come into view and to leave it; null where it never was
 */
public record Landmark(
    String id,
    LandmarkKind kind,
    String label,
    double station,
    boolean left,
    String corner,
    double out,
    double height,
    Permanence permanence,
    boolean readable,
    @Nullable Instant noted,
    String note,
    String photo,
    double length,
    @Nullable Seen seen) {

  /**
   * Where a thing was seen to come into view and to leave it, measured on a film. It is told of the
   * driver's own seat and line, and stands before what is computed of them.
   *
   * @param comes station of the vehicle when it came into view; null where not measured
   * @param leaves station of the vehicle when the last of it left the view; null where not measured
   */
  public record Seen(@Nullable Double comes, @Nullable Double leaves) {}

  public Landmark {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(kind, "kind");
    Objects.requireNonNull(label, "label");
    Objects.requireNonNull(corner, "corner");
    Objects.requireNonNull(permanence, "permanence");
    Objects.requireNonNull(note, "note");
    Objects.requireNonNull(photo, "photo");
  }

  /** A landmark of which nobody measured from where it is seen. */
  public Landmark(
      String id,
      LandmarkKind kind,
      String label,
      double station,
      boolean left,
      String corner,
      double out,
      double height,
      Permanence permanence,
      boolean readable,
      @Nullable Instant noted,
      String note,
      String photo,
      double length) {
    this(
        id,
        kind,
        label,
        station,
        left,
        corner,
        out,
        height,
        permanence,
        readable,
        noted,
        note,
        photo,
        length,
        null);
  }

  /** A landmark with what is usual for its kind. */
  public Landmark(
      String id, LandmarkKind kind, String label, double station, boolean left, String corner) {
    this(
        id,
        kind,
        label,
        station,
        left,
        corner,
        kind.usualOut(),
        kind.usualHeight(),
        kind.usualPermanence(),
        true,
        null,
        "",
        "",
        0);
  }

  /** How a landmark lasts. */
  public enum Permanence {
    FIXED,
    SEASONAL,
    MOVABLE,
    LIGHT,
    SURFACE,
    FEEL;

    /** What it is called. */
    public Said said() {
      return Said.of("permanence." + name());
    }
  }

  /** How a driver says it: "the 100 board", "the old oak". */
  public String spoken() {
    return switch (kind) {
      case BOARD -> "the " + label + " board";
      case OTHER -> label;
      default -> label.isBlank() ? "the " + kind.word() : "the " + label;
    };
  }

  /** Share of a distance by which it is misjudged by eye (common practice, no source). */
  public static final double BY_EYE = 0.12;

  /**
   * Metres to which a point can be told that lies so far from it: how closely the thing itself is
   * placed, and the distance judged by eye.
   *
   * @param past metres from it to the point, either way
   */
  public double precisionAt(double past) {
    return Math.hypot(kind.precision(), BY_EYE * past);
  }
}
