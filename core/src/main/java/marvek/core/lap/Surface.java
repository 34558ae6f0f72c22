package marvek.core.lap;

import java.util.Objects;
import marvek.core.said.Said;
import marvek.core.said.Value;

/**
 * What water does to the road on a day.
 *
 * @param state of the road
 * @param dried how far it has dried while it dries, 0 (all of it still wet) to 1 (dry); without
 *     meaning in the other states
 */
public record Surface(State state, double dried) {
  /** States of a road. */
  public enum State {
    DRY,
    DAMP,
    WET,
    DRYING
  }

  /** A dry road. */
  public static final Surface DRY = new Surface(State.DRY, 0);

  public Surface {
    Objects.requireNonNull(state, "state");
    if (!(dried >= 0 && dried <= 1)) {
      throw new IllegalArgumentException("dried is a share from 0 to 1, not " + dried);
    }
  }

  /** Water in the places that stay damp, and nowhere else. */
  public static Surface damp() {
    return new Surface(State.DAMP, 0);
  }

  /** Water everywhere. */
  public static Surface wet() {
    return new Surface(State.WET, 0);
  }

  /**
   * Drying off.
   *
   * @param dried share from 0, wet, to 1, dry
   */
  public static Surface drying(double dried) {
    return new Surface(State.DRYING, dried);
  }

  /** When a wet place dries, against the rest of the road. */
  public enum Dries {
    FIRST,
    WITH_THE_REST,
    LAST
  }

  /**
   * How much of its full effect a place where water gathers has, 0 to 1: none on a dry road, all of
   * it on a damp or wet one. While the road dries, water goes with it; places that dry first are
   * dry half-way, and those that dry last begin to then (common practice, no source).
   */
  public double holds(Dries dries) {
    return switch (state) {
      case DRY -> 0;
      case DAMP, WET -> 1;
      case DRYING ->
          switch (dries) {
            case FIRST -> Math.max(0, 1 - 2 * dried);
            case WITH_THE_REST -> 1 - dried;
            case LAST -> Math.min(1, 2 * (1 - dried));
          };
    };
  }

  /** Like "drying, 40 %". */
  public Said said() {
    return Said.of("surface.state", Value.choice(state), Value.percent(dried));
  }
}
