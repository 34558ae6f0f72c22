package marvek.server.trial;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.IntStream;
import marvek.core.day.Variants;
import marvek.core.debrief.LapData;
import marvek.core.debrief.Sections;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Variant;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Value;
import marvek.core.session.Alternative;
import marvek.core.session.Alternative.Source;
import marvek.core.session.Alternatives;
import marvek.core.session.OwnSpread;
import marvek.core.session.PlannedTrial;
import marvek.core.session.Today;
import marvek.core.session.TrialPlan;
import marvek.core.technique.School;
import marvek.core.vehicle.SetupParameter;
import marvek.core.vehicle.SetupSheet;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleCheck;
import marvek.core.ways.Choices;
import marvek.core.words.Speaker;
import marvek.server.debrief.Evidences;
import marvek.server.problem.Problem;
import marvek.server.reference.References;
import marvek.server.reference.Revision;
import marvek.server.reference.WorkingCopies;
import marvek.server.run.RunRow;
import marvek.server.run.Runs;
import marvek.server.session.Planner;
import marvek.server.vehicle.Garage;
import marvek.server.vehicle.SheetRow;
import marvek.server.vehicle.Sheets;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Trials of one owner: what can be tried in a session, planning one, and taking what won. */
@Service
public class Trials {
  private static final int LATEST_RUNS = 4;
  private static final int LATEST_REVISIONS = 6;
  private static final int MOST = 200;
  // Laps within this of the session's grip tell how steady its driver is in it.
  private static final double ALIKE = 0.1;

  private final TrialRows rows;
  private final Planner planner;
  private final References references;
  private final WorkingCopies workingCopies;
  private final Runs runs;
  private final Evidences evidences;
  private final Garage garage;
  private final Sheets sheets;
  private final Clock clock;

  Trials(
      TrialRows rows,
      Planner planner,
      References references,
      WorkingCopies workingCopies,
      Runs runs,
      Evidences evidences,
      Garage garage,
      Sheets sheets,
      Clock clock) {
    this.rows = rows;
    this.planner = planner;
    this.references = references;
    this.workingCopies = workingCopies;
    this.runs = runs;
    this.evidences = evidences;
    this.garage = garage;
    this.sheets = sheets;
    this.clock = clock;
  }

  /** What can be tried in a corner in a session. */
  public List<PlannedTrial> driving(UUID owner, UUID session, String corner) {
    Planner.Outing day = planner.driven(owner, session);
    CornerEntry now = entry(day, corner);
    OwnSpread spread = spread(owner, day, corner);
    List<PlannedTrial> out = new ArrayList<>();
    for (Alternatives.Offer o : offers(owner, day, corner)) {
      out.add(planned(day, now, o, spread));
    }
    return out;
  }

  /** One school of a corner, where it is another way. */
  public Optional<PlannedTrial> school(UUID owner, UUID session, String corner, String key) {
    Planner.Outing day = planner.driven(owner, session);
    CornerEntry now = entry(day, corner);
    return Arrays.stream(School.values())
        .filter(s -> s.name().equals(key))
        .findFirst()
        .flatMap(
            s ->
                Alternatives.school(day.then(), day.reference().things(), day.entries(), corner, s))
        .map(o -> planned(day, now, o, spread(owner, day, corner)));
  }

  private static CornerEntry entry(Planner.Outing day, String corner) {
    return day.entries().stream()
        .filter(e -> e.corner().equals(corner))
        .findFirst()
        .orElseThrow(
            () -> Problem.bad("refusal.reference.no_corner", Value.own(corner)).at("corner"));
  }

  private List<Alternatives.Offer> offers(UUID owner, Planner.Outing day, String corner) {
    References.Opened opened = day.reference();
    List<Alternatives.Offer> out =
        new ArrayList<>(Alternatives.schools(day.then(), opened.things(), day.entries(), corner));
    CornerEntry now = entry(day, corner);
    ComputedLap base = opened.computed();
    CornerEntry own = opened.working().corners().get(base.indexOf(corner));
    for (Variant v : opened.working().variants()) {
      CornerEntry there = Variants.adjust(base, references.on(opened, v.day()), v, own).entry();
      Alternatives.written(
              day.then(), opened.things(), now, there, Source.DAY, v.kind().name(), v.name())
          .ifPresent(out::add);
    }
    List<Revision> revisions = references.revisions(owner, opened.row().id());
    List<CornerEntry> seen = new ArrayList<>();
    for (Revision r : revisions.stream().limit(LATEST_REVISIONS).toList()) {
      ReferenceContent content = references.driven(opened, r.number());
      content.corners().stream()
          .filter(e -> e.corner().equals(corner))
          .filter(e -> seen.stream().noneMatch(s -> s.points().equals(e.points())))
          .findFirst()
          .ifPresent(
              e -> {
                seen.add(e);
                Alternatives.written(
                        day.then(),
                        opened.things(),
                        now,
                        // Written for the reference's own day: it is another's here.
                        Today.carried(base, day.then(), opened.things(), day.session(), e),
                        Source.REVISION,
                        Integer.toString(r.number()),
                        "")
                    .ifPresent(out::add);
              });
    }
    return out;
  }

