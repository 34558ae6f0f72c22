package marvek.core.survey;

import org.jspecify.annotations.Nullable;

/** Something in a survey, or in a file of one, that cannot be taken. */
public final class SurveyProblem extends RuntimeException {
  private static final long serialVersionUID = 1;
  private final @Nullable String where;
  private final String remedy;

  /**
   * Says what is wrong.
   *
   * @param where thing and field, or line and column
   * @param remedy what to do
   */
  public SurveyProblem(String message, @Nullable String where, String remedy) {
    super(message);
    this.where = where;
    this.remedy = remedy;
  }

  public @Nullable String where() {
    return where;
  }

  public String remedy() {
    return remedy;
  }
}
