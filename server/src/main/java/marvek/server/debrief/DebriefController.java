package marvek.server.debrief;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.util.List;
import java.util.UUID;
import marvek.core.circuit.Corner;
import marvek.core.day.OfferedDay;
import marvek.core.day.RunDays;
import marvek.core.debrief.Debrief;
import marvek.core.debrief.PaceOfLaps;
import marvek.core.debrief.Proposal;
import marvek.core.debrief.VehicleFit;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Step;
import marvek.core.entry.Variant;
import marvek.core.said.Said;
import marvek.server.access.Driver;
import marvek.server.recording.Recordings;
import marvek.server.reference.ReferenceRow;
import marvek.server.reference.WorkingCopies;
import marvek.server.run.Runs;
import marvek.server.sharing.Role;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Debriefs, proposals, the history of a reference, and vehicles told from laps. */
@RestController
@RequestMapping("/api")
class DebriefController {
  private final Runs runs;
  private final Evidences evidences;
  private final Recordings recordings;

  DebriefController(Runs runs, Evidences evidences, Recordings recordings) {
    this.runs = runs;
    this.evidences = evidences;
    this.recordings = recordings;
  }

  /**
   * The day that the laps looked at were driven on.
   *
   * @param id empty for the reference's own; null where none fits
   * @param said whether the driver said so
   * @param sure whether proposals may rest on it
   * @param grip used across, against the reference's computed lap
   * @param words why that day
   * @param offer a day that the laps speak for, where none fits
   */
  record DayView(
      @Nullable String id,
      Said called,
      boolean said,
      boolean sure,
      @Nullable Double grip,
      Said words,
      @Nullable OfferedDay offer) {
    static @Nullable DayView of(Evidences.Judged judged) {
      RunDays.PartLine part = judged.part();
      return part == null
          ? null
          : new DayView(
              part.day(),
              part.called(),
              part.said(),
              part.sure(),
              part.grip(),
              part.words(),
              OfferedDay.of(judged.opened().run().day(), part).orElse(null));
    }
  }

  /** A debrief with what is needed to draw it. */
  record DebriefView(
      UUID run,
      String name,
      UUID reference,
      String circuit,
      String vehicle,
      int revision,
      @Nullable DayView day,
      List<RunDays.PartLine> parts,
      Role role,
      Debrief debrief,
      List<CornerEntry> driven,
      List<Corner> corners) {}

  @GetMapping("/runs/{id}/debrief")
  DebriefView debrief(
      @PathVariable UUID id,
      @RequestParam(required = false) @Nullable String day,
      @AuthenticationPrincipal Driver driver) {
    Runs.Opened opened = runs.read(driver.id(), id);
    Evidences.Judged judged = evidences.judged(opened, day);
    return new DebriefView(
        id,
        opened.run().name(),
        opened.run().referenceId(),
        opened.reference().layout().circuit().name(),
        opened.reference().row().name(),
        opened.run().revision(),
        DayView.of(judged),
        judged.parts(),
        opened.reference().role(),
        evidences.debrief(judged),
        judged.entries(),
        opened.reference().layout().counted());
  }

  /**
   * A proposal; ends of an interval that are open are null.
   *
   * @param by metres of the step, or share
   */
  record ProposalLine(
      String corner,
      String action,
      Said what,
      boolean share,
      boolean change,
      double from,
      double to,
      double by,
      @Nullable Double gain,
      @Nullable Double gainLow,
      @Nullable Double gainHigh,
      int laps,
      Proposal.Strength strength,
      Said strengthWords,
      Said reason,
      Said limitedBy,
      List<String> evidence,
      List<Double> off,
      List<Double> seconds) {}

  /**
   * Proposals for the working copy.
   *
   * @param laps that they could rest on
   * @param onOtherSheets laps of the same day that were driven on another set-up sheet
   */
  record ProposalsView(int version, int laps, int onOtherSheets, List<ProposalLine> proposals) {}

  @GetMapping("/runs/{id}/proposals")
  ProposalsView proposals(
      @PathVariable UUID id,
      @RequestParam(defaultValue = "5") double longest,
      @RequestParam(required = false) @Nullable String day,
      @AuthenticationPrincipal Driver driver) {
    Runs.Opened opened = runs.read(driver.id(), id);
    var road = opened.reference().computed().road();
    Evidences.Proposed found = evidences.proposals(opened, day, longest);
    return new ProposalsView(
        opened.reference().row().version(),
        found.alike().laps().size(),
        found.alike().onOtherSheets(),
        found.proposals().stream()
            .map(
                p ->
                    new ProposalLine(
                        p.corner(),
                        p.action(),
                        p.what(),
                        p.share(),
                        p.change(),
                        p.from(),
                        p.to(),
                        p.by(road, p.to()),
                        p.gain(),
                        finite(p.gainLow()),
                        finite(p.gainHigh()),
                        p.laps(),
                        p.strength(),
                        p.strength().said(),
                        p.reason(),
                        p.limitedBy(),
                        p.evidence(),
                        p.off(),
                        p.seconds()))
            .toList());
  }

  private static @Nullable Double finite(@Nullable Double value) {
    return value == null || Double.isInfinite(value) ? null : value;
  }

  record MoveRequest(
      @NotBlank String corner, @NotBlank @Size(max = 60) String action, boolean share, double to) {}

  record AcceptRequest(
      int version,
      @NotBlank @Size(max = 500) String reason,
      @NotEmpty @Size(max = 200) List<@Valid MoveRequest> moves,
      @Nullable Double longest,
      @Nullable @Size(max = 60) String day) {}

  record AcceptedView(UUID reference, int revision) {}

  /** Accepts proposals and saves the revision that they make. */
  @PostMapping("/runs/{id}/accept")
  AcceptedView accept(
      @PathVariable UUID id,
      @Valid @RequestBody AcceptRequest request,
      @AuthenticationPrincipal Driver driver) {
    Double longest = request.longest();
    ReferenceRow row =
        evidences.accept(
            driver.id(),
            id,
            request.day(),
            request.version(),
            request.reason(),
            request.moves().stream()
                .map(
                    m ->
                        new WorkingCopies.Move(m.corner(), new Step(m.action(), m.share(), m.to())))
                .toList(),
            longest == null ? 5 : longest);
    return new AcceptedView(row.id(), row.basedOnRevision());
  }

  record AddedDay(String day, int version) {}

  /** Adds the day that the laps of a run speak for to the reference, and takes the run as its. */
  @PostMapping("/runs/{id}/day")
  AddedDay addDay(@PathVariable UUID id, @AuthenticationPrincipal Driver driver)
      throws IOException {
    Variant added = evidences.addDay(driver.id(), id);
    recordings.againAll(driver.id(), id);
    return new AddedDay(added.id(), runs.read(driver.id(), id).reference().row().version());
  }

  @GetMapping("/references/{id}/history")
  List<Evidences.Chapter> history(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    return evidences.history(driver.id(), id);
  }

  @GetMapping("/runs/{id}/vehicle-fit")
  VehicleFit fit(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    return evidences.fit(runs.read(driver.id(), id));
  }

  /** How much of the grip the laps of a run use. */
  @GetMapping("/runs/{id}/pace")
  PaceOfLaps pace(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    return evidences.pace(runs.read(driver.id(), id));
  }

  record FittedView(UUID vehicle, int version) {}

  @PostMapping("/runs/{id}/vehicle-fit")
  FittedView takeFit(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    var row = evidences.takeFit(driver.id(), id);
    return new FittedView(row.id(), row.version());
  }
}
