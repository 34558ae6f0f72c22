package marvek.core.plan;

import java.util.List;
import marvek.core.axle.Axles;
import marvek.core.said.Said;
import org.jspecify.annotations.Nullable;

/**
 * How a corner as planned uses the two axles, and what moves that.
 *
 * @param from station of the first value, m
 * @param step metres
 * @param front share of the front axle's grip that is used, at each place
 * @param rear share of the rear axle's
 * @param bears share of full throttle that the driven tyres bear, 0 to 1, at each place
 * @param entry while turning in under braking
 * @param middle at the slowest place
 * @param exit on the way to full throttle
 * @param moves what moves the balance, one step each
 * @param locks which wheel the brakes lock first, straight ahead and half-way in, as far as it is
 *     braked there
 * @param hands where hands, or a machine's roll, have most to do
 * @param around what is done instead where the set-up is fixed; empty where it is not
 * @param antiLock whether an anti-lock keeps wheels from locking
 * @param usual whether the vehicle's chassis is what is usual for its kind, not entered
 */
public record CornerBalance(
    double from,
    double step,
    double[] front,
    double[] rear,
    double[] bears,
    Part entry,
    Part middle,
    Part exit,
    List<Move> moves,
    List<Locks> locks,
    Hands hands,
    List<Around> around,
    boolean antiLock,
    boolean usual) {
  public CornerBalance {
    moves = List.copyOf(moves);
    around = List.copyOf(around);
    locks = List.copyOf(locks);
  }

  /**
   * A part of the corner.
   *
   * @param station where it is told, m
   * @param front share of the front axle's grip that is used
   * @param rear share of the rear axle's
   * @param how what it does
   * @param understeer by how much more the front axle slips than the rear one, radians
   * @param words what it does, by how much
   */
  public record Part(
      double station, double front, double rear, How how, double understeer, Said words) {}

  /** What a vehicle does at a place. */
  public enum How {
    /** The front is nearer to its limit. */
    PUSHES,
    /** Both alike. */
    EVEN,
    /** The rear is nearer to its limit. */
    TURNS,
    /** Neither is near its limit. */
    FREE
  }

  /** What can be moved. */
  public enum What {
    /** One step of brake balance to the front. */
    BRAKES,
    /** One step of a stiffer front bar. */
    BAR,
    /** One step more of the rear wing. */
    WING,
    /** One gear lower on the way in. */
    GEAR,
    /** Ten points more brake while turning in. */
    TRAIL,
    /** Ten points more throttle on the way out. */
    THROTTLE,
    /** One step of stiffer front springs. */
    SPRINGS,
    /** Half a degree more camber at the front. */
    CAMBER,
    /** One click of firmer front dampers: felt while it rolls, and by no lap here. */
    DAMPERS;

    /** Whether it is set, and not done by the driver. */
    public boolean isSet() {
      return switch (this) {
        case GEAR, TRAIL, THROTTLE -> false;
        case BRAKES, BAR, WING, SPRINGS, CAMBER, DAMPERS -> true;
      };
    }
  }

  /**
   * What a driver does about a vehicle that pushes or turns and may not be set.
   *
   * @param what is moved
   * @param by points of pedal, more is positive; 0 for a gear lower
   * @param words of it
   */
  public record Around(What what, double by, Said words) {}

  /**
   * One step of something, on the line at hand.
   *
   * @param what is moved
   * @param entry by how much more of the front than of the rear is used then, share
   * @param middle the same at the slowest place
   * @param exit the same on the way to full throttle
   * @param corner seconds in this corner, negative is quicker; null where it is not told
   * @param lap seconds of the lap; null where it is not told
   */
  public record Move(
      What what,
      double entry,
      double middle,
      double exit,
      @Nullable Double corner,
      @Nullable Double lap) {}

  /**
   * Which wheel the brakes lock first at a place, without anti-lock.
   *
   * @param station of that place, m
   * @param turning whether it is turning there, half-way in, or still straight ahead
   * @param first wheel that locks
   * @param alike whether both wheels of its axle do
   * @param at how hard the brakes are then, share of the full press at the marker
   * @param planned how hard they are planned there, share of the same
   * @param use share of what the turn leaves it that each wheel uses as planned: inner front, outer
   *     front, inner rear, outer rear; zero where it is all but lifted
   * @param words which locks first, and when
   */
  public record Locks(
      double station,
      boolean turning,
      Axles.Wheel first,
      boolean alike,
      double at,
      double planned,
      List<Double> use,
      Said words) {
    public Locks {
      use = List.copyOf(use);
    }
  }

  /**
   * Where the direction changes most quickly.
   *
   * @param station where, m
   * @param rolls whether the machine rolls, and no wheel is turned
   * @param rate rad/s of the steering wheel or of the roll
   * @param share of what is usual at the most
   * @param words how quickly, and what it takes
   */
  public record Hands(double station, boolean rolls, double rate, double share, Said words) {}
}
