package marvek.core.line;

/** Whoever asked for a line wants it no more. */
public final class SearchStopped extends RuntimeException {
  private static final long serialVersionUID = 1L;

  public SearchStopped() {
    super("the search for a line was stopped");
  }
}
