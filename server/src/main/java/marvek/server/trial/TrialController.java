package marvek.server.trial;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import marvek.core.debrief.LapData;
import marvek.core.debrief.Sections;
import marvek.core.debrief.Trial;
import marvek.core.said.Said;
import marvek.server.access.Driver;
import marvek.server.problem.Problem;
import marvek.server.reference.References;
import marvek.server.run.LapTimes;
import marvek.server.run.RunRow;
import marvek.server.run.Runs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Trials: two ways of one corner, laps marked A or B, and what they say. */
@RestController
@RequestMapping("/api")
class TrialController {
  private final TrialRows rows;
  private final Runs runs;
  private final References references;
  private final Clock clock;

  TrialController(TrialRows rows, Runs runs, References references, Clock clock) {
    this.rows = rows;
    this.runs = runs;
    this.references = references;
    this.clock = clock;
  }

  record TrialRequest(
      @NotBlank @Size(max = 60) String corner,
      @NotBlank @Size(max = 200) String wayA,
      @NotBlank @Size(max = 200) String wayB) {}

  record MarksRequest(@NotNull Map<String, String> marks) {}

  /** A trial; the interval is null until there are two laps of each. */
  record TrialView(
      UUID id,
      String corner,
      String wayA,
      String wayB,
      Map<String, String> marks,
      int lapsA,
      int lapsB,
      double difference,
      @Nullable Double low,
      @Nullable Double high,
      double chance,
      Said verdict,
      List<Double> secondsA,
      List<Double> secondsB) {}

  record TrialCreated(UUID id) {}

  @GetMapping("/references/{id}/trials")
  List<TrialView> trials(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    References.Opened opened = references.read(driver.id(), id);
    List<RunRow> all = runs.of(driver.id(), id);
    Map<String, LapData> laps =
        runs.countedTimes(all).stream()
            .map(LapTimes::data)
            .filter(l -> l.times().length > 0)
            .collect(Collectors.toMap(LapData::id, Function.identity()));
    return rows.findByReferenceIdOrderByCreatedAtDesc(id).stream()
        .map(t -> view(t, opened, laps))
        .toList();
  }

  private static TrialView view(
      CornerTrial t, References.Opened opened, Map<String, LapData> laps) {
    Sections sections = new Sections(opened.computed(), opened.working().corners());
    int c = opened.computed().indexOf(t.corner());
    double[] a = seconds(t, "A", laps, sections, c);
    double[] b = seconds(t, "B", laps, sections, c);
    // The same laps always give the same answer.
    Trial trial = Trial.of(a, b, new Random(t.id().getMostSignificantBits()));
    boolean known = Double.isFinite(trial.low());
    return new TrialView(
        t.id(),
        t.corner(),
        t.wayA(),
        t.wayB(),
        t.marks(),
        trial.lapsA(),
        trial.lapsB(),
        trial.difference(),
        known ? trial.low() : null,
        known ? trial.high() : null,
        trial.chance(),
        trial.verdict(),
        java.util.Arrays.stream(a).boxed().toList(),
        java.util.Arrays.stream(b).boxed().toList());
  }

  private static double[] seconds(
      CornerTrial t, String way, Map<String, LapData> laps, Sections sections, int c) {
    return t.marks().entrySet().stream()
        .filter(e -> e.getValue().equals(way))
        .map(e -> laps.get(e.getKey()))
        .filter(Objects::nonNull)
        .mapToDouble(l -> sections.time(l, c))
        .toArray();
  }

  @PostMapping("/references/{id}/trials")
  @ResponseStatus(HttpStatus.CREATED)
  TrialCreated plan(
      @PathVariable UUID id,
      @Valid @RequestBody TrialRequest request,
      @AuthenticationPrincipal Driver driver) {
    References.Opened opened = references.open(driver.id(), id);
    opened.computed().indexOf(request.corner());
    return new TrialCreated(
        rows.save(
                new CornerTrial(
                    driver.id(),
                    id,
                    request.corner(),
                    request.wayA().strip(),
                    request.wayB().strip(),
                    clock.instant()))
            .id());
  }

  private CornerTrial own(UUID driver, UUID id) {
    CornerTrial t =
        rows.findById(id).orElseThrow(() -> Problem.notFound("There is no such trial."));
    references.open(driver, t.referenceId());
    return t;
  }

  @PutMapping("/trials/{id}/marks")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void mark(
      @PathVariable UUID id,
      @Valid @RequestBody MarksRequest request,
      @AuthenticationPrincipal Driver driver) {
    CornerTrial t = own(driver.id(), id);
    if (request.marks().size() > 2000) {
      throw Problem.bad("So many laps cannot be marked.", "marks", "Mark 2000 at most.");
    }
    t.mark(request.marks());
    rows.save(t);
  }

  @DeleteMapping("/trials/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    rows.delete(own(driver.id(), id));
  }
}
