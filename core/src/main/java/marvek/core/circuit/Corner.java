package marvek.core.circuit;

import java.util.List;
import java.util.Objects;

/**
 * A corner of a layout.
 *
 * @param id stable name inside the layout version
 * @param number what the driver calls it: "5", "5A"
 * @param name a spoken name, or empty
 * @param left true for a left-hander
 * @param entry station where the road starts to bend
 * @param apexes stations of greatest curvature of the road, one or two
 * @param exit station where the road is straight again
 * @param radius smallest radius of the road's middle, metres
 * @param angle change of heading, radians, positive
 * @param kind what sort of corner
 * @param complex number of the complex it belongs to, 0 for none
 * @param uncounted true for a flat kink that the venue does not count: it has no number and no
 *     entry in a reference
 */
public record Corner(
    String id,
    String number,
    String name,
    boolean left,
    double entry,
    List<Double> apexes,
    double exit,
    double radius,
    double angle,
    CornerKind kind,
    int complex,
    boolean uncounted) {

  /** A corner that counts. */
  public Corner(
      String id,
      String number,
      String name,
      boolean left,
      double entry,
      List<Double> apexes,
      double exit,
      double radius,
      double angle,
      CornerKind kind,
      int complex) {
    this(id, number, name, left, entry, apexes, exit, radius, angle, kind, complex, false);
  }

  public Corner {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(number, "number");
    Objects.requireNonNull(name, "name");
    Objects.requireNonNull(kind, "kind");
    apexes = List.copyOf(apexes);
  }

  /** The station that stands for the corner where one is needed. */
  public double apex() {
    return apexes.get(apexes.size() - 1);
  }

  /** The same corner under another name. */
  public Corner named(String other) {
    return new Corner(
        id, number, other, left, entry, apexes, exit, radius, angle, kind, complex, uncounted);
  }
}
