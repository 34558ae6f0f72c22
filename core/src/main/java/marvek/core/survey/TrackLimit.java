package marvek.core.survey;

import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import marvek.core.lap.Ground;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleKind;

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

  /**
   * Metres past the edge of the road that the outer face of a tyre may go with so many wheels
   * inside. With one or two to stay in, the two of the other side do; a car is never so straight
   * that three can. A rider's wheels go where one goes.
   *
   * @param kerb width of the kerb that lies there, m; 0 for none
   */
  public double lets(Vehicle vehicle, double kerb) {
    if (wheelsInside == 0 || line == Line.NONE) {
      return Double.MAX_VALUE;
    }
    double counts = line == Line.KERB_OUTER ? kerb : 0;
    boolean twoOver = wheelsInside <= 2 && vehicle.kind() == VehicleKind.CAR;
    double over = vehicle.width() - vehicle.floorOrUsual().tyreWidth() - Ground.MARGIN;
    return counts + (twoOver ? Math.max(0, over) : 0);
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
