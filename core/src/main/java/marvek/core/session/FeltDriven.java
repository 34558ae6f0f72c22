package marvek.core.session;

import java.util.ArrayList;
import java.util.List;
import marvek.core.debrief.Debrief;
import marvek.core.entry.PointKind;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * What was felt in a corner beside what was driven. A feeling changes nothing by itself.
 *
 * @param corner id
 * @param felt as said
 * @param late metres by which the braking was late against the plan, median; null where not told
 * @param agrees whether feeling and data say the same; null where the data cannot say
 * @param words both, in a sentence
 */
public record FeltDriven(
    String corner, Told.Felt felt, @Nullable Double late, @Nullable Boolean agrees, Said words) {

  /**
   * Holds the last that was said of each corner against a debrief.
   *
   * @param told in the order said; corners of which nothing was said but by *the rest as planned*
   *     count as planned
   */
  public static List<FeltDriven> of(List<Told> told, Debrief debrief) {
    List<FeltDriven> out = new ArrayList<>();
    boolean rest = told.stream().anyMatch(t -> t.about() == Told.About.REST);
    for (Debrief.CornerFinding c : debrief.corners()) {
      Told.Felt felt = rest ? Told.Felt.AS_PLANNED : null;
      for (Told t : told) {
        if (t.about() == Told.About.CORNER && c.corner().equals(t.corner()) && t.felt() != null) {
          felt = t.felt();
        }
      }
      if (felt != null) {
        out.add(of(c, felt));
      }
    }
    return List.copyOf(out);
  }

  private static FeltDriven of(Debrief.CornerFinding c, Told.Felt felt) {
    Debrief.PointFinding braking =
        c.points().stream().filter(p -> p.kind() == PointKind.BRAKE).findFirst().orElse(null);
    if (braking == null || braking.laps().isEmpty() || !felt.place()) {
      return new FeltDriven(
          c.corner(), felt, braking == null ? null : braking.median(), null, words(felt, braking));
    }
    double late = braking.median();
    boolean agrees =
        switch (felt) {
          case EARLY -> late < -braking.tolerance();
          case LATE, DEEP -> late > braking.tolerance();
          default -> Math.abs(late) <= braking.tolerance();
        };
    return new FeltDriven(c.corner(), felt, late, agrees, words(felt, braking));
  }

  private static Said words(Told.Felt felt, Debrief.@Nullable PointFinding braking) {
    if (braking == null || braking.laps().isEmpty()) {
      return Said.of("felt.alone", Value.choice(felt));
    }
    double late = braking.median();
    return Math.abs(late) <= braking.tolerance()
        ? Said.of("felt.on", Value.choice(felt))
        : Said.of(
            "felt.off", Value.choice(felt), Value.length(Math.abs(late)), Value.choice(late > 0));
  }

  /**
   * How far feeling and laps agree.
   *
   * @param same corners in which both say the same
   * @param told corners in which the laps can say
   */
  public record Agreement(int same, int told) {}

  /** Of a session; null where the laps can say it of no corner. */
  public static @Nullable Agreement agreement(List<FeltDriven> all) {
    int told = (int) all.stream().filter(f -> f.agrees() != null).count();
    return told == 0
        ? null
        : new Agreement(
            (int) all.stream().filter(f -> Boolean.TRUE.equals(f.agrees())).count(), told);
  }
}
