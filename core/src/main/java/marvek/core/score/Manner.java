package marvek.core.score;

/** How quickly an action is carried out. */
public enum Manner {
  /** Hard, in one step, quickly. */
  AT_ONCE,
  /** Ramped from here to the next action of the same pedal; with even hands. */
  EVENLY,
  /** Squeezed, slowly. */
  SLOWLY
}
