package marvek.server.reference;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import marvek.core.anew.LapAsPlanned;
import marvek.core.anew.Recomputed;
import marvek.core.entry.ReferenceContent;
import marvek.core.vehicle.SetupSheet;
import marvek.core.words.Comparison;
import marvek.server.access.Driver;
import marvek.server.problem.Problem;
import marvek.server.work.Job;
import marvek.server.work.Jobs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** A reference computed anew: looked at, taken, undone. */
@RestController
@RequestMapping("/api/references/{id}/recomputation")
class RecomputingController {
  private final References references;
  private final Recomputing recomputing;
  private final Jobs jobs;
  private final Speaking speaking;

  RecomputingController(
      References references, Recomputing recomputing, Jobs jobs, Speaking speaking) {
    this.references = references;
    this.recomputing = recomputing;
    this.jobs = jobs;
    this.speaking = speaking;
  }

  /**
   * On what to compute.
   *
   * @param otherSheet whether on another set-up sheet than now
   * @param sheet that sheet, or null for none
   */
  record RecomputeRequest(boolean otherSheet, @Nullable UUID sheet) {}

  record UndoRequest(int version) {}

  /**
   * A reference as it is and as it would be.
   *
   * @param taken whether it is so already
   * @param stale whether the reference was changed since
   * @param step metres between the places of the lines
   * @param lineBefore metres to the left of the middle of the road
   * @param sheet name of the set-up sheet it would be on
   * @param corners what changes in each corner and why
   * @param differences of the points, one by one
   */
  record RecomputationView(
      boolean taken,
      boolean stale,
      Instant madeAt,
      ReferenceContent before,
      ReferenceContent after,
      LapAsPlanned lapBefore,
      LapAsPlanned lapAfter,
      double step,
      double[] lineBefore,
      double[] lineAfter,
      @Nullable String sheet,
      List<Recomputed.Change> corners,
      List<Comparison.Difference> differences) {}

  /** Computes the reference anew beside what it is; nothing of it changes yet. */
  @PostMapping
  Job compute(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestBody RecomputeRequest body) {
    UUID sheet = body.otherSheet() ? body.sheet() : recomputing.sheetNow(driver.id(), id);
    return jobs.start(
        driver.id(),
        watch -> {
          recomputing.recompute(driver.id(), id, sheet, watch);
          return Job.Result.of(id);
        });
  }

  @GetMapping
  RecomputationView one(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "false") boolean taken) {
    References.Opened opened = references.open(driver.id(), id);
    Recomputation anew =
        recomputing
            .recomputed(driver.id(), id, taken)
            .orElseThrow(() -> Problem.none("refusal.none.reference_not_computed_anew"));
    ReferenceContent before = opened.fitting(anew.before().working());
    ReferenceContent after = opened.fitting(anew.proposed().working());
    SetupSheet sheet = anew.proposed().sheet();
    int stride = (int) Math.max(1, Math.round(2 / opened.computed().road().step()));
    return new RecomputationView(
        anew.isTaken(),
        !anew.isTaken() && anew.fromVersion() != opened.row().version(),
        anew.madeAt(),
        before,
        after,
        anew.before().planned(),
        anew.proposed().planned(),
        stride * opened.computed().road().step(),
        every(anew.beforeLine(), stride),
        every(anew.proposedLine(), stride),
        sheet == null ? null : sheet.name(),
        anew.corners(),
        Comparison.between(
            opened.layout().corners(),
            opened.computed().road().length(),
            before,
            after,
            speaking.speech(driver)));
  }

  private static double[] every(double[] offset, int stride) {
    double[] out = new double[(offset.length + stride - 1) / stride];
    for (int i = 0; i < out.length; i++) {
      out[i] = Math.round(offset[i * stride] * 1000) / 1000.0;
    }
    return out;
  }

  @PostMapping("/taken")
  WorkingView take(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    ReferenceRow row = recomputing.takeRecomputed(driver.id(), id);
    return WorkingView.of(row);
  }

  /** Brings all back as it was before it was taken. */
  @PostMapping("/undone")
  WorkingView undo(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestBody UndoRequest body) {
    ReferenceRow row = recomputing.undoRecomputed(driver.id(), id, body.version());
    return WorkingView.of(row);
  }

  /** Leaves the reference as it is. */
  @DeleteMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void drop(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    recomputing.dropRecomputed(driver.id(), id);
  }
}
