package marvek.core.survey;

import java.util.ArrayList;
import java.util.List;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/**
 * How far a tyre may go onto a kerb before the floor touches.
 *
 * <p>The section is taken still, square to the road: the tyre climbs to the highest place under it,
 * the wheel on the other side stays on the road, and the body follows half of that rise (the
 * springs take the rest). Speed, bounce and pitch make it worse; the figure is a limit for a smooth
 * ride, not a permission.
 *
 * @param reach metres that the outer face of the tyre may go past the kerb's inner edge; null when
 *     the floor clears it wherever the tyre is
 * @param most metres past the inner edge that were looked at: to the tyre standing wholly behind
 * @param wheelRise height of the tyre over the road at the reach (or the most on the way), metres
 * @param gap least distance between floor and kerb on the way, metres; zero where it touches
 * @param section of the kerb and what is behind it, from the inner edge outwards
 * @param vehicle outline of floor and tyre at the reach, in the same axes
 */
public record KerbClearance(
    @Nullable Double reach,
    double most,
    double wheelRise,
    double gap,
    List<SectionPoint> section,
    Stance vehicle) {

  /** Share of the wheel's rise that the body follows. */
  public static final double BODY_FOLLOWS = 0.5;

  private static final double STEP = 0.005;
  private static final double DROP = 0.08;
  private static final double BEHIND = 0.5;

  /** A point of a section: metres outwards from the kerb's inner edge, metres over the road. */
  public record SectionPoint(double across, double up) {}

  /**
   * Where the vehicle stands in the section.
   *
   * @param tyreInner metres outwards of the tyre's inner face
   * @param tyreOuter of its outer face
   * @param floorEdge of the floor's outer edge
   * @param floorAtEdge height of the floor there, metres
   * @param floorAtRoad height of the floor above the kerb's inner edge, metres
   */
  public record Stance(
      double tyreInner,
      double tyreOuter,
      double floorEdge,
      double floorAtEdge,
      double floorAtRoad) {}

  /** Computes for a vehicle. */
  public static KerbClearance of(Kerb kerb, Vehicle vehicle) {
    Vehicle.Floor floor = vehicle.floorOrUsual();
    double most = kerb.width() + floor.tyreWidth();
    double gap = floor.rideHeight();
    double rise = 0;
    double best = 0;
    boolean touches = false;
    // A motorcycle leans on one wheel: its floor never spans the kerb beside the tyre.
    boolean spans = floor.track() > 0;
    for (double d = 0; d <= most + 1e-9; d += STEP) {
      double lift = under(kerb, d - floor.tyreWidth(), d);
      double least = spans ? gapAt(kerb, floor, d, lift) : floor.rideHeight();
      if (least <= 0) {
        touches = true;
        gap = 0;
        break;
      }
      gap = Math.min(gap, least);
      rise = Math.max(rise, lift);
      best = d;
    }
    double stands = touches ? best : Math.min(most, kerb.width());
    double lift = under(kerb, stands - floor.tyreWidth(), stands);
    return new KerbClearance(
        touches ? best : null,
        most,
        touches ? lift : rise,
        gap,
        section(kerb),
        stance(floor, stands, lift));
  }

  private static Stance stance(Vehicle.Floor floor, double outer, double lift) {
    double edge = floorEdge(floor, outer);
    return new Stance(
        outer - floor.tyreWidth(),
        outer,
        edge,
        floorAt(floor, outer, lift, edge),
        floorAt(floor, outer, lift, Math.min(edge, 0)));
  }

  private static double floorEdge(Vehicle.Floor floor, double outer) {
    double middleOfTyre = outer - floor.tyreWidth() / 2;
    return middleOfTyre - floor.track() / 2 + floor.width() / 2;
  }

  private static double floorAt(Vehicle.Floor floor, double outer, double lift, double across) {
    if (floor.track() <= 0) {
      return floor.rideHeight() + lift;
    }
    double middleOfTyre = outer - floor.tyreWidth() / 2;
    double share = 1 - (middleOfTyre - across) / floor.track();
    return floor.rideHeight() + BODY_FOLLOWS * lift * share;
  }

  private static double gapAt(Kerb kerb, Vehicle.Floor floor, double outer, double lift) {
    double edge = floorEdge(floor, outer);
    double least = floor.rideHeight();
    for (double x = 0; x <= Math.min(edge, kerb.width()); x += STEP) {
      least = Math.min(least, floorAt(floor, outer, lift, x) - heightAt(kerb, x));
    }
    return least;
  }

  private static double under(Kerb kerb, double from, double to) {
    double most = 0;
    for (double x = Math.max(0, from); x <= Math.min(to, kerb.width()) + 1e-9; x += STEP) {
      most = Math.max(most, heightAt(kerb, Math.min(x, kerb.width())));
    }
    return most;
  }

  private static double heightAt(Kerb kerb, double across) {
    return kerb.height() * kerb.profile().height(across / kerb.width());
  }

  private static List<SectionPoint> section(Kerb kerb) {
    List<SectionPoint> points = new ArrayList<>();
    int steps = 40;
    for (int i = 0; i <= steps; i++) {
      double x = kerb.width() * i / steps;
      points.add(new SectionPoint(x, heightAt(kerb, x)));
    }
    double back =
        switch (kerb.behind()) {
          case DROP -> -DROP;
          case GRASS, GRAVEL -> -DROP / 4;
          case WALL -> 2.5 * Math.max(kerb.height(), 0.1);
          default -> 0;
        };
    points.add(new SectionPoint(kerb.width(), back));
    points.add(new SectionPoint(kerb.width() + BEHIND, back));
    return List.copyOf(points);
  }
}
