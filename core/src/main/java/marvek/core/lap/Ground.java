package marvek.core.lap;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.BiPredicate;
import java.util.function.Function;
import marvek.core.circuit.Centreline;
import org.jspecify.annotations.Nullable;

/**
 * The ground of a day along a road: what it leaves of the tyres' grip at each station, 1 for good,
 * dry tarmac, and how it lies. Arrays are not to be changed by whoever reads them.
 *
 * @param left of the middle
 * @param right of the middle
 * @param strips narrower ones that leave less
 * @param lie how it lies where that is told better than by the road's own file, and what else acts
 *     there; null where nothing does
 * @param push of a side wind; null where there is none
 * @param axles what two axles leave of it; null to take them as one
 * @param water how wet it is, 0 on a dry road to 1
 */
public record Ground(
    double[] left,
    double[] right,
    List<Strip> strips,
    @Nullable Lie lie,
    @Nullable SideWind push,
    @Nullable AxleShares axles,
    double water) {
  /** Left between the vehicle's side and the edge of the road, metres. */
  public static final double MARGIN = 0.25;

  private static final double BLEND = 0.3;

  // A vehicle lies on what is under both of its sides, metres.
  private static final double LIE_BLEND = 1;

  public Ground {
    strips = List.copyOf(strips);
  }

  /**
   * A strip along an edge.
   *
   * @param leftEdge which edge
   * @param near metres from the edge at which it begins, for the middle of a vehicle
   * @param far metres from the edge at which it ends
   * @param grip that is left on it, at each station; 1 where there is none
   */
  public record Strip(boolean leftEdge, double near, double far, double[] grip) {
    Strip piece(int from, int count) {
      return new Strip(leftEdge, near, far, Centreline.piece(grip, from, count));
    }

    boolean sameAs(Strip other) {
      return leftEdge == other.leftEdge
          && near == other.near
          && far == other.far
          && Arrays.equals(grip, other.grip);
    }
  }

  /**
   * A part of the width that lies otherwise than the road.
   *
   * @param leftEdge which edge
   * @param near metres from the edge at which it begins, for the middle of a vehicle
   * @param far metres from the edge at which it ends; {@link #HALF} for the middle of the road
   * @param crossfall radians by which its crossfall is more, at each station
   * @param verticalCurvature 1/m by which its vertical curvature is more, at each station
   */
  public record Part(
      boolean leftEdge, double near, double far, double[] crossfall, double[] verticalCurvature) {
    /** The end of one half of the road. */
    public static final double HALF = Double.POSITIVE_INFINITY;

    /** How much of it is under a vehicle, 0 to 1. */
    double under(Centreline road, int i, double n) {
      double edge = leftEdge ? road.left()[i] : road.right()[i];
      double out = leftEdge ? edge - n : edge + n;
      double in = near <= 0 ? 1 : share(out - near, LIE_BLEND);
      return in * share((far == HALF ? edge : far) - out, LIE_BLEND);
    }

    Part piece(int from, int count) {
      return new Part(
          leftEdge,
          near,
          far,
          Centreline.piece(crossfall, from, count),
          Centreline.piece(verticalCurvature, from, count));
    }

    boolean sameAs(Part other) {
      return leftEdge == other.leftEdge
          && near == other.near
          && far == other.far
          && Arrays.equals(crossfall, other.crossfall)
          && Arrays.equals(verticalCurvature, other.verticalCurvature);
    }
  }

  /**
   * How the road lies and what acts on a vehicle there, at each station.
   *
   * @param crossfall radians, positive when the left is lower
   * @param verticalCurvature 1/m, positive in a dip
   * @param wind factor on the day's wind
   * @param keepLeft metres that are kept from the left edge on top of the usual
   * @param keepRight metres that are kept from the right edge on top of the usual
   * @param parts of the width that lie otherwise
   */
  public record Lie(
      double[] crossfall,
      double[] verticalCurvature,
      double[] wind,
      double[] keepLeft,
      double[] keepRight,
      List<Part> parts) {
    public Lie {
      parts = List.copyOf(parts);
    }

    /** As the road's own file has it. */
    public static Lie of(Centreline road) {
      int n = road.size();
      double[] calm = new double[n];
      Arrays.fill(calm, 1);
      return new Lie(
          road.crossfall().clone(),
          road.verticalCurvature().clone(),
          calm,
          new double[n],
          new double[n],
          List.of());
    }

    /** The same with other metres kept from the edges. */
    public Lie keeping(double[] left, double[] right) {
      return new Lie(crossfall, verticalCurvature, wind, left, right, parts);
    }

    /** The same with parts of the width that lie otherwise. */
    public Lie with(List<Part> others) {
      return new Lie(crossfall, verticalCurvature, wind, keepLeft, keepRight, others);
    }

    /** Crossfall at a place, radians. */
    public double crossfall(Centreline road, int i, double n) {
      return crossfall[i] + more(road, i, n, Part::crossfall);
    }

    /** Vertical curvature at a place, 1/m. */
    public double verticalCurvature(Centreline road, int i, double n) {
      return verticalCurvature[i] + more(road, i, n, Part::verticalCurvature);
    }

    /**
     * What the parts add: both halves by how much of each is under a vehicle; where strips lie on
     * one another, or on a half, what is most.
     */
    private double more(Centreline road, int i, double n, Function<Part, double[]> of) {
      double halves = 0;
      double strip = 0;
      for (Part p : parts) {
        double by = of.apply(p)[i];
        if (by == 0) {
          continue;
        }
        double here = by * p.under(road, i, n);
        if (p.far() == Part.HALF) {
          halves += here;
        } else if (Math.abs(here) > Math.abs(strip)) {
          strip = here;
        }
      }
      return Math.abs(strip) > Math.abs(halves) ? strip : halves;
    }

    /** How the crossfall changes with the place across, 1/m. */
    public double crossfallSlope(Centreline road, int i, double n) {
      return parts.isEmpty()
          ? 0
          : (crossfall(road, i, n + STEP) - crossfall(road, i, n - STEP)) / (2 * STEP);
    }

    /** How the vertical curvature changes with the place across, 1/m². */
    public double verticalCurvatureSlope(Centreline road, int i, double n) {
      return parts.isEmpty()
          ? 0
          : (verticalCurvature(road, i, n + STEP) - verticalCurvature(road, i, n - STEP))
              / (2 * STEP);
    }

    private static final double STEP = 0.01;

    double[] crossfall(Centreline road, double[] offset) {
      return parts.isEmpty() ? crossfall : along(offset, (i, n) -> crossfall(road, i, n));
    }

    double[] verticalCurvature(Centreline road, double[] offset) {
      return parts.isEmpty()
          ? verticalCurvature
          : along(offset, (i, n) -> verticalCurvature(road, i, n));
    }

    private interface Place {
      double at(int i, double n);
    }

    private static double[] along(double[] offset, Place place) {
      double[] out = new double[offset.length];
      for (int i = 0; i < out.length; i++) {
        out[i] = place.at(i, offset[i]);
      }
      return out;
    }

    Lie piece(int from, int count) {
      return new Lie(
          Centreline.piece(crossfall, from, count),
          Centreline.piece(verticalCurvature, from, count),
          Centreline.piece(wind, from, count),
          Centreline.piece(keepLeft, from, count),
          Centreline.piece(keepRight, from, count),
          parts.stream().map(p -> p.piece(from, count)).toList());
    }

    boolean sameAs(Lie other) {
      return Arrays.equals(crossfall, other.crossfall)
          && Arrays.equals(verticalCurvature, other.verticalCurvature)
          && Arrays.equals(keepLeft, other.keepLeft)
          && Arrays.equals(keepRight, other.keepRight)
          && same(parts, other.parts, Part::sameAs);
    }
  }

  /** Good tarmac all round, that lies as the road's file has it. */
  public static Ground good(int size) {
    double[] ones = new double[size];
    Arrays.fill(ones, 1);
    return new Ground(ones, ones, List.of(), null, null, null, 0);
  }

  /**
   * What a side wind does.
   *
   * @param push m/s² to the left at each station
   */
  public record SideWind(double[] push) {
    SideWind piece(int from, int count) {
      return new SideWind(Centreline.piece(push, from, count));
    }
  }

  /** The same under a side wind; null for none. */
  public Ground pushed(@Nullable SideWind by) {
    return new Ground(left, right, strips, lie, by, axles, water);
  }

  /** The same under two axles; null to take them as one. */
  public Ground under(@Nullable AxleShares by) {
    return new Ground(left, right, strips, lie, push, by, water);
  }

  /** The same that lies otherwise, with strips beside those that it has. */
  public Ground with(Lie other, List<Strip> more) {
    List<Strip> all = new ArrayList<>(strips);
    all.addAll(more);
    return new Ground(left, right, all, other, push, axles, water);
  }

  /** The same with more metres kept from both edges of the road. */
  public Ground keeping(Centreline road, double metres) {
    Lie lies = lie == null ? Lie.of(road) : lie;
    Lie kept =
        lies.keeping(
            Arrays.stream(lies.keepLeft()).map(k -> k + metres).toArray(),
            Arrays.stream(lies.keepRight()).map(k -> k + metres).toArray());
    return with(kept, List.of());
  }

  /** The same with what depends on the speeds of a lap as another ground holds it. */
  public Ground asIn(Ground other) {
    return pushed(other.push).under(other.axles);
  }

  /** The same with a share of its grip at each station. */
  public Ground times(double[] share) {
    return new Ground(
        times(left, share),
        times(right, share),
        strips.stream()
            .map(s -> new Strip(s.leftEdge(), s.near(), s.far(), times(s.grip(), share)))
            .toList(),
        lie,
        push,
        axles,
        water);
  }

  private static double[] times(double[] values, double[] share) {
    double[] out = new double[values.length];
    for (int i = 0; i < out.length; i++) {
      out[i] = values[i] * share[i];
    }
    return out;
  }

  /** Whether the wind is another one from place to place. */
  public boolean windDiffers() {
    return lie != null && Arrays.stream(lie.wind()).anyMatch(f -> f != 1);
  }

  /** Whether it leaves the same grip and lies the same everywhere; the wind may be another one. */
  public boolean sameAs(Ground other) {
    return Arrays.equals(left, other.left)
        && Arrays.equals(right, other.right)
        && same(strips, other.strips, Strip::sameAs)
        && (lie == null || other.lie == null ? lie == other.lie : lie.sameAs(other.lie));
  }

  private static <T> boolean same(List<T> a, List<T> b, BiPredicate<T, T> alike) {
    if (a.size() != b.size()) {
      return false;
    }
    for (int k = 0; k < a.size(); k++) {
      if (!alike.test(a.get(k), b.get(k))) {
        return false;
      }
    }
    return true;
  }

  /** The ground of a piece of the road. */
  public Ground piece(int from, int count) {
    return new Ground(
        Centreline.piece(left, from, count),
        Centreline.piece(right, from, count),
        strips.stream().map(s -> s.piece(from, count)).toList(),
        lie == null ? null : lie.piece(from, count),
        push == null ? null : push.piece(from, count),
        axles == null ? null : axles.piece(from, count),
        water);
  }

  /** The factor under each place of a line. */
  double[] under(Centreline road, double[] offset) {
    double[] grip = new double[offset.length];
    for (int i = 0; i < grip.length; i++) {
      grip[i] = at(road, i, offset[i]);
    }
    return grip;
  }

  /**
   * The factor at a place; from one strip of the road to the next it changes over 0.3 metres, as
   * the wheels of a vehicle do not cross all at once. Where strips overlap the worst counts, and
   * one that grips more where none takes grip.
   */
  public double at(Centreline road, int i, double n) {
    double grip = right[i] + share(n) * (left[i] - right[i]);
    double least = grip;
    double most = grip;
    for (Strip s : strips) {
      double on = s.grip()[i];
      if (on < least || on > 1) {
        double out = s.leftEdge() ? road.left()[i] - n : road.right()[i] + n;
        // At the edge itself a strip that begins there is all under the wheels.
        double in = s.near() <= 0 ? 1 : share(out - s.near());
        double here = grip + in * share(s.far() - out) * (on - grip);
        least = Math.min(least, here);
        most = Math.max(most, here);
      }
    }
    // What grips more counts where nothing takes grip.
    return least < grip || grip < 1 ? least : most;
  }

  /** How the factor changes with the place across, 1/m. */
  public double slope(Centreline road, int i, double n) {
    double h = BLEND / 100;
    return (at(road, i, n + h) - at(road, i, n - h)) / (2 * h);
  }

  private static double share(double past) {
    return share(past, BLEND);
  }

  private static double share(double past, double over) {
    return Math.max(0, Math.min(1, past / over + 0.5));
  }
}
