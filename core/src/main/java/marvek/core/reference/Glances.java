package marvek.core.reference;

import java.util.ArrayList;
import java.util.List;
import marvek.core.survey.Place;

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
  public static List<Place> on(Desk desk) {
    List<Place> places = new ArrayList<>();
    int n = desk.road().size();
    int begin = 0;
    while (begin < n && quiet(desk, begin)) {
      begin++;
    }
    int start = -1;
    double seconds = 0;
    for (int k = begin; k <= begin + n; k++) {
      boolean quiet = k < begin + n && quiet(desk, k % n);
      if (quiet) {
        start = start < 0 ? k : start;
        seconds += desk.path().step()[k % n] / desk.lap().speed()[k % n];
      } else if (start >= 0) {
        if (seconds >= LONG_ENOUGH) {
          places.add(place(desk, start, k, places.size() + 1));
        }
        start = -1;
        seconds = 0;
      }
    }
    return List.copyOf(places);
  }

  private static boolean quiet(Desk desk, int i) {
    // Not yet braking; a shift lets the throttle go for a moment and is no reason to look away.
    boolean free = desk.lap().speed()[i] > desk.lap().unbraked()[i] - 0.05;
    return free && Math.abs(desk.lap().across()[i]) < STRAIGHT;
  }

  private static Place place(Desk desk, int start, int end, int number) {
    int n = desk.road().size();
    double from = start * desk.road().step() + SETTLE * desk.lap().speed()[start % n];
    double to = end * desk.road().step() - READY * desk.lap().speed()[(end - 1) % n];
    return new Place(
        "glance-" + number,
        Place.Kind.INSTRUMENTS,
        true,
        desk.road().wrap(Math.rint(from)),
        desk.road().wrap(Math.rint(to)),
        "",
        "");
  }
}
