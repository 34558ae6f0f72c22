package marvek.core.logger;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.line.CornerLine;
import marvek.core.plan.ComputedLap;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/** What the driver means to do in one corner of one lap: the reference, scatter and mistakes. */
final class Intent {
  /** What is not done in a corner. */
  static final int NONE = Integer.MIN_VALUE / 2;

  final CornerEntry entry;
  final List<Mistake> mistakes = new ArrayList<>();
  // What is done otherwise of a written score.
  final List<Deviation> deviations = new ArrayList<>();
  private final double spread;
  double brakeBy;
  double releaseBy;
  double firstBy;
  double fullBy;
  double turnInBy;
  double apexOut;
  double exitOut;
  double entryOut;
  double slower = 1;
  double handOff = 0.06;
  int gearBy;
  int corrections;
  boolean twoPresses;
  boolean dip;
  boolean limiter;
  boolean locks;
  boolean spins;
  boolean strikes;
  // What follows is known once the line is: indices from the line of the lap, below zero before it.
  int brake = NONE;
  int turnIn;
  int release = NONE;
  int first = NONE;
  int full = NONE;
  int apex;
  // The second of two apexes where the throttle is touched between them.
  int last = NONE;
  // What is written beyond the points; null where they say all.
  @Nullable WrittenScore written;

  private Intent(CornerEntry entry, double spread) {
    this.entry = entry;
    this.spread = spread;
  }

  /** The intents of a lap. */
  static List<Intent> lap(Plan plan, int lap, Random chance) {
    List<Intent> out = new ArrayList<>();
    for (CornerEntry e : plan.on(lap)) {
      double s = plan.spread();
      Intent i = new Intent(e, s);
      i.brakeBy = s * chance.nextGaussian();
      i.releaseBy = s * chance.nextGaussian();
      i.firstBy = s * chance.nextGaussian();
      i.fullBy = 1.3 * s * chance.nextGaussian();
      i.turnInBy = 0.5 * s * chance.nextGaussian();
      i.apexOut = Math.abs(0.08 * s * chance.nextGaussian());
      i.slower = 1 - Math.abs(0.003 * s * chance.nextGaussian());
      out.add(i);
    }
    for (Planted h : plan.habits()) {
      for (int c = 0; c < out.size(); c++) {
        if (out.get(c).entry.corner().equals(h.corner()) && chance.nextDouble() < h.share()) {
          Intent before = out.get((c + out.size() - 1) % out.size());
          out.get(c).make(h, before, chance);
        }
      }
    }
    for (Deviation d : plan.deviations()) {
      out.stream()
          .filter(i -> i.entry.corner().equals(d.corner()) && chance.nextDouble() < d.share())
          .forEach(i -> i.deviate(d));
    }
    return out;
  }

  private void deviate(Deviation d) {
    deviations.add(d);
    switch (Score.point(d.action()).orElse(PointKind.EXIT)) {
      case BRAKE -> brakeBy += d.late();
      case RELEASE -> releaseBy += d.late();
      case FIRST_THROTTLE -> firstBy += d.late();
      case FULL_THROTTLE -> fullBy += d.late();
      case TURN_IN -> turnInBy += d.late();
      case APEX -> apexOut -= d.more();
      default -> {}
    }
  }

  private void make(Planted habit, Intent before, Random chance) {
    double k = habit.size();
    mistakes.add(habit.mistake());
    switch (habit.mistake()) {
      case OVER_SLOWED -> {
        brakeBy -= 5 * k;
        slower *= 1 - 0.1 * k;
      }
      case BRAKES_LATE_RUNS_DEEP -> {
        brakeBy += 9 * k;
        releaseBy += 6 * k;
        apexOut += 1.3 * k;
        firstBy += 9 * k;
        fullBy += 16 * k;
        slower *= 1 - 0.01 * k;
      }
      case TURNS_IN_EARLY_RUNS_WIDE -> {
        turnInBy -= 10 * k;
        exitOut += 0.9 * k;
        fullBy += 14 * k;
        slower *= 1 - 0.01 * k;
      }
      case SLOW_HAND_OFF -> handOff += 0.45 * k;
      case RELEASES_SOON -> {
        // Slowed early, so that nothing is left to bleed off.
        brakeBy -= 6 * k;
        releaseBy -= 24 * k;
        slower *= 1 - 0.02 * k;
      }
      case RELEASES_LATE -> {
        releaseBy += 16 * k;
        firstBy += 16 * k;
        fullBy += 12 * k;
        slower *= 1 - 0.03 * k;
      }
      case COASTS -> {
        firstBy += 18 * k;
        fullBy += 10 * k;
      }
      case THROTTLE_THEN_LIFT -> {
        firstBy -= 9 * k;
        fullBy += 18 * k;
        dip = true;
      }
      case MISSES_THE_KERB -> apexOut += 1.3 * k;
      case LIMITER -> limiter = true;
      case EXTRA_STEERING -> {
        corrections = 2;
        slower *= 1 - 0.02 * k;
      }
      case PLACED_WRONG_BEFORE -> {
        entryOut -= 2 * k;
        before.exitOut -= 1.2 * k;
        brakeBy += 3 * k;
        apexOut += 1 * k;
        slower *= 1 - 0.03 * k;
        fullBy += 14 * k;
      }
      case BRAKES_EARLY -> brakeBy -= 16 * k;
      case TWO_PRESSES -> {
        twoPresses = true;
        brakeBy -= 8 * k;
        firstBy += 5 * k;
        fullBy += 6 * k;
      }
      case GEAR_TOO_HIGH -> gearBy += 1;
      case FULL_THROTTLE_LATE -> fullBy += 28 * k;
      case BEYOND_THE_EDGE -> exitOut += 1.7 * k;
      case LOCKS_THE_FRONT -> {
        // Whoever locks a wheel eases, arrives wide and waits for the throttle.
        locks = true;
        apexOut += 0.5 * k;
        firstBy += 7 * k;
        fullBy += 16 * k;
        slower *= 1 - 0.03 * k;
      }
      case SPINS_THE_REAR -> {
        spins = true;
        fullBy += 10 * k;
      }
      case STRIKES_THE_KERB -> {
        strikes = true;
        apexOut -= 0.5 * k;
      }
      case UNEVEN_BRAKING -> brakeBy += 9 * k * Math.max(-2, Math.min(2, chance.nextGaussian()));
    }
  }

