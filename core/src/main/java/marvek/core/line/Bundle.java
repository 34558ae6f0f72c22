package marvek.core.line;

import java.util.Arrays;
import java.util.function.DoubleConsumer;
import java.util.function.Predicate;
import marvek.core.numeric.BoxQuadratic;

/**
 * A proximal bundle search for the least of a function with kinks, within a box. Each step goes
 * where the slopes known promise most, at a price for the bending of the change. Where the function
 * falls by a tenth of the promise the step is taken; where it does not, the slopes met there are
 * remembered, mixed with those from before so that the promise is least. Blocks take their steps or
 * not one by one.
 *
 * <p>Source: Kiwiel, "Proximity control in bundle methods for convex nondifferentiable
 * minimization", Mathematical Programming 46 (1990). The metric of second differences is what makes
 * it converge on lines.
 */
final class Bundle {
  private static final double ENOUGH = 0.1;
  private static final double DONE = 5e-4;
  private static final int DONE_TIMES = 3;
  private static final int MIXES = 3;
  private static final int EXACT = 10;
  private static final double SOFTER = 0.7;
  private static final double STIFFER = 1.5;
  private static final double LITTLE_STIFFER = 1.1;
  private static final double LONGEST_STEP = 2;
  private static final double STILL = 1e-5;
  private static final double PRECISION = 0.02;
  // What a slope met on the way errs by at the place left, as a share of how it differs along the
  // step: a half on a parabola. Where the function bends the other way less would be told, down to
  // nothing, and the search would take the place left for the least.
  private static final double BENT = 0.5;

  /** What is searched. */
  interface Problem {
    Point at(double[] c, Blocks blocks);
  }

  /**
   * What was met at a place.
   *
   * @param c the place
   * @param cost of each block
   * @param slope of their sum, by each unknown
   */
  record Point(double[] c, double[] cost, double[] slope) {
    double total() {
      return Arrays.stream(cost).sum();
    }
  }

  private final Problem problem;
  private final Room box;
  private final Blocks blocks;
  private final int m;
  private final double[] stiff;
  private final double usual;
  private final double[] c;
  private final double[] cost;
  private double[] old;
  private final double[] oldError;
  private double[] newest;
  private final double[] newError;
  private final boolean[] remembers;
  private final double[] share;
  private final int[] done;
  private final double[] before;

  /** Begins at a place. */
  Bundle(Problem problem, Room box, Blocks blocks, double[] start) {
    this(problem, box, blocks, problem.at(start, blocks), new double[start.length], 0);
  }

  private Bundle(
      Problem problem, Room box, Blocks blocks, Point start, double[] stiff, double usual) {
    this.problem = problem;
    this.box = box;
    this.blocks = blocks;
    this.stiff = stiff;
    m = start.c().length;
    c = start.c().clone();
    cost = start.cost().clone();
    newest = start.slope();
    old = new double[m];
    int count = blocks.count();
    oldError = new double[count];
    newError = new double[count];
    remembers = new boolean[count];
    share = new double[count];
    done = new int[count];
    before = new double[count];
    Arrays.fill(before, Double.MAX_VALUE);
    this.usual = usual > 0 ? usual : firstStiffness();
  }

  /** The same place and stiffness, judged by other blocks. */
  Bundle cut(Blocks parts) {
    return new Bundle(problem, box, parts, problem.at(c, parts), stiff.clone(), usual);
  }

  /** The same search going on for the lap as a whole, with what is remembered. */
  Bundle joined(Blocks one) {
    double[] even = stiff.clone();
    Arrays.sort(even);
    double middle = even[m / 2];
    double[] near =
        Arrays.stream(stiff).map(s -> Math.max(middle / 3, Math.min(middle * 3, s))).toArray();
    Bundle out = new Bundle(problem, box, one, problem.at(c, one), near, usual);
    out.old = mixed();
    out.oldError[0] = Arrays.stream(mixedError()).sum();
    out.remembers[0] = true;
    return out;
  }

  double[] best() {
    return c;
  }

  /**
   * Searches until three times nothing is promised any more.
   *
   * @param most rounds
   * @param watch told the round before each
   * @param tighten tightens the box where a place breaks what the box is to hold; true where it
   *     did. The next steps lead back inside
   */
  void search(int most, DoubleConsumer watch, Predicate<double[]> tighten) {
    for (int round = 0; round < most; round++) {
      watch.accept(round);
      double[] d = step();
      double[] slope = mixed();
      double[] error = mixedError();
      double[] gain = blocks.dot(slope, d);
      double[] promise = new double[blocks.count()];
      for (int b = 0; b < promise.length; b++) {
        promise[b] = Math.max(0, error[b] - gain[b]);
      }
      if (!beginAnew(promise)) {
        take(d, slope, error, gain, promise);
        boolean outside = tighten.test(c);
        if (round % EXACT == EXACT - 1 && (outside || blocks.count() > 1)) {
          look();
        }
      }
      if (Arrays.stream(done).allMatch(k -> k >= DONE_TIMES)) {
        return;
      }
    }
  }

