package marvek.server.run;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import marvek.core.day.RunDays;
import marvek.core.debrief.LapData;
import marvek.core.debrief.SameLaps;
import marvek.core.entry.ReferenceContent;
import marvek.core.telemetry.LapKind;
import marvek.core.vehicle.SetupSheet;
import marvek.server.keeping.Allowance;
import marvek.server.keeping.Basket;
import marvek.server.problem.Problem;
import marvek.server.reference.References;
import marvek.server.sharing.Role;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Runs of a reference and their laps. Whoever may read the reference may read them. */
@Service
public class Runs {
  private final RunRows rows;
  private final LapRows laps;
  private final ChannelRows channels;
  private final References references;
  private final Allowance allowance;
  private final Basket basket;
  private final Clock clock;

  Runs(
      RunRows rows,
      LapRows laps,
      ChannelRows channels,
      References references,
      Allowance allowance,
      Basket basket,
      Clock clock) {
    this.allowance = allowance;
    this.basket = basket;
    this.rows = rows;
    this.laps = laps;
    this.channels = channels;
    this.references = references;
    this.clock = clock;
  }

  /** A run with the reference that was driven. */
  public record Opened(RunRow run, References.Opened reference, ReferenceContent driven) {
    boolean mine() {
      return reference.role() == Role.OWNER;
    }
  }

  /** Starts a run on the reference as it was last saved. */
  @Transactional
  public RunRow start(
      UUID owner, UUID referenceId, String name, @Nullable Instant at, @Nullable String day) {
    References.Opened opened = references.open(owner, referenceId);
    known(opened, day);
    allowance.anotherRun(owner);
    allowance.room(owner, 0);
    SetupSheet sheet = opened.row().sheet();
    int count = rows.findByReferenceIdOrderByDrivenAtDesc(referenceId).size();
    return rows.save(
        new RunRow(
            owner,
            referenceId,
            opened.row().layoutVersionId(),
            opened.row().basedOnRevision(),
            name.isBlank() ? "Run " + (count + 1) : name.strip(),
            at == null ? clock.instant() : at,
            day,
            sheet == null ? "" : sheet.name(),
            clock.instant()));
  }

  @Transactional(readOnly = true)
  public List<RunRow> of(UUID person, UUID referenceId) {
    references.read(person, referenceId);
    return rows.findByReferenceIdOrderByDrivenAtDesc(referenceId);
  }

  /** A run of one's own, to change. */
  @Transactional(readOnly = true)
  public RunRow own(UUID owner, UUID id) {
    RunRow run = rows.findById(id).orElseThrow(() -> Problem.none("refusal.none.no_run"));
    if (!run.ownerId().equals(owner)) {
      // Says "not found" to strangers and "not yours" to those who may look.
      references.open(owner, run.referenceId());
    }
    return run;
  }

  /** A run of one's own, or of a reference that is open to this person. */
  @Transactional(readOnly = true)
  public Opened read(UUID person, UUID id) {
    RunRow run = rows.findById(id).orElseThrow(() -> Problem.none("refusal.none.no_run"));
    References.Opened reference = references.read(person, run.referenceId());
    return new Opened(run, reference, references.driven(reference, run.revision()));
  }

  @Transactional
  public RunRow change(
      UUID owner, UUID id, String name, @Nullable String day, int revision, String note) {
    RunRow run = own(owner, id);
    known(references.open(owner, run.referenceId()), day);
    run.change(name.strip(), day, revision, note);
    return rows.saveAndFlush(run);
  }

  private static void known(References.Opened opened, @Nullable String day) {
    RunDays days = RunDays.of(opened.working());
    if (day != null
        && !day.equals(RunDays.OWN)
        && days.variant(day).isEmpty()
        && RunDays.kind(day).isEmpty()) {
      throw Problem.bad("refusal.run.reference_no_day").at("day");
    }
  }

  /** A run, whoever asks; nothing where it was put away. */
  public Optional<RunRow> find(UUID id) {
    return rows.findById(id);
  }

  /** Runs of a reference, whoever asks, the newest first. */
  public List<RunRow> newest(UUID referenceId) {
    return rows.findByReferenceIdOrderByDrivenAtDesc(referenceId);
  }

  /**
   * A lap to be stored.
   *
   * @param channels packed
   */
  public record NewLap(LapRow lap, byte[] channels) {}

  /**
   * Puts laps in the place of those that a recording had before. A lap of the same number stays the
   * same lap: what was said of it, its marks in trials and the evidence of revisions hold.
   */
  @Transactional
  public void replace(UUID recordingId, List<NewLap> with) {
    List<LapRow> before = laps.findByRecordingId(recordingId);
    Map<Integer, LapRow> was =
        before.stream()
            .filter(l -> l.number() > 0)
            .collect(Collectors.toMap(LapRow::number, l -> l, (a, b) -> a));
    laps.deleteAll(before);
    laps.flush();
    for (NewLap next : with) {
      LapRow old = was.get(next.lap().number());
      if (old != null) {
        next.lap().continues(old);
      }
      laps.save(next.lap());
      channels.save(new LapChannels(next.lap(), next.channels()));
    }
  }

  /** Runs that were driven in sessions, in that order; whoever asks must have them. */
  public List<RunRow> ofSessions(List<UUID> sessions) {
    return rows.findBySessionIdInOrderByDrivenAt(sessions);
  }