  /** Places on the road, as indices counted from the line of the lap, in driving order. */
  void settle(ComputedLap computed, CornerLine line) {
    double apexAt = entry.station(PointKind.APEX).orElse(line.apex());
    apex = computed.road().index(apexAt);
    double turn = entry.station(PointKind.TURN_IN).orElse(line.turnIn()) + turnInBy;
    turnIn = near(computed, turn);
    if (entry.slowing() == Slowing.BRAKE && entry.station(PointKind.BRAKE).isPresent()) {
      brake = near(computed, entry.station(PointKind.BRAKE).orElseThrow() + brakeBy);
      release =
          Math.max(
              brake + 12,
              near(computed, entry.station(PointKind.RELEASE).orElse(apexAt) + releaseBy));
    }
    if (entry.slowing() != Slowing.FLAT) {
      first = near(computed, entry.station(PointKind.FIRST_THROTTLE).orElse(apexAt) + firstBy);
      full = near(computed, entry.station(PointKind.FULL_THROTTLE).orElse(apexAt + 30) + fullBy);
      if (brakes() && entry.station(PointKind.FIRST_THROTTLE).isEmpty()) {
        // Braked on for the next corner.
        first = Math.max(first, release + 14);
        full = first + 30;
      }
      first = brakes() ? Math.max(first, brake + 14) : first;
      full = Math.max(full, first + 3);
      last = line.apexes().size() > 1 && first < apex ? apex : NONE;
    }
    // Chance of its own, so that what is written changes nothing else that is drawn.
    Random chance = new Random(Double.doubleToLongBits(brakeBy + 3 * releaseBy));
    written =
        WrittenScore.of(
            computed.road(), entry, a -> place(computed, a), deviations, spread, chance);
  }

  /** Where an action is meant: a point with what is done otherwise, what lies between with it. */
  private int place(ComputedLap computed, Action a) {
    int at = near(computed, a.station());
    Optional<PointKind> point = Score.point(a.id());
    if (point.isEmpty()) {
      return a.kind() == ActionKind.THROTTLE
          ? at + (int) Math.round((firstBy + fullBy) / 2 / computed.road().step())
          : at;
    }
    return switch (point.get()) {
      case BRAKE -> brake;
      case RELEASE -> brakes() ? release : at;
      case FIRST_THROTTLE -> opens() ? first : at;
      case FULL_THROTTLE -> opens() ? full : at;
      default -> at;
    };
  }

  boolean brakes() {
    return brake != NONE;
  }

  /**
   * From where on the line must be held: who lets the brake go before turning in may have braked
   * for a bend before that.
   */
  int bendsFrom() {
    return brakes() ? Math.min(turnIn, release) : turnIn;
  }

  boolean opens() {
    return first != NONE;
  }

  /** Counts its places from another line: so many stations on. */
  void move(int by) {
    brake = moved(brake, by);
    release = moved(release, by);
    first = moved(first, by);
    full = moved(full, by);
    last = moved(last, by);
    apex += by;
    turnIn += by;
    WrittenScore score = written;
    if (score != null) {
      score.move(by);
    }
  }

  private static int moved(int place, int by) {
    return place == NONE ? NONE : place + by;
  }

  /** Who still brakes for the corner before presses for this one when that is done. */
  void after(Intent before) {
    if (brakes() && before.brakes() && brake > before.brake) {
      brake = Math.max(brake, before.release);
      release = Math.max(release, brake + 12);
    }
  }

  private int near(ComputedLap computed, double station) {
    double step = computed.road().step();
    return apex + (int) Math.round(computed.road().apart(apex * step, station) / step);
  }
}
