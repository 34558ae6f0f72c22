package marvek.core.marker;

import marvek.core.said.Said;

/** Sorts of landmark, with what is usual for them (common practice, no source). */
public enum LandmarkKind {
  BOARD("board", 3, 1.4, 1, Landmark.Permanence.FIXED),
  LINE("painted line", -1, 0, 0.5, Landmark.Permanence.SURFACE),
  SEAM("seam", -2, 0, 0.7, Landmark.Permanence.FIXED),
  KERB("kerb end", 0, 0.05, 1, Landmark.Permanence.FIXED),
  BARRIER("barrier end", 6, 1, 1, Landmark.Permanence.FIXED),
  POST("post", 4, 2, 1, Landmark.Permanence.FIXED),
  ROAD("access road", 4, 0, 2, Landmark.Permanence.FIXED),
  BRIDGE("bridge", 0, 6, 1.5, Landmark.Permanence.FIXED),
  TREE("tree", 12, 8, 2.5, Landmark.Permanence.SEASONAL),
  CREST("crest", -2, 0, 4, Landmark.Permanence.FEEL),
  SHADOW("shadow", -1, 8, 2, Landmark.Permanence.LIGHT),
  RUBBER("rubber", -3, 0, 4, Landmark.Permanence.SURFACE),
  WALL("wall", 4, 1.2, 1, Landmark.Permanence.FIXED),
  HEDGE("hedge", 6, 2, 2, Landmark.Permanence.SEASONAL),
  BANNER("banner", 4, 1.2, 1, Landmark.Permanence.MOVABLE),
  CONE("cone", 1, 0.6, 1, Landmark.Permanence.MOVABLE),
  OTHER("mark", 3, 1, 2, Landmark.Permanence.FIXED);

  private final String word;
  private final double out;
  private final double height;
  private final double precision;
  private final Landmark.Permanence permanence;

  LandmarkKind(
      String word, double out, double height, double precision, Landmark.Permanence permanence) {
    this.word = word;
    this.out = out;
    this.height = height;
    this.precision = precision;
    this.permanence = permanence;
  }

  /** What it is called in a name that is stored, as a tie's; all else tells it by {@link #said}. */
  String word() {
    return word;
  }

  /** What it is called. */
  public Said said() {
    return Said.of("thing." + name());
  }

  /** Metres outside the edge of the road where it usually stands. */
  public double usualOut() {
    return out;
  }

  /** Metres over the road. */
  public double usualHeight() {
    return height;
  }

  /** How lasting such a thing usually is. */
  public Landmark.Permanence usualPermanence() {
    return permanence;
  }

  /** How closely a driver can say that it is beside them, metres. */
  public double precision() {
    return precision;
  }
}
