package marvek.core.review;

import java.util.ArrayList;
import java.util.List;
import marvek.core.entry.CornerEntry;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.review.checks.Case;
import marvek.core.review.checks.Checks;
import marvek.core.survey.Things;

/** Last check of a reference: what in it does not go together. */
public final class Consistency {
  private Consistency() {}

  /** Checks one corner. */
  public static List<Warning> corner(
      ComputedLap computed, Things things, CornerEntry entry, CornerAnswer answer) {
    Case at = new Case(computed, things, entry, answer);
    Checks.all().forEach(c -> c.look(at));
    return at.warnings();
  }

  /** Checks a whole reference. */
  public static List<Warning> all(ComputedLap computed, Things things, List<CornerEntry> entries) {
    List<Warning> out = new ArrayList<>();
    for (CornerEntry e : entries) {
      out.addAll(corner(computed, things, e, Answers.answer(computed, things, e)));
    }
    return List.copyOf(out);
  }
}
