package marvek.core.said;

import com.fasterxml.jackson.annotation.JsonCreator;
import java.util.List;

/**
 * Something to be said.
 *
 * @param key of the catalogue, as {@code habit.COASTING.cure}
 * @param values for the places {0}, {1} … of its pattern
 */
public record Said(String key, List<Value> values) {
  @JsonCreator
  public Said {
    values = List.copyOf(values);
  }

  /** What an earlier version stored as words. */
  @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
  static Said stored(String words) {
    return of("stored", Value.own(words));
  }

  /** Nothing to be said: no words at all. */
  public static final Said NOTHING = of("nothing");

  /** One after the other in one sentence. */
  public static Said joined(List<Said> parts) {
    return parts.stream().reduce((a, b) -> of("joined.two", a.in(), b.in())).orElse(NOTHING);
  }

  /** With commas between; nothing of none. */
  public static Said listed(List<Said> parts) {
    return parts.stream().reduce((a, b) -> of("joined.list", a.in(), b.in())).orElse(NOTHING);
  }

  /** A key with its values, in the order of its pattern. */
  public static Said of(String key, Value... values) {
    return new Said(key, List.of(values));
  }

  /** This, and a sentence after it. */
  public Said then(Said next) {
    return of("joined.sentences", in(), next.in());
  }

  /** The same as a value in something else that is said. */
  public Value in() {
    return new Value.Phrase(this, false);
  }

  /** The same, beginning a sentence. */
  public Value beginning() {
    return new Value.Phrase(this, true);
  }
}
