package marvek.core.session;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import marvek.core.debrief.Debrief;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.ReferenceContent;
import marvek.core.said.Said;
import marvek.core.score.Sureness;
import org.jspecify.annotations.Nullable;

/**
 * What to work on, and why.
 *
 * @param called corner as the driver calls it
 * @param words the habit that is met there
 * @param cure of it; nothing where there is none
 * @param chosen whether the driver chose the corner
 */
public record FocusLine(Focus focus, String called, Said words, Said cure, boolean chosen) {
  // Half of an interval of 95 % in standard errors.
  private static final double Z = 1.96;

  /**
   * What the driver chose; else what the latest laps speak for.
   *
   * @param lines corners of the session in driving order
   * @param content of the reference
   * @param lately null without laps
   * @param alike whether they were driven on a day like it
   * @param confidence trend of it by corner
   */
  public static List<FocusLine> of(
      TrackSession session,
      List<PlannedLine> lines,
      ReferenceContent content,
      @Nullable Lately lately,
      boolean alike,
      Map<String, Double> confidence) {
    if (!session.focus().isEmpty()) {
      return session.focus().stream()
          .flatMap(id -> lines.stream().filter(l -> l.corner().equals(id)).limit(1))
          .map(l -> chosen(l, lately))
          .toList();
    }
    if (lately == null) {
      return List.of();
    }
    List<Focus.Candidate> candidates = new ArrayList<>();
    for (Debrief.CornerFinding c : lately.debrief().corners()) {
      PlannedLine line = line(lines, c.corner()).orElse(null);
      if (line == null || c.habits().isEmpty()) {
        continue;
      }
      Debrief.HabitFinding habit = c.habits().get(0);
      double error = c.spread() / Math.sqrt(Math.max(1, lately.laps()));
      candidates.add(
          new Focus.Candidate(
              c.corner(),
              habit.cause(),
              c.offer(),
              c.offer() - Z * error,
              (int) Math.round(habit.share() * lately.laps()),
              lately.laps(),
              sure(content, c.corner()),
              alike,
              !line.shortRunOff(),
              confidence.getOrDefault(c.corner(), 0.0)));
    }
    List<FocusLine> out = new ArrayList<>();
    for (Focus f : Focus.of(candidates, (a, b) -> neighbours(lines, a, b))) {
      Debrief.HabitFinding habit = found(lately, f.corner()).orElseThrow().habits().get(0);
      String called = line(lines, f.corner()).orElseThrow().called();
      out.add(new FocusLine(f, called, habit.words(), habit.cure(), false));
    }
    return List.copyOf(out);
  }

  private static FocusLine chosen(PlannedLine l, @Nullable Lately lately) {
    Optional<Debrief.CornerFinding> found = found(lately, l.corner());
    Optional<Debrief.HabitFinding> habit = found.flatMap(c -> c.habits().stream().findFirst());
    return new FocusLine(
        new Focus(
            l.corner(),
            habit.map(Debrief.HabitFinding::cause).orElse(""),
            0,
            found.map(Debrief.CornerFinding::offer).orElse(0.0),
            0),
        l.called(),
        habit.map(Debrief.HabitFinding::words).orElse(Said.of("focus.chosen")),
        habit.map(Debrief.HabitFinding::cure).orElse(Said.NOTHING),
        true);
  }

  private static @Nullable Sureness sure(ReferenceContent content, String corner) {
    return content.corners().stream()
        .filter(e -> e.corner().equals(corner))
        .flatMap(e -> e.points().stream())
        .map(CornerPoint::sure)
        .filter(Objects::nonNull)
        .max(Comparator.naturalOrder())
        .orElse(null);
  }

  private static Optional<Debrief.CornerFinding> found(@Nullable Lately lately, String corner) {
    return lately == null
        ? Optional.empty()
        : lately.debrief().corners().stream().filter(c -> c.corner().equals(corner)).findFirst();
  }

  private static Optional<PlannedLine> line(List<PlannedLine> lines, String corner) {
    return lines.stream().filter(l -> l.corner().equals(corner)).findFirst();
  }

  /** Linked: what one does in the first is felt in the second. */
  private static boolean neighbours(List<PlannedLine> lines, String a, String b) {
    List<String> ids = lines.stream().map(PlannedLine::corner).toList();
    int apart = Math.abs(ids.indexOf(a) - ids.indexOf(b));
    return apart == 1 || apart == ids.size() - 1;
  }
}
