package marvek.server.session;

import java.time.Clock;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.zone.ZoneRulesException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import marvek.core.circuit.Corner;
import marvek.core.entry.DayKind;
import marvek.core.said.Value;
import marvek.core.session.DaySheet;
import marvek.core.session.Errand;
import marvek.core.session.SessionDay;
import marvek.core.session.SessionFuelBuilder;
import marvek.core.session.SessionTyresBuilder;
import marvek.core.session.Start;
import marvek.core.session.Timing;
import marvek.core.session.TimingBuilder;
import marvek.core.session.Told;
import marvek.core.session.TrackSession;
import marvek.core.session.TrackSessionBuilder;
import marvek.server.problem.Problem;
import marvek.server.reference.References;
import marvek.server.run.RunRow;
import marvek.server.run.Runs;
import marvek.server.sharing.Sharing;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Events and sessions, and the log of each. They are their driver's alone. */
@Service
public class Sessions {
  private static final int MOST_EVENTS = 500;
  private static final int MOST_SESSIONS = 60;
  private static final int MOST_LINES = 3000;
  private static final int SESSIONS_BACK = 4;
  private static final Duration LATELY = Duration.ofHours(12);
  // What takes a lap where no reference says more, s.
  private static final double SOME_LAP = 100;

  private final EventRows events;
  private final SessionRows rows;
  private final LineRows lines;
  private final SpokenRows spoken;
  private final References references;
  private final Runs runs;
  private final Sharing sharing;
  private final Clock clock;

  Sessions(
      EventRows events,
      SessionRows rows,
      LineRows lines,
      SpokenRows spoken,
      References references,
      Runs runs,
      Sharing sharing,
      Clock clock) {
    this.events = events;
    this.rows = rows;
    this.lines = lines;
    this.spoken = spoken;
    this.references = references;
    this.runs = runs;
    this.sharing = sharing;
    this.clock = clock;
  }

  /** What is due next, for the paddock. */
  public record NextDue(
      UUID session,
      String event,
      String name,
      Errand errand,
      Instant from,
      Instant until,
      Instant begins,
      ZoneId zone) {}

  @Transactional(readOnly = true)
  public List<NextDue> next(UUID owner, int most) {
    Instant now = clock.instant();
    List<SessionRow> soon =
        rows.findByOwnerIdAndRemovedAtIsNullAndStartsAtAfterOrderByStartsAt(
            owner, now.minus(LATELY));
    Map<UUID, String> names = new TreeMap<>();
    events.findByOwnerIdOrderByCreatedAt(owner).forEach(e -> names.put(e.id(), e.name()));
    List<NextDue> out = new ArrayList<>();
    for (SessionRow s : soon) {
      if (out.size() >= most || s.made()) {
        continue;
      }
      DaySheet.next(sheet(s, SOME_LAP, false), now)
          .ifPresent(
              d ->
                  out.add(
                      new NextDue(
                          s.id(),
                          names.getOrDefault(s.eventId(), ""),
                          s.body().name(),
                          d.errand(),
                          d.from(),
                          d.until(),
                          s.startsAt(),
                          s.body().timing().start().zone())));
    }
    return out;
  }

  List<DaySheet.Due> sheet(SessionRow s, double lapTime, boolean first) {
    return DaySheet.of(s.body().timing(), lapTime, first, s.body().done());
  }

  /** Whether a session is the first of its event. */
  boolean first(SessionRow s) {
    return rows.findByEventIdAndRemovedAtIsNullOrderByStartsAt(s.eventId()).stream()
        .findFirst()
        .map(f -> f.id().equals(s.id()))
        .orElse(true);
  }

  @Transactional(readOnly = true)
  List<EventRow> events(UUID owner) {
    return events.findByOwnerIdOrderByCreatedAt(owner);
  }

  @Transactional(readOnly = true)
  List<SessionRow> all(UUID owner) {
    return rows.findByOwnerIdAndRemovedAtIsNullOrderByStartsAt(owner);
  }

  @Transactional
  EventRow event(UUID owner, String name, String zone) {
    if (events.findByOwnerIdOrderByCreatedAt(owner).size() >= MOST_EVENTS) {
      throw Problem.full("refusal.session.events", Value.figure(MOST_EVENTS, 0));
    }
    return events.save(new EventRow(owner, name.strip(), zone(zone), clock.instant()));
  }

  static ZoneId zone(String zone) {
    try {
      return ZoneId.of(zone);
    } catch (ZoneRulesException e) {
      throw Problem.bad("refusal.session.no_time_zone", Value.own(zone)).at("zone");
    } catch (DateTimeException e) {
      throw Problem.bad("refusal.session.no_time_zone_b", Value.own(zone)).at("zone");
    }
  }

