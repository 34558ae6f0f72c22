package marvek.server.debrief;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import marvek.core.day.OfferedDay;
import marvek.core.day.RunDays;
import marvek.core.day.Variants;
import marvek.core.debrief.Debrief;
import marvek.core.debrief.Debriefer;
import marvek.core.debrief.LapData;
import marvek.core.debrief.PaceOfLaps;
import marvek.core.debrief.Proposal;
import marvek.core.debrief.Proposals;
import marvek.core.debrief.Robust;
import marvek.core.debrief.Sections;
import marvek.core.debrief.VehicleFit;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.OtherGates;
import marvek.core.entry.RoadUse;
import marvek.core.entry.Step;
import marvek.core.entry.Variant;
import marvek.core.line.Gate;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;
import marvek.core.session.Evidence;
import marvek.core.session.Promise;
import marvek.core.telemetry.LapGrid;
import marvek.server.problem.Problem;
import marvek.server.reference.ReferenceRow;
import marvek.server.reference.References;
import marvek.server.reference.Revision;
import marvek.server.reference.WorkingCopies;
import marvek.server.run.LapChannels;
import marvek.server.run.LapRow;
import marvek.server.run.RunRow;
import marvek.server.run.Runs;
import marvek.server.vehicle.Garage;
import marvek.server.vehicle.VehicleRow;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What the laps of a reference say: debrief, proposals, kept promises, the vehicle itself. */
@Service
public class Evidences {
  private final Runs runs;
  private final References references;
  private final WorkingCopies workingCopies;
  private final Garage garage;
  private final DrivenOtherwise drivenOtherwise;

  Evidences(
      Runs runs,
      References references,
      WorkingCopies workingCopies,
      Garage garage,
      DrivenOtherwise drivenOtherwise) {
    this.runs = runs;
    this.references = references;
    this.workingCopies = workingCopies;
    this.garage = garage;
    this.drivenOtherwise = drivenOtherwise;
  }

  /**
   * A run read against one of the reference's days.
   *
   * @param parts of the run by day, in the order driven
   * @param part that is looked at
   * @param computed of its day; the reference's own where no day fits
   * @param entries as they are to be driven on it
   * @param laps of the part that count
   */
  public record Judged(
      Runs.Opened opened,
      List<RunDays.PartLine> parts,
      RunDays.@Nullable PartLine part,
      ComputedLap computed,
      List<CornerEntry> entries,
      List<LapData> laps) {
    /** Whether there is a day to hold the laps against. */
    boolean fits() {
      return part == null || part.day() != null;
    }

    /** Places across the road that its day passes. */
    List<Gate> gates() {
      List<Gate> own = RoadUse.of(opened.driven().use()).gates();
      OtherGates others =
          RunDays.of(opened.driven()).variant(day()).map(v -> v.day().gates()).orElse(null);
      return others == null ? own : others.in(own);
    }

    @Nullable String day() {
      return part == null ? RunDays.OWN : part.day();
    }
  }

  /**
   * Finds the day that a run was driven on.
   *
   * @param day which of its parts is wanted, {@link RunDays#NONE} for laps that fit none; null for
   *     the one with most laps
   */
  @Transactional(readOnly = true)
  public Judged judged(Runs.Opened opened, @Nullable String day) {
    RunDays days = RunDays.of(opened.reference().working());
    List<LapRow> rows = runs.counted(List.of(opened.run()));
    List<RunDays.PartLine> parts = parts(days, opened.run(), rows);
    RunDays.PartLine part =
        parts.stream()
            .filter(p -> day != null && p.on(day))
            .findFirst()
            .or(() -> parts.stream().max(Comparator.comparingInt(p -> p.laps().size())))
            .orElse(null);
    ComputedLap base = opened.reference().computed();
    Variant variant = part == null ? null : days.variant(part.day()).orElse(null);
    if (part == null || variant == null) {
      return new Judged(
          opened, parts, part, base, opened.driven().corners(), data(rows, part, base, base));
    }
    ComputedLap then = references.on(opened.reference(), variant.day());
    // What was set by hand for the day when it was driven, where the revision knew the day.
    Variant driven =
        RunDays.of(opened.driven()).variant(variant.id()).map(v -> v.like(variant)).orElse(variant);
    return new Judged(
        opened,
        parts,
        part,
        then,
        RunDays.on(base, then, driven, opened.driven().corners()),
        data(rows, part, base, then));
  }

  private static List<RunDays.PartLine> parts(RunDays days, RunRow run, List<LapRow> rows) {
    return days.parts(run.day(), rows.stream().map(l -> l.ofDay()).toList());
  }

