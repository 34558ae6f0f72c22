package marvek.core.telemetry;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import marvek.core.score.ActionKind;

/**
 * Reads what was done from a lap's sketch: presses of the brake, lifts of the throttle and shifts,
 * in driving order. Blips while braking, the throttle shut to brake and the dips of shifts are none
 * of them.
 */
public final class Acts {
  private static final double PRESSED = 0.06;
  // Share of a press's own height below which it is over, and by which it rises to be another.
  private static final double OVER = 0.15;
  private static final double AGAIN = 0.15;
  // Share of the throttle that counts as shut, and shares a second that count as moving.
  private static final double SHUT = 0.05;
  private static final double MOVES = 0.25;
  // Seconds: a rest shorter than that ends no movement; a throttle shut so long before the brake is
  // shut for it; a dip about a shift.
  private static final double REST = 0.12;
  private static final double HAND_OFF = 0.5;
  private static final double DIP = 0.35;
  // A throttle that comes back to within so much of where it was is back.
  private static final double BACK = 0.1;

  private final LapSketch sketch;
  private final List<Act> presses = new ArrayList<>();
  private final List<Act> out = new ArrayList<>();
  private final List<double[]> shiftsUp = new ArrayList<>();

  private Acts(LapSketch sketch) {
    this.sketch = sketch;
  }

  /** All that was done, in driving order. */
  public static List<Act> of(LapSketch sketch) {
    Acts acts = new Acts(sketch);
    acts.shifts();
    acts.presses();
    acts.lifts();
    acts.out.addAll(acts.presses);
    acts.out.sort(Comparator.comparingDouble(Act::station));
    return acts.out;
  }

  private void shifts() {
    Knots g = sketch.gear();
    if (g == null) {
      return;
    }
    for (int i = 1; i < g.size(); i++) {
      int was = (int) Math.round(g.value()[i - 1]);
      int is = (int) Math.round(g.value()[i]);
      if (is >= 1 && was >= 1 && is != was) {
        out.add(new Act(ActionKind.SHIFT, g.at()[i], null, null, is, 0));
        if (is > was) {
          shiftsUp.add(new double[] {g.time()[i]});
        }
      }
    }
  }

  private void presses() {
    Knots b = sketch.brake();
    if (b == null) {
      return;
    }
    int i = 1;
    while (i < b.size()) {
      if (b.value()[i] <= PRESSED || b.value()[i - 1] > PRESSED) {
        i++;
        continue;
      }
      int end = i;
      while (end + 1 < b.size() && b.value()[end + 1] > PRESSED) {
        end++;
      }
      split(b, i - 1, Math.min(b.size() - 1, end + 1));
      i = end + 1;
    }
  }

  /** The presses between two knots at rest: one, or several where it is eased and pressed anew. */
  private void split(Knots b, int from, int to) {
    int begin = from;
    int top = from;
    int low = -1;
    for (int i = from; i <= to; i++) {
      double v = b.value()[i];
      if (low < 0) {
        top = v > b.value()[top] ? i : top;
        low = v < b.value()[top] - AGAIN ? i : -1;
      } else {
        low = v < b.value()[low] ? i : low;
        if (v > b.value()[low] + AGAIN) {
          press(b, begin, low, top);
          begin = low;
          top = i;
          low = -1;
        }
      }
    }
    press(b, begin, to, top);
  }

  private void press(Knots b, int from, int to, int top) {
    double seconds = b.time()[to] - b.time()[from];
    double amount = b.value()[top];
    if (amount - b.value()[from] < sketch.least() || seconds < sketch.shortest()) {
      return;
    }
    // The flank drawn on to where it left what was there before.
    double rest = b.value()[from];
    double high = rest + 0.6 * (amount - rest);
    double foot = rest + 0.15 * (amount - rest);
    double begin = b.at()[from];
    double s60 = rising(b, from, top, high);
    double s15 = rising(b, from, top, foot);
    if (!Double.isNaN(s60) && !Double.isNaN(s15)) {
      begin = Math.max(begin, s15 - (s60 - s15) * 0.15 / 0.45);
    }
    presses.add(new Act(ActionKind.BRAKE, begin, b.at()[to], amount, 0, seconds));
  }

  /** The flank of a fall drawn back to where it left what was there before. */
  private static double falls(Knots u, int from, int to) {
    double was = u.value()[from];
    double by = was - u.value()[to];
    double late = falling(u, from, to, was - 0.7 * by);
    double soon = falling(u, from, to, was - 0.25 * by);
    return Double.isNaN(late) || Double.isNaN(soon)
        ? u.at()[from]
        : Math.max(u.at()[from], soon - (late - soon) * 0.25 / 0.45);
  }

  private static double falling(Knots u, int from, int to, double level) {
    for (int i = from + 1; i <= to; i++) {
      if (u.value()[i] <= level && u.value()[i - 1] > level) {
        double share = (u.value()[i - 1] - level) / (u.value()[i - 1] - u.value()[i]);
        return u.at()[i - 1] + share * (u.at()[i] - u.at()[i - 1]);
      }
    }
    return Double.NaN;
  }

