package marvek.server.reference;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.UUID;
import marvek.core.entry.ContentCheck;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Variant;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerBalance;
import marvek.server.access.Driver;
import marvek.server.problem.Problem;
import marvek.server.work.Job;
import marvek.server.work.Jobs;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/**
 * How a corner as planned uses the front and the rear axle, and what one step of a set-up moves.
 */
@RestController
@RequestMapping("/api/references/{id}/balance")
class BalanceController {
  private final References references;
  private final ComputedLaps computedLaps;
  private final Jobs jobs;
  private final LaidSteps laidSteps;

  BalanceController(
      References references, ComputedLaps computedLaps, Jobs jobs, LaidSteps laidSteps) {
    this.references = references;
    this.computedLaps = computedLaps;
    this.jobs = jobs;
    this.laidSteps = laidSteps;
  }

  /**
   * A corner asked about.
   *
   * @param entry as it is driven, on the day if one is given
   * @param variant the day; null for the base
   */
  record BalanceRequest(@NotNull CornerEntry entry, @Nullable Variant variant) {}

  /**
   * A step of the set-up asked about.
   *
   * @param entry as it is driven, on the day if one is given
   * @param variant the day; null for the base
   * @param what step of a set-up
   */
  record LaidRequest(
      @NotNull CornerEntry entry, @Nullable Variant variant, @NotNull CornerBalance.What what) {}

  @PostMapping
  CornerBalance balance(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody BalanceRequest body) {
    return answers(references.read(driver.id(), id), body.entry(), body.variant())
        .balance(body.entry());
  }

  /** What one step of the set-up is worth with the line laid anew for it, to either side. */
  @PostMapping("/laid")
  Job laid(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody LaidRequest body) {
    if (body.what() == CornerBalance.What.TRAIL || body.what() == CornerBalance.What.GEAR) {
      throw Problem.bad(
          "That is done by the driver, and no step of the set-up.",
          "what",
          "Ask for brakes, bar or wing.");
    }
    Answers answers = answers(references.read(driver.id(), id), body.entry(), body.variant());
    return jobs.start(
        driver.id(),
        watch ->
            Job.Result.of(
                laidSteps.keep(driver.id(), id, answers.laid(body.entry(), body.what(), watch))));
  }

  @GetMapping("/laid/{made}")
  CornerBalance.Laid laid(
      @AuthenticationPrincipal Driver driver, @PathVariable UUID id, @PathVariable UUID made) {
    references.read(driver.id(), id);
    return laidSteps.of(driver.id(), id, made);
  }

  private Answers answers(References.Opened opened, CornerEntry entry, @Nullable Variant variant) {
    References.check(opened, new ReferenceContent(List.of(entry)));
    ComputedLap computed = opened.computed();
    if (variant != null) {
      ContentCheck.variant(
          opened.layout().counted(), computed.road().length(), computed.vehicle().gears(), variant);
      computed = computedLaps.on(opened.row(), opened.layout(), computed, variant.day());
    }
    return Answers.at(computed, opened.things(), computed.indexOf(entry.corner()));
  }
}
