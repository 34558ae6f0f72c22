package marvek.core.survey;

import java.util.Objects;

/**
 * A kerb.
 *
 * @param id stable name inside the layout version
 * @param left true when it lies on the left
 * @param from station where it starts, m
 * @param to station where it ends, m
 * @param corner id of its corner, or empty
 * @param part where in the corner
 * @param profile shape of its cross-section
 * @param width from the road outwards, m
 * @param height greatest, m
 * @param behind what lies behind it
 * @param slippery its paint gives less grip when damp
 * @param verdict what the driver makes of it
 * @param note in the driver's words
 * @param photo id of a picture, or empty
 */
public record Kerb(
    String id,
    boolean left,
    double from,
    double to,
    String corner,
    Part part,
    KerbProfile profile,
    double width,
    double height,
    Behind behind,
    boolean slippery,
    Verdict verdict,
    String note,
    String photo) {

  public Kerb {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(corner, "corner");
    Objects.requireNonNull(part, "part");
    Objects.requireNonNull(profile, "profile");
    Objects.requireNonNull(behind, "behind");
    Objects.requireNonNull(verdict, "verdict");
    Objects.requireNonNull(note, "note");
    Objects.requireNonNull(photo, "photo");
  }

  /** Where in a corner. */
  public enum Part {
    ENTRY,
    APEX,
    EXIT
  }

  /** What lies behind. */
  public enum Behind {
    TARMAC,
    GRASS,
    TURF,
    GRAVEL,
    DROP,
    WALL
  }

  /** What the driver makes of a kerb. */
  public enum Verdict {
    OPEN,
    KEEP_OFF,
    TOUCH,
    RIDE,
    HALF_THE_CAR,
    STRADDLE
  }
}
