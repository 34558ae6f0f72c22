package marvek.core.session;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import marvek.core.score.Sureness;
import org.jspecify.annotations.Nullable;

/**
 * What to work on: three corners at most, those that are worth most and surest to be there.
 *
 * @param corner id
 * @param cause of the loss
 * @param worth seconds, after doubt
 * @param offer seconds on offer
 * @param share of the laps, at least
 */
public record Focus(String corner, String cause, double worth, double offer, double share) {
  /** Corners that one can work on in a session (common practice, no source). */
  public static final int MOST = 3;

  /** Seconds below which it is not worth a session. */
  public static final double LEAST = 0.05;

  private static final double Z = 1.959964;

  /**
   * Causes whose cure asks for nothing later, faster or earlier on the throttle. Any other counts
   * as asking for more, so that a new one is taken with care until somebody has looked at it.
   */
  private static final List<String> CALM =
      List.of(
          "BEYOND_THE_EDGE",
          "BRAKED_LATE_RAN_DEEP",
          "EXTRA_STEERING",
          "FROM_THE_CORNER_BEFORE",
          "KERB_STRUCK",
          "LIMITER",
          "THROTTLE_THEN_LIFT",
          "TURNED_IN_EARLY_RAN_WIDE",
          "TWO_PRESSES",
          "UNEVEN_BRAKING",
          "WHEEL_LOCKED",
          "WHEEL_SPUN");

  /**
   * Something to work on.
   *
   * @param corner id
   * @param cause of the loss
   * @param offer seconds
   * @param low least that it is by its interval, s; null where none is known
   * @param seen laps with it
   * @param laps all
   * @param sure how sure the driver is of the corner's points; null for not said
   * @param alike whether the laps were driven on a day like that of the session
   * @param room whether there is room when it goes wrong
   * @param confidence change of the driver's confidence there, below zero where it falls
   */
  public record Candidate(
      String corner,
      String cause,
      double offer,
      @Nullable Double low,
      int seen,
      int laps,
      @Nullable Sureness sure,
      boolean alike,
      boolean room,
      double confidence) {}

  /** Whether the cure of a cause is to brake later, to go faster or to open sooner. */
  public static boolean faster(String cause) {
    return !CALM.contains(cause);
  }

  /** Causes that ask for nothing more. */
  static List<String> calm() {
    return CALM;
  }

  /**
   * Lower limit of a share, 95 % (Wilson 1927).
   *
   * @param seen of {@code all}
   */
  public static double atLeast(int seen, int all) {
    if (all <= 0) {
      return 0;
    }
    double p = (double) seen / all;
    double z2 = Z * Z;
    double middle = p + z2 / (2 * all);
    double half = Z * Math.sqrt(p * (1 - p) / all + z2 / (4.0 * all * all));
    return Math.max(0, (middle - half) / (1 + z2 / all));
  }

  private static double weight(@Nullable Sureness sure) {
    if (sure == null) {
      return 1;
    }
    return switch (sure) {
      case SURE -> 1;
      case FAIRLY -> 0.7;
      case UNSURE, CARRIED -> 0.4;
    };
  }

  /**
   * The most worth, never two that are neighbours in driving order and linked.
   *
   * @param linked whether two corners cannot be worked on at once
   */
  public static List<Focus> of(
      List<Candidate> candidates, java.util.function.BiPredicate<String, String> linked) {
    List<Focus> all = new ArrayList<>();
    for (Candidate c : candidates) {
      Double low = c.low();
      boolean told = c.offer() >= LEAST && (low == null || low > 0);
      boolean may = !faster(c.cause()) || c.alike() && c.room() && c.confidence() >= 0;
      if (told && may) {
        double share = atLeast(c.seen(), c.laps());
        all.add(
            new Focus(
                c.corner(), c.cause(), c.offer() * share * weight(c.sure()), c.offer(), share));
      }
    }
    all.sort(Comparator.comparingDouble(Focus::worth).reversed());
    List<Focus> out = new ArrayList<>();
    for (Focus f : all) {
      boolean free =
          out.stream()
              .noneMatch(o -> o.corner().equals(f.corner()) || linked.test(o.corner(), f.corner()));
      if (free && out.size() < MOST) {
        out.add(f);
      }
    }
    return List.copyOf(out);
  }
}
