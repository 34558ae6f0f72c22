package marvek.core.logger;

import java.util.List;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/**
 * What was really done, free of noise.
 *
 * @param laps in the order driven
 */
public record Truth(List<Lap> laps) {
  public Truth {
    laps = List.copyOf(laps);
  }

  /**
   * A lap.
   *
   * @param number from 1; 0 for the way out of and into the pits
   * @param lapTime seconds
   * @param corners in driving order
   */
  public record Lap(int number, double lapTime, List<Done> corners) {
    public Lap {
      corners = List.copyOf(corners);
    }
  }

  /**
   * A corner as it was driven; stations in [0, length of the lap).
   *
   * @param corner id
   * @param brake where the brake leaves zero
   * @param release where it is back at zero
   * @param firstThrottle where the throttle leaves zero
   * @param fullThrottle where it is fully open for good
   * @param turnIn where the path has come to bend by about three tenths of its most
   * @param apex closest to the inside
   * @param minimumSpeed m/s
   * @param gear at the slowest place
   * @param mistakes made on purpose
   * @param acts of a written score, in driving order
   */
  public record Done(
      String corner,
      @Nullable Double brake,
      @Nullable Double release,
      @Nullable Double firstThrottle,
      @Nullable Double fullThrottle,
      @Nullable Double turnIn,
      double apex,
      double minimumSpeed,
      int gear,
      List<Mistake> mistakes,
      List<Act> acts) {
    public Done {
      mistakes = List.copyOf(mistakes);
      acts = List.copyOf(acts);
    }
  }

  /**
   * An action of a written score as it was done.
   *
   * @param id of the action
   * @param station where it begins
   * @param amount share meant; of a braking the hardest press, as the recording shows it
   * @param gear taken, 0 for other kinds
   */
  public record Act(String id, ActionKind kind, double station, double amount, int gear) {}
}
