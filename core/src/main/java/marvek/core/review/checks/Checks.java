package marvek.core.review.checks;

import java.util.Comparator;
import java.util.List;
import java.util.ServiceLoader;

/** All checks, in the order in which they are told. */
public final class Checks {
  private static final List<Check> ALL =
      ServiceLoader.load(Check.class, Checks.class.getClassLoader()).stream()
          .map(ServiceLoader.Provider::get)
          .sorted(Comparator.comparingInt(Check::rank).thenComparing(Check::id))
          .toList();

  private Checks() {}

  /** All checks, in the order in which they are told. */
  public static List<Check> all() {
    return ALL;
  }
}
