package marvek.core.entry;

/** How a corner is slowed for. */
public enum Slowing {
  /** Brakes are used. */
  BRAKE,
  /** The throttle is eased, no brakes. */
  LIFT,
  /** Full throttle all the way. */
  FLAT
}
