package marvek.core.refusal;

import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * Why something cannot be taken: what is wrong, where, and what to do about it. Each is named in
 * the catalogue, with its words under {@code what} and {@code remedy}; both take the same values.
 */
public class Refusal extends RuntimeException {
  private static final long serialVersionUID = 1L;

  private final transient Said what;
  private final transient Said remedy;
  private transient @Nullable Said where;

  protected Refusal(Said what, Said remedy) {
    super(what.toString());
    this.what = what;
    this.remedy = remedy;
  }

  /**
   * Says what is wrong, with the whole of what was given.
   *
   * @param key of the catalogue
   * @param values in the words of what is wrong and of what to do
   */
  public static Refusal of(String key, Value... values) {
    return new Refusal(what(key, values), remedy(key, values));
  }

  protected static Said what(String key, Value... values) {
    return Said.of(key + ".what", values);
  }

  protected static Said remedy(String key, Value... values) {
    return Said.of(key + ".remedy", values);
  }

  /**
   * Says where: a row, column or thing, as whoever made it would look for it; null for the whole.
   */
  public Refusal at(@Nullable Said where) {
    this.where = where;
    return this;
  }

  /** Says in which field, by its name in what was given; null for the whole. */
  public Refusal at(@Nullable String field) {
    return at(field == null ? null : Where.field(field));
  }

  /** What is wrong. */
  public final Said what() {
    return what;
  }

  /** Where; null where it has no place. */
  public final @Nullable Said where() {
    return where;
  }

  /** What to do. */
  public final Said remedy() {
    return remedy;
  }
}
