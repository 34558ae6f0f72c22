package marvek.server.session;

import biweekly.Biweekly;
import biweekly.ICalVersion;
import biweekly.ICalendar;
import biweekly.component.VEvent;
import biweekly.io.TimezoneAssignment;
import biweekly.property.DateStart;
import biweekly.property.Status;
import biweekly.util.DateTimeComponents;
import biweekly.util.com.google.ical.compat.javautil.DateIterator;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Date;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.TimeZone;
import java.util.UUID;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.session.SessionKind;
import marvek.core.session.Start;
import marvek.core.session.Timing;
import marvek.core.session.TrackSession;
import marvek.core.session.TrackSessionBuilder;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/**
 * Sessions as iCalendar (RFC 5545), in and out. Nothing is fetched: times without a zone, and in
 * one that this machine does not know, are those on the circuit's wall; times in UTC are brought
 * there.
 */
@Component
class Calendars {
  private static final int MOST_EVENTS = 500;
  private static final int MOST_REPEATS = 60;
  private static final Duration LONGEST_AHEAD = Duration.ofDays(730);
  private static final int OCTETS = 75;
  private static final int USUAL_MINUTES = 20;
  private static final double SOME_LAP = 100;

  private final Sessions sessions;
  private final SessionRows rows;
  private final Clock clock;

  Calendars(Sessions sessions, SessionRows rows, Clock clock) {
    this.sessions = sessions;
    this.rows = rows;
    this.clock = clock;
  }

  /** Sessions as a calendar; cancelled ones are there and say so. */
  byte[] written(List<SessionRow> all) {
    ICalendar calendar = new ICalendar();
    calendar.setProductId("-//Marvek//Sessions//EN");
    for (SessionRow s : all) {
      VEvent event = new VEvent();
      event.setUid(s.calendarUid());
      event.setSequence(s.sequence());
      event.setDateTimeStamp(Date.from(s.changedAt()));
      event.setSummary(s.body().name());
      Timing timing = s.body().timing();
      event.setDateStart(Date.from(timing.begins()));
      event.setDateEnd(Date.from(timing.ends(SOME_LAP)));
      event.setStatus(
          timing.state() == Timing.State.CANCELLED ? Status.cancelled() : Status.confirmed());
      calendar.addEvent(event);
    }
    return folded(
        Biweekly.write(calendar).version(ICalVersion.V2_0).go().replaceAll("\r\n[ \t]", ""));
  }

