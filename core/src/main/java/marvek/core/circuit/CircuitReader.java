package marvek.core.circuit;

import static marvek.core.circuit.OutlineProblem.Kind.TOO_LARGE;
import static marvek.core.circuit.OutlineProblem.Kind.TOO_SHORT;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import marvek.core.numeric.PeriodicSpline;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** Turns the points of a file into a road with curvature, gradient and corners. */
public final class CircuitReader {
  /** Full road width taken where neither the file nor the driver gives one, metres. */
  public static final double USUAL_WIDTH = 10;

  private static final double SHORTEST = 200;
  private static final double LONGEST = 80_000;
  // Waves in the line shorter than this are no feature of a road that cars drive.
  private static final double FINEST_WAVE = 12;
  // Points that scatter by more than this are not taken one by one, metres.
  private static final double SCATTERED = 0.02;
  // Less is not worth a word, metres.
  private static final double TOLD = 0.1;
  private static final double FIRST_WAVE = 60;
  private static final double NODES = 4;
  // Points further apart than this show no tight bend, metres.
  private static final double FAR_APART = 15;
  // Doubt of a radius where the points are as far apart as the bend is long: found on drawn roads.
  private static final double COARSE = 0.7;
  private static final double DOUBTFUL = 0.1;
  private static final double FINEST_HEIGHT_WAVE = 60;
  private static final double COARSEST_HEIGHT_WAVE = 300;
  private static final double WIDTH_WAVE = 30;

  private CircuitReader() {}

  /**
   * What the driver says about the file.
   *
   * @param reverse drive it the other way
   * @param startStation where the start/finish line is, metres along the (reversed) lap as it came
   * @param width full road width in metres for files without one
   * @param bridges every place where the line crosses itself is a bridge
   */
  public record Choices(boolean reverse, double startStation, double width, boolean bridges) {
    /** Nothing turned, moved or widened. */
    public static Choices asItComes() {
      return new Choices(false, 0, USUAL_WIDTH, false);
    }
  }

  /**
   * Fits the road.
   *
   * <p>Points whose third differences scatter are put on a curve of few changes of curvature first
   * ({@link NoisyPoints}). A periodic smoothing spline, which takes out waves under 12 m, goes
   * through them; resampled at even steps close to 1 m. Heights have a spline of their own,
   * smoothed until the points scatter about it as much as their differences say (Morozov's
   * discrepancy principle).
   *
   * @throws OutlineProblem when the points make no circuit
   */
  public static CircuitReading read(Outline outline, Choices choices) {
    List<Said> remarks = new ArrayList<>();
    Outline lap = LapTrim.closedLap(outline.onPlane(), remarks);
    double[] u = chordLengths(lap);
    double period = u[lap.size()];
    if (period < SHORTEST) {
      throw OutlineProblem.of(TOO_SHORT, "refusal.circuit.lap_long", Value.length(period));
    }
    if (period > LONGEST) {
      throw OutlineProblem.of(
          TOO_LARGE, "refusal.circuit.lap_long_b", Value.figure(period / 1000, 0));
    }
    double scatter = SeveralLaps.across(lap) * Fit.scatter(List.of(lap.x(), lap.y()));
    double spacing = median(u);
    NoisyPoints noisy = scatter > SCATTERED ? drawn(lap, u, scatter) : null;
    double[] knots = Arrays.copyOf(u, lap.size());
    Fit fit;
    if (noisy == null) {
      fit = new Fit(knots, period, List.of(lap.x(), lap.y()), FINEST_WAVE);
    } else {
      period = noisy.length();
      List<Double> along = new ArrayList<>();
      lap = lap.only(noisy.inOrder(along));
      knots = along.stream().mapToDouble(Double::doubleValue).toArray();
      for (int k = 0; k < knots.length; k++) {
        double[] place = noisy.place(knots[k]);
        lap.x()[k] = place[0];
        lap.y()[k] = place[1];
      }
      fit = even(noisy);
    }
    // Scatter crosses itself where the road does not.
    Crossings.check(lap, choices.bridges(), remarks);
    Centreline road = resample(lap, knots, period, fit, choices);
    if (!road.hasWidth()) {
      remarks.add(Said.of("report.circuit.no_widths_file_all", Value.length(choices.width(), 1)));
    }
    if (!road.hasHeight()) {
      remarks.add(Said.of("report.circuit.no_heights_file_road"));
    }
    if (choices.reverse()) {
      road = road.reversed();
    }
    if (choices.startStation() != 0) {
      road = road.startingAt(choices.startStation());
    }
    List<Corner> corners = new ArrayList<>();
    for (Corner c : CornerFinder.find(road, scatter)) {
      corners.add(c.doubted(doubt(road, c, choices, noisy, spacing)));
    }
    limits(corners, scatter, spacing, remarks);
    return new CircuitReading(
        road, List.copyOf(corners), List.copyOf(remarks), outline.plane(), scatter);
  }

