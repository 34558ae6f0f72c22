package marvek.core.review.checks;

/**
 * Something that does not go together in a corner's entry: when it is seen and what is said of it.
 * A class that bears {@code @AutoService(Check.class)} is in use; its words stand in the catalogue
 * under {@code check.ID}.
 */
public interface Check {
  /** What it is called over HTTP. */
  String id();

  /** Its place among the others. */
  int rank();

  /** Warns where it is so. */
  void look(Case at);
}
