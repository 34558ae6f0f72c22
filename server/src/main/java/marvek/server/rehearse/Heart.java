package marvek.server.rehearse;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.lap.Conditions;
import marvek.core.plan.ComputedLap;
import marvek.core.rehearse.Fact;
import marvek.core.rehearse.Facts;
import marvek.core.rehearse.Known;
import marvek.core.rehearse.OwnWeights;
import marvek.core.rehearse.Weights;
import marvek.core.score.Action;
import marvek.server.session.Planner;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** What there is to know of a session, and what its driver knows of it. */
@Service
class Heart {
  // Answers after which it is told anew how somebody remembers.
  private static final int ANEW = 50;

  private final Rehearsals rehearsals;

  /** Facts by what they follow from: what they are worth takes a moment to compute. */
  private final Cache<Of, List<Fact>> facts = Caffeine.newBuilder().maximumSize(50).build();

  private final Cache<Remembers, Weights> weights = Caffeine.newBuilder().maximumSize(200).build();

  Heart(Rehearsals rehearsals) {
    this.rehearsals = rehearsals;
  }

  private record Of(
      UUID reference,
      int version,
      Map<String, Integer> things,
      List<CornerEntry> entries,
      Conditions conditions) {}

  private record Remembers(UUID person, long answers) {}

  /**
   * How an action stands.
   *
   * @param error how far off it was last told, in its unit; null for "no idea"
   * @param right when it was last right; null for never
   */
  record StandingView(
      String fact,
      String corner,
      Fact.Asks asks,
      double station,
      @Nullable Double error,
      Instant last,
      @Nullable Instant right,
      int times) {}

  List<Fact> facts(Planner.Outing day) {
    ComputedLap then = day.then();
    Of key =
        new Of(
            day.reference().row().id(),
            day.reference().row().version(),
            day.reference().thingVersions(),
            day.entries(),
            then.conditions());
    return facts.get(
        key, k -> Facts.of(then, day.reference().things(), day.entries(), day.changed()));
  }

  /** How each fact stands that somebody was asked. */
  Map<String, Known.Standing> known(UUID person, Planner.Outing day, List<RehearsedRow> done) {
    return Known.of(
        facts(day), Rehearsals.answers(done), day.then().road().length(), weights(person));
  }

  Map<String, Known.Standing> known(UUID person, Planner.Outing day) {
    return known(person, day, rehearsals.of(person, day.reference().row().id()));
  }

  /** How somebody remembers, told from all that they ever answered. */
  private Weights weights(UUID person) {
    long answers = rehearsals.count(person);
    if (answers < OwnWeights.FROM) {
      return Weights.USUAL;
    }
    return weights.get(
        new Remembers(person, answers / ANEW),
        k -> {
          Map<UUID, List<RehearsedRow>> by =
              rehearsals.all(person).stream()
                  .collect(
                      Collectors.groupingBy(
                          RehearsedRow::referenceId, TreeMap::new, Collectors.toList()));
          List<List<OwnWeights.Answer>> rows = new ArrayList<>();
          by.values().forEach(r -> rows.addAll(Known.rows(Rehearsals.answers(r))));
          return OwnWeights.of(rows);
        });
  }

  List<StandingView> standing(Map<String, Known.Standing> known, Planner.Outing day) {
    Map<String, Fact> byId = facts(day).stream().collect(Collectors.toMap(Fact::id, f -> f));
    List<StandingView> out = new ArrayList<>();
    known.forEach(
        (id, s) -> {
          Fact of = byId.get(id);
          if (of != null) {
            out.add(
                new StandingView(
                    id,
                    of.corner(),
                    of.asks(),
                    station(of, day),
                    s.error(),
                    s.last(),
                    s.right(),
                    s.times()));
          }
        });
    return out;
  }

  private static double station(Fact of, Planner.Outing day) {
    return of.asks() == Fact.Asks.PLACE
        ? of.answer()
        : day.entries().stream()
            .filter(e -> e.corner().equals(of.corner()))
            .flatMap(e -> Score.of(day.then().road(), e).stream())
            .filter(a -> a.id().equals(of.action()))
            .findFirst()
            .map(Action::station)
            .orElse(0.0);
  }
}
