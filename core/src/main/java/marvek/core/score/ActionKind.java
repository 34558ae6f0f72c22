package marvek.core.score;

import java.util.List;
import marvek.core.said.Said;

/** What a driver does at a place of a corner. */
public enum ActionKind {
  /** Where across the road the vehicle is to be: metres from a named edge. */
  PLACE(Manner.EVENLY),
  /** The throttle is eased: share that is kept, and until where. */
  LIFT(Manner.AT_ONCE, Manner.SLOWLY),
  /** The brake is pressed: share of the driver's own full press. */
  BRAKE(Manner.AT_ONCE, Manner.SLOWLY),
  /** The brake is eased to a share; to nothing is its release. */
  EASE(Manner.AT_ONCE, Manner.EVENLY),
  /** To a gear. */
  SHIFT(Manner.AT_ONCE),
  /** The hands begin to turn in. */
  HANDS(Manner.EVENLY, Manner.SLOWLY, Manner.AT_ONCE),
  /** The line is nearest to the inside: metres off it. */
  APEX(Manner.EVENLY),
  /** The throttle is opened to a share. */
  THROTTLE(Manner.AT_ONCE, Manner.EVENLY),
  /** All of the throttle. */
  FULL(Manner.AT_ONCE),
  /** What is looked at, read or breathed. */
  EYES(Manner.EVENLY),
  /** Motorcycles: where the rider's weight is, and the share of the braking at the front wheel. */
  BODY(Manner.EVENLY);

  private final List<Manner> manners;

  ActionKind(Manner... manners) {
    this.manners = List.of(manners);
  }

  /** The ways in which it can be done, the usual one first. */
  public List<Manner> manners() {
    return manners;
  }

  /** Whether it moves a pedal. */
  public boolean pedal() {
    return switch (this) {
      case LIFT, BRAKE, EASE, THROTTLE, FULL -> true;
      default -> false;
    };
  }

  /** Whether its amount is a share from 0 to 1. */
  public boolean shared() {
    return switch (this) {
      case LIFT, BRAKE, EASE, THROTTLE, BODY -> true;
      default -> false;
    };
  }

  /** The greatest share that it can have; a lift that keeps all of it is none. */
  public double most() {
    return this == LIFT ? 0.95 : 1;
  }

  /** What it is called. */
  public Said said() {
    return Said.of("action." + name());
  }
}
