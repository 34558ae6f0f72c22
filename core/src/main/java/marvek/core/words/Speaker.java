package marvek.core.words;

import java.util.List;
import java.util.Locale;
import marvek.core.said.Said;
import marvek.core.said.Value;

/** Puts what is said into words: of one catalogue, in the units and names that a driver chose. */
public final class Speaker {
  /** Metres, km/h and numbers. */
  public static final Speaker PLAIN = of(Speech.PLAIN);

  private final Catalogue catalogue;
  private final Speech speech;

  private Speaker(Catalogue catalogue, Speech speech) {
    this.catalogue = catalogue;
    this.speech = speech;
  }

  /** Speaks as a driver likes it. */
  public static Speaker of(Speech speech) {
    return new Speaker(speech.words(), speech);
  }

  /**
   * In words.
   *
   * @throws IllegalArgumentException where the catalogue lacks the key
   */
  public String say(Said said) {
    return catalogue.say(said.key(), said.values().stream().map(this::shown).toArray());
  }

  /** Each in words. */
  public List<String> say(List<Said> said) {
    return said.stream().map(this::say).toList();
  }

  /** The same beginning with a capital letter. */
  public String sentence(Said said) {
    String words = say(said);
    return words.isEmpty()
        ? words
        : words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1);
  }

  private Object shown(Value value) {
    if (value instanceof Value.Length l) {
      return l.digits() == 0
          ? speech.units().length(l.metres())
          : speech.units().length(l.metres(), l.digits());
    }
    if (value instanceof Value.Speed s) {
      return speech.units().speed(s.metresPerSecond());
    }
    if (value instanceof Value.Figure f) {
      return String.format(Locale.ROOT, (f.signed() ? "%+." : "%.") + f.digits() + "f", f.value());
    }
    if (value instanceof Value.Count c) {
      return c.n();
    }
    if (value instanceof Value.Choice c) {
      return c.which();
    }
    if (value instanceof Value.Own o) {
      return o.text();
    }
    if (value instanceof Value.CornerName c) {
      return speech.corner(c.number(), c.name());
    }
    if (value instanceof Value.Phrase p) {
      return p.capital() ? sentence(p.said()) : say(p.said());
    }
    throw new IllegalArgumentException("unknown value " + value);
  }
}
