package marvek.core.numeric;

import java.util.List;
import java.util.function.Function;

/**
 * How pieces of work that do not hang on each other are done: in turn, or several at once. What
 * comes out stands in the order of what went in and is the same either way.
 */
public interface Spread {
  /** Does each, and waits for all. */
  <T, R> List<R> each(List<T> pieces, Function<? super T, ? extends R> work);

  /** One after another. */
  static Spread inTurn() {
    return new Spread() {
      @Override
      public <T, R> List<R> each(List<T> pieces, Function<? super T, ? extends R> work) {
        return pieces.stream().<R>map(work).toList();
      }
    };
  }
}