  /** What the file cannot bear. */
  private static void limits(
      List<Corner> corners, double scatter, double spacing, List<Said> remarks) {
    if (spacing > FAR_APART) {
      remarks.add(
          Said.of(
              "report.circuit.points_apart_bend_shorter",
              Value.length(spacing),
              Value.length(2 * spacing)));
    }
    long doubtful = corners.stream().filter(c -> c.doubt() > DOUBTFUL).count();
    if (doubtful > 0) {
      remarks.add(
          Said.of(
              "report.circuit.radii_doubtful",
              Value.choice(scatter > TOLD && spacing <= FAR_APART),
              Value.length(scatter, 1),
              Value.count(doubtful),
              Value.count(corners.size())));
    }
  }

  /** How far a radius may be out, as a share of it. */
  private static double doubt(
      Centreline road, Corner c, Choices choices, @Nullable NoisyPoints noisy, double spacing) {
    double coarse = COARSE * Math.pow(spacing / (c.angle() * c.radius()), 3);
    if (noisy == null) {
      return Math.min(1, coarse);
    }
    int entry = road.index(c.entry());
    int count = (int) Math.round(road.ahead(c.entry(), c.exit()) / road.step());
    CornerFinder.Even even = CornerFinder.evenPart(road, new int[] {entry, entry + count});
    // The fit knows the lap as the file has it.
    double from = even.from() * road.step() + choices.startStation();
    double to = from + (even.to() - even.from()) * road.step();
    if (choices.reverse()) {
      double swap = from;
      from = road.length() - to;
      to = road.length() - swap;
    }
    return Math.min(1, Math.hypot(coarse, noisy.doubt(from, to) * c.radius()));
  }

  /** The curve through even places on it: at its points it would ripple where two lie close. */
  private static Fit even(NoisyPoints noisy) {
    int nodes = (int) Math.round(noisy.length() / NODES);
    double[] knots = new double[nodes];
    double[][] xy = new double[2][nodes];
    for (int k = 0; k < nodes; k++) {
      knots[k] = k * noisy.length() / nodes;
      double[] place = noisy.place(knots[k]);
      xy[0][k] = place[0];
      xy[1][k] = place[1];
    }
    return new Fit(knots, noisy.length(), List.of(xy[0], xy[1]), FINEST_WAVE);
  }

  private static NoisyPoints drawn(Outline lap, double[] u, double scatter) {
    double period = u[lap.size()];
    double lambda = PeriodicSpline.lambdaForWavelength(FIRST_WAVE);
    double[] knots = Arrays.copyOf(u, lap.size());
    PeriodicSpline sx = PeriodicSpline.fit(knots, period, lap.x(), lambda);
    PeriodicSpline sy = PeriodicSpline.fit(knots, period, lap.y(), lambda);
    int m = (int) Math.ceil(period);
    double[] x = new double[m];
    double[] y = new double[m];
    for (int i = 0; i < m; i++) {
      x[i] = sx.at(i * period / m)[0];
      y[i] = sy.at(i * period / m)[0];
    }
    return new NoisyPoints(lap.x(), lap.y(), scatter, x, y);
  }

  private static double median(double[] u) {
    double[] gaps = new double[u.length - 1];
    for (int i = 0; i < gaps.length; i++) {
      gaps[i] = u[i + 1] - u[i];
    }
    Arrays.sort(gaps);
    return gaps[gaps.length / 2];
  }

  private static double[] chordLengths(Outline lap) {
    int n = lap.size();
    double[] u = new double[n + 1];
    for (int i = 0; i < n; i++) {
      int q = (i + 1) % n;
      u[i + 1] = u[i] + Math.hypot(lap.x()[q] - lap.x()[i], lap.y()[q] - lap.y()[i]);
    }
    return u;
  }

  private static Centreline resample(
      Outline lap, double[] knots, double period, Fit fit, Choices choices) {
    PeriodicSpline sx = fit.splines.get(0);
    PeriodicSpline sy = fit.splines.get(1);
    // Arc length along the spline by Simpson's rule on fine steps, then inverted linearly.
    int fine = Math.max(200, (int) Math.ceil(period * 2));
    double du = period / fine;
    double[] arc = new double[fine + 1];
    double before = speed(sx, sy, 0);
    for (int i = 0; i < fine; i++) {
      double middle = speed(sx, sy, (i + 0.5) * du);
      double after = speed(sx, sy, (i + 1) * du);
      arc[i + 1] = arc[i] + du * (before + 4 * middle + after) / 6;
      before = after;
    }
    double length = arc[fine];
    int n = (int) Math.round(length);
    double step = length / n;
    double[][] xy = new double[2][n];
    double[] heading = new double[n];
    double[] curvature = new double[n];
    double[] along = new double[n];
    int k = 0;
    for (int i = 0; i < n; i++) {
      double s = i * step;
      while (k + 1 < fine && arc[k + 1] < s) {
        k++;
      }
      double at = (k + (s - arc[k]) / (arc[k + 1] - arc[k])) * du;
      along[i] = at;
      double[] x = sx.at(at);
      double[] y = sy.at(at);
      xy[0][i] = x[0];
      xy[1][i] = y[0];
      heading[i] = Math.atan2(y[1], x[1]);
      double pace = Math.hypot(x[1], y[1]);
      curvature[i] = (x[1] * y[2] - y[1] * x[2]) / (pace * pace * pace);
    }
    double[][] profile = heights(lap, knots, period, along);
    boolean widths = lap.right() != null;
    double half = choices.width() / 2;
    return new Centreline(
        step,
        xy[0],
        xy[1],
        heading,
        curvature,
        profile[0],
        profile[1],
        profile[2],
        smooth(lap.right(), knots, period, along, half),
        smooth(lap.left(), knots, period, along, half),
        smooth(lap.crossfall(), knots, period, along, 0),
        lap.z() != null,
        widths);
  }

