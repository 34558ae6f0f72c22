package marvek.core.survey;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

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
 * @param bites metres of it, from its start, whose front edge bites; null for none
 * @param does what it does to the vehicle where it is ridden
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
    String photo,
    @Nullable Double bites,
    List<Does> does) {

  public Kerb {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(corner, "corner");
    Objects.requireNonNull(part, "part");
    Objects.requireNonNull(profile, "profile");
    Objects.requireNonNull(behind, "behind");
    Objects.requireNonNull(verdict, "verdict");
    Objects.requireNonNull(note, "note");
    Objects.requireNonNull(photo, "photo");
    // Surveys of before say nothing of it.
    does = does == null ? List.of() : List.copyOf(does);
  }

  /** One that does not bite and does nothing of its own. */
  public Kerb(
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
    this(
        id, left, from, to, corner, part, profile, width, height, behind, slippery, verdict, note,
        photo, null, List.of());
  }

  /** What a kerb does to the vehicle that rides it. */
  public enum Does {
    /** The rear loses its grip first: it helps the vehicle round. */
    TURNS,
    /** The front loses its grip first. */
    PUSHES,
    /** A wheel that is braked locks on it. */
    LOCKS,
    /** It throws the wheels into the air. */
    LAUNCHES
  }

  /** Metres from its start from which on it can be ridden. */
  public double usableAfter() {
    return bites == null ? 0 : bites;
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
