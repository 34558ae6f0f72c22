package marvek.core.debrief.habits;

import java.util.List;
import java.util.Optional;
import marvek.core.debrief.Debrief.PointFinding;
import marvek.core.said.Said;
import org.jspecify.annotations.Nullable;

/**
 * A habit that costs time: how it is seen, how it is measured, and what is said of it. Each
 * threshold is a judgement of this project, wide enough that a clean lap with the scatter of a good
 * driver shows none. A class that bears {@code @AutoService(Habit.class)} is in use; its words
 * stand in the catalogue under {@code habit.ID}.
 */
public interface Habit {
  /** What it is called in files and over HTTP. */
  String id();

  /** Its place when several are seen: those that bring others about come first. */
  int rank();

  /** Its measure in one corner of one lap, SI; null where it is not seen. */
  @Nullable Double seen(Look look);

  /**
   * How much of it.
   *
   * @param middle of the laps that show it, as {@link #seen} measures it
   */
  Said measure(double middle);

  /** What the driver does. */
  default Said words() {
    return Said.of("habit." + id() + ".words");
  }

  /** What to do about it. */
  default Said cure() {
    return Said.of("habit." + id() + ".cure");
  }

  /**
   * Whether it matters by the time that it costs, and not by what may come of it: then it is told
   * of few laps only where they were the slower ones.
   */
  default boolean forTime() {
    return true;
  }

  /**
   * Share of the laps that may show it where it is none, in a corner where the line or the pedals
   * come near to it. A danger is hardly shown by chance.
   */
  default double byChance() {
    return forTime() ? 0.15 : 0.03;
  }

  /** Whether it begins in the corner before. */
  default boolean beginsBefore() {
    return false;
  }

  /**
   * Seen over laps and not in one.
   *
   * @param measure SI
   * @param laps ids of the laps that show it
   * @param explains ids of habits that are not told beside it
   */
  record Across(double measure, List<String> laps, List<String> explains) {
    public Across {
      laps = List.copyOf(laps);
      explains = List.copyOf(explains);
    }
  }

  /** What the points of a corner show over all laps. */
  default Optional<Across> across(List<PointFinding> points) {
    return Optional.empty();
  }
}