  private static PlannedTrial planned(
      Planner.Outing day, CornerEntry now, Alternatives.Offer offer, OwnSpread spread) {
    CornerEntry other = offer.way().entries().get(0);
    return PlannedTrial.of(
        now.corner(),
        Alternative.driving(Source.REFERENCE, "", "", List.of(now)),
        offer,
        spread,
        day.laps(),
        day.warmFrom(),
        Alternatives.traces(day.then(), day.reference().things(), now, other));
  }

  /** Sheets of the vehicle that can be tried against the one that is on. */
  public List<PlannedTrial> sheets(UUID owner, UUID session) {
    Planner.Outing day = planner.driven(owner, session);
    SetupSheet on = day.reference().row().sheet();
    OwnSpread spread = spread(owner, day, "");
    List<PlannedTrial> out = new ArrayList<>();
    for (SheetRow s : sheets.of(owner, day.reference().row().vehicleId())) {
      if (!s.sheet().equals(on)) {
        out.add(
            planned(
                owner, day, s.sheet(), Source.SHEET, s.id().toString(), s.sheet().name(), spread));
      }
    }
    return out;
  }

  private PlannedTrial planned(
      UUID owner,
      Planner.Outing day,
      SetupSheet sheet,
      Source source,
      String key,
      String label,
      OwnSpread spread) {
    Vehicle stands = garage.get(owner, day.reference().row().vehicleId()).numbers();
    SetupSheet on = day.reference().row().sheet();
    Alternatives.Offer offer =
        Alternatives.setUp(day.then(), stands, on, sheet, source, key, label);
    return PlannedTrial.of(
        "",
        Alternative.setUp(Source.REFERENCE, "", on == null ? "" : on.name(), on),
        offer,
        spread,
        day.laps(),
        day.warmFrom(),
        Alternatives.traces(day.then(), stands, on, sheet));
  }

  /**
   * A trial of one setting of the sheet that is on.
   *
   * @param parameter id
   * @param number to be tried
   */
  public PlannedTrial setting(UUID owner, UUID session, String parameter, double number) {
    Planner.Outing day = planner.driven(owner, session);
    SetupParameter known =
        SetupParameter.find(parameter)
            .orElseThrow(() -> Problem.bad("refusal.trial.no_setting").at("setting"));
    SetupSheet on = day.reference().row().sheet();
    List<SetupSheet.Setting> settings = new ArrayList<>(on == null ? List.of() : on.settings());
    settings.removeIf(s -> s.parameter().equals(parameter));
    settings.add(new SetupSheet.Setting(parameter, number, "", "", ""));
    SetupSheet sheet =
        new SetupSheet(
            on == null ? Speaker.PLAIN.say(known.label()) : on.name(),
            on == null ? SetupSheet.Purpose.DRY : on.purpose(),
            settings,
            "");
    Vehicle stands = garage.get(owner, day.reference().row().vehicleId()).numbers();
    List<VehicleCheck.Finding> findings = sheet.problems(stands);
    if (!findings.isEmpty()) {
      throw Problem.bad("refusal.trial.setting_wrong", findings.get(0).message().in())
          .at("setting");
    }
    return planned(
        owner, day, sheet, Source.SETTING, parameter, plain(number), spread(owner, day, ""));
  }

  private static String plain(double value) {
    return value == Math.rint(value) ? Long.toString((long) value) : Double.toString(value);
  }

