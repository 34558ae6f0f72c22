package marvek.core.ways;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.DoublePredicate;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.plan.LongerLift;
import marvek.core.score.Action;
import marvek.core.score.ActionBuilder;
import marvek.core.score.ActionKind;
import marvek.core.technique.School;
import org.jspecify.annotations.Nullable;

/** How a corner's throttle is opened, and whether it is braked for at all. */
final class PedalWays {
  // A stop that some do without the brake.
  private static final double LIGHT_STOP = 0.55;
  // Metres between the brake and the throttle, and from some of it to all, at least.
  private static final double AFTER = 2;
  private static final double OPENS = 4;
  // Metres past the full throttle of now at which all of it is borne at the latest.
  private static final double LATER = 60;
  // Shares that a squeeze is tried to begin with, and from how many places.
  private static final double[] BEGINS = {0.2, 0.4, 0.6};
  private static final int STARTS = 4;
  // Asking this much of the grip counts as borne, as the model is no finer; and the most that is
  // asked because the plan of now asks for it.
  private static final double BORNE = 1.03;
  private static final double MOST_ASKED = 1.25;
  private static final double GRAIN = 0.5;
  private static final String LIFT = "lift";
  private static final String FRONT_SHIFT = "shift-for-the-front";
  private static final Set<PointKind> OF_BRAKE =
      EnumSet.of(
          PointKind.BUILD_UP,
          PointKind.BRAKE,
          PointKind.TARGET,
          PointKind.BACK_UP,
          PointKind.DOWNSHIFT,
          PointKind.RELEASE);

  private final ComputedLap computed;
  private final int c;
  private final Answers answers;

  PedalWays(ComputedLap computed, int c, Answers answers) {
    this.computed = computed;
    this.c = c;
    this.answers = answers;
  }

  /**
   * Whether there is a throttle to be opened after a brake, all in one go: what is held in stages
   * on the way answers otherwise.
   */
  boolean opens(CornerEntry entry) {
    Optional<Double> release = entry.station(PointKind.RELEASE);
    Optional<Double> full = entry.station(PointKind.FULL_THROTTLE);
    return entry.slowing() == Slowing.BRAKE
        && entry.point(PointKind.FIRST_THROTTLE).isPresent()
        && release.isPresent()
        && full.isPresent()
        && entry.actions().stream().noneMatch(PedalWays::opensThrottle)
        && computed.road().apart(release.get(), full.get()) > AFTER + OPENS;
  }

  /**
   * The throttle opened at once as early as the tyres bear all of it, or squeezed evenly from some
   * to all of it as early as they bear what is asked on the way; where the plan of now asks for
   * more, with as much as that. Nothing where it cannot be made so.
   */
  Optional<CornerEntry> opened(CornerEntry now, CornerEntry wanted, School school) {
    double bears = Math.max(BORNE, Math.min(MOST_ASKED, answers.pushes(now)));
    double release = wanted.station(PointKind.RELEASE).orElseThrow();
    double full = wanted.station(PointKind.FULL_THROTTLE).orElseThrow();
    double first = computed.road().wrap(Math.ceil((release + AFTER) / GRAIN) * GRAIN);
    double most = computed.road().apart(first, full) + LATER;
    double once = least(0, most, m -> borne(opening(wanted, first, m, m + OPENS, 1), bears));
    if (Double.isNaN(once)) {
      return Optional.empty();
    }
    CornerEntry atOnce = opening(wanted, first, once, once + OPENS, 1);
    if (school == School.AT_ONCE) {
      return Optional.of(atOnce);
    }
    CornerEntry best = null;
    double quickest = Double.MAX_VALUE;
    for (int k = 0; k <= STARTS; k++) {
      double from = once * k / STARTS;
      for (double share : BEGINS) {
        double to =
            least(
                from + OPENS,
                most + OPENS,
                m -> borne(opening(wanted, first, from, m, share), bears));
        CornerEntry tried = Double.isNaN(to) ? null : opening(wanted, first, from, to, share);
        Double time = tried == null ? null : answers.answer(tried).time();
        if (time != null && time < quickest) {
          quickest = time;
          best = tried;
        }
      }
    }
    return Optional.ofNullable(best);
  }

  private static boolean opensThrottle(Action a) {
    return a.kind() == ActionKind.THROTTLE || a.kind() == ActionKind.FULL;
  }

  private CornerEntry opening(
      CornerEntry plain, double origin, double from, double to, double share) {
    return plain
        .copy()
        .moved(PointKind.FIRST_THROTTLE, computed.road().wrap(origin + from))
        .moved(PointKind.FULL_THROTTLE, computed.road().wrap(origin + to))
        .firstThrottle(share)
        .done();
  }

