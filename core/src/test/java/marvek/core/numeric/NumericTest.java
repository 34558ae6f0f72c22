package marvek.core.numeric;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;
import org.hipparchus.linear.RealMatrix;
import org.junit.jupiter.api.Test;
import org.ojalgo.optimisation.Expression;
import org.ojalgo.optimisation.ExpressionsBasedModel;
import org.ojalgo.optimisation.Variable;

class NumericTest {

  private static RealMatrix dense(double[] d, double[] e, double[] f) {
    int n = d.length;
    RealMatrix a = new Array2DRowRealMatrix(n, n);
    for (int i = 0; i < n; i++) {
      a.addToEntry(i, i, d[i]);
      a.addToEntry(i, (i + 1) % n, e[i]);
      a.addToEntry((i + 1) % n, i, e[i]);
      a.addToEntry(i, (i + 2) % n, f[i]);
      a.addToEntry((i + 2) % n, i, f[i]);
    }
    return a;
  }

  @Property(tries = 60)
  void solvesAsADenseSolverDoes(@ForAll @IntRange(min = 7, max = 40) int n, @ForAll long seed) {
    Random random = new Random(seed);
    double[] d = new double[n];
    double[] e = new double[n];
    double[] f = new double[n];
    double[] b = new double[n];
    for (int i = 0; i < n; i++) {
      d[i] = 6 + random.nextDouble();
      e[i] = random.nextDouble() - 0.5;
      f[i] = random.nextDouble() - 0.5;
      b[i] = random.nextGaussian();
    }
    // Hipparchus's LU decomposition as the reference.
    double[] expected =
        new LUDecomposition(dense(d, e, f)).getSolver().solve(new ArrayRealVector(b)).toArray();
    assertThat(new CyclicPentadiagonal(d, e, f).solve(b)).containsExactly(expected, within(1e-9));
  }

  @Property(tries = 60)
  void aClosedBandOfAnyWidthSolvesAsADenseSolverDoes(
      @ForAll @IntRange(min = 1, max = 4) int width,
      @ForAll @IntRange(min = 13, max = 40) int n,
      @ForAll long seed) {
    Random random = new Random(seed);
    double[][] bands = new double[width + 1][n];
    RealMatrix a = new Array2DRowRealMatrix(n, n);
    double[] b = new double[n];
    for (int i = 0; i < n; i++) {
      for (int d = 0; d <= width; d++) {
        bands[d][i] = d == 0 ? 2 * width + 1 + random.nextDouble() : random.nextDouble() - 0.5;
        a.setEntry(i, (i + d) % n, bands[d][i]);
        a.setEntry((i + d) % n, i, bands[d][i]);
      }
      b[i] = random.nextGaussian();
    }
    // Hipparchus's LU decomposition as the reference.
    double[] expected = new LUDecomposition(a).getSolver().solve(new ArrayRealVector(b)).toArray();
    assertThat(new CyclicBanded(bands).solve(b)).containsExactly(expected, within(1e-9));
  }

  @Test
  void refusesAMatrixThatIsNotPositiveDefinite() {
    assertThatThrownBy(() -> new CyclicBanded(new double[4][12]))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(() -> new CyclicBanded(new double[4][8])).hasMessageContaining("8");
    assertThatThrownBy(() -> new CyclicPentadiagonal(new double[9], new double[9], new double[9]))
        .isInstanceOf(IllegalArgumentException.class);
    assertThatThrownBy(() -> new CyclicPentadiagonal(new double[5], new double[5], new double[5]))
        .hasMessageContaining("7");
  }

  @Test
  void boundedQuadraticsAgreeWithAnotherSolver() {
    // ojAlgo's convex solver as the reference, on a closed string of 24 points held off a bump.
    int n = 24;
    double[] d = new double[n];
    double[] e = new double[n];
    double[] f = new double[n];
    double[] c = new double[n];
    double[] lower = new double[n];
    double[] upper = new double[n];
    Random random = new Random(2);
    for (int i = 0; i < n; i++) {
      d[i] = 6.05;
      e[i] = -4;
      f[i] = 1;
      c[i] = random.nextGaussian();
      lower[i] = -1 - random.nextDouble();
      upper[i] = 0.4 + random.nextDouble();
    }
    ExpressionsBasedModel model = new ExpressionsBasedModel();
    Variable[] x = new Variable[n];
    for (int i = 0; i < n; i++) {
      x[i] = model.newVariable("x" + i).lower(lower[i]).upper(upper[i]);
    }
    Expression objective = model.newExpression("objective").weight(1.0);
    RealMatrix h = dense(d, e, f);
    for (int i = 0; i < n; i++) {
      objective.set(x[i], c[i]);
      for (int j = 0; j < n; j++) {
        if (h.getEntry(i, j) != 0) {
          objective.set(x[i], x[j], 0.5 * h.getEntry(i, j));
        }
      }
    }
    var expected = model.minimise();
    assertThat(expected.getState().isOptimal()).isTrue();
    double[] found = BoxQuadratic.minimise(d, e, f, c, lower, upper, 1e-4);
    for (int i = 0; i < n; i++) {
      assertThat(found[i]).isCloseTo(expected.doubleValue(i), within(2e-3));
      assertThat(found[i]).isBetween(lower[i], upper[i]);
    }
  }

  @Test
  void aSplineWithoutSmoothingGoesThroughItsPointsAndRoundTheEnd() {
    int n = 40;
    double[] u = new double[n];
    double[] y = new double[n];
    for (int i = 0; i < n; i++) {
      u[i] = i * 0.25;
      y[i] = Math.sin(2 * Math.PI * u[i] / 10);
    }
    PeriodicSpline spline = PeriodicSpline.fit(u, 10, y, 0);
    assertThat(spline.knotValues()).containsExactly(y, within(1e-12));
    for (double at = -12; at < 22; at += 0.37) {
      double w = 2 * Math.PI / 10;
      assertThat(spline.at(at)[0]).isCloseTo(Math.sin(w * at), within(1e-5));
      assertThat(spline.at(at)[1]).isCloseTo(w * Math.cos(w * at), within(1e-4));
      assertThat(spline.at(at)[2]).isCloseTo(-w * w * Math.sin(w * at), within(3e-3));
    }
  }

  @Test
  void smoothingHalvesTheWaveItIsSetFor() {
    // Closed form: a smoothing spline damps a wave of frequency ω by 1/(1 + λω⁴).
    int n = 400;
    double[] u = new double[n];
    double[] y = new double[n];
    for (int i = 0; i < n; i++) {
      u[i] = i;
      y[i] = Math.cos(2 * Math.PI * i / 40);
    }
    PeriodicSpline spline = PeriodicSpline.fit(u, n, y, PeriodicSpline.lambdaForWavelength(40));
    assertThat(spline.at(200)[0]).isCloseTo(0.5, within(0.001));
  }
}
