package marvek.core.debrief.habits;

import java.util.Comparator;
import java.util.List;
import java.util.ServiceLoader;

/** All habits that are looked for, in the order in which they are named. */
public final class Habits {
  private static final List<Habit> ALL =
      ServiceLoader.load(Habit.class, Habits.class.getClassLoader()).stream()
          .map(ServiceLoader.Provider::get)
          .sorted(Comparator.comparingInt(Habit::rank).thenComparing(Habit::id))
          .toList();

  private Habits() {}

  /** All habits, in the order in which they are looked for. */
  public static List<Habit> all() {
    return ALL;
  }
}
