package marvek.core.session;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/** What is due when around a session: times run backwards from its start, and on from its end. */
public final class DaySheet {
  private DaySheet() {}

  /**
   * Something due.
   *
   * @param errand which
   * @param from when it begins
   * @param until when it should be done
   * @param last when it is not worth doing any more
   * @param done whether it is
   */
  public record Due(Errand errand, Instant from, Instant until, Instant last, boolean done) {}

  /**
   * What is due for a session; nothing before one that is cancelled, and only what comes after one
   * that was stopped.
   *
   * @param lapTime seconds, for a length in laps
   * @param first whether it is the first of its event
   * @param done what is done already
   */
  public static List<Due> of(Timing timing, double lapTime, boolean first, List<Errand> done) {
    List<Due> out = new ArrayList<>();
    if (timing.state() == Timing.State.CANCELLED) {
      return out;
    }
    Instant begins = timing.begins();
    Instant ends = timing.ends(lapTime);
    for (Errand e : Errand.values()) {
      boolean wanted =
          e == Errand.WALK
              ? first && timing.state() == Timing.State.ON
              : e.after() || timing.state() == Timing.State.ON;
      if (wanted) {
        Instant from = e.after() ? ends : begins;
        Instant until = from.plus(Duration.ofMinutes(e.until()));
        out.add(
            new Due(
                e,
                from.plus(Duration.ofMinutes(e.from())),
                until,
                until.plus(e.stays()),
                done.contains(e)));
      }
    }
    return List.copyOf(out);
  }

  /** What is to be done next: the first that is not done and whose time is not long over. */
  public static java.util.Optional<Due> next(List<Due> sheet, Instant now) {
    return sheet.stream().filter(d -> !d.done()).filter(d -> d.last().isAfter(now)).findFirst();
  }
}
