package marvek.server.trial;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import marvek.core.debrief.LapData;
import marvek.core.session.PlannedTrial;
import marvek.core.session.TrialPlan;
import marvek.server.debrief.DrivenOtherwise;
import marvek.server.run.LapLine;
import marvek.server.run.LapTimes;
import marvek.server.run.RunRow;
import marvek.server.run.Runs;
import org.springframework.stereotype.Component;

/** Which laps were driven which way. */
@Component
class TrialLaps implements DrivenOtherwise {
  private final TrialRows rows;
  private final Runs runs;

  TrialLaps(TrialRows rows, Runs runs) {
    this.rows = rows;
    this.runs = runs;
  }

  /** Laps that trials of a reference can go by. */
  record Driven(
      Map<UUID, List<PlannedTrial.Lap>> bySession,
      Map<String, LapData> times,
      List<LapTimes> all) {}

  Driven driven(UUID person, UUID reference) {
    List<RunRow> all = runs.of(person, reference);
    List<LapTimes> counted = runs.countedTimes(all);
    Map<UUID, UUID> sessionOf = new HashMap<>();
    all.forEach(
        r -> {
          UUID s = r.sessionId();
          if (s != null) {
            sessionOf.put(r.id(), s);
          }
        });
    Map<UUID, RunRow> byId = all.stream().collect(Collectors.toMap(RunRow::id, r -> r));
    Map<UUID, Integer> place = new HashMap<>();
    Map<UUID, List<PlannedTrial.Lap>> bySession = new HashMap<>();
    runs.lapLines(all).stream()
        .filter(LapLine::measured)
        .sorted(
            Comparator.comparing(
                (LapLine l) -> Objects.requireNonNull(byId.get(l.run())).drivenAt()))
        .forEach(
            l -> {
              int number = place.merge(l.run(), 1, Integer::sum);
              UUID s = sessionOf.get(l.run());
              if (s != null) {
                bySession
                    .computeIfAbsent(s, k -> new ArrayList<>())
                    .add(new PlannedTrial.Lap(l.id().toString(), l.run().toString(), number));
              }
            });
    Map<String, LapData> times =
        counted.stream()
            .map(LapTimes::data)
            .filter(l -> l.times().length > 0)
            .collect(Collectors.toMap(LapData::id, Function.identity()));
    return new Driven(bySession, times, counted);
  }

  /** A or B by id of the lap: in the planned order, and the driver's word over that. */
  static Map<String, String> marks(CornerTrial t, Driven laps) {
    Map<String, String> marks = new TreeMap<>();
    UUID session = t.sessionId();
    if (session != null) {
      t.body()
          .marks(laps.bySession().getOrDefault(session, List.of()))
          .forEach((lap, way) -> marks.put(lap, way.name()));
    }
    t.marks()
        .forEach(
            (lap, way) -> {
              if (way.equals(CornerTrial.NEITHER)) {
                marks.remove(lap);
              } else {
                marks.put(lap, way);
              }
            });
    return marks;
  }

  @Override
  public Map<String, Set<String>> laps(UUID person, UUID reference) {
    List<CornerTrial> all =
        rows.findByReferenceIdOrderByCreatedAtDesc(reference).stream()
            .filter(t -> !t.body().corner().isEmpty())
            .toList();
    Map<String, Set<String>> out = new TreeMap<>();
    if (all.isEmpty()) {
      return out;
    }
    Driven laps = driven(person, reference);
    for (CornerTrial t : all) {
      marks(t, laps)
          .forEach(
              (lap, way) -> {
                if (way.equals(TrialPlan.Way.B.name())) {
                  out.computeIfAbsent(t.body().corner(), c -> new TreeSet<>()).add(lap);
                }
              });
    }
    return out;
  }
}
