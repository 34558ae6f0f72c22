package marvek.server.session;

import java.time.Clock;
import java.util.Optional;
import java.util.UUID;
import marvek.server.keeping.Allowance;
import marvek.server.problem.Problem;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What a driver says aloud after a run, kept as it was recorded; the driver's alone. */
@Service
class SpokenNotes {
  /** Bytes; a minute as a browser records it is half of it. */
  static final int MOST = 1_000_000;

  private final SpokenRows rows;
  private final Sessions sessions;
  private final Allowance allowance;
  private final Clock clock;

  SpokenNotes(SpokenRows rows, Sessions sessions, Allowance allowance, Clock clock) {
    this.rows = rows;
    this.sessions = sessions;
    this.allowance = allowance;
    this.clock = clock;
  }

  /** A sound and what it is. */
  record Sound(String type, byte[] bytes) {}

  /** Keeps the sound of a line; sent again under the same id, nothing happens. */
  @Transactional
  void keep(UUID owner, UUID session, UUID line, byte[] sound) {
    sessions.own(owner, session);
    if (sound.length > MOST) {
      throw Problem.bad("refusal.session.note_larger").at("sound");
    }
    Optional<SpokenRow> there = rows.findById(line);
    if (there.isPresent()) {
      if (!there.get().ownerId().equals(owner) || !there.get().sessionId().equals(session)) {
        throw Problem.bad("refusal.session.id_taken").at("id");
      }
      return;
    }
    String type = type(sound);
    if (sessions.takenBack(owner, line)) {
      // Said, and taken back before it was sent: nothing of it is kept.
      return;
    }
    allowance.room(owner, sound.length);
    rows.save(new SpokenRow(line, owner, session, type, sound, clock.instant()));
  }

  @Transactional(readOnly = true)
  Sound of(UUID reader, UUID session, UUID line) {
    UUID owner = sessions.driverOf(reader, session);
    return rows.findById(line)
        .filter(r -> r.ownerId().equals(owner) && sessions.group(session).contains(r.sessionId()))
        .map(r -> new Sound(r.type(), r.sound()))
        .orElseThrow(() -> Problem.none("refusal.none.no_note"));
  }

  /** What a sound is by what is in it, whatever it is called. */
  private static String type(byte[] b) {
    if (begins(b, 0, 0x1A, 0x45, 0xDF, 0xA3)) {
      return "audio/webm";
    }
    if (begins(b, 0, 'O', 'g', 'g', 'S')) {
      return "audio/ogg";
    }
    if (begins(b, 4, 'f', 't', 'y', 'p')) {
      return "audio/mp4";
    }
    if (begins(b, 0, 'R', 'I', 'F', 'F') && begins(b, 8, 'W', 'A', 'V', 'E')) {
      return "audio/wav";
    }
    throw Problem.bad("refusal.session.no_sound_browser_records").at("sound");
  }

  private static boolean begins(byte[] b, int from, int... with) {
    if (b.length < from + with.length) {
      return false;
    }
    for (int i = 0; i < with.length; i++) {
      if ((b[from + i] & 0xFF) != with[i]) {
        return false;
      }
    }
    return true;
  }
}
