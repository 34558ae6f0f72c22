package marvek.core.rehearse;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import org.hipparchus.distribution.discrete.BinomialDistribution;
import org.hipparchus.stat.StatUtils;
import org.jspecify.annotations.Nullable;

/**
 * Presses held against the actions that were due, in the time of the road.
 *
 * @param met presses that belong to an action, in driving order
 * @param missed actions that nothing was pressed for
 * @param extra presses that belong to nothing
 * @param bias seconds late as a median, negative is early; null with fewer than six
 * @param low lower end of its 95 % interval
 * @param high upper end
 * @param spread seconds, as a standard deviation; null with fewer than two
 */
public record Performance(
    List<Met> met,
    List<DueAction> missed,
    List<Press> extra,
    @Nullable Double bias,
    @Nullable Double low,
    @Nullable Double high,
    @Nullable Double spread) {
  /** Presses from which on a bias is told. */
  public static final int FEWEST = 6;

  private static final double REACH = 1;

  /** Share to which a thumb slides (common practice, no source). */
  public static final double SLIDE = 0.15;

  /** Share of the pedal from which a braking is a hard one (common practice, no source). */
  public static final double HARD = 0.6;

  public Performance {
    met = List.copyOf(met);
    missed = List.copyOf(missed);
    extra = List.copyOf(extra);
  }

  /** What is pressed. */
  public enum Control {
    BRAKE,
    HANDS,
    THROTTLE,
    GEAR
  }

  /**
   * An action that is due.
   *
   * @param corner id
   * @param action id
   * @param at seconds from the start of what is driven, in the time of the road
   * @param station metres
   * @param amount of the pedal as planned, 0 to 1; null where none is
   */
  public record DueAction(
      String corner,
      String action,
      Control key,
      double at,
      double station,
      @Nullable Double amount) {
    /** The same at another time. */
    public DueAction at(double seconds) {
      return new DueAction(corner, action, key, seconds, station, amount);
    }
  }

  /**
   * Something pressed.
   *
   * @param at seconds in the time of the road, what the device lags taken off
   * @param amount to which the thumb slid, 0 to 1; null where it did not
   * @param hard which of the two keys of the brake it was; null for any
   */
  public record Press(Control key, double at, @Nullable Double amount, @Nullable Boolean hard) {
    /** The same at another time. */
    public Press at(double seconds) {
      return new Press(key, seconds, amount, hard);
    }
  }

  /**
   * An action that was done.
   *
   * @param seconds late, negative is early
   * @param metres past its place
   * @param more of the pedal than planned by a slide of the thumb, negative is less; null without
   * @param enough whether that is met as closely as a thumb slides, where it is told
   * @param otherKey whether it was the other of the brake's two keys
   */
  public record Met(
      DueAction due,
      double seconds,
      double metres,
      @Nullable Double more,
      boolean enough,
      boolean otherKey) {}

  /**
   * Road time of a press: what the device lags is taken off, and a slower road runs slower.
   *
   * @param wall seconds since the start
   * @param lag seconds
   * @param rate 1 for full speed
   */
  public static double road(double wall, double lag, double rate) {
    return (wall - lag) * rate;
  }

  /**
   * Matches presses to actions of their kind: order kept, within a second, and not beyond half the
   * way to the neighbour.
   *
   * @param due in driving order
   * @param presses in the order pressed
   * @param station where one is at a time of the road, m from the start of what is driven
   */
  public static Performance of(
      List<DueAction> due, List<Press> presses, DoubleUnaryOperator station) {
    List<Met> met = new ArrayList<>();
    List<DueAction> missed = new ArrayList<>();
    List<Press> extra = new ArrayList<>();
    for (Control key : Control.values()) {
      List<DueAction> of = due.stream().filter(d -> d.key() == key).toList();
      List<Press> own = new ArrayList<>(presses.stream().filter(p -> p.key() == key).toList());
      for (int i = 0; i < of.size(); i++) {
        DueAction d = of.get(i);
        double before = i == 0 ? REACH : (d.at() - of.get(i - 1).at()) / 2;
        double after = i == of.size() - 1 ? REACH : (of.get(i + 1).at() - d.at()) / 2;
        Press nearest = null;
        for (Press p : own) {
          double e = p.at() - d.at();
          boolean in = e >= -Math.min(REACH, before) && e < Math.min(REACH, after);
          if (in && (nearest == null || Math.abs(e) < Math.abs(nearest.at() - d.at()))) {
            nearest = p;
          }
        }
        if (nearest == null) {
          missed.add(d);
          continue;
        }
        own.remove(nearest);
        double e = nearest.at() - d.at();
        double metres = station.applyAsDouble(nearest.at()) - station.applyAsDouble(d.at());
        Double more = more(d, nearest);
        boolean enough = more == null || Math.abs(more) <= SLIDE;
        met.add(new Met(d, e, metres, more, enough, other(d, nearest)));
      }
      extra.addAll(own);
    }
    met.sort(Comparator.comparingDouble(m -> m.due().at()));
    return told(met, missed, extra);
  }

  private static @Nullable Double more(DueAction due, Press press) {
    Double planned = due.amount();
    Double done = press.amount();
    return planned == null || done == null ? null : (Double) (done - planned);
  }

  private static boolean other(DueAction due, Press press) {
    Double planned = due.amount();
    Boolean hard = press.hard();
    return planned != null && hard != null && due.key() == Control.BRAKE && hard != planned >= HARD;
  }

  /** The same with no bias: on a slow road one is late otherwise than at speed. */
  public Performance withoutBias() {
    return new Performance(met, missed, extra, null, null, null, spread);
  }

  private static Performance told(List<Met> met, List<DueAction> missed, List<Press> extra) {
    double[] e = met.stream().mapToDouble(Met::seconds).sorted().toArray();
    int n = e.length;
    if (n < FEWEST) {
      return new Performance(met, missed, extra, null, null, null, n < 2 ? null : spread(e));
    }
    // By order statistics: the median lies between the k-th from either end in 95 of 100.
    int k = new BinomialDistribution(n, 0.5).inverseCumulativeProbability(0.025);
    int low = Math.max(0, k - 1);
    return new Performance(
        met, missed, extra, StatUtils.percentile(e, 50), e[low], e[n - 1 - low], spread(e));
  }

  private static double spread(double[] e) {
    return Math.sqrt(StatUtils.variance(e));
  }
}
