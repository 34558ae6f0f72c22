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
import marvek.core.debrief.DrivenBands;
import marvek.core.entry.PointKind;
import marvek.core.telemetry.CornerEvents;
import marvek.server.access.Driver;
import marvek.server.reference.References;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What was driven in a corner, to be laid behind its plan. */
@RestController
class BandsController {
  /** More laps make the band no clearer. */
  private static final int MOST = 12;

  private static final double BEFORE = 300;
  private static final double AFTER = 150;

  private final Runs runs;
  private final References references;

  BandsController(Runs runs, References references) {
    this.runs = runs;
    this.references = references;
  }

  /** Values between a tenth of the laps below and a tenth above. */
  record BandView(double[] low, double[] middle, double[] high) {
    static @Nullable BandView of(DrivenBands.@Nullable Band band) {
      return band == null
          ? null
          : new BandView(
              LapLine.rounded(band.low()),
              LapLine.rounded(band.middle()),
              LapLine.rounded(band.high()));
    }
  }

  /**
   * The quickest laps of the newest run on a day, of those that count, over each other. Without
   * laps the bands are null.
   *
   * @param from station of the first value, m; may lie before the line
   * @param step metres
   */
  record DrivenView(
      int laps,
      String run,
      double from,
      double step,
      @Nullable BandView speed,
      @Nullable BandView brake,
      @Nullable BandView throttle,
      Map<PointKind, List<Double>> points) {}

  @GetMapping("/api/references/{id}/driven/{corner}")
  DrivenView driven(
      @PathVariable UUID id,
      @PathVariable String corner,
      @RequestParam(defaultValue = RunDays.OWN) String day,
      @AuthenticationPrincipal Driver driver) {
    References.Opened opened = references.read(driver.id(), id);
    var computed = opened.computed();
    Corner at = computed.corners().get(computed.indexOf(corner));
    List<RunRow> all =
        runs.of(driver.id(), id).stream()
            // A run on another version of the road cannot be laid over this one.
            .filter(r -> r.layoutVersionId().equals(opened.row().layoutVersionId()))
            .toList();
    RunDays days = RunDays.of(opened.working());
    Map<UUID, List<LapLine>> lines =
        runs.lapLines(all).stream().collect(Collectors.groupingBy(LapLine::run));
    Set<UUID> driven = new HashSet<>();
    Optional<RunRow> newest = Optional.empty();
    for (RunRow r : all) {
      days.parts(r, lines.getOrDefault(r.id(), List.of())).stream()
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
              .filter(l -> driven.contains(l.id()))
              .sorted(Comparator.comparingDouble(LapRow::lapTime))
              .limit(MOST)
              .toList();
      double apex = at.apex();
      double from = apex - computed.road().ahead(at.entry(), apex) - BEFORE;
      double to = apex + computed.road().ahead(apex, at.exit()) + AFTER;
      DrivenBands over = DrivenBands.over(with(laps, corner), from, to);
      return new DrivenView(
          over.laps(),
          newest.get().name(),
          over.from(),
          over.step(),
          BandView.of(over.speed()),
          BandView.of(over.brake()),
          BandView.of(over.throttle()),
          over.points());
    }
    return new DrivenView(0, "", 0, 1, null, null, null, Map.of());
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
