package marvek.server.rehearse;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import marvek.core.day.RunDays;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Score;
import marvek.core.lap.Surface;
import marvek.core.plan.CornerAnswer;
import marvek.core.rehearse.Drive;
import marvek.core.rehearse.OnPurpose;
import marvek.core.score.ActionKind;
import marvek.core.words.Speaker;
import marvek.server.access.Driver;
import marvek.server.problem.Problem;
import marvek.server.run.Bands;
import marvek.server.session.Planner;
import marvek.server.words.Speakers;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** The mistakes of a corner, driven on purpose beside the plan. */
@RestController
class OnPurposeController {
  private final Planner planner;
  private final Rehearsals rehearsals;
  private final Bands bands;
  private final Speakers speakers;

  OnPurposeController(Planner planner, Rehearsals rehearsals, Bands bands, Speakers speakers) {
    this.planner = planner;
    this.rehearsals = rehearsals;
    this.bands = bands;
    this.speakers = speakers;
  }

  /**
   * A mistake.
   *
   * @param whose driver's own in recorded laps or by heart, or a usual one
   * @param of laps or presses that it is told from; 0 for a usual one
   * @param metres by which the action comes later, negative is sooner
   * @param seconds lost; null where the corner cannot be made
   * @param deep metres by which it was braked too late, or null
   * @param look how that looks from the seat
   */
  record MistakeView(
      ActionKind kind,
      OnPurpose.Whose whose,
      int of,
      double metres,
      @Nullable Double seconds,
      @Nullable Double deep,
      String look,
      CornerAnswer.Profile planned,
      CornerAnswer.Profile wrong) {}

  @GetMapping("/api/sessions/{id}/mistakes/{corner}")
  List<MistakeView> mistakes(
      @PathVariable UUID id, @PathVariable String corner, @AuthenticationPrincipal Driver driver) {
    Planner.Outing day = planner.driven(driver.id(), id);
    CornerEntry entry =
        day.entries().stream()
            .filter(e -> e.corner().equals(corner))
            .findFirst()
            .orElseThrow(() -> Problem.none("refusal.none.no_corner"));
    Speaker speaker = speakers.of(driver);
    return OnPurpose.of(
            day.then(),
            day.reference().things(),
            entry,
            laps(driver, day, corner),
            byHeart(driver, day, corner))
        .stream()
        .map(
            p ->
                new MistakeView(
                    p.kind(),
                    p.whose(),
                    p.of(),
                    p.metres(),
                    p.happened().seconds(),
                    p.happened().deep(),
                    speaker.say(p.happened().look()),
                    p.planned(),
                    p.wrong()))
        .toList();
  }

  /** Where recorded laps of the day that this session is like did each action. */
  private Map<String, List<Double>> laps(Driver driver, Planner.Outing day, String corner) {
    Map<String, List<Double>> out = new TreeMap<>();
    String like = day.session().day().like();
    // Laps of a dry day say nothing of a wet one.
    Surface surface = day.session().day().day().surface();
    if (!like.equals(RunDays.OWN) || surface == null || surface.equals(Surface.DRY)) {
      bands
          .of(driver.id(), day.reference(), corner, like)
          .ifPresent(
              o ->
                  o.bands()
                      .points()
                      .forEach((kind, stations) -> out.put(Score.id(kind), stations)));
    }
    return out;
  }

  /** Metres late in laps by heart at full speed. */
  private Map<String, List<Double>> byHeart(Driver driver, Planner.Outing day, String corner) {
    Drive drive = Drive.of(day.then(), day.entries());
    Map<String, List<Double>> out = new TreeMap<>();
    rehearsals.of(driver.id(), day.reference().row().id()).stream()
        .filter(r -> r.body().driven() && r.body().rate() == 1)
        .flatMap(r -> r.body().still(drive).stream())
        .filter(m -> m.due().corner().equals(corner))
        .forEach(
            m -> out.computeIfAbsent(m.due().action(), a -> new ArrayList<>()).add(m.metres()));
    return out;
  }
}
