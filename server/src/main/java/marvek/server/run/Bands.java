package marvek.server.run;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import marvek.core.circuit.Corner;
import marvek.core.day.RunDays;
import marvek.core.debrief.DrivenBands;
import marvek.core.telemetry.CornerEvents;
import marvek.server.reference.References;
import org.springframework.stereotype.Service;

/** The quickest laps of the newest run on a day, of those that count, over each other. */
@Service
public class Bands {
  /** More laps make the band no clearer. */
  private static final int MOST = 12;

  private static final double BEFORE = 300;
  private static final double AFTER = 150;

  private final Runs runs;

  Bands(Runs runs) {
    this.runs = runs;
  }

  /** Laps of a run over each other. */
  public record Over(String run, DrivenBands bands) {}

  /** Those of a corner; none where nothing was driven on that day. */
  public Optional<Over> of(UUID person, References.Opened opened, String corner, String day) {
    var computed = opened.computed();
    Corner at = computed.corners().get(computed.indexOf(corner));
    List<RunRow> all =
        runs.of(person, opened.row().id()).stream()
            // A run on another version of the road cannot be laid over this one.
            .filter(r -> r.layoutVersionId().equals(opened.row().layoutVersionId()))
            .toList();
    RunDays days = RunDays.of(opened.working());
    Map<UUID, List<LapLine>> lines =
        runs.lapLines(all).stream().collect(Collectors.groupingBy(LapLine::run));
    Set<String> driven = new HashSet<>();
    Optional<RunRow> newest = Optional.empty();
    for (RunRow r : all) {
      days.parts(r.day(), LapLine.ofDays(lines.getOrDefault(r.id(), List.of()))).stream()
          .filter(p -> p.on(day))
          .forEach(p -> driven.addAll(p.laps()));
      if (!driven.isEmpty()) {
        newest = Optional.of(r);
        break;
      }
    }
    if (newest.isPresent()) {
      List<LapRow> laps =
          runs.laps(List.of(newest.get())).stream()
              .filter(l -> driven.contains(l.id().toString()))
              .sorted(Comparator.comparingDouble(LapRow::lapTime))
              .limit(MOST)
              .toList();
      double apex = at.apex();
      double from = apex - computed.road().ahead(at.entry(), apex) - BEFORE;
      double to = apex + computed.road().ahead(apex, at.exit()) + AFTER;
      DrivenBands over = DrivenBands.over(with(laps, corner), from, to);
      return Optional.of(new Over(newest.get().name(), over));
    }
    return Optional.empty();
  }

  private List<DrivenBands.Lap> with(List<LapRow> laps, String corner) {
    Map<UUID, LapRow> byId =
        laps.stream().collect(Collectors.toMap(LapRow::id, Function.identity()));
    List<DrivenBands.Lap> out = new ArrayList<>();
    for (LapChannels c : runs.channels(laps)) {
      LapRow lap = byId.get(c.lapId());
      if (lap != null) {
        CornerEvents done =
            lap.events().stream().filter(e -> e.corner().equals(corner)).findFirst().orElse(null);
        out.add(new DrivenBands.Lap(c.grid(), lap.told(), done));
      }
    }
    return out;
  }
}