  /** Forgets what is remembered in the blocks that are promised nothing; false where none is. */
  private boolean beginAnew(double[] promise) {
    boolean any = false;
    double little = DONE / blocks.count();
    for (int b = 0; b < promise.length; b++) {
      if (promise[b] >= little || done[b] >= DONE_TIMES) {
        continue;
      }
      done[b] = cost[b] < before[b] - 2 * little ? 0 : done[b] + 1;
      before[b] = cost[b];
      remembers[b] = false;
      any = true;
      for (int j = 0; j < m; j++) {
        stiff[j] = blocks.ofKnot(j) == b ? usual : stiff[j];
      }
    }
    if (any) {
      look();
    }
    return any;
  }

  /** Looks at the place as it is: blocks that took a step stand beside others that did not. */
  private void look() {
    Point here = problem.at(c, blocks);
    newest = here.slope();
    for (int b = 0; b < cost.length; b++) {
      oldError[b] = Math.max(0, oldError[b] + here.cost()[b] - cost[b]);
      newError[b] = 0;
      cost[b] = here.cost()[b];
    }
  }

  private void take(double[] d, double[] slope, double[] error, double[] gain, double[] promise) {
    double[] tried = new double[m];
    for (int j = 0; j < m; j++) {
      tried[j] = c[j] + d[j];
    }
    Point trial = problem.at(tried, blocks);
    double[] more = blocks.dot(trial.slope(), d);
    double[] scale = new double[cost.length];
    boolean[] serious = new boolean[cost.length];
    for (int b = 0; b < cost.length; b++) {
      double fell = cost[b] - trial.cost()[b];
      serious[b] = promise[b] > 0 && fell >= ENOUGH * promise[b];
      remembers[b] = true;
      if (serious[b]) {
        scale[b] = SOFTER;
        oldError[b] = Math.max(0, error[b] - fell - gain[b]);
        newError[b] = 0;
        cost[b] = trial.cost()[b];
      } else {
        oldError[b] = error[b];
        newError[b] = Math.max(fell + more[b], Math.max(0, BENT * (more[b] - gain[b])));
        scale[b] = newError[b] > promise[b] ? STIFFER : LITTLE_STIFFER;
      }
    }
    old = slope;
    newest = trial.slope();
    for (int j = 0; j < m; j++) {
      c[j] += blocks.taken(j, serious) * d[j];
      stiff[j] *= scale[blocks.ofKnot(j)];
    }
  }

  private double[] mixed() {
    double[] out = new double[m];
    for (int j = 0; j < m; j++) {
      double s = share[blocks.ofKnot(j)];
      out[j] = (1 - s) * old[j] + s * newest[j];
    }
    return out;
  }

  private double[] mixedError() {
    double[] out = new double[cost.length];
    for (int b = 0; b < out.length; b++) {
      out[b] = (1 - share[b]) * oldError[b] + share[b] * newError[b];
    }
    return out;
  }

  /** The step by the mixture of slopes that promises least. */
  private double[] step() {
    double[] low = new double[cost.length];
    double[] high = new double[cost.length];
    boolean any = false;
    for (int b = 0; b < cost.length; b++) {
      high[b] = 1;
      share[b] = remembers[b] ? 0.5 : 1;
      any |= remembers[b];
    }
    double[] d = step(mixed());
    for (int k = 0; any && k < MIXES; k++) {
      double[] byOld = blocks.dot(old, d);
      double[] byNew = blocks.dot(newest, d);
      for (int b = 0; b < cost.length; b++) {
        if (remembers[b]) {
          boolean less = newError[b] - byNew[b] > oldError[b] - byOld[b];
          high[b] = less ? share[b] : high[b];
          low[b] = less ? low[b] : share[b];
          share[b] = (low[b] + high[b]) / 2;
        }
      }
      d = step(mixed());
    }
    return d;
  }

  private double firstStiffness() {
    double stiffness = 1e-3;
    for (int k = 0; k < 12; k++) {
      Arrays.fill(stiff, stiffness);
      double most = Arrays.stream(step(newest)).map(Math::abs).max().orElse(0);
      if (most > 0.4 && most < 1.2) {
        break;
      }
      stiffness *= most < 0.4 ? 0.4 : 3;
    }
    return stiffness;
  }

  /** The change of least slope · d + ½ Σ stiffness · (second difference of d)² within the box. */
  private double[] step(double[] slope) {
    double[] diagonal = new double[m];
    double[] next = new double[m];
    double[] second = new double[m];
    double[] lower = new double[m];
    double[] upper = new double[m];
    for (int k = 0; k < m; k++) {
      int p = (k + m - 1) % m;
      int q = (k + 1) % m;
      double s = stiff[k];
      diagonal[p] += s;
      diagonal[k] += 4.02 * s;
      diagonal[q] += s;
      next[p] -= 2 * s;
      next[k] -= 2 * s;
      second[p] += s;
      lower[k] = Math.max(-LONGEST_STEP, Math.min(LONGEST_STEP - STILL, box.lower()[k] - c[k]));
      upper[k] = Math.min(LONGEST_STEP, Math.max(STILL - LONGEST_STEP, box.upper()[k] - c[k]));
      if (upper[k] - lower[k] < STILL) {
        double middle = (upper[k] + lower[k]) / 2;
        lower[k] = middle - STILL / 2;
        upper[k] = middle + STILL / 2;
      }
    }
    return BoxQuadratic.minimise(diagonal, next, second, slope, lower, upper, PRECISION);
  }
}
