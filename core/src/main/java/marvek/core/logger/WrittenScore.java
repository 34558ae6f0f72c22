package marvek.core.logger;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.function.ToIntFunction;
import marvek.core.circuit.Centreline;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.score.Manner;
import org.jspecify.annotations.Nullable;

/**
 * What a written score asks of the feet and of the gear lever in one corner of one lap. Places are
 * indices counted as those of an {@link Intent} are.
 */
final class WrittenScore {
  // Scatter of a share, and of metres, for each metre of the driver's.
  private static final double SHARES = 0.025;
  // Share of the way to its end for which an open braking is held before it is bled off.
  private static final double HELD = 0.45;
  // Steps after a braking that no throttle is written for, and over which it is opened then.
  private static final int ROLLS = 14;
  private static final int OPENS = 30;

  /** One action as it is meant in this lap. */
  static final class Doing {
    final String id;
    final ActionKind kind;
    final boolean evenly;
    final boolean slowly;
    final int gear;
    int at;
    // Where a lift comes back, or a gear is free again.
    int until;
    // Share; NaN until the driver has chosen what is left open.
    double amount;
    // Whether a gear that was written has been reached.
    boolean taken;
    // Whether it is left open: a braking is then a share of the grip that is bled off.
    final boolean open;

    private Doing(Action a, int at, int until, double amount) {
      this.id = a.id();
      this.kind = a.kind();
      this.evenly = a.manner() == Manner.EVENLY;
      this.slowly = a.manner() == Manner.SLOWLY;
      Integer to = a.gear();
      this.gear = to == null ? 0 : to;
      this.at = at;
      this.until = until;
      this.amount = amount;
      this.open = Double.isNaN(amount);
    }
  }

  private final List<Doing> all;

  private WrittenScore(List<Doing> all) {
    this.all = all;
  }

  /**
   * A corner's score as it is meant in a lap; null where the points say all.
   *
   * @param points where the driver means to be at what is stored as a point
   * @param deviations what is done otherwise in this lap
   */
  static @Nullable WrittenScore of(
      Centreline road,
      CornerEntry entry,
      ToIntFunction<Action> points,
      List<Deviation> deviations,
      double spread,
      Random chance) {
    if (!Score.plays(entry)) {
      return null;
    }
    List<Doing> all = new ArrayList<>();
    for (Action a : Score.of(road, entry)) {
      boolean moves = a.kind().pedal() || a.kind() == ActionKind.SHIFT;
      if (!moves || left(deviations, a)) {
        continue;
      }
      boolean own = Score.point(a.id()).isEmpty();
      double late = own ? spread * chance.nextGaussian() : 0;
      double scatter = own ? SHARES * spread * chance.nextGaussian() : 0;
      double more = 0;
      for (Deviation d : deviations) {
        if (d.action().equals(a.id())) {
          late += own ? d.late() : 0;
          more += d.more();
        }
      }
      int steps = (int) Math.round(late / road.step());
      int at = points.applyAsInt(a) + steps;
      Double ends = a.until();
      int until =
          ends == null
              ? Intent.NONE
              : at + (int) Math.round(road.apart(a.station(), ends) / road.step());
      Double share = a.amount();
      double amount = a.kind() == ActionKind.FULL ? 1 : share == null ? Double.NaN : share;
      // Nothing is nothing each time, but for who means to lift less.
      boolean less = a.kind() == ActionKind.LIFT && more > 0;
      boolean exact = share == null || share == 0 && !less;
      double does = amount + more + (share == null || share == 0 ? 0 : scatter);
      all.add(new Doing(a, at, until, exact ? amount : bounded(a.kind(), does)));
    }
    all.sort(Comparator.comparingInt((Doing d) -> d.at));
    return new WrittenScore(all);
  }

  private static boolean left(List<Deviation> deviations, Action a) {
    return deviations.stream().anyMatch(d -> d.leftOut() && d.action().equals(a.id()));
  }

  private static double bounded(ActionKind kind, double amount) {
    return Math.max(0.02, Math.min(kind.most(), amount));
  }

  List<Doing> all() {
    return all;
  }

  void move(int by) {
    for (Doing d : all) {
      d.at += by;
      d.until += d.until == Intent.NONE ? 0 : by;
    }
  }

  private static boolean opens(Doing d) {
    return switch (d.kind) {
      case LIFT, BRAKE, THROTTLE, FULL -> true;
      default -> false;
    };
  }

  /** Where the feet first move. */
  int first() {
    return all.stream().filter(d -> d.kind.pedal()).mapToInt(d -> d.at).min().orElse(Intent.NONE);
  }

  /** Where the last thing is done. */
  int last() {
    return all.stream().mapToInt(d -> Math.max(d.at, d.until)).max().orElse(Intent.NONE);
  }

  /** The action that the throttle follows at a place; null before the first. */
  @Nullable Doing throttled(int k) {
    Doing by = null;
    for (Doing d : all) {
      by = opens(d) && d.at <= k ? d : by;
    }
    return by;
  }

  private @Nullable Doing after(Doing one, boolean throttle) {
    for (Doing d : all) {
      boolean counts =
          throttle ? opens(d) : d.kind == ActionKind.BRAKE || d.kind == ActionKind.EASE;
      if (d.at > one.at && counts) {
        return d;
      }
    }
    return null;
  }