  private static double rising(Knots b, int from, int to, double level) {
    for (int i = from + 1; i <= to; i++) {
      if (b.value()[i] >= level && b.value()[i - 1] < level) {
        double share = (level - b.value()[i - 1]) / (b.value()[i] - b.value()[i - 1]);
        return b.at()[i - 1] + share * (b.at()[i] - b.at()[i - 1]);
      }
    }
    return Double.NaN;
  }

  /** A movement of the throttle one way, or its rest: from one knot to another. */
  private record Move(int from, int to, int way) {}

  private List<Move> moves(Knots u) {
    List<Move> out = new ArrayList<>();
    for (int i = 1; i < u.size(); i++) {
      double seconds = Math.max(1e-6, u.time()[i] - u.time()[i - 1]);
      double slope = (u.value()[i] - u.value()[i - 1]) / seconds;
      int way = Math.abs(slope) < MOVES ? 0 : slope > 0 ? 1 : -1;
      Move last = out.isEmpty() ? null : out.get(out.size() - 1);
      if (last != null && last.way() == way) {
        out.set(out.size() - 1, new Move(last.from(), i, way));
        continue;
      }
      out.add(new Move(i - 1, i, way));
    }
    // Short rests, and what moves less than can be seen, end no movement.
    List<Move> merged = new ArrayList<>();
    for (Move m : out) {
      double seconds = u.time()[m.to()] - u.time()[m.from()];
      double by = Math.abs(u.value()[m.to()] - u.value()[m.from()]);
      boolean small = m.way() == 0 ? seconds < REST : by < sketch.least();
      int way = small ? 0 : m.way();
      Move last = merged.isEmpty() ? null : merged.get(merged.size() - 1);
      if (last != null && (last.way() == way || small && last.way() != 0 && seconds < REST)) {
        merged.set(merged.size() - 1, new Move(last.from(), m.to(), last.way()));
      } else if (last != null
          && last.way() == 0
          && merged.size() > 1
          && merged.get(merged.size() - 2).way() == way
          && way != 0
          && u.time()[last.to()] - u.time()[last.from()] < REST) {
        Move before = merged.get(merged.size() - 2);
        merged.remove(merged.size() - 1);
        merged.set(merged.size() - 1, new Move(before.from(), m.to(), way));
      } else {
        merged.add(new Move(m.from(), m.to(), way));
      }
    }
    return merged;
  }

  private void lifts() {
    Knots u = sketch.throttle();
    if (u == null) {
      return;
    }
    List<Move> moves = moves(u);
    for (int m = 0; m < moves.size(); m++) {
      Move down = moves.get(m);
      double was = u.value()[down.from()];
      double kept = u.value()[down.to()];
      if (down.way() >= 0 || was - kept < sketch.least()) {
        continue;
      }
      double begin = u.time()[down.from()];
      double end = u.time()[down.to()];
      if (braking(begin - REST, begin + REST) || kept < SHUT && pressed(begin, end + HAND_OFF)) {
        continue;
      }
      int back = m + 1;
      double least = kept;
      double sum = 0;
      double rested = 0;
      while (back < moves.size() && moves.get(back).way() == 0) {
        Move rest = moves.get(back++);
        double seconds = u.time()[rest.to()] - u.time()[rest.from()];
        sum += seconds * (u.value()[rest.to()] + u.value()[rest.from()]) / 2;
        rested += seconds;
        least = Math.min(least, u.value()[rest.to()]);
      }
      boolean opens = back < moves.size() && moves.get(back).way() > 0;
      double until = opens ? u.time()[moves.get(back).from()] : u.time()[u.size() - 1];
      boolean whole = opens && u.value()[moves.get(back).to()] > was - BACK;
      double done = opens ? u.time()[moves.get(back).to()] : until;
      if (whole && done - begin < DIP && shifted(begin, done)
          || until - begin < sketch.shortest()) {
        continue;
      }
      out.add(
          new Act(
              ActionKind.LIFT,
              falls(u, down.from(), down.to()),
              opens ? u.at()[moves.get(back).from()] : null,
              rested > REST ? sum / rested : least,
              0,
              until - begin));
    }
  }

  private boolean shifted(double from, double to) {
    return shiftsUp.stream().anyMatch(t -> t[0] > from - DIP && t[0] < to + DIP);
  }

  /** Whether a press begins in a time. */
  private boolean pressed(double from, double to) {
    Knots b = sketch.brake();
    return b != null
        && presses.stream()
            .mapToDouble(p -> b.timeAt(p.station()))
            .anyMatch(t -> t >= from - REST && t <= to);
  }

  /** Whether the brake is pressed all through a time. */
  private boolean braking(double from, double to) {
    Knots b = sketch.brake();
    if (b == null) {
      return false;
    }
    for (Act p : presses) {
      Double until = p.until();
      double a = b.timeAt(p.station());
      double z = until == null ? a : b.timeAt(until);
      if (a < from && z > to) {
        return true;
      }
    }
    return false;
  }
}