  private static double speed(PeriodicSpline sx, PeriodicSpline sy, double at) {
    return Math.hypot(sx.at(at)[1], sy.at(at)[1]);
  }

  /** Height, gradient angle and vertical curvature from a spline of their own. */
  private static double[][] heights(Outline lap, double[] knots, double period, double[] along) {
    double[][] profile = new double[3][along.length];
    double[] z = lap.z();
    if (z == null) {
      return profile;
    }
    Fit fit = Fit.of(knots, period, List.of(z), FINEST_HEIGHT_WAVE, COARSEST_HEIGHT_WAVE);
    for (int i = 0; i < along.length; i++) {
      double[] v = fit.splines.get(0).at(along[i]);
      profile[0][i] = v[0];
      profile[1][i] = Math.atan(v[1]);
      profile[2][i] = v[2] / Math.pow(1 + v[1] * v[1], 1.5);
    }
    return profile;
  }

  private static double[] smooth(
      double @Nullable [] values, double[] knots, double period, double[] along, double otherwise) {
    double[] out = new double[along.length];
    if (values == null) {
      Arrays.fill(out, otherwise);
      return out;
    }
    PeriodicSpline spline =
        PeriodicSpline.fit(knots, period, values, PeriodicSpline.lambdaForWavelength(WIDTH_WAVE));
    double least = Arrays.stream(values).min().orElse(otherwise);
    double most = Arrays.stream(values).max().orElse(otherwise);
    for (int i = 0; i < out.length; i++) {
      out[i] = Math.max(least, Math.min(most, spline.at(along[i])[0]));
    }
    return out;
  }

  /** Splines over the same knots with one smoothing, chosen from the scatter of the points. */
  private static final class Fit {
    private static final int BISECTIONS = 18;

    private final List<PeriodicSpline> splines;

    private Fit(double[] knots, double period, List<double[]> columns, double wave) {
      splines = fit(knots, period, columns, wave);
    }

    /** The smoothing that the scatter asks for, between the waves. */
    static Fit of(
        double[] knots, double period, List<double[]> columns, double finest, double coarsest) {
      double noise = scatter(columns);
      double low = finest;
      double high = coarsest;
      for (int i = 0; i < BISECTIONS && high / low > 1.02; i++) {
        double middle = Math.sqrt(low * high);
        if (residual(fit(knots, period, columns, middle), columns) > noise) {
          high = middle;
        } else {
          low = middle;
        }
      }
      return new Fit(knots, period, columns, low);
    }

    private static List<PeriodicSpline> fit(
        double[] knots, double period, List<double[]> columns, double wave) {
      double lambda = PeriodicSpline.lambdaForWavelength(wave);
      return columns.stream().map(c -> PeriodicSpline.fit(knots, period, c, lambda)).toList();
    }

    private static double residual(List<PeriodicSpline> splines, List<double[]> columns) {
      double sum = 0;
      int count = 0;
      for (int c = 0; c < splines.size(); c++) {
        double[] fitted = splines.get(c).knotValues();
        double[] y = columns.get(c);
        for (int i = 0; i < y.length; i++) {
          sum += (y[i] - fitted[i]) * (y[i] - fitted[i]);
        }
        count += y.length;
      }
      return Math.sqrt(sum / count);
    }

    /**
     * Scatter of one coordinate: the median third difference, which is blind to bends and slope.
     */
    private static double scatter(List<double[]> columns) {
      int n = columns.get(0).length;
      double[] differences = new double[n * columns.size()];
      int k = 0;
      for (double[] y : columns) {
        for (int i = 0; i < n; i++) {
          differences[k++] =
              Math.abs(y[(i + 3) % n] - 3 * y[(i + 2) % n] + 3 * y[(i + 1) % n] - y[i]);
        }
      }
      Arrays.sort(differences);
      return differences[differences.length / 2] / (0.6745 * Math.sqrt(20));
    }
  }
}
