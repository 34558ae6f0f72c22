package marvek.server.reference;

import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.NotNull;
import java.time.LocalDateTime;
import java.util.List;
import java.util.UUID;
import marvek.core.entry.ContentCheck;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Day;
import marvek.core.entry.ReferenceContent;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.refusal.Where;
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
  // So many corners at most are driven one after the other while somebody waits.
  private static final int MOST_CORNERS = 12;

  private final References references;

  TechniqueController(References references) {
    this.references = references;
  }

  /**
   * A question put to a corner as it is planned.
   *
   * @param entry as it is driven on the day
   * @param at hour on the circuit's clock, for shadows; null leaves the light out
   * @param day that it is asked for; null for the reference itself
   */
  record ChoiceRequest(
      @NotNull CornerEntry entry,
      @NotNull Question question,
      @Nullable LocalDateTime at,
      @Nullable Day day) {}

  /** Which questions a corner raises on a day; null for the reference itself. */
  record ArisingRequest(@NotNull CornerEntry entry, @Nullable Day day) {}

  /**
   * An answer taken, with all entries as they are.
   *
   * @param day of the entries; null for the reference itself
   * @param through the last corner of a stretch that is driven so; null for the corner alone
   */
  record ChosenRequest(
      @NotNull List<CornerEntry> entries,
      @NotNull String corner,
      @NotNull School school,
      @Nullable Day day,
      @Nullable String through) {
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
      @Valid @RequestBody ArisingRequest body) {
    References.Opened opened = checked(driver, id, List.of(body.entry()));
    List<Question> arising = Choices.arising(on(opened, body.day()), opened.things(), body.entry());
    // Linked corners are given away for all days: what one of them takes, another has to leave.
    return body.day() == null
        ? arising
        : arising.stream().filter(q -> q != Question.LINKED).toList();
  }

  @PostMapping("/choices")
  Choices.Compared compare(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody ChoiceRequest body) {
    References.Opened opened = checked(driver, id, List.of(body.entry()));
    return Choices.compare(
        on(opened, body.day()),
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
    ComputedLap computed = on(opened, body.day());
    String through = body.through();
    if (through != null) {
      known(opened, through);
      stretch(computed, body, through);
    }
    List<CornerEntry> changed =
        through == null
            ? Choices.choose(
                computed, opened.things(), body.entries(), body.corner(), body.school())
            : Choices.chooseTo(
                computed, opened.things(), body.entries(), body.corner(), through, body.school());
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
              return body.day() == null
                  ? references.followed(opened, had, e)
                  : Answers.followed(computed, opened.things(), had, e);
            })
        .toList();
  }

  private static void stretch(ComputedLap computed, ChosenRequest body, String through) {
    int n = computed.corners().size();
    int on = Math.floorMod(computed.indexOf(through) - computed.indexOf(body.corner()), n);
    if (on >= MOST_CORNERS || body.school().question() == Question.LINKED || body.day() != null) {
      throw Problem.bad("refusal.reference.no_stretch", Value.figure(MOST_CORNERS, 0))
          .at("through");
    }
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

  private ComputedLap on(References.Opened opened, @Nullable Day day) {
    if (day == null) {
      return opened.computed();
    }
    ContentCheck.day(Where.field("day"), day);
    return references.on(opened, day);
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
