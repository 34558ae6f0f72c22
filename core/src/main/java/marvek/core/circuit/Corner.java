package marvek.core.circuit;

import io.soabase.recordbuilder.core.RecordBuilder;
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
 * @param radius of the road's middle over the even part of the arc, where it is tightest, metres
 * @param angle change of heading, radians, positive
 * @param kind what sort of corner
 * @param complex number of the complex it belongs to, 0 for none
 * @param uncounted true for a flat kink that the venue does not count: it has no number and no
 *     entry in a reference
 * @param doubt of the radius, as a share of it, one standard deviation; 0 where the file bears it
 */
@RecordBuilder
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
    boolean uncounted,
    double doubt) {

  /** A corner whose radius is not in doubt. */
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
      int complex,
      boolean uncounted) {
    this(id, number, name, left, entry, apexes, exit, radius, angle, kind, complex, uncounted, 0);
  }

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
    return CornerBuilder.builder(this).name(other).build();
  }

  /** The same corner under another id and number. */
  Corner numbered(String otherId, String otherNumber) {
    return CornerBuilder.builder(this).id(otherId).number(otherNumber).build();
  }

  /** The same corner with its apexes elsewhere. */
  Corner apexed(List<Double> stations) {
    return CornerBuilder.builder(this).apexes(stations).build();
  }

  /** The same corner as part of a group. */
  Corner grouped(CornerKind otherKind, int group) {
    return CornerBuilder.builder(this).kind(otherKind).complex(group).build();
  }

  /** The same corner with a doubt about its radius. */
  Corner doubted(double share) {
    return CornerBuilder.builder(this).doubt(share).build();
  }
}
