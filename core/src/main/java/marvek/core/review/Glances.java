package marvek.core.review;

import java.util.ArrayList;
import java.util.List;
import marvek.core.plan.ComputedLap;
import marvek.core.survey.Place;
import marvek.core.survey.PlaceKind;

/** Where a driver has time to look at the instruments. */
public final class Glances {
  /** A straight must last this long at full throttle, seconds (common practice, no source). */
  public static final double LONG_ENOUGH = 3;

  // Clear of the corner behind and of the braking ahead.
  private static final double SETTLE = 0.6;
  private static final double READY = 1.2;
  // Crossing over along a straight takes less than this sideways, m/s².
  private static final double STRAIGHT = 3;

  private Glances() {}

  /** A place for each stretch of full throttle that is straight enough for long enough. */
  public static List<Place> on(ComputedLap computed) {
    List<Place> places = new ArrayList<>();
    int n = computed.road().size();
    int begin = 0;
    while (begin < n && quiet(computed, begin)) {
      begin++;
    }
    int start = -1;
    double seconds = 0;
    for (int k = begin; k <= begin + n; k++) {
      boolean quiet = k < begin + n && quiet(computed, k % n);
      if (quiet) {
        start = start < 0 ? k : start;
        seconds += computed.path().step()[k % n] / computed.lap().speed()[k % n];
      } else if (start >= 0) {
        if (seconds >= LONG_ENOUGH) {
          places.add(place(computed, start, k, places.size() + 1));
        }
        start = -1;
        seconds = 0;
      }
    }
    return List.copyOf(places);
  }

  private static boolean quiet(ComputedLap computed, int i) {
    // Not yet braking; a shift lets the throttle go for a moment and is no reason to look away.
    boolean free = computed.lap().speed()[i] > computed.lap().unbraked()[i] - 0.05;
    return free && Math.abs(computed.lap().across()[i]) < STRAIGHT;
  }

  private static Place place(ComputedLap computed, int start, int end, int number) {
    int n = computed.road().size();
    double from = start * computed.road().step() + SETTLE * computed.lap().speed()[start % n];
    double to = end * computed.road().step() - READY * computed.lap().speed()[(end - 1) % n];
    return new Place(
        "glance-" + number,
        PlaceKind.INSTRUMENTS,
        true,
        computed.road().wrap(Math.rint(from)),
        computed.road().wrap(Math.rint(to)),
        "",
        "");
  }
}
