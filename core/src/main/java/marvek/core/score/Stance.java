package marvek.core.score;

/** Where a rider's weight is along the machine. */
public enum Stance {
  /** As the vehicle's numbers have it. */
  MIDDLE(0),
  /** Over the front wheel: it stays down longer, and braking lifts the rear one sooner. */
  FORWARD(0.15),
  /** Back: the rear wheel stays down longer, and drive lifts the front one sooner. */
  BACK(-0.15);

  private final double moves;

  Stance(double moves) {
    this.moves = moves;
  }

  /** Metres that the rider moves forward (common practice, no source). */
  public double moves() {
    return moves;
  }
}