  /** Makes an event; answers its id. */
  public UUID newEvent(UUID owner, String name, ZoneId zone) {
    return event(owner, name, zone.getId()).id();
  }

  /** Notes that something was done. */
  public void tick(UUID owner, UUID session, Errand errand) {
    done(owner, session, errand, true);
  }

  /** Plans a session; answers its id. */
  public UUID planned(UUID owner, UUID event, UUID reference, TrackSession session) {
    return add(owner, event, reference, session, null).id();
  }

  /** Names of sessions by id. */
  @Transactional(readOnly = true)
  public Map<UUID, String> names(UUID owner) {
    Map<UUID, String> out = new TreeMap<>();
    all(owner).forEach(s -> out.put(s.id(), s.body().name()));
    return out;
  }

  @Transactional
  void rename(UUID owner, UUID id, String name) {
    EventRow event = ownEvent(owner, id);
    event.called(name.strip());
    events.saveAndFlush(event);
  }

  EventRow ownEvent(UUID owner, UUID id) {
    return events
        .findById(id)
        .filter(e -> e.ownerId().equals(owner))
        .orElseThrow(() -> Problem.none("refusal.none.no_event"));
  }

  @Transactional
  void removeEvent(UUID owner, UUID id) {
    EventRow event = ownEvent(owner, id);
    if (!rows.findByEventIdAndRemovedAtIsNullOrderByStartsAt(id).isEmpty()) {
      throw Problem.conflict(null, "refusal.session.sessions_event");
    }
    events.delete(event);
  }

  /** Refuses where somebody has no such session. */
  @Transactional(readOnly = true)
  public void known(UUID owner, UUID id) {
    own(owner, id);
  }

  @Transactional(readOnly = true)
  public SessionRow own(UUID owner, UUID id) {
    return rows.findById(id)
        .filter(s -> s.ownerId().equals(owner))
        .orElseThrow(() -> Problem.none("refusal.none.no_session"));
  }

  /** The reference that a session is for. */
  @Transactional(readOnly = true)
  UUID referenceOf(UUID owner, UUID id) {
    UUID reference = own(owner, id).referenceId();
    if (reference == null) {
      throw Problem.bad("refusal.session.session_no_reference").at("session");
    }
    return reference;
  }

  /** Whose session it is, for its driver and for a coach who was let in to it. */
  @Transactional(readOnly = true)
  UUID driverOf(UUID reader, UUID id) {
    SessionRow row =
        rows.findById(id)
            .filter(
                s ->
                    s.ownerId().equals(reader)
                        || s.removedAt() == null
                            && s.referenceId() != null
                            && sharing.sessionsSeen(s.referenceId(), reader).contains(id))
            .orElseThrow(() -> Problem.none("refusal.none.no_session"));
    return row.ownerId();
  }

  /** The next session that is for a reference, else the last one. */
  @Transactional(readOnly = true)
  public Optional<UUID> nextOf(UUID owner, UUID reference) {
    List<SessionRow> all =
        rows.findByOwnerIdAndReferenceIdAndRemovedAtIsNullOrderByStartsAt(owner, reference);
    Instant now = clock.instant();
    return all.stream()
        .filter(s -> s.body().timing().begins().isAfter(now))
        .findFirst()
        .or(() -> all.stream().reduce((a, b) -> b))
        .map(SessionRow::id);
  }

  /** A session and whose it is. */
  public record Coming(UUID owner, UUID session) {}

  /** The next few sessions of anybody that are for a reference. */
  @Transactional(readOnly = true)
  public List<Coming> coming() {
    return rows
        .findTop5ByReferenceIdNotNullAndRemovedAtIsNullAndStartsAtAfterOrderByStartsAt(
            clock.instant())
        .stream()
        .map(s -> new Coming(s.ownerId(), s.id()))
        .toList();
  }

  @Transactional
  SessionRow add(
      UUID owner,
      UUID event,
      @Nullable UUID reference,
      TrackSession session,
      @Nullable String calendarUid) {
    EventRow of = ownEvent(owner, event);
    if (rows.findByEventIdAndRemovedAtIsNullOrderByStartsAt(event).size() >= MOST_SESSIONS) {
      throw Problem.full("refusal.session.event_up_sessions", Value.figure(MOST_SESSIONS, 0));
    }
    session.check();
    mine(owner, reference);
    return rows.save(
        new SessionRow(owner, of.id(), reference, session, calendarUid, clock.instant()));
  }