  /** Lines of 75 octets at most, none within a letter (RFC 5545, 3.1). */
  static byte[] folded(String text) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    for (String line : text.split("\r\n")) {
      int used = 0;
      for (int i = 0; i < line.length(); ) {
        int point = line.codePointAt(i);
        byte[] letter = Character.toString(point).getBytes(StandardCharsets.UTF_8);
        if (used + letter.length > OCTETS) {
          out.writeBytes("\r\n ".getBytes(StandardCharsets.UTF_8));
          used = 1;
        }
        out.writeBytes(letter);
        used += letter.length;
        i += Character.charCount(point);
      }
      out.writeBytes("\r\n".getBytes(StandardCharsets.UTF_8));
    }
    return out.toByteArray();
  }

  /**
   * What came of a calendar.
   *
   * @param left what was left out and why
   */
  record Taken(int added, int changed, List<Said> left) {}

  /** Takes the sessions of a calendar; those that are known by their name in it are changed. */
  @Transactional
  Taken take(UUID owner, String fileName, byte[] file, @Nullable UUID reference, ZoneId circuit) {
    ICalendar calendar = read(file);
    if (calendar.getEvents().size() > MOST_EVENTS) {
      throw Problem.bad(
              "refusal.session.events_calendar",
              Value.figure(calendar.getEvents().size(), 0),
              Value.figure(MOST_EVENTS, 0))
          .at(fileName);
    }
    List<Said> left = new ArrayList<>();
    int added = 0;
    int changed = 0;
    UUID event = null;
    for (VEvent v : calendar.getEvents()) {
      String called = v.getSummary() == null ? "" : v.getSummary().getValue();
      DateStart start = v.getDateStart();
      if (start == null || !start.getValue().hasTime()) {
        left.add(
            called.isBlank()
                ? Said.of("calendar.no_hour")
                : Said.of("calendar.has_no_hour", Value.own(called)));
        continue;
      }
      ZoneId zone = zone(calendar, start, circuit);
      List<LocalDateTime> walls = walls(v, start, zone);
      for (int i = 0; i < walls.size(); i++) {
        String uid = uid(v, i);
        TrackSession session = session(v, called, walls.get(i), zone);
        Optional<SessionRow> known =
            uid == null ? Optional.empty() : rows.findFirstByOwnerIdAndCalendarUid(owner, uid);
        if (known.isPresent()) {
          changed += changed(known.get(), v, session) ? 1 : 0;
          continue;
        }
        if (event == null) {
          event = event(owner, fileName, zone);
        }
        sessions.add(owner, event, reference, session, uid);
        added++;
      }
    }
    return new Taken(added, changed, left);
  }

  private UUID event(UUID owner, String fileName, ZoneId zone) {
    String name = fileName.replaceAll("(?i)\\.ics$", "");
    return sessions
        .event(
            owner,
            name.isBlank() ? "Calendar" : name.substring(0, Math.min(100, name.length())),
            zone.getId())
        .id();
  }

  private static @Nullable String uid(VEvent v, int repeat) {
    String uid = v.getUid() == null ? null : v.getUid().getValue();
    if (uid == null || uid.isBlank()) {
      return null;
    }
    String one = repeat == 0 ? uid : uid + "#" + repeat;
    return one.length() > 200 ? one.substring(one.length() - 200) : one;
  }

  private static ICalendar read(byte[] file) {
    String text = new String(file, StandardCharsets.UTF_8);
    ICalendar calendar = null;
    if (text.contains("BEGIN:VCALENDAR")) {
      try {
        calendar = Biweekly.parse(text).first();
      } catch (RuntimeException e) {
        throw Problem.bad("refusal.session.calendar_cannot_read").at("calendar");
      }
    }
    if (calendar == null) {
      throw Problem.bad("refusal.session.no_calendar").at("calendar");
    }
    return calendar;
  }

  private static ZoneId zone(ICalendar calendar, DateStart start, ZoneId circuit) {
    TimezoneAssignment assigned = calendar.getTimezoneInfo().getTimezone(start);
    String id = assigned == null ? null : assigned.getTimeZone().getID();
    String named = id == null ? start.getParameters().getTimezoneId() : id;
    try {
      return named == null || named.isBlank() ? circuit : ZoneId.of(named);
    } catch (DateTimeException e) {
      return circuit;
    }
  }

  private List<LocalDateTime> walls(VEvent v, DateStart start, ZoneId zone) {
    List<LocalDateTime> out = new ArrayList<>();
    DateTimeComponents raw = start.getValue().getRawComponents();
    if (v.getRecurrenceRule() == null) {
      out.add(
          raw == null || raw.isUtc()
              ? start.getValue().toInstant().atZone(zone).toLocalDateTime()
              : LocalDateTime.of(
                  raw.getYear(),
                  raw.getMonth(),
                  raw.getDate(),
                  raw.getHour(),
                  raw.getMinute(),
                  raw.getSecond()));
      return out;
    }
    Instant end = clock.instant().plus(LONGEST_AHEAD);
    DateIterator dates = v.getDateIterator(TimeZone.getTimeZone(zone));
    while (dates.hasNext() && out.size() < MOST_REPEATS) {
      Instant at = dates.next().toInstant();
      if (at.isAfter(end)) {
        break;
      }
      out.add(at.atZone(zone).toLocalDateTime());
    }
    return out;
  }

  private static TrackSession session(VEvent v, String called, LocalDateTime wall, ZoneId zone) {
    int minutes = minutes(v);
    String name = called.isBlank() ? "Session" : called.strip();
    Timing.State state =
        v.getStatus() != null && v.getStatus().isCancelled()
            ? Timing.State.CANCELLED
            : Timing.State.ON;
    return TrackSession.of(
        kind(name),
        name.substring(0, Math.min(100, name.length())),
        Timing.of(new Start(wall, zone), minutes).as(state));
  }

  private static int minutes(VEvent v) {
    long millis = 0;
    if (v.getDateEnd() != null && v.getDateStart() != null) {
      millis = v.getDateEnd().getValue().getTime() - v.getDateStart().getValue().getTime();
    } else if (v.getDuration() != null) {
      millis = v.getDuration().getValue().toMillis();
    }
    long minutes = millis / 60_000;
    return minutes < 1 ? USUAL_MINUTES : (int) Math.min(1440, minutes);
  }

  /** What a name says of the kind; English, as the interface is. */
  static SessionKind kind(String name) {
    String low = name.toLowerCase(Locale.ROOT);
    if (low.contains("quali")) {
      return SessionKind.QUALIFYING;
    }
    if (low.contains("race")) {
      return SessionKind.RACE;
    }
    if (low.contains("practice")) {
      return SessionKind.PRACTICE;
    }
    return low.contains("coach") || low.contains("lesson")
        ? SessionKind.COACHING
        : SessionKind.TEST;
  }

  /** A later state of what is known changes its time; what was planned for it stays. */
  private boolean changed(SessionRow row, VEvent v, TrackSession session) {
    int sequence = v.getSequence() == null ? 0 : v.getSequence().getValue();
    if (row.body().timing().equals(session.timing()) || sequence < row.sequence()) {
      return false;
    }
    row.plan(
        row.referenceId(),
        TrackSessionBuilder.builder(row.body()).timing(session.timing()).build(),
        clock.instant());
    rows.saveAndFlush(row);
    return true;
  }
}
