package marvek.server.reference;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.UUID;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Cues;
import marvek.core.plan.Unwise;
import marvek.core.plan.WhatIf;
import marvek.core.said.Said;
import marvek.core.score.Action;
import marvek.core.score.Cue;
import marvek.server.access.Driver;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What the actions of a corner cost, and by which cues their places can be found. */
@RestController
@RequestMapping("/api/references/{id}/score")
class ScoreController {
  // More than fit beside an action serve nobody.
  private static final int MOST_OFFERS = 24;

  private final References references;

  ScoreController(References references) {
    this.references = references;
  }

  /** A corner as written, and the action that cues are looked for. */
  record CuesRequest(@NotNull CornerEntry entry, @NotNull String action) {}

  /**
   * A cue in reach.
   *
   * @param cue with the number that fits
   * @param station where it is
   * @param precision metres to which it can be met
   * @param moves metres by which taking it moves the action
   * @param marks of its thing, 0 to 100; null without one
   * @param words how it is said
   */
  record CueOffer(
      @NotNull Cue cue,
      double station,
      double precision,
      double moves,
      @Nullable Integer marks,
      @NotNull Said words) {}

  /** What each action costs otherwise, and where some are unwise. */
  record CostsView(List<WhatIf> costs, List<Unwise> unwise) {}

  /** What each action costs otherwise, and where some are unwise. */
  @PostMapping("/costs")
  CostsView costs(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestBody CornerEntry entry) {
    References.Opened opened = references.read(driver.id(), id);
    CornerEntry placed = references.answer(opened, entry).entry();
    ComputedLap computed = opened.computed();
    Answers answers = Answers.at(computed, opened.things(), computed.indexOf(placed.corner()));
    return new CostsView(answers.whatIfs(placed), answers.unwise(placed));
  }

  /** Cues in reach of an action, the best first. */
  @PostMapping("/cues")
  List<CueOffer> cues(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody CuesRequest body) {
    References.Opened opened = references.read(driver.id(), id);
    CornerEntry placed = references.answer(opened, body.entry()).entry();
    List<Action> score = Score.of(opened.computed().road(), placed);
    Action action =
        score.stream()
            .filter(a -> a.id().equals(body.action()))
            .findFirst()
            .orElseThrow(
                () ->
                    Problem.bad(
                        "There is no such action in the corner.",
                        "action",
                        "Choose one of its score."));
    return new Cues(opened.computed(), opened.things())
        .reach(action, score).stream()
            .limit(MOST_OFFERS)
            .map(
                o ->
                    new CueOffer(
                        o.cue(),
                        o.station(),
                        o.precision(),
                        o.moves(),
                        o.marks(),
                        o.cue().said(score)))
            .toList();
  }
}