  private boolean borne(CornerEntry entry, double bears) {
    return answers.makes(entry) && answers.pushes(entry) <= bears;
  }

  /**
   * The least of some metres that will do, to the grain; NaN where the most will not. What does is
   * taken to do further on as well.
   */
  private static double least(double low, double most, DoublePredicate does) {
    int last = (int) Math.ceil((most - low) / GRAIN);
    if (last < 0 || !does.test(low + last * GRAIN)) {
      return Double.NaN;
    }
    int not = -1;
    int yes = last;
    while (yes - not > 1) {
      int middle = (not + yes) / 2;
      if (does.test(low + middle * GRAIN)) {
        yes = middle;
      } else {
        not = middle;
      }
    }
    return low + yes * GRAIN;
  }

  /** Whether some would do without the brake here, or it is done without. */
  boolean maySpareBrake(CornerEntry entry) {
    if (entry.slowing() == Slowing.LIFT) {
      return LongerLift.chosen(entry) && Drafter.places(computed, c).slowing() == Slowing.BRAKE;
    }
    boolean again =
        !entry.again().isEmpty()
            || entry.actions().stream().anyMatch(a -> a.kind() == ActionKind.BRAKE);
    return entry.slowing() == Slowing.BRAKE
        && entry.station(PointKind.BRAKE).isPresent()
        && entry.firstEffort() <= LIGHT_STOP
        && !again;
  }

  /**
   * Slowed for by the closed throttle alone, let go as much before its last place as the brake is
   * pressed before its own; or by the brake again. Nothing where there is no room for it.
   */
  Optional<CornerEntry> slowed(CornerEntry now, CornerEntry wanted, School school) {
    if (school == School.BRAKED) {
      return Optional.of(now.slowing() == Slowing.BRAKE ? wanted : braked(wanted));
    }
    if (now.slowing() == Slowing.LIFT) {
      return Optional.of(wanted);
    }
    double marker = now.station(PointKind.BRAKE).orElseThrow();
    CornerEntry plain = unbraked(wanted);
    String id = Score.free(LIFT, plain.actions());
    double at = Math.round(marker / GRAIN) * GRAIN;
    CornerEntry lifted =
        Score.with(plain, Action.of(id, ActionKind.LIFT, computed.road().wrap(at), 0.0));
    return LongerLift.inTime(computed, lifted, answers.margin(now));
  }

  private static CornerEntry unbraked(CornerEntry entry) {
    return entry
        .copy()
        .slowing(Slowing.LIFT)
        .firstEffort(0)
        .pedals(null)
        .points(entry.points().stream().filter(p -> !OF_BRAKE.contains(p.kind())).toList())
        .actions(entry.actions().stream().filter(a -> a.kind() != ActionKind.EASE).toList())
        .done();
  }

  /** Whether the front wheel would rise on the way out, and a higher gear would keep it down. */
  boolean frontRises(CornerEntry entry) {
    return answers
        .frontRises(unshifted(entry))
        .filter(r -> r.gear() < computed.vehicle().gears())
        .isPresent();
  }

  /** The next gear taken where the front wheel would rise, or the throttle eased for it there. */
  Optional<CornerEntry> held(CornerEntry wanted, School school) {
    CornerEntry plain = unshifted(wanted);
    if (school == School.FRONT_EASED) {
      return Optional.of(plain);
    }
    return answers
        .frontRises(plain)
        .filter(r -> r.gear() < computed.vehicle().gears())
        .map(
            r ->
                Score.with(
                    plain,
                    ActionBuilder.builder(
                            Action.of(
                                FRONT_SHIFT,
                                ActionKind.SHIFT,
                                computed.road().wrap(Math.round(r.station() / GRAIN) * GRAIN),
                                null))
                        .gear(r.gear() + 1)
                        .build()));
  }

  /** Without the shift that holds the front wheel. */
  private static CornerEntry unshifted(CornerEntry entry) {
    return entry
        .copy()
        .actions(entry.actions().stream().filter(a -> !a.id().equals(FRONT_SHIFT)).toList())
        .done();
  }

  private CornerEntry braked(CornerEntry entry) {
    CornerEntry draft = Drafter.entry(computed, c);
    List<CornerPoint> points = new ArrayList<>(entry.points());
    for (PointKind kind : List.of(PointKind.BRAKE, PointKind.RELEASE)) {
      @Nullable CornerPoint drafted = draft.point(kind).orElse(null);
      if (drafted != null && entry.point(kind).isEmpty()) {
        points.add(drafted);
      }
    }
    return entry
        .copy()
        .slowing(Slowing.BRAKE)
        .firstEffort(draft.firstEffort())
        .points(points)
        .actions(Score.without(entry, ActionKind.LIFT))
        .done();
  }
}
