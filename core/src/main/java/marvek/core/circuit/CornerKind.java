package marvek.core.circuit;

/** Sorts of corner, told apart by radius, angle and neighbours. */
public enum CornerKind {
  KINK,
  BEND,
  SWEEPER,
  HAIRPIN,
  DOUBLE_APEX,
  CHICANE
}
