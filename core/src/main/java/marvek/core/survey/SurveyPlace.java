package marvek.core.survey;

import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.LocalPlane;
import marvek.core.circuit.RoadPosition;
import org.jspecify.annotations.Nullable;

/** Places along a road in degrees and back. */
final class SurveyPlace {
  private final Centreline road;
  private final @Nullable LocalPlane plane;

  SurveyPlace(Centreline road, @Nullable LocalPlane plane) {
    this.road = road;
    this.plane = plane;
  }

  /** Longitude and latitude of a place beside the road, or nothing where the road has none. */
  Optional<double[]> degrees(double station, boolean left, double out) {
    LocalPlane at = plane;
    if (at == null) {
      return Optional.empty();
    }
    int i = road.index(station);
    double offset = left ? road.left()[i] + out : -road.right()[i] - out;
    double[] xy = RoadPosition.toPlane(road, station, offset);
    return Optional.of(at.toDegrees(xy[0], xy[1]));
  }

  /** A place beside the road: station, side and metres outside the edge. */
  record Beside(double station, boolean left, double out) {}

  Optional<Beside> beside(double longitude, double latitude) {
    LocalPlane at = plane;
    if (at == null) {
      return Optional.empty();
    }
    double[] xy = at.toMetres(longitude, latitude);
    RoadPosition p = RoadPosition.nearest(road, xy[0], xy[1]);
    boolean left = p.offset() >= 0;
    int i = road.index(p.station());
    return Optional.of(
        new Beside(
            p.station(), left, left ? p.offset() - road.left()[i] : -p.offset() - road.right()[i]));
  }
}
