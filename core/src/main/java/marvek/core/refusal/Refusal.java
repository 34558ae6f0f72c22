package marvek.core.refusal;

import org.jspecify.annotations.Nullable;

/** Why something cannot be taken: what is wrong, where, and what to do about it. */
public class Refusal extends RuntimeException {
  private static final long serialVersionUID = 1L;

  private final @Nullable String where;
  private final String remedy;

  /**
   * Says what is wrong.
   *
   * @param where row, column, thing or field, as whoever made it would look for it; null for the
   *     whole
   * @param remedy what to do
   */
  public Refusal(String what, @Nullable String where, String remedy) {
    super(what);
    this.where = where;
    this.remedy = remedy;
  }

  public final String what() {
    return String.valueOf(getMessage());
  }

  public final @Nullable String where() {
    return where;
  }

  public final String remedy() {
    return remedy;
  }
}
