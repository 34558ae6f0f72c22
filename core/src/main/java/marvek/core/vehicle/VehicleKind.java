package marvek.core.vehicle;

/** Sorts of vehicle. */
public enum VehicleKind {
  CAR,
  MOTORCYCLE
}
