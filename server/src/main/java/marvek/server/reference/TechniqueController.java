package marvek.server.reference;

import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.NotNull;
import java.time.LocalDateTime;
import java.util.List;
import java.util.UUID;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.ReferenceContent;
import marvek.core.said.Value;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import marvek.core.technique.SchoolLine;
import marvek.core.ways.Choices;
import marvek.core.ways.Compromise;
import marvek.core.words.Speaker;
import marvek.server.access.Driver;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Questions on which practitioners differ: which arise, what each answer costs, and taking one. */
@RestController
@RequestMapping("/api/references/{id}")
class TechniqueController {
  private final References references;

  TechniqueController(References references) {
    this.references = references;
  }

  /**
   * A question put to a corner as it is planned.
   *
   * @param at hour on the circuit's clock, for shadows; null leaves the light out
   */
  record ChoiceRequest(
      @NotNull CornerEntry entry, @NotNull Question question, @Nullable LocalDateTime at) {}

  /** An answer taken, with all entries of the reference as they are now. */
  record ChosenRequest(
      @NotNull List<CornerEntry> entries, @NotNull String corner, @NotNull School school) {
    ChosenRequest {
      entries = List.copyOf(entries);
    }
  }

  /** How much of which linked corner may be given away, 0 to 1. */
  record CompromiseRequest(
      @NotNull String corner,
      @NotNull School school,
      @DecimalMin("0") @DecimalMax("1") double most) {}

  @PostMapping("/choices/arising")
  List<Question> arising(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestBody CornerEntry entry) {
    References.Opened opened = checked(driver, id, List.of(entry));
    return Choices.arising(opened.computed(), opened.things(), entry);
  }

  @PostMapping("/choices")
  Choices.Compared compare(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody ChoiceRequest body) {
    References.Opened opened = checked(driver, id, List.of(body.entry()));
    return Choices.compare(
        opened.computed(),
        opened.things(),
        body.entry(),
        body.question(),
        opened.view(body.at(), false));
  }

  /** The entries that change when an answer is taken; nothing is stored. */
  @PostMapping("/choices/taken")
  List<CornerEntry> take(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody ChosenRequest body) {
    References.Opened opened = checked(driver, id, body.entries());
    known(opened, body.corner());
    List<CornerEntry> changed =
        Choices.choose(
            opened.computed(), opened.things(), body.entries(), body.corner(), body.school());
    if (changed.isEmpty()) {
      throw Problem.bad(
              "refusal.reference.cannot_followed_here",
              Value.own(Speaker.PLAIN.say(body.school().said())))
          .at(body.corner());
    }
    return changed.stream()
        .map(
            e -> {
              CornerEntry had =
                  body.entries().stream()
                      .filter(h -> h.corner().equals(e.corner()))
                      .findFirst()
                      .orElse(e);
              return references.followed(opened, had, e);
            })
        .toList();
  }

  @PostMapping("/compromise")
  Compromise compromise(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody CompromiseRequest body) {
    References.Opened opened = references.read(driver.id(), id);
    int c = known(opened, body.corner());
    if (SchoolLine.givenAway(opened.computed().corners(), c, body.school()).isEmpty()) {
      throw Problem.bad("refusal.reference.corner_not_linked_another").at(body.corner());
    }
    return Compromise.of(opened.computed(), opened.things(), c, body.school(), body.most());
  }

  private References.Opened checked(Driver driver, UUID id, List<CornerEntry> entries) {
    References.Opened opened = references.read(driver.id(), id);
    opened.check(new ReferenceContent(entries));
    return opened;
  }

  private static int known(References.Opened opened, String corner) {
    try {
      return opened.computed().indexOf(corner);
    } catch (IllegalArgumentException e) {
      throw Problem.bad("refusal.reference.no_corner", Value.own(corner)).at("corner");
    }
  }
}