  /**
   * The laps of a part. Where a lap was read on another day's line than it is held against, what
   * was measured from that line is left out.
   */
  private static List<LapData> data(
      List<LapRow> rows, RunDays.@Nullable PartLine part, ComputedLap base, ComputedLap then) {
    boolean own = Variants.ownLine(base, then);
    List<LapData> out = new ArrayList<>();
    for (LapRow l : rows) {
      if (part == null || part.has(l.id().toString())) {
        String day = part == null ? null : part.day();
        boolean same = day == null || day.equals(l.day()) || (l.day() == null && !own);
        out.add(same || !own ? l.data() : l.data().withoutLine());
      }
    }
    return out;
  }

  /** What a run says of the day it was driven on; without a day, its times and no judgement. */
  @Transactional(readOnly = true)
  public Debrief debrief(Judged judged) {
    return judged.fits()
        ? Debriefer.read(judged.computed(), judged.entries(), judged.gates(), judged.laps())
        : Debriefer.times(judged.laps(), judged.computed());
  }

  /** Proposals, with the laps that they could rest on. */
  record Proposed(List<Proposal> proposals, Runs.Alike alike, Judged judged) {}

  /** Proposals for the day of a run, from all laps of that day on the same set-up. */
  @Transactional(readOnly = true)
  Proposed proposals(Runs.Opened opened, @Nullable String day, double longest) {
    Judged judged = judged(opened, day);
    if (!judged.fits() || judged.part() != null && !judged.part().sure()) {
      return new Proposed(List.of(), new Runs.Alike(List.of(), 0), judged);
    }
    RunDays days = RunDays.of(opened.reference().working());
    ComputedLap base = opened.reference().computed();
    Runs.Alike alike =
        runs.like(
            opened.run(),
            (run, rows) ->
                parts(days, run, rows).stream()
                    .filter(p -> p.on(judged.day()) && p.sure())
                    .flatMap(p -> data(rows, p, base, judged.computed()).stream())
                    .toList());
    List<CornerEntry> entries =
        days.variant(judged.day())
            .map(
                v -> RunDays.on(base, judged.computed(), v, opened.reference().working().corners()))
            .orElse(opened.reference().working().corners());
    List<Proposal> found =
        Proposals.of(
            judged.computed(), opened.reference().things(), entries, alike.laps(), longest);
    return new Proposed(found, alike, judged);
  }

  /**
   * Moves the points of accepted proposals, as proposed or as the driver altered them, and saves a
   * revision that names its evidence.
   */
  @Transactional
  ReferenceRow accept(
      UUID owner,
      UUID runId,
      @Nullable String day,
      int version,
      String reason,
      List<WorkingCopies.Move> moves,
      double longest) {
    RunRow run = runs.own(owner, runId);
    Runs.Opened opened = runs.read(owner, runId);
    Proposed proposed = proposals(opened, day, longest);
    List<Proposal> proposals = proposed.proposals();
    String on = proposed.judged().day();
    List<Evidence> evidence = new ArrayList<>();
    for (WorkingCopies.Move m : moves) {
      Step step = m.step();
      Proposal p =
          proposals.stream()
              .filter(x -> x.change() && x.corner().equals(m.corner()))
              .filter(x -> x.action().equals(step.action()) && x.share() == step.share())
              .findFirst()
              .orElseThrow(
                  () -> Problem.bad("refusal.debrief.no_proposal_stands_any").at(m.corner()));
      if (!p.allows(opened.reference().computed().road(), step.to())) {
        throw Problem.bad("refusal.debrief.step_longer_evidence_margin").at(m.corner());
      }
      evidence.add(
          Evidence.of(p, opened.reference().computed().road(), step.to(), run.id().toString(), on));
    }
    if (evidence.isEmpty()) {
      throw Problem.bad("refusal.debrief.nothing_accepted").at("moves");
    }
    return workingCopies.revise(owner, run.referenceId(), on, version, moves, reason, evidence);
  }

  /** Accepts the best proposals of a run as they stand; returns whether there were any. */
  @Transactional
  public boolean acceptBest(UUID owner, UUID runId, int most, String reason) {
    Runs.Opened opened = runs.read(owner, runId);
    List<WorkingCopies.Move> moves =
        proposals(opened, null, Proposals.LONGEST_STEP).proposals().stream()
            .filter(p -> p.change() && p.gain() != null)
            .limit(most)
            .map(p -> new WorkingCopies.Move(p.corner(), new Step(p.action(), p.share(), p.to())))
            .toList();
    if (moves.isEmpty()) {
      return false;
    }
    accept(
        owner,
        runId,
        null,
        opened.reference().row().version(),
        reason,
        moves,
        Proposals.LONGEST_STEP);
    return true;
  }

