package marvek.core.session;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * The set of tyres that a race is ended on where two must be used.
 *
 * @param set name of it, or of its compound
 * @param grip factor on that of the first set
 * @param age laps that it has done
 * @param life laps after which it is worn out; null where not known
 */
public record SecondSet(String set, double grip, int age, @Nullable Integer life) {
  public SecondSet {
    Objects.requireNonNull(set, "set");
  }
}