  /** The share of the throttle that is meant at a place. */
  double throttle(int k) {
    Doing by = throttled(k);
    if (by == null) {
      return 1;
    }
    return switch (by.kind) {
      case BRAKE -> rolledOn(by, k);
      case LIFT -> by.until != Intent.NONE && k >= by.until ? 1 : open(by);
      case THROTTLE -> {
        Doing next = after(by, true);
        boolean on =
            next != null && (next.kind == ActionKind.THROTTLE || next.kind == ActionKind.FULL);
        if (!by.evenly || next == null || !on) {
          yield open(by);
        }
        double way = (k - by.at) / (double) Math.max(1, next.at - by.at);
        yield open(by) + (open(next) - open(by)) * way;
      }
      default -> 1;
    };
  }

  /** Whether the throttle is all open again in the end. */
  boolean opens() {
    Doing last = throttled(Integer.MAX_VALUE);
    boolean back = last != null && last.kind == ActionKind.LIFT && last.until != Intent.NONE;
    return last == null
        || back
        || last.kind == ActionKind.THROTTLE && last.amount > 0.95
        || last.kind == ActionKind.FULL
        || last.kind == ActionKind.BRAKE;
  }

  /** After a braking that no throttle follows it is opened a little later, for the next corner. */
  private double rolledOn(Doing press, int k) {
    boolean throttled = after(press, true) != null;
    int on = braked() + ROLLS;
    return throttled || k < on ? 0 : Math.min(1, (k - on) / (double) OPENS);
  }

  private static double open(Doing d) {
    return Double.isNaN(d.amount) ? 0 : d.amount;
  }

  /** The action that the brake follows at a place; null where it is not pressed. */
  @Nullable Doing pressed(int k) {
    Doing by = null;
    for (Doing d : all) {
      if (d.at > k) {
        break;
      }
      if (d.kind == ActionKind.BRAKE || d.kind == ActionKind.EASE) {
        by = d;
      } else if ((d.kind == ActionKind.THROTTLE || d.kind == ActionKind.FULL)
          && by != null
          && !eased(by)) {
        by = null;
      }
    }
    return by != null && by.kind == ActionKind.EASE && by.amount == 0 ? null : by;
  }

  /** Whether the brake is still eased after this, before it is pressed anew. */
  private boolean eased(Doing d) {
    Doing next = after(d, false);
    return next != null && next.kind == ActionKind.EASE;
  }

  /** Where a braking is over: eased, taken over by the throttle or pressed anew. */
  int stops(Doing press) {
    Doing brake = after(press, false);
    Doing throttle = after(press, true);
    int stop = brake == null ? Integer.MAX_VALUE : brake.at;
    boolean first = throttle != null && throttle.kind != ActionKind.LIFT && throttle.at < stop;
    return first && !eased(press) && throttle != null ? throttle.at : stop;
  }

  /** Whether a braking is held until it is eased to less, or let go of to be pressed again. */
  private boolean held(Doing press) {
    Doing next = after(press, false);
    if (next == null || next.kind != ActionKind.EASE) {
      return false;
    }
    Doing then = after(next, false);
    return next.amount > 0 || then != null && then.kind == ActionKind.BRAKE;
  }

  /**
   * Share of a press that is meant at a place: all of it, or of an open one what is left of it.
   *
   * @param apex where an open braking without an end is over
   */
  double shape(Doing press, int k, int apex) {
    if (press.kind == ActionKind.EASE && press.evenly) {
      Doing next = after(press, false);
      if (next != null && next.kind == ActionKind.EASE && press.amount > 0) {
        double way = (k - press.at) / (double) Math.max(1, next.at - press.at);
        return 1 + (next.amount / press.amount - 1) * Math.min(1, way);
      }
    }
    if (!press.open || press.kind != ActionKind.BRAKE || held(press)) {
      return 1;
    }
    // What is let go of where it is written may be for what comes after the apex.
    int stop = eased(press) ? stops(press) : Math.min(stops(press), Math.max(apex, press.at + 4));
    double way = (k - press.at) / (double) Math.max(1, stop - press.at);
    return way <= HELD ? 1 : Math.max(0, (1 - way) / (1 - HELD));
  }

  /** Where the brake is done with last. */
  int braked() {
    return all.stream()
        .filter(d -> d.kind == ActionKind.BRAKE || d.kind == ActionKind.EASE)
        .mapToInt(d -> d.at)
        .max()
        .orElse(Intent.NONE);
  }

  /** Where what is pressed next must be begun anew; far away where nothing is. */
  int nextPress(int k) {
    return all.stream()
        .filter(d -> d.kind == ActionKind.BRAKE && d.at > k)
        .mapToInt(d -> d.at)
        .min()
        .orElse(Integer.MAX_VALUE);
  }

  /** The shift that was written last; null before any. */
  @Nullable Doing shifted(int k) {
    Doing by = null;
    for (Doing d : all) {
      by = d.kind == ActionKind.SHIFT && d.at <= k ? d : by;
    }
    return by;
  }

  /** Whether a gear is held at a place, whatever the revs. */
  boolean holds(int k) {
    return all.stream()
        .anyMatch(
            d -> d.kind == ActionKind.SHIFT && d.at <= k && d.until != Intent.NONE && k < d.until);
  }
}