  /** How steady the driver was in the latest laps on a day like that of a session. */
  private OwnSpread spread(UUID owner, Planner.Outing day, String corner) {
    List<double[]> times = new ArrayList<>();
    References.Opened opened = day.reference();
    Sections sections = new Sections(opened.computed(), opened.working().corners());
    for (RunRow r :
        runs.of(owner, opened.row().id()).stream()
            .filter(r -> r.layoutVersionId().equals(opened.row().layoutVersionId()))
            .limit(LATEST_RUNS)
            .toList()) {
      Evidences.Judged judged = evidences.judged(runs.read(owner, r.id()), null);
      double grip = judged.computed().conditions().grip() / day.then().conditions().grip();
      if (judged.part() != null && judged.part().day() != null && Math.abs(grip - 1) < ALIKE) {
        times.add(seconds(judged.laps(), opened.computed(), sections, corner));
      }
    }
    return OwnSpread.of(times, corner.isEmpty() ? OwnSpread.USUAL_LAP : OwnSpread.USUAL_CORNER);
  }

  private static double[] seconds(
      List<LapData> laps, ComputedLap computed, Sections sections, String corner) {
    return laps.stream()
        .filter(l -> l.times().length > 0)
        .mapToDouble(
            l -> corner.isEmpty() ? l.lapTime() : sections.time(l, computed.indexOf(corner)))
        .toArray();
  }

  /** Keeps a trial for a session. */
  @Transactional
  public UUID plan(UUID owner, UUID session, PlannedTrial trial) {
    Planner.Outing day = planner.driven(owner, session);
    if (rows.findByReferenceIdOrderByCreatedAtDesc(day.reference().row().id()).size() >= MOST) {
      throw Problem.full("refusal.trial.trials", Value.figure(MOST, 0));
    }
    return rows.save(
            new CornerTrial(owner, day.reference().row().id(), session, trial, clock.instant()))
        .id();
  }

  /**
   * What is driven lap by lap when a trial of two ways of driving is driven in its order.
   *
   * @param laps from line to line
   */
  @Transactional(readOnly = true)
  public List<List<CornerEntry>> inTurn(UUID owner, UUID reference, UUID id, int laps) {
    CornerTrial of = own(owner, id);
    if (!of.referenceId().equals(reference)) {
      throw Problem.none("refusal.none.no_trial_reference");
    }
    PlannedTrial trial = of.body();
    if (trial.ofStints() || trial.corner().isEmpty()) {
      throw Problem.bad("refusal.trial.trial_changes_vehicle_done").at("trial");
    }
    return IntStream.rangeClosed(1, laps)
        .mapToObj(trial::way)
        .map(w -> w == TrialPlan.Way.B ? trial.b().entries() : trial.a().entries())
        .toList();
  }

  CornerTrial own(UUID owner, UUID id) {
    CornerTrial t = rows.findById(id).orElseThrow(() -> Problem.none("refusal.none.no_trial"));
    references.open(owner, t.referenceId());
    return t;
  }

  @Transactional
  public void mark(UUID owner, UUID id, Map<String, String> marks) {
    CornerTrial t = own(owner, id);
    t.mark(marks);
    rows.save(t);
  }

  @Transactional
  public void remove(UUID owner, UUID id) {
    rows.delete(own(owner, id));
  }

  /** Takes a way into the reference, or a sheet onto the vehicle. */
  @Transactional
  public void take(UUID owner, UUID id, boolean other) {
    CornerTrial t = own(owner, id);
    back(owner, t);
    Alternative way = other ? t.body().b() : t.body().a();
    CornerTrial.Before before =
        switch (way.source()) {
          case WORDS -> throw Problem.bad("refusal.trial.trial_words_only").at("way");
          case SHEET, SETTING -> putOn(owner, t, way);
          case REFERENCE -> null;
          case SCHOOL, DAY, REVISION -> replaced(owner, t, way);
        };
    t.take(other ? "B" : "A", before);
    rows.save(t);
  }

  private CornerTrial.Before replaced(UUID owner, CornerTrial t, Alternative way) {
    List<CornerEntry> was = workingCopies.replace(owner, t.referenceId(), entries(owner, t, way));
    return new CornerTrial.Before(was, standing(owner, t, was), null, null);
  }

  /** Corners as they stand in the reference now. */
  private List<CornerEntry> standing(UUID owner, CornerTrial t, List<CornerEntry> of) {
    List<String> corners = of.stream().map(CornerEntry::corner).toList();
    return references.open(owner, t.referenceId()).working().corners().stream()
        .filter(e -> corners.contains(e.corner()))
        .toList();
  }

