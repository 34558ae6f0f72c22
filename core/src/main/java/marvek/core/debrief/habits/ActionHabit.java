package marvek.core.debrief.habits;

import java.util.function.DoubleFunction;
import java.util.function.ToDoubleFunction;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.ActionKind;
import org.jspecify.annotations.Nullable;

/** A habit in an action that is written beyond the points: done otherwise by more than a limit. */
public abstract class ActionHabit implements Habit {
  private final String id;
  private final int rank;
  private final ActionKind kind;
  private final ToDoubleFunction<Look.Held> measure;
  private final double limit;
  private final DoubleFunction<Value> told;

  /**
   * A habit of one kind of action.
   *
   * @param measure what is done otherwise, SI; NaN where it is not known
   * @param limit beyond which it is a habit
   * @param told the measure as a value of a sentence
   */
  ActionHabit(
      String id,
      int rank,
      ActionKind kind,
      ToDoubleFunction<Look.Held> measure,
      double limit,
      DoubleFunction<Value> told) {
    this.id = id;
    this.rank = rank;
    this.kind = kind;
    this.measure = measure;
    this.limit = limit;
    this.told = told;
  }

  @Override
  public final String id() {
    return id;
  }

  @Override
  public final int rank() {
    return rank;
  }

  /** What is matched with an action that is written comes about by chance in few laps. */
  @Override
  public double byChance() {
    return 0.03;
  }

  @Override
  public @Nullable Double seen(Look look) {
    return look.most(kind, measure, limit);
  }

  @Override
  public final Said measure(double middle) {
    return Said.of("habit." + id + ".measure", told.apply(middle));
  }
}
