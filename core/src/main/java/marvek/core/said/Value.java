package marvek.core.said;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.math.BigDecimal;

/** A value in something said. All but people's own words are put into the driver's units. */
@JsonTypeInfo(use = JsonTypeInfo.Id.DEDUCTION)
@JsonSubTypes({
  @JsonSubTypes.Type(Value.Length.class),
  @JsonSubTypes.Type(Value.Speed.class),
  @JsonSubTypes.Type(Value.Figure.class),
  @JsonSubTypes.Type(Value.Count.class),
  @JsonSubTypes.Type(Value.Choice.class),
  @JsonSubTypes.Type(Value.Own.class),
  @JsonSubTypes.Type(Value.CornerName.class),
  @JsonSubTypes.Type(Value.Phrase.class)
})

/**
 * A value in something said, before it is words: with its quantity, so that it can be told in
 * anybody's units.
 */
public sealed interface Value {
  /**
   * A length along the road or across it, told without its sign.
   *
   * @param metres SI
   * @param digits after the point
   */
  record Length(double metres, int digits) implements Value {}

  /**
   * A speed.
   *
   * @param metresPerSecond SI
   */
  record Speed(double metresPerSecond) implements Value {}

  /**
   * A figure that is the same in all units: seconds, revs, g, per cent.
   *
   * @param value as it is shown
   * @param digits after the point
   * @param signed whether a plus is shown
   */
  record Figure(double value, int digits, boolean signed) implements Value {}

  /**
   * A count, which a pattern may tell one from many by.
   *
   * @param n how many
   */
  record Count(long n) implements Value {}

  /**
   * One of a few, which a pattern chooses by.
   *
   * @param which name of it
   */
  record Choice(String which) implements Value {}

  /**
   * People's own words, or a name of theirs.
   *
   * @param text as they wrote it
   */
  record Own(String text) implements Value {}

  /**
   * A corner, called as the driver likes it.
   *
   * @param number "7a"
   * @param name or blank
   */
  record CornerName(String number, String name) implements Value {}

  /**
   * Something said within something else.
   *
   * @param said what
   * @param capital whether it begins with a capital letter there
   */
  record Phrase(Said said, boolean capital) implements Value {}

  /** To whole units. */
  static Value length(double metres) {
    return new Length(metres, 0);
  }

  /** A length in metres, to so many digits of whatever it is told in. */
  static Value length(double metres, int digits) {
    return new Length(metres, digits);
  }

  /** A speed in m/s. */
  static Value speed(double metresPerSecond) {
    return new Speed(metresPerSecond);
  }

  /** A number without a unit. */
  static Value figure(double value, int digits) {
    return new Figure(value, digits, false);
  }

  /** A number with its sign, whichever it is. */
  static Value signed(double value, int digits) {
    return new Figure(value, digits, true);
  }

  /** A share of 1 as whole per cent. */
  static Value percent(double share) {
    return new Figure(share * 100, 0, false);
  }

  /** How many; words follow it. */
  static Value count(long n) {
    return new Count(n);
  }

  /** One of a few, by its name. */
  static Value choice(Enum<?> which) {
    return new Choice(which.name());
  }

  /** Whether or not. */
  static Value choice(boolean which) {
    return new Choice(which ? "yes" : "no");
  }

  /** A number with all its digits. */
  static Value number(double value) {
    return Double.isFinite(value)
        ? own(BigDecimal.valueOf(value).stripTrailingZeros().toPlainString())
        : own(String.valueOf(value));
  }

  /** People's own words, or a name: told as they are. */
  static Value own(String text) {
    return new Own(text);
  }
}
