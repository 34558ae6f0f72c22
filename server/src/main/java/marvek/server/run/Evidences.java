package marvek.server.run;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.UUID;
import marvek.core.debrief.Debrief;
import marvek.core.debrief.Debriefer;
import marvek.core.debrief.LapData;
import marvek.core.debrief.Proposal;
import marvek.core.debrief.Proposals;
import marvek.core.debrief.Robust;
import marvek.core.debrief.Sections;
import marvek.core.debrief.Trial;
import marvek.core.debrief.VehicleFit;
import marvek.core.telemetry.Channel;
import marvek.core.telemetry.LapGrid;
import marvek.core.units.Display;
import marvek.server.problem.Problem;
import marvek.server.reference.Evidence;
import marvek.server.reference.ReferenceRow;
import marvek.server.reference.References;
import marvek.server.reference.Revision;
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
  private final Garage garage;

  Evidences(Runs runs, References references, Garage garage) {
    this.runs = runs;
    this.references = references;
    this.garage = garage;
  }

  @Transactional(readOnly = true)
  Debrief debrief(Runs.Opened opened, Display units) {
    return Debriefer.read(
        opened.reference().desk(), opened.driven().corners(), runs.counted(opened.run()), units);
  }

  /** Proposals, with the laps that they could rest on. */
  record Proposed(List<Proposal> proposals, Runs.Alike alike) {}

  /** Proposals for the working copy, from all laps of like conditions and set-up. */
  @Transactional(readOnly = true)
  Proposed proposals(Runs.Opened opened, double longest, Display units) {
    Runs.Alike alike = runs.like(opened.run());
    List<Proposal> found =
        Proposals.of(
            opened.reference().desk(),
            opened.reference().things(),
            opened.reference().working().corners(),
            alike.laps(),
            longest,
            units);
    return new Proposed(found, alike);
  }

  /**
   * Moves the points of accepted proposals, as proposed or as the driver altered them, and saves a
   * revision that names its evidence.
   */
  @Transactional
  ReferenceRow accept(
      UUID owner,
      UUID runId,
      int version,
      String reason,
      List<References.Move> moves,
      double longest,
      Display units) {
    RunRow run = runs.own(owner, runId);
    Runs.Opened opened = runs.read(owner, runId);
    List<Proposal> proposals = proposals(opened, longest, units).proposals();
    List<Evidence> evidence = new ArrayList<>();
    for (References.Move m : moves) {
      Proposal p =
          proposals.stream()
              .filter(x -> x.corner().equals(m.corner()) && x.kind() == m.kind() && x.change())
              .findFirst()
              .orElseThrow(
                  () ->
                      Problem.bad(
                          "No proposal stands for " + m.kind().word() + " there any more.",
                          m.corner(),
                          "Look at the proposals again."));
      double whole = opened.reference().desk().road().apart(p.station(), p.to());
      double part = opened.reference().desk().road().apart(p.station(), m.to());
      if (part * whole < 0 || Math.abs(part) > Math.abs(whole) + 0.01) {
        throw Problem.bad(
            "The step is longer than the evidence and the margin allow, or goes the other way.",
            m.corner(),
            "Choose a place between where the flag stands and where it is proposed.");
      }
      double share = whole == 0 ? 0 : part / whole;
      Double gain = p.gain();
      Double low = p.gainLow();
      Double high = p.gainHigh();
      evidence.add(
          new Evidence(
              m.corner(),
              m.kind(),
              p.station(),
              m.to(),
              gain == null ? null : gain * share,
              low == null || Double.isInfinite(low) ? null : low * share,
              high == null || Double.isInfinite(high) ? null : high * share,
              p.laps(),
              p.strength().words(),
              run.id().toString(),
              p.evidence()));
    }
    if (evidence.isEmpty()) {
      throw Problem.bad("Nothing is accepted.", "moves", "Accept a proposal first.");
    }
    return references.revise(owner, run.referenceId(), version, moves, reason, evidence);
  }

  /** Accepts the best proposals of a run as they stand; returns whether there were any. */
  @Transactional
  public boolean acceptBest(UUID owner, UUID runId, int most, String reason) {
    Runs.Opened opened = runs.read(owner, runId);
    List<References.Move> moves =
        proposals(opened, Proposals.LONGEST_STEP, Display.METRIC).proposals().stream()
            .filter(p -> p.change() && p.gain() != null)
            .limit(most)
            .map(p -> new References.Move(p.corner(), p.kind(), p.to()))
            .toList();
    if (moves.isEmpty()) {
      return false;
    }
    accept(
        owner,
        runId,
        opened.reference().row().version(),
        reason,
        moves,
        Proposals.LONGEST_STEP,
        Display.METRIC);
    return true;
  }

  /**
   * A promise of a revision, and what became of it.
   *
   * @param before laps on the revision before, in the same conditions and on the same set-up
   * @param after laps with it
   * @param difference seconds to the next corner, after less before; null while there are too few
   * @param kept whether the laps bear it out; null while that is not known
   * @param words what there is to say
   */
  record Promise(
      Evidence evidence,
      int before,
      int after,
      @Nullable Double difference,
      @Nullable Double low,
      @Nullable Double high,
      @Nullable Boolean kept,
      String words) {}

  /** What laps must have in common to be held against each other. */
  private record Like(RunRow.Conditions conditions, String sheet) {
    static Like of(RunRow run) {
      return new Like(run.conditions(), run.sheetName());
    }
  }

  /** Lap times of one revision in one sort of conditions. */
  record Driven(RunRow.Conditions conditions, int laps, double best, double median) {}

  /** A revision with what was driven on it. */
  record Chapter(
      int number,
      java.time.Instant createdAt,
      String reason,
      double computed,
      List<Driven> driven,
      List<Promise> promises) {}

  /** The history of a reference, newest first. */
  @Transactional(readOnly = true)
  List<Chapter> history(UUID person, UUID referenceId) {
    References.Opened opened = references.read(person, referenceId);
    List<RunRow> all = runs.of(person, referenceId);
    Map<UUID, RunRow> byId = new HashMap<>();
    all.forEach(r -> byId.put(r.id(), r));
    Map<Integer, Map<Like, List<LapData>>> laps = new HashMap<>();
    for (LapTimes l : runs.countedTimes(all)) {
      RunRow run = byId.get(l.run());
      if (run != null) {
        laps.computeIfAbsent(run.revision(), r -> new HashMap<>())
            .computeIfAbsent(Like.of(run), c -> new ArrayList<>())
            .add(l.data());
      }
    }
    Sections sections = new Sections(opened.desk(), opened.working().corners());
    List<Chapter> out = new ArrayList<>();
    for (Revision r : references.revisions(opened.row().ownerId(), referenceId)) {
      Map<RunRow.Conditions, List<LapData>> with = new TreeMap<>();
      laps.getOrDefault(r.number(), Map.of())
          .forEach(
              (like, list) ->
                  with.computeIfAbsent(like.conditions(), c -> new ArrayList<>()).addAll(list));
      List<Driven> driven = new ArrayList<>();
      with.forEach(
          (c, list) -> {
            double[] times = list.stream().mapToDouble(LapData::lapTime).toArray();
            driven.add(
                new Driven(c, times.length, Robust.quantile(times, 0), Robust.median(times)));
          });
      out.add(
          new Chapter(
              r.number(),
              r.createdAt(),
              r.reason(),
              r.lapTime(),
              driven,
              r.evidence().stream()
                  .map(e -> promise(e, r.number(), byId, laps, sections, opened))
                  .toList()));
    }
    return out;
  }

  private static Promise promise(
      Evidence e,
      int revision,
      Map<UUID, RunRow> runs,
      Map<Integer, Map<Like, List<LapData>>> laps,
      Sections sections,
      References.Opened opened) {
    RunRow run = runs.get(UUID.fromString(e.run()));
    Like like = run == null ? new Like(RunRow.Conditions.DRY, "") : Like.of(run);
    int was = run == null ? revision - 1 : run.revision();
    int c = opened.desk().indexOf(e.corner());
    double[] before = seconds(laps, was, like, sections, c);
    double[] after = seconds(laps, revision, like, sections, c);
    if (before.length < 3 || after.length < 3) {
      return new Promise(
          e,
          before.length,
          after.length,
          null,
          null,
          null,
          null,
          after.length > 0
              ? "Too few laps yet to say."
              : laps.containsKey(revision)
                  ? "Not driven yet in like conditions on the same set-up."
                  : "Not driven yet.");
    }
    Trial t = Trial.of(before, after, new Random(revision));
    Boolean kept = t.high() < 0 ? Boolean.TRUE : t.low() > 0 ? Boolean.FALSE : null;
    String seconds =
        String.format(
            java.util.Locale.ROOT,
            "%+.3f s to the next corner (%+.3f to %+.3f)",
            t.difference(),
            t.low(),
            t.high());
    return new Promise(
        e,
        before.length,
        after.length,
        t.difference(),
        t.low(),
        t.high(),
        kept,
        kept == null
            ? "Not settled: " + seconds + "."
            : kept ? "Kept: " + seconds + "." : "Not kept: " + seconds + ".");
  }

  private static double[] seconds(
      Map<Integer, Map<Like, List<LapData>>> laps,
      int revision,
      Like like,
      Sections sections,
      int c) {
    return laps.getOrDefault(revision, Map.of()).getOrDefault(like, List.of()).stream()
        .filter(l -> l.times().length > 0)
        .mapToDouble(l -> sections.time(l, c))
        .toArray();
  }

  /** The vehicle as the laps of a run show it. */
  @Transactional(readOnly = true)
  VehicleFit fit(Runs.Opened opened) {
    List<LapRow> rows =
        runs.laps(List.of(opened.run())).stream().filter(l -> l.counts() && l.measured()).toList();
    if (rows.size() < 2) {
      throw Problem.bad(
          "Two laps that count are needed to tell a vehicle from them.",
          null,
          "Bring more laps, or let more of them count.");
    }
    Map<UUID, LapRow> byId = new HashMap<>();
    rows.forEach(l -> byId.put(l.id(), l));
    int n = opened.reference().desk().road().size();
    List<VehicleFit.Lap> laps = new ArrayList<>();
    for (LapChannels c : runs.channels(rows)) {
      LapGrid g = c.grid();
      LapRow row = byId.get(c.lapId());
      if (row == null) {
        continue;
      }
      boolean placed = !Double.isNaN(g.offset()[0]);
      double[] throttle = g.channels().get(Channel.THROTTLE);
      double[] along = g.channels().get(Channel.ALONG);
      double[] across = g.channels().get(Channel.ACROSS);
      laps.add(
          new VehicleFit.Lap(
              row.lapTime(),
              stretched(g.speed(), n),
              along == null ? new double[n] : stretched(along, n),
              across == null ? new double[0] : stretched(across, n),
              throttle == null ? new double[0] : stretched(throttle, n),
              placed ? stretched(g.offset(), n) : new double[0]));
    }
    return VehicleFit.of(opened.reference().desk(), laps);
  }

  /** Even samples on another number of stations of the same closed lap. */
  private static double[] stretched(double[] column, int n) {
    double[] out = new double[n];
    for (int i = 0; i < n; i++) {
      double at = i * (double) column.length / n;
      int k = (int) at;
      double b = column[(k + 1) % column.length];
      out[i] = column[k] + (at - k) * (b - column[k]);
    }
    return out;
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
