package marvek.core.survey;

/**
 * Shapes of a kerb's cross-section, from the road outwards. All are drawn with the kerb's own width
 * and greatest height.
 */
public enum KerbProfile {
  FLAT,
  RAMP,
  CROWN,
  SERRATED,
  SAUSAGE,
  STEP;

  private static final double TOOTH = 0.2;
  private static final double SAUSAGE_FROM = 0.55;

  /**
   * Height of the surface.
   *
   * @param share how far across the kerb, 0 at the road, 1 at its far edge
   * @return share of the greatest height
   */
  public double height(double share) {
    if (share < 0 || share > 1) {
      return 0;
    }
    return switch (this) {
      case FLAT -> Math.min(1, Math.min(share, 1 - share) / 0.1);
      case RAMP -> share;
      case CROWN -> 1 - (2 * share - 1) * (2 * share - 1);
      // Teeth across the way of travel: a wheel rides on their tops, rising like a ramp.
      case SERRATED -> Math.min(1, Math.ceil(share / TOOTH) * TOOTH);
      case SAUSAGE -> {
        double t = (share - SAUSAGE_FROM) / (1 - SAUSAGE_FROM);
        yield t < 0 ? 0.15 * share / SAUSAGE_FROM : Math.max(0.15, Math.sin(Math.PI * t));
      }
      case STEP -> share < 0.7 ? 0.35 * share / 0.7 : 1;
    };
  }
}
