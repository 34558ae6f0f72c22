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
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
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

  BalanceController(References references, ComputedLaps computedLaps) {
    this.references = references;
    this.computedLaps = computedLaps;
  }

  /**
   * A corner asked about.
   *
   * @param entry as it is driven, on the day if one is given
   * @param variant the day; null for the base
   */
  record BalanceRequest(@NotNull CornerEntry entry, @Nullable Variant variant) {}

  @PostMapping
  CornerBalance balance(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody BalanceRequest body) {
    References.Opened opened = references.read(driver.id(), id);
    opened.check(new ReferenceContent(List.of(body.entry())));
    ComputedLap computed = opened.computed();
    Variant variant = body.variant();
    if (variant != null) {
      ContentCheck.variant(
          opened.layout().counted(), computed.road().length(), computed.vehicle().gears(), variant);
      computed = computedLaps.on(opened.row(), opened.layout(), computed, variant.day());
    }
    return Answers.at(computed, opened.things(), computed.indexOf(body.entry().corner()))
        .balance(body.entry(), references.vehicle(opened).numbers().hasFixedSetup());
  }
}