  private void mine(UUID owner, @Nullable UUID reference) {
    if (reference != null) {
      references.open(owner, reference);
    }
  }

  @Transactional
  SessionRow plan(
      UUID owner, UUID id, int version, @Nullable UUID reference, TrackSession session) {
    SessionRow row = own(owner, id);
    standing(row, version);
    session.check();
    mine(owner, reference);
    row.plan(reference, session, clock.instant());
    return rows.saveAndFlush(row);
  }

  private static void standing(SessionRow row, int version) {
    if (row.version() != version) {
      throw Problem.conflict(row.body(), "refusal.session.session_changed_another_device");
    }
  }

  /** What can become of a session, in one press. */
  enum Turn {
    LATER,
    SHORTENED,
    STOPPED,
    CANCELLED,
    ON
  }

  /** Takes in what became of a session; the press counts on what stands, whoever was first. */
  @Transactional
  SessionRow turned(UUID owner, UUID id, Turn turn, int minutes) {
    SessionRow row = own(owner, id);
    Timing timing = row.body().timing();
    Timing other =
        switch (turn) {
          case LATER -> timing.later(minutes).as(Timing.State.ON);
          case SHORTENED ->
              TimingBuilder.builder(timing).shortened(minutes).state(Timing.State.ON).build();
          case STOPPED -> timing.as(Timing.State.STOPPED);
          case CANCELLED -> timing.as(Timing.State.CANCELLED);
          case ON -> timing.asAnnounced();
        };
    TrackSession body = TrackSessionBuilder.builder(row.body()).timing(other).build();
    body.check();
    row.plan(row.referenceId(), body, clock.instant());
    return rows.saveAndFlush(row);
  }

  @Transactional
  SessionRow done(UUID owner, UUID id, Errand errand, boolean done) {
    SessionRow row = own(owner, id);
    List<Errand> all = new ArrayList<>(row.body().done());
    all.remove(errand);
    if (done) {
      all.add(errand);
    }
    row.plan(
        row.referenceId(),
        TrackSessionBuilder.builder(row.body()).done(all).build(),
        clock.instant());
    return rows.saveAndFlush(row);
  }

  /**
   * Another session like one, at another time: the same car, conditions and rules, with what the
   * log of that one told about pressures and fuel, and tyres as old as they are then.
   */
  @Transactional
  SessionRow like(UUID owner, UUID id, LocalDateTime wall, @Nullable String name) {
    SessionRow last = own(owner, id);
    TrackSession was = last.body();
    Timing timing =
        new Timing(
            new Start(wall, was.timing().start().zone()),
            was.timing().minutes(),
            was.timing().laps(),
            0,
            null,
            Timing.State.ON);
    List<Told> told = told(last.id());
    TrackSessionBuilder next =
        TrackSessionBuilder.builder(was.again(timing))
            .name(name == null || name.isBlank() ? was.name() : name.strip());
    SessionTyresBuilder tyres = SessionTyresBuilder.builder(was.tyres());
    told.stream().filter(Told::fresh).reduce((a, b) -> b).ifPresent(t -> tyres.lastHot(t.hot()));
    int laps = lapsDriven(last.id());
    tyres.age(was.tyres().age() + laps);
    next.tyres(tyres.build());
    next.fuel(SessionFuelBuilder.builder(was.fuel()).used(was.fuel().used(told)).build());
    return add(owner, last.eventId(), last.referenceId(), next.build(), null);
  }

  private int lapsDriven(UUID session) {
    List<RunRow> driven = runs(session);
    return driven.isEmpty() ? 0 : runs.lapLines(driven).size();
  }

  @Transactional
  void remove(UUID owner, UUID id, boolean back) {
    SessionRow row = own(owner, id);
    if (back && row.joinedInto() != null) {
      row.joined(null, clock.instant());
    } else {
      row.removed(back ? null : clock.instant());
    }
    rows.saveAndFlush(row);
  }

  @Transactional
  void read(UUID owner, UUID id, Map<String, String> said) {
    SessionRow row = own(owner, id);
    if (said.size() > 400 || said.values().stream().anyMatch(v -> v.length() > 400)) {
      throw Problem.bad("refusal.session.so_much_brief_cannot").at("said");
    }
    row.read(said, clock.instant());
    rows.saveAndFlush(row);
    done(owner, id, Errand.BRIEF, true);
  }

