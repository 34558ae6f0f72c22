package marvek.core.circuit;

/**
 * The stations of a closed road, counted on and on: index {@code size} is index 0 again, and −1 is
 * the last.
 *
 * @param size how many there are
 */
public record Loop(int size) {
  public Loop {
    if (size < 1) {
      throw new IllegalArgumentException("a loop has a station at least");
    }
  }

  /** The index inside the lap of one that may have run past either end. */
  public int at(int index) {
    // Nearly all are inside, and a division is dear where a lap is driven step by step.
    return index >= 0 && index < size ? index : Math.floorMod(index, size);
  }

  /** The index inside the lap of one that may have run past either end. */
  public int at(long index) {
    return Math.floorMod(index, size);
  }

  /** Steps forward from one station to another, 0 to {@code size − 1}; they may lie outside. */
  public int ahead(int from, int to) {
    return Math.floorMod(to - from, size);
  }

  /** Steps to another station the short way, negative when it lies behind. */
  public int apart(int from, int to) {
    int ahead = ahead(from, to);
    return ahead > size / 2 ? ahead - size : ahead;
  }

  /** A piece of it, in driving order. */
  public Span from(int first, int count) {
    return new Span(this, at(first), count);
  }

  /** The piece from one station to another, both in it. */
  public Span between(int first, int last) {
    return from(first, ahead(first, last) + 1);
  }
}
