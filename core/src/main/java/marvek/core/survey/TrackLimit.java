package marvek.core.survey;

import java.time.LocalDate;
import java.util.List;
import java.util.Objects;

/**
 * How far the organiser lets a vehicle go at one side of a corner. The rules of the event come
 * first; this is the driver's own record of them.
 *
 * @param id stable name inside the layout version
 * @param corner id of the corner
 * @param part where in the corner
 * @param left true for the left edge
 * @param line what counts as the edge
 * @param wheelsInside wheels that must stay inside it, 0 to 4
 * @param belongs what belongs to the track here, in words
 * @param cost what a breach costs, in words
 * @param breaches own breaches, oldest first
 */
public record TrackLimit(
    String id,
    String corner,
    Kerb.Part part,
    boolean left,
    Line line,
    int wheelsInside,
    String belongs,
    String cost,
    List<Breach> breaches) {

  public TrackLimit {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(corner, "corner");
    Objects.requireNonNull(part, "part");
    Objects.requireNonNull(line, "line");
    Objects.requireNonNull(belongs, "belongs");
    Objects.requireNonNull(cost, "cost");
    breaches = List.copyOf(breaches);
  }

  /** What counts as the edge. */
  public enum Line {
    WHITE_LINE,
    KERB_INNER,
    KERB_OUTER,
    TARMAC,
    NONE
  }

  /** An own breach. */
  public record Breach(LocalDate on, String note) {
    public Breach {
      Objects.requireNonNull(on, "on");
      Objects.requireNonNull(note, "note");
    }
  }
}
