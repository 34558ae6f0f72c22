package marvek.core.line;

/** Follows a search, and may stop it. */
@FunctionalInterface
public interface Watch {
  /** Lets a search run to its end unseen. */
  Watch NOBODY = share -> true;

  /**
   * Asked before every step of a search.
   *
   * @param share of the most that the search may take, 0 to 1
   * @return false to end the search with {@link SearchStopped}
   */
  boolean goesOn(double share);
}
