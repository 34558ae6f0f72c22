package marvek.core.session;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A marker approached step by step, from where it is surely made to where it is wanted.
 *
 * @param corner id
 * @param rungs metres before the wanted marker, by lap, the first the farthest; the last one is 0
 *     where there are laps enough
 * @param reached whether the wanted marker is reached in the laps that there are
 */
public record Rungs(String corner, List<Double> rungs, boolean reached) {
  /** Longest step, m. */
  public static final double LONGEST = 5;

  /** Grip less by which the first marker is made; and where the corner is new, damp or blind. */
  public static final double LESS = 0.10;

  public static final double LESS_UNKNOWN = 0.20;

  /** Causes of a loss that are mended by a later marker. */
  private static final List<String> LATER = List.of("BRAKED_EARLY", "OVER_SLOWED");

  private static final double HALF = 0.5;
  private static final double SMALL = 0.5;

  public Rungs {
    rungs = List.copyOf(rungs);
  }

  /**
   * Whether a marker is approached: where it is not proved, or where what is worked on is braking
   * too soon. One that is driven as it stands is not put back for a session.
   *
   * @param unsure whether the marker is unsure or not proved
   * @param focus on this corner; null for none
   */
  public static boolean wanted(boolean unsure, @Nullable Focus focus) {
    return unsure || focus != null && (focus.cause().isEmpty() || LATER.contains(focus.cause()));
  }

  /**
   * The steps: at most {@link #LONGEST}, and at most half of what is in hand at each.
   *
   * @param before metres before the wanted marker at which to start
   * @param inHand metres in hand at the wanted marker
   * @param laps that there are for it
   */
  public static Rungs of(String corner, double before, double inHand, int laps) {
    List<Double> out = new ArrayList<>();
    double at = Math.max(0, before);
    for (int lap = 0; lap < laps; lap++) {
      out.add((double) Math.round(at));
      if (at < SMALL) {
        break;
      }
      double step = Math.min(LONGEST, HALF * (at + Math.max(0, inHand)));
      // A last step of less than a metre is no step of its own.
      at = at - step < 1 ? 0 : at - step;
      if (step < SMALL) {
        break;
      }
    }
    return new Rungs(corner, out, !out.isEmpty() && out.get(out.size() - 1) < SMALL);
  }
}
