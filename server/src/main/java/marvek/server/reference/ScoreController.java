package marvek.server.reference;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import marvek.core.entry.ContentCheck;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Day;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Score;
import marvek.core.plan.AmountCurve;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Cues;
import marvek.core.plan.MistakeCurve;
import marvek.core.plan.Unwise;
import marvek.core.plan.WhatIf;
import marvek.core.refusal.Where;
import marvek.core.said.Said;
import marvek.core.score.Action;
import marvek.core.score.Cue;
import marvek.core.survey.Things;
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

  private static final int MOST_DEAR = 3;
  private static final int MOST_LAPS = 500;

  private final References references;
  private final ComputedLaps computedLaps;

  ScoreController(References references, ComputedLaps computedLaps) {
    this.references = references;
    this.computedLaps = computedLaps;
  }

  /**
   * A corner as written, and one of its actions.
   *
   * @param action id
   * @param day for which it is asked, the entry as it is then; null for the reference itself
   */
  record CuesRequest(
      @NotNull CornerEntry entry, @NotNull String action, @Nullable @Valid Day day) {}

  /**
   * A corner as written, and what laps did.
   *
   * @param action id of the one in hand; empty for none
   * @param driven stations at which laps did it
   * @param day for which it is asked, the entry as it is then; null for the reference itself
   */
  record CostsRequest(
      @NotNull CornerEntry entry,
      @NotNull String action,
      @NotNull @Size(max = MOST_LAPS) List<Double> driven,
      @Nullable @Valid Day day) {
    CostsRequest {
      driven = List.copyOf(driven);
    }
  }

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

  /**
   * A mistake and what it looks like.
   *
   * @param seconds lost; null where the corner cannot be made
   */
  record Dear(
      @NotNull String action,
      WhatIf.@NotNull Change change,
      @Nullable Double seconds,
      @NotNull Said what,
      @NotNull Said look) {}

  /**
   * What each action costs otherwise, and where some are unwise.
   *
   * @param curve of the action in hand; null without one
   * @param amounts of the action in hand; null where it has none of its own
   * @param dearest mistakes of the corner
   */
  record CostsView(
      List<WhatIf> costs,
      List<Unwise> unwise,
      @Nullable MistakeCurve curve,
      @Nullable AmountCurve amounts,
      List<Dear> dearest) {}

  /** A corner on the road of the day that is asked for. */
  private record Placed(ComputedLap computed, Things things, CornerEntry entry) {}

  private Placed placed(UUID driver, UUID id, CornerEntry entry, @Nullable Day day) {
    References.Opened opened = references.read(driver, id);
    if (day == null) {
      return new Placed(
          opened.computed(), opened.things(), references.answer(opened, entry).entry());
    }
    opened.check(new ReferenceContent(List.of(entry)));
    ContentCheck.day(Where.field("day"), day);
    ComputedLap then = computedLaps.on(opened.row(), opened.layout(), opened.computed(), day);
    return new Placed(then, opened.things(), Answers.placed(then, opened.things(), entry));
  }

  /** What each action costs otherwise, what missing one costs, and where some are unwise. */
  @PostMapping("/costs")
  CostsView costs(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody CostsRequest body) {
    Placed at = placed(driver.id(), id, body.entry(), body.day());
    Answers answers =
        Answers.at(at.computed(), at.things(), at.computed().indexOf(at.entry().corner()));
    List<WhatIf> costs = answers.whatIfs(at.entry());
    List<Action> score = Score.of(at.computed().road(), at.entry());
    return new CostsView(
        costs,
        answers.unwise(at.entry()),
        answers.curve(at.entry(), body.action(), body.driven()).orElse(null),
        answers.amounts(at.entry(), body.action()).orElse(null),
        answers.dearest(at.entry(), costs, MOST_DEAR).stream().map(w -> dear(w, score)).toList());
  }

  private static Dear dear(WhatIf w, List<Action> score) {
    Action action = score.stream().filter(a -> a.id().equals(w.action())).findFirst().orElseThrow();
    return new Dear(w.action(), w.change(), w.seconds(), action.said(score), w.look(action.kind()));
  }

  /** Cues in reach of an action, the best first. */
  @PostMapping("/cues")
  List<CueOffer> cues(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody CuesRequest body) {
    Placed at = placed(driver.id(), id, body.entry(), body.day());
    List<Action> score = Score.of(at.computed().road(), at.entry());
    Action action =
        score.stream()
            .filter(a -> a.id().equals(body.action()))
            .findFirst()
            .orElseThrow(() -> Problem.bad("refusal.reference.no_action_corner").at("action"));
    return new Cues(at.computed(), at.things())
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
