package marvek.core.circuit;

import java.util.Arrays;
import net.sf.geographiclib.Geodesic;
import net.sf.geographiclib.GeodesicData;
import net.sf.geographiclib.GeodesicMask;

/**
 * A plane in metres (x east, y north) about a point of the WGS84 ellipsoid.
 *
 * <p>Azimuthal equidistant projection on geodesics (C. F. F. Karney, "Algorithms for geodesics",
 * 2013): distance and direction from the centre are exact; 5 km out, other lengths are off by less
 * than one part in five million.
 *
 * @param longitude of the centre, degrees
 * @param latitude of the centre, degrees
 */
public record LocalPlane(double longitude, double latitude) {
  private static final int MASK = GeodesicMask.DISTANCE | GeodesicMask.AZIMUTH;

  /** The plane about the middle of the points. */
  public static LocalPlane around(double[] longitudes, double[] latitudes) {
    double reference = longitudes[0];
    double east = 0;
    for (double longitude : longitudes) {
      east += Math.IEEEremainder(longitude - reference, 360);
    }
    double middle = reference + east / longitudes.length;
    return new LocalPlane(
        Math.IEEEremainder(middle, 360), Arrays.stream(latitudes).average().orElse(0));
  }

  /** Degrees to {x, y} in metres. */
  public double[] toMetres(double lon, double lat) {
    GeodesicData line = Geodesic.WGS84.Inverse(latitude, longitude, lat, lon, MASK);
    double azimuth = Math.toRadians(line.azi1);
    return new double[] {line.s12 * Math.sin(azimuth), line.s12 * Math.cos(azimuth)};
  }

  /** Metres to {longitude, latitude} in degrees. */
  public double[] toDegrees(double x, double y) {
    GeodesicData line =
        Geodesic.WGS84.Direct(
            latitude, longitude, Math.toDegrees(Math.atan2(x, y)), Math.hypot(x, y));
    return new double[] {line.lon2, line.lat2};
  }
}