  /** A run for a session. */
  @Transactional
  RunRow run(UUID owner, UUID id) {
    SessionRow row = own(owner, id);
    UUID reference = row.referenceId();
    if (reference == null) {
      throw Problem.bad("refusal.session.session_no_reference_drive").at("reference");
    }
    Instant begins = row.startsAt();
    Instant now = clock.instant();
    int before = runs(id).size();
    RunRow run =
        runs.start(
            owner,
            reference,
            row.body().name() + (before == 0 ? "" : ", run " + (before + 1)),
            begins.isBefore(now) ? begins : now,
            day(row.body().day()));
    runs.into(run, id);
    return run;
  }

  /** What the driver's word of the day is: that of the plan, and in the dry what the laps tell. */
  private static @Nullable String day(SessionDay day) {
    if (!day.like().isEmpty()) {
      return day.like();
    }
    return switch (day.day().road().state()) {
      case DRY -> null;
      case DAMP -> DayKind.DAMP.name();
      case WET -> DayKind.WET.name();
      case DRYING -> DayKind.DRYING.name();
    };
  }

  /** Puts a run into another session, or into none. */
  @Transactional
  public void into(UUID owner, UUID run, @Nullable UUID session) {
    RunRow row = runs.own(owner, run);
    if (session != null) {
      own(owner, session);
    }
    runs.into(row, session);
  }

  /** Whether a line of somebody's was taken back. */
  @Transactional(readOnly = true)
  boolean takenBack(UUID owner, UUID line) {
    return lines.findById(line).filter(l -> l.ownerId().equals(owner) && l.removed()).isPresent();
  }

  // --- joined and parted ---

  /** A session and all that were joined into it. */
  @Transactional(readOnly = true)
  public List<UUID> group(UUID session) {
    List<UUID> out = new ArrayList<>(List.of(session));
    List<UUID> more = out;
    while (!more.isEmpty()) {
      more =
          rows.findByJoinedIntoInOrderByStartsAt(more).stream()
              .map(SessionRow::id)
              .filter(id -> !out.contains(id))
              .toList();
      out.addAll(more);
    }
    return out;
  }

  /** Sessions that were joined into one. */
  List<SessionRow> parts(UUID session) {
    return rows.findByJoinedIntoInOrderByStartsAt(List.of(session));
  }

  /** The session that each one of somebody's belongs to: itself, or the one it was joined into. */
  @Transactional(readOnly = true)
  Map<UUID, UUID> wholes(UUID owner) {
    Map<UUID, UUID> into = new TreeMap<>();
    rows.findByOwnerIdAndJoinedIntoNotNull(owner)
        .forEach(r -> Optional.ofNullable(r.joinedInto()).ifPresent(to -> into.put(r.id(), to)));
    Map<UUID, UUID> out = new HashMap<>();
    for (SessionRow r : all(owner)) {
      out.put(r.id(), r.id());
    }
    for (UUID part : into.keySet()) {
      UUID whole = part;
      for (int i = 0; i <= into.size() && into.containsKey(whole); i++) {
        whole = into.get(whole);
      }
      out.put(part, whole);
    }
    return out;
  }

  /** How many runs each session has, with those of the sessions joined into it. */
  @Transactional(readOnly = true)
  Map<UUID, Integer> driven(UUID owner) {
    Map<UUID, UUID> wholes = wholes(owner);
    Map<UUID, Integer> out = new TreeMap<>();
    runs.bySession(owner)
        .forEach(
            (session, count) ->
                out.merge(wholes.getOrDefault(session, session), count.intValue(), Integer::sum));
    return out;
  }

  /** Runs of a session and of those joined into it. */
  List<RunRow> runs(UUID session) {
    return runs.ofSessions(group(session));
  }

  /** Takes a session into another one, or makes it one of its own again. */
  @Transactional
  void join(UUID owner, UUID id, @Nullable UUID into) {
    SessionRow row = own(owner, id);
    if (into != null) {
      SessionRow other = own(owner, into);
      if (group(id).contains(into) || other.removedAt() != null) {
        throw Problem.bad("refusal.session.session_cannot_joined_into").at("into");
      }
      UUID mine = row.referenceId();
      if (mine != null && !mine.equals(other.referenceId())) {
        throw Problem.bad("refusal.session.two_sessions_different_references").at("into");
      }
    }
    row.joined(into, clock.instant());
    rows.saveAndFlush(row);
  }