  /**
   * Adds the day that the laps of a run speak for which fit none; a run that is all of it is then
   * said to be one of that day, and a mixed one is split by what its laps tell.
   */
  @Transactional
  Variant addDay(UUID owner, UUID runId) {
    RunRow run = runs.own(owner, runId);
    Judged judged = judged(runs.read(owner, runId), RunDays.NONE);
    OfferedDay offer =
        Optional.ofNullable(judged.part())
            .flatMap(part -> OfferedDay.of(run.day(), part))
            .orElseThrow(() -> Problem.bad("refusal.debrief.laps_run_speak_no"));
    Variant added =
        new Variant(
            UUID.randomUUID().toString().substring(0, 8),
            offer.kind(),
            "",
            offer.kind().usual().withGrip(offer.grip()),
            List.of());
    workingCopies.addDay(owner, run.referenceId(), added);
    if (judged.parts().size() == 1) {
      runs.on(run, added.id());
    }
    return added;
  }

  /** A promise of a revision, and what became of it. */
  record Kept(Evidence evidence, Said what, boolean share, Promise promise) {}

  /** What laps must have in common to be held against each other. */
  private record Like(@Nullable String day, String sheet) {}

  /**
   * Lap times of one revision on one day.
   *
   * @param day id, empty for the reference's own; null where none fits
   * @param called in the driver's words
   */
  record TimesOnDay(@Nullable String day, Said called, int laps, double best, double median) {}

  /** A revision with what was driven on it. */
  record Chapter(
      int number,
      java.time.Instant createdAt,
      String reason,
      double computed,
      List<TimesOnDay> driven,
      List<Kept> promises) {}

  /** The history of a reference, newest first. */
  @Transactional(readOnly = true)
  List<Chapter> history(UUID person, UUID referenceId) {
    References.Opened opened = references.read(person, referenceId);
    RunDays days = RunDays.of(opened.working());
    Map<String, Said> called = new HashMap<>();
    Map<Integer, Map<Like, List<LapData>>> laps = new HashMap<>();
    Map<UUID, Integer> revisionOf = new HashMap<>();
    Map<UUID, String> sheetOf = new HashMap<>();
    List<RunRow> all = runs.of(person, referenceId);
    Map<UUID, List<LapRow>> rows = new HashMap<>();
    List<LapRow> timed = new ArrayList<>(runs.counted(all));
    runs.laps(all).stream().filter(l -> l.counts() && !l.measured()).forEach(timed::add);
    timed.forEach(l -> rows.computeIfAbsent(l.runId(), r -> new ArrayList<>()).add(l));
    for (RunRow run : all) {
      revisionOf.put(run.id(), run.revision());
      sheetOf.put(run.id(), run.sheetName());
      List<LapRow> driven =
          rows.getOrDefault(run.id(), List.of()).stream().filter(LapRow::measured).toList();
      List<RunDays.PartLine> parts = parts(days, run, driven);
      // Laps timed by hand were driven on the day of the others, or on the one that was named.
      List<LapData> byHand =
          rows.getOrDefault(run.id(), List.of()).stream()
              .filter(l -> !l.measured())
              .map(LapRow::data)
              .toList();
      if (!byHand.isEmpty()) {
        String day =
            parts.isEmpty()
                ? days.named(run.day())
                : parts.stream()
                    .max(Comparator.comparingInt(p -> p.laps().size()))
                    .map(RunDays.PartLine::day)
                    .orElse(null);
        laps.computeIfAbsent(run.revision(), r -> new LinkedHashMap<>())
            .computeIfAbsent(new Like(day, run.sheetName()), k -> new ArrayList<>())
            .addAll(byHand);
        days.called(day).ifPresent(c -> called.put(String.valueOf(day), c));
      }
      for (RunDays.PartLine part : parts) {
        String day = part.day();
        if (day != null) {
          called.put(day, part.called());
        }
        List<LapData> into =
            laps.computeIfAbsent(run.revision(), r -> new LinkedHashMap<>())
                .computeIfAbsent(new Like(day, run.sheetName()), k -> new ArrayList<>());
        driven.stream()
            .filter(l -> part.has(l.id().toString()))
            .map(LapRow::data)
            .forEach(into::add);
      }
    }
    Map<String, Set<String>> otherwise = drivenOtherwise.laps(person, referenceId);
    Sections sections = new Sections(opened.computed(), opened.working().corners());
    List<Chapter> out = new ArrayList<>();
    for (Revision r : references.revisions(opened.row().ownerId(), referenceId)) {
      Map<String, List<LapData>> with = new TreeMap<>();
      laps.getOrDefault(r.number(), Map.of())
          .forEach(
              (like, list) ->
                  with.computeIfAbsent(
                          like.day() == null ? NO_DAY : like.day(), d -> new ArrayList<>())
                      .addAll(list));
      List<TimesOnDay> driven = new ArrayList<>();
      with.forEach(
          (day, list) -> {
            double[] times = list.stream().mapToDouble(LapData::lapTime).toArray();
            driven.add(
                new TimesOnDay(
                    day.equals(NO_DAY) ? null : day,
                    called.getOrDefault(day, Said.of("day.unknown")),
                    times.length,
                    Robust.quantile(times, 0),
                    Robust.median(times)));
          });
      out.add(
          new Chapter(
              r.number(),
              r.createdAt(),
              r.reason(),
              r.planned().seconds(),
              driven,
              r.evidence().stream()
                  .map(
                      e -> {
                        UUID run = UUID.fromString(e.run());
                        Like like = new Like(e.on(), sheetOf.getOrDefault(run, ""));
                        int was = revisionOf.getOrDefault(run, r.number() - 1);
                        Set<String> not = otherwise.getOrDefault(e.corner(), Set.of());
                        return new Kept(
                            e,
                            e.what(),
                            e.shared(),
                            e.kept(
                                r.evidence(),
                                new Evidence.Grounds(
                                    opened.computed(), sections, r.content().corners()),
                                of(laps, was, like, not),
                                of(laps, r.number(), like, not),
                                laps.containsKey(r.number())));
                      })
                  .toList()));
    }
    return out;
  }