  /** What a way says of the reference itself, whatever the day that it was tried on. */
  private List<CornerEntry> entries(UUID owner, CornerTrial t, Alternative way) {
    References.Opened opened = references.open(owner, t.referenceId());
    String corner = t.body().corner();
    if (way.source() == Source.SCHOOL) {
      List<CornerEntry> out =
          Choices.choose(
              opened.computed(),
              opened.things(),
              opened.working().corners(),
              corner,
              School.valueOf(way.key()));
      if (out.isEmpty()) {
        throw Problem.bad("refusal.trial.way_cannot_followed_reference").at("way");
      }
      return out;
    }
    if (way.source() == Source.REVISION) {
      return references.driven(opened, Integer.parseInt(way.key())).corners().stream()
          .filter(e -> e.corner().equals(corner))
          .toList();
    }
    return way.entries();
  }

  private CornerTrial.Before putOn(UUID owner, CornerTrial t, Alternative way) {
    UUID vehicle = references.open(owner, t.referenceId()).row().vehicleId();
    UUID was = garage.get(owner, vehicle).nextSheetId();
    SetupSheet sheet = way.sheet();
    UUID put =
        way.source() == Source.SHEET || sheet == null
            ? UUID.fromString(way.key())
            : sheets
                .add(
                    owner,
                    vehicle,
                    new SetupSheet(
                        shortened(sheet.name() + ", " + way.key() + " " + way.label()),
                        sheet.purpose(),
                        sheet.settings(),
                        sheet.note()))
                .id();
    sheets.putOn(owner, vehicle, put);
    return new CornerTrial.Before(List.of(), List.of(), was, put);
  }

  private static String shortened(String name) {
    return name.length() > 100 ? name.substring(0, 100) : name;
  }

  /** Puts back what stood before a way was taken. */
  @Transactional
  public void giveBack(UUID owner, UUID id) {
    CornerTrial t = own(owner, id);
    back(owner, t);
    rows.save(t);
  }

  /** Nothing that was changed since is lost: then it is for the driver to say what stands. */
  private void back(UUID owner, CornerTrial t) {
    CornerTrial.Before was = t.was();
    if (was != null && was.entries().isEmpty()) {
      UUID vehicle = references.open(owner, t.referenceId()).row().vehicleId();
      UUID sheet = was.sheet();
      if (Objects.equals(garage.get(owner, vehicle).nextSheetId(), was.put())) {
        sheets.putOn(
            owner, vehicle, sheet != null && sheets.find(owner, sheet).isEmpty() ? null : sheet);
      }
    } else if (was != null) {
      if (!standing(owner, t, was.entries()).equals(was.taken())) {
        throw Problem.conflict(null, "refusal.trial.corner_changed_since_way");
      }
      workingCopies.replace(owner, t.referenceId(), was.entries());
    }
    t.take(null, null);
  }

  @Transactional(readOnly = true)
  public List<CornerTrial> ofReference(UUID reference) {
    return rows.findByReferenceIdOrderByCreatedAtDesc(reference);
  }

  @Transactional(readOnly = true)
  public List<CornerTrial> ofSessions(List<UUID> sessions) {
    return rows.findBySessionIdInOrderByCreatedAt(sessions);
  }

  /** Entries with the sooner braking of both ways, so that a section begins before either. */
  static List<CornerEntry> soonest(
      ComputedLap computed, List<CornerEntry> entries, PlannedTrial t) {
    Map<String, CornerEntry> sooner = new HashMap<>();
    List<CornerEntry> ways = new ArrayList<>(t.a().entries());
    ways.addAll(t.b().entries());
    for (CornerEntry e : entries) {
      CornerEntry best = e;
      for (CornerEntry w : ways) {
        if (w.corner().equals(e.corner()) && before(computed, w, best)) {
          best = w;
        }
      }
      sooner.put(e.corner(), best);
    }
    return entries.stream().map(e -> sooner.getOrDefault(e.corner(), e)).toList();
  }

  private static boolean before(ComputedLap computed, CornerEntry a, CornerEntry b) {
    Double x = a.station(PointKind.BRAKE).orElse(a.station(PointKind.TURN_IN).orElse(null));
    Double y = b.station(PointKind.BRAKE).orElse(b.station(PointKind.TURN_IN).orElse(null));
    return x != null && y != null && computed.road().apart(x, y) > 0;
  }
}