  /** How many runs were driven in each session of somebody. */
  public Map<UUID, Long> bySession(UUID owner) {
    return rows.bySession(owner).stream()
        .collect(Collectors.toMap(r -> (UUID) r[0], r -> (Long) r[1]));
  }

  /** Puts a run into a session, or into none. */
  public void into(RunRow run, @Nullable UUID session) {
    run.into(session);
    rows.saveAndFlush(run);
  }

  /** Says on which day a run was driven. */
  public void on(RunRow run, String day) {
    run.on(day);
    rows.saveAndFlush(run);
  }

  @Transactional
  public void remove(UUID owner, UUID id) {
    basket.put(owner, Basket.Sort.RUN, own(owner, id).id());
  }

  @Transactional(readOnly = true)
  public List<LapRow> laps(List<RunRow> runs) {
    return laps.findByRunIdInOrderByStarted(runs.stream().map(RunRow::id).toList());
  }

  @Transactional(readOnly = true)
  public List<LapLine> lapLines(List<RunRow> runs) {
    return laps.lines(runs.stream().map(RunRow::id).toList());
  }

  @Transactional(readOnly = true)
  public List<LapTimes> countedTimes(List<RunRow> runs) {
    return laps.counted(runs.stream().map(RunRow::id).toList());
  }

  /**
   * Laps that count and hold more than a time, in the order driven; those that two devices have
   * recorded once.
   */
  @Transactional(readOnly = true)
  public List<LapRow> counted(List<RunRow> runs) {
    List<LapRow> all = laps(runs).stream().filter(l -> l.counts() && l.measured()).toList();
    return SameLaps.once(
            all.stream()
                .map(l -> new SameLaps.Recorded(String.valueOf(l.recordingId()), l.data()))
                .toList())
        .stream()
        .map(all::get)
        .toList();
  }

  /**
   * Laps that may be held against each other.
   *
   * @param laps that count, on the same road and day, on the same set-up sheet
   * @param onOtherSheets how many more there are with another sheet on the vehicle
   */
  public record Alike(List<LapData> laps, int onOtherSheets) {}

  /**
   * Those of all runs of the reference that are like the laps of one run.
   *
   * @param ofDay laps of a run that were driven on the day in question
   */
  @Transactional(readOnly = true)
  public Alike like(RunRow run, BiFunction<RunRow, List<LapRow>, List<LapData>> ofDay) {
    List<RunRow> near =
        rows.findByReferenceIdOrderByDrivenAtDesc(run.referenceId()).stream()
            .filter(r -> r.layoutVersionId().equals(run.layoutVersionId()))
            .toList();
    Map<UUID, List<LapRow>> by =
        counted(near).stream().collect(Collectors.groupingBy(LapRow::runId));
    List<LapData> with = new ArrayList<>();
    int without = 0;
    for (RunRow r : near) {
      List<LapData> these = ofDay.apply(r, by.getOrDefault(r.id(), List.of()));
      if (r.sheetName().equals(run.sheetName())) {
        with.addAll(these);
      } else {
        without += these.size();
      }
    }
    return new Alike(with, without);
  }

  /** A lap and its run, for whoever may read it. */
  public record OpenedLap(LapRow lap, Opened opened) {}

  @Transactional(readOnly = true)
  public OpenedLap lap(UUID person, UUID id) {
    LapRow lap = laps.findById(id).orElseThrow(() -> Problem.none("refusal.none.no_lap"));
    return new OpenedLap(lap, read(person, lap.runId()));
  }

  @Transactional(readOnly = true)
  public LapChannels channels(LapRow lap) {
    return channels
        .findById(lap.id())
        .orElseThrow(() -> Problem.bad("refusal.run.lap_timed_hand_no"));
  }

  @Transactional(readOnly = true)
  public List<LapChannels> channels(List<LapRow> of) {
    return channels.findAllById(of.stream().map(LapRow::id).toList());
  }

  @Transactional
  public LapRow say(UUID owner, UUID lapId, LapKind kind, boolean counts, String note) {
    LapRow lap = laps.findById(lapId).orElseThrow(() -> Problem.none("refusal.none.no_lap"));
    own(owner, lap.runId());
    if (counts && !kind.mayCount()) {
      throw Problem.bad(kind.whole() ? "refusal.run.lap_of_another" : "refusal.run.lap_not_whole")
          .at("counts");
    }
    lap.say(kind, counts, note);
    return laps.saveAndFlush(lap);
  }

  @Transactional
  public LapRow byHand(UUID owner, UUID runId, double lapTime, LapKind kind, String note) {
    RunRow run = own(owner, runId);
    if (!(lapTime >= 10 && lapTime <= 3600)) {
      throw Problem.bad("refusal.run.lap_takes_between_ten").at("lapTime");
    }
    int number = (int) laps.findByRunIdOrderByStarted(runId).stream().count() + 1;
    return laps.saveAndFlush(LapRow.byHand(owner, run.id(), number, kind, lapTime, note));
  }

  @Transactional
  public void removeLap(UUID owner, UUID lapId) {
    LapRow lap = laps.findById(lapId).orElseThrow(() -> Problem.none("refusal.none.no_lap"));
    own(owner, lap.runId());
    laps.delete(lap);
  }
}