  /** Makes some runs of a session a session of their own, at the time of the first of them. */
  @Transactional
  SessionRow part(UUID owner, UUID id, List<UUID> some) {
    SessionRow row = own(owner, id);
    List<RunRow> all = runs(id);
    List<RunRow> moved = all.stream().filter(r -> some.contains(r.id())).toList();
    if (moved.size() != some.stream().distinct().count()) {
      throw Problem.bad("refusal.session.not_all_these_runs").at("runs");
    }
    if (moved.size() == all.size()) {
      throw Problem.bad("refusal.session.no_run_would_left").at("runs");
    }
    TrackSession was = row.body();
    Timing timing =
        new Timing(
            new Start(
                LocalDateTime.ofInstant(moved.get(0).drivenAt(), was.timing().start().zone()),
                was.timing().start().zone()),
            was.timing().minutes(),
            was.timing().laps(),
            0,
            null,
            Timing.State.ON);
    SessionRow made = add(owner, row.eventId(), row.referenceId(), was.again(timing), null);
    moved.forEach(r -> runs.into(r, made.id()));
    return made;
  }

  /** Moves a session into another event of the same driver's; its clock stays its own. */
  @Transactional
  void toEvent(UUID owner, UUID id, UUID event) {
    SessionRow row = own(owner, id);
    EventRow to = ownEvent(owner, event);
    if (rows.findByEventIdAndRemovedAtIsNullOrderByStartsAt(event).size() >= MOST_SESSIONS) {
      throw Problem.full("refusal.session.event_up_sessions", Value.figure(MOST_SESSIONS, 0));
    }
    row.moved(to.id(), clock.instant());
    rows.saveAndFlush(row);
  }

  // --- log ---

  @Transactional(readOnly = true)
  List<LineRow> lines(UUID owner, UUID session) {
    own(owner, session);
    return lines.findBySessionIdInOrderBySaidAtAscIdAsc(group(session));
  }

  /** What was said of a session, in the order said, without what was taken back. */
  @Transactional(readOnly = true)
  List<Told> told(UUID session) {
    return lines.findBySessionIdInOrderBySaidAtAscIdAsc(group(session)).stream()
        .filter(l -> !l.removed())
        .map(LineRow::body)
        .toList();
  }

  /** What was said in the latest sessions for a reference before a time, session by session. */
  @Transactional(readOnly = true)
  List<List<Told>> saidBefore(UUID owner, UUID reference, Instant before) {
    List<SessionRow> earlier =
        rows.findByOwnerIdAndRemovedAtIsNullOrderByStartsAt(owner).stream()
            .filter(s -> reference.equals(s.referenceId()) && s.startsAt().isBefore(before))
            .toList();
    Map<UUID, UUID> wholes = wholes(owner);
    Map<UUID, List<Told>> said = new HashMap<>();
    lines.findBySessionIdInOrderBySaidAtAscIdAsc(List.copyOf(wholes.keySet())).stream()
        .filter(l -> !l.removed())
        .forEach(
            l ->
                said.computeIfAbsent(
                        wholes.getOrDefault(l.sessionId(), l.sessionId()), k -> new ArrayList<>())
                    .add(l.body()));
    List<List<Told>> told =
        earlier.stream()
            .map(s -> said.getOrDefault(s.id(), List.of()))
            .filter(t -> !t.isEmpty())
            .toList();
    return told.subList(Math.max(0, told.size() - SESSIONS_BACK), told.size());
  }

  /**
   * A line as a device sends it.
   *
   * @param removed whether it was taken back there
   */
  public record Sent(UUID id, String device, Instant at, Told told, boolean removed) {}

  /** Takes lines in; one that came before changes only in whether it was taken back. */
  @Transactional
  public void take(UUID owner, UUID session, List<Sent> sent) {
    SessionRow row = own(owner, session);
    List<String> corners = corners(owner, row);
    List<UUID> group = group(session);
    int there = lines.findBySessionIdInOrderBySaidAtAscIdAsc(group).size();
    for (Sent s : sent) {
      Optional<LineRow> known = lines.findById(s.id());
      if (known.isPresent()) {
        // The log of a session shows the lines of those joined into it: they are taken back here
        // too.
        if (!known.get().ownerId().equals(owner) || !group.contains(known.get().sessionId())) {
          throw Problem.bad("refusal.session.line_another_ones").at("log");
        }
        known.get().taken(s.removed());
        lines.saveAndFlush(known.get());
        if (s.removed()) {
          spoken.deleteById(s.id());
        }
        continue;
      }
      s.told().check(corners);
      if (++there > MOST_LINES) {
        throw Problem.full("refusal.session.log_full");
      }
      LineRow line =
          new LineRow(s.id(), owner, session, s.device(), s.at(), s.told(), clock.instant());
      line.taken(s.removed());
      lines.saveAndFlush(line);
    }
  }

  private List<String> corners(UUID owner, SessionRow row) {
    UUID reference = row.referenceId();
    return reference == null
        ? List.of()
        : references.open(owner, reference).layout().corners().stream().map(Corner::id).toList();
  }
}
