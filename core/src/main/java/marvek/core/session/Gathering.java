package marvek.core.session;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import marvek.core.debrief.Debrief;
import marvek.core.plan.Brakings;
import marvek.core.plan.ComputedLap;
import marvek.core.review.Hazards;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * Where errors gather: others' where a lap takes most speed away or one does not see how it goes on
 * (common practice, no source), one's own where laps and notes say so.
 *
 * @param corner id
 * @param others reasons for which others go wrong there
 * @param own counts of the driver's own
 * @param weight reasons and counts taken together, for the order only
 */
public record Gathering(String corner, List<Said> others, List<Said> own, double weight) {
  // What a corner takes away of the speed where others dive in, m/s and share.
  private static final double HARD = 25;
  private static final double MUCH = 0.4;
  // Habits and notes below these are chance.
  private static final int LAPS = 2;
  private static final int NOTES = 2;

  public Gathering {
    others = List.copyOf(others);
    own = List.copyOf(own);
  }

  /** What is known of it in a sentence. */
  public Said words() {
    List<Said> all = new ArrayList<>(others);
    all.addAll(own);
    return Said.joined(all);
  }

  /**
   * Corners in which something is known, those with most first.
   *
   * @param then lap computed for the session
   * @param hazards by corner, in driving order
   * @param said in the sessions before, in any order
   * @param debrief of the latest laps; null without any
   * @param laps that it stands on
   */
  public static List<Gathering> of(
      ComputedLap then,
      List<Hazards> hazards,
      List<Told> said,
      @Nullable Debrief debrief,
      int laps) {
    Map<String, Long> troubles =
        said.stream()
            .filter(t -> t.corner() != null && t.felt() != null && trouble(t.felt()))
            .collect(Collectors.groupingBy(Told::corner, TreeMap::new, Collectors.counting()));
    List<Gathering> out = new ArrayList<>();
    for (Hazards h : hazards) {
      List<Said> others = others(then, h);
      List<Said> own = new ArrayList<>();
      long noted = troubles.getOrDefault(h.corner(), 0L);
      if (noted >= NOTES) {
        own.add(Said.of("gather.noted", Value.count(noted)));
      }
      int wrong = habit(debrief, h.corner(), laps, own);
      if (!others.isEmpty() || !own.isEmpty()) {
        out.add(
            new Gathering(
                h.corner(),
                others,
                own,
                others.size()
                    + (noted >= NOTES ? noted / 2.0 : 0)
                    + (laps > 0 ? 2.0 * wrong / laps : 0)));
      }
    }
    out.sort(Comparator.comparingDouble(Gathering::weight).reversed());
    return List.copyOf(out);
  }

  private static boolean trouble(Told.Felt felt) {
    return switch (felt) {
      case LATE, DEEP, WIDE, UNSURE, SCARED -> true;
      case AS_PLANNED, EARLY, GREAT -> false;
    };
  }

  private static List<Said> others(ComputedLap then, Hazards h) {
    List<Said> out = new ArrayList<>();
    int c = then.indexOf(h.corner());
    Brakings.Braking hardest =
        then.brakings().of(c).stream()
            .max(Comparator.comparingDouble(b -> b.from() - b.to()))
            .orElse(null);
    if (hardest != null
        && hardest.from() - hardest.to() >= HARD
        && hardest.from() - hardest.to() >= MUCH * hardest.from()) {
      out.add(Said.of("gather.hard", Value.speed(hardest.from()), Value.speed(hardest.to())));
    }
    if (h.blind()) {
      out.add(Said.of("gather.blind"));
    }
    if (h.shortRunOff()) {
      out.add(Said.of("gather.room"));
    }
    if (loses(then, c)) {
      out.add(Said.of("gather.grip"));
    }
    return out;
  }

  /** Whether the road holds clearly less somewhere in the corner than just before it. */
  private static boolean loses(ComputedLap then, int c) {
    var road = then.road();
    int entry = road.index(then.corners().get(c).entry());
    int exit = road.index(then.corners().get(c).exit());
    double before = then.path().grip()[road.loop().at(entry - (int) Math.ceil(60 / road.step()))];
    return IntStream.rangeClosed(0, road.loop().ahead(entry, exit))
        .anyMatch(k -> then.path().grip()[road.loop().at(entry + k)] < 0.93 * before);
  }

  private static int habit(@Nullable Debrief debrief, String corner, int laps, List<Said> own) {
    if (debrief == null) {
      return 0;
    }
    return debrief.corners().stream()
        .filter(f -> f.corner().equals(corner) && !f.habits().isEmpty())
        .map(f -> f.habits().get(0))
        .findFirst()
        .map(
            habit -> {
              int wrong = (int) Math.round(habit.share() * laps);
              if (wrong >= LAPS) {
                own.add(
                    Said.of(
                        "gather.driven",
                        Value.count(wrong),
                        Value.count(laps),
                        habit.words().in()));
                return wrong;
              }
              return 0;
            })
        .orElse(0);
  }
}
