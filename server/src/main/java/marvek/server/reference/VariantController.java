package marvek.server.reference;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import marvek.core.anew.Refresh;
import marvek.core.day.Variants;
import marvek.core.entry.ContentCheck;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Variant;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.review.Light;
import marvek.server.access.Driver;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** A reference on other days. Nothing is stored here: variants are part of the working copy. */
@RestController
@RequestMapping("/api/references/{id}/variants")
class VariantController {
  private final References references;
  private final ComputedLaps computedLaps;
  private final Speaking speaking;
  private final Clock clock;

  VariantController(
      References references, ComputedLaps computedLaps, Speaking speaking, Clock clock) {
    this.references = references;
    this.computedLaps = computedLaps;
    this.speaking = speaking;
    this.clock = clock;
  }

  /**
   * A corner asked for on another day.
   *
   * @param entry as it is in the reference
   * @param edited as the driver wants it on that day; null to have what is held now
   */
  record VariantRequest(
      @NotNull Variant variant, @NotNull CornerEntry entry, @Nullable CornerEntry edited) {}

  /**
   * A corner on another day.
   *
   * @param variant with what is set by hand after the edit
   * @param adjusted the corner then, what is proposed, and why
   * @param answer what it leads to on that day
   * @param lapTime of that day, seconds
   * @param ownLine whether that day has a line of its own, and not the base's
   */
  record VariantView(
      Variant variant,
      Variants.Adjusted adjusted,
      AnswerView answer,
      double lapTime,
      boolean ownLine) {}

  /** All corners on another day. */
  record VariantLap(double lapTime, List<Variants.Adjusted> corners) {}

  record VariantLapRequest(@NotNull Variant variant, @NotNull List<CornerEntry> entries) {
    VariantLapRequest {
      entries = List.copyOf(entries);
    }
  }

  @PostMapping("/answer")
  VariantView answer(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody VariantRequest body) {
    References.Opened opened = references.read(driver.id(), id);
    CornerEntry edited = body.edited();
    check(
        opened,
        body.variant(),
        edited == null ? List.of(body.entry()) : List.of(edited),
        body.entry());
    ComputedLap then =
        computedLaps.on(opened.row(), opened.layout(), opened.computed(), body.variant().day());
    Variant variant =
        edited == null
            ? body.variant()
            : edited(opened, then, body.variant(), body.entry(), edited);
    Variants.Adjusted adjusted = Variants.adjust(opened.computed(), then, variant, body.entry());
    CornerEntry moved = Answers.followed(then, opened.things(), body.entry(), adjusted.entry());
    var answer = Answers.answer(then, opened.things(), moved);
    var answered =
        new References.Answered(
            Refresh.entry(then, opened.landmarks(), moved, answer.reached()), answer);
    List<Variants.Adjustment> changes = new ArrayList<>(adjusted.changes());
    String hour = variant.day().hour();
    if (!hour.isEmpty() && opened.layout().plane() != null) {
      for (Light.Changed c :
          Light.of(
              opened.computed(),
              opened.things(),
              List.of(answered.entry()),
              opened.view(at(opened, hour), false))) {
        changes.add(new Variants.Adjustment(c.kind(), c.words(hour), false));
      }
    }
    return new VariantView(
        variant,
        new Variants.Adjusted(answered.entry(), adjusted.proposed(), changes, adjusted.byHand()),
        speaking.answer(then, opened.things(), answered, driver),
        then.lap().lapTime(),
        Variants.ownLine(opened.computed(), then));
  }

  /** An hour of today on the circuit's clock. */
  private LocalDateTime at(References.Opened opened, String hour) {
    String padded = hour.length() == 4 ? "0" + hour : hour;
    return LocalDate.now(clock.withZone(opened.layout().circuit().zone()))
        .atTime(LocalTime.parse(padded));
  }

  @PostMapping("/lap")
  VariantLap lap(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody VariantLapRequest body) {
    References.Opened opened = references.read(driver.id(), id);
    check(opened, body.variant(), body.entries(), null);
    ComputedLap then =
        computedLaps.on(opened.row(), opened.layout(), opened.computed(), body.variant().day());
    return new VariantLap(
        then.lap().lapTime(),
        body.entries().stream()
            .map(e -> Variants.adjust(opened.computed(), then, body.variant(), e))
            .toList());
  }

  private static void check(
      References.Opened opened,
      Variant variant,
      List<CornerEntry> entries,
      @Nullable CornerEntry other) {
    opened.check(new ReferenceContent(entries));
    if (other != null) {
      opened.check(new ReferenceContent(List.of(other)));
    }
    ContentCheck.variant(
        opened.layout().counted(),
        opened.computed().road().length(),
        opened.computed().vehicle().gears(),
        variant);
  }

  private static Variant edited(
      References.Opened opened,
      ComputedLap then,
      Variant variant,
      CornerEntry entry,
      CornerEntry edited) {
    Variants.Adjusted without =
        Variants.adjust(
            opened.computed(),
            then,
            new Variant(variant.id(), variant.kind(), variant.name(), variant.day(), List.of()),
            entry);
    Optional<Variant.ByHand> hand =
        Variants.byHand(opened.computed().road().length(), without.proposed(), edited);
    List<Variant.ByHand> entries = new ArrayList<>(variant.entries());
    entries.removeIf(h -> h.corner().equals(entry.corner()));
    hand.ifPresent(entries::add);
    return new Variant(variant.id(), variant.kind(), variant.name(), variant.day(), entries);
  }
}