  // Sorts after all days.
  private static final String NO_DAY = "\uffff";

  private static List<LapData> of(
      Map<Integer, Map<Like, List<LapData>>> laps, int revision, Like like, Set<String> not) {
    return laps.getOrDefault(revision, Map.of()).getOrDefault(like, List.of()).stream()
        .filter(l -> l.times().length > 0)
        // What was driven another way on purpose says nothing of the way that was promised.
        .filter(l -> !not.contains(l.id()))
        .toList();
  }

  /** The pace that the laps of a run show. */
  @Transactional(readOnly = true)
  PaceOfLaps pace(Runs.Opened opened) {
    return PaceOfLaps.of(
        opened.reference().computed(), opened.reference().row().pace(), dryLaps(opened));
  }

  /** The vehicle as the laps of a run show it. */
  @Transactional(readOnly = true)
  VehicleFit fit(Runs.Opened opened) {
    return VehicleFit.of(opened.reference().computed(), dryLaps(opened));
  }

  /** Laps of the reference's own day, channels and all. */
  private List<VehicleFit.Lap> dryLaps(Runs.Opened opened) {
    Judged judged = judged(opened, RunDays.OWN);
    if (!RunDays.OWN.equals(judged.day())) {
      throw Problem.bad("refusal.debrief.these_laps_were_not");
    }
    RunDays.PartLine part = judged.part();
    List<LapRow> rows =
        runs.counted(List.of(opened.run())).stream()
            .filter(l -> part == null || part.has(l.id().toString()))
            // Laps recorded too seldom for their corners tell no vehicle either.
            .filter(l -> !l.events().isEmpty())
            .toList();
    if (rows.size() < 2) {
      throw Problem.bad("refusal.debrief.two_laps_count_needed");
    }
    Map<UUID, LapRow> byId = new HashMap<>();
    rows.forEach(l -> byId.put(l.id(), l));
    int n = opened.reference().computed().road().size();
    List<VehicleFit.Lap> laps = new ArrayList<>();
    for (LapChannels c : runs.channels(rows)) {
      LapGrid g = c.grid();
      LapRow row = byId.get(c.lapId());
      if (row == null) {
        continue;
      }
      laps.add(VehicleFit.Lap.of(row.lapTime(), g, n));
    }
    return laps;
  }

  /** Takes what the laps showed into the vehicle, as its next version. */
  @Transactional
  VehicleRow takeFit(UUID owner, UUID runId) {
    runs.own(owner, runId);
    Runs.Opened opened = runs.read(owner, runId);
    VehicleFit fit = fit(opened);
    VehicleRow row = garage.get(owner, opened.reference().row().vehicleId());
    return garage.change(owner, row.id(), row.version(), row.name(), fit.on(row.numbers()));
  }
}
