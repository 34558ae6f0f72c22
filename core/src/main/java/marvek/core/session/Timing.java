package marvek.core.session;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Objects;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * When a session is, as announced and as it has become.
 *
 * @param start as announced
 * @param minutes it lasts; null where its length is in laps
 * @param laps it lasts; null where its length is in minutes
 * @param later minutes by which it starts after what was announced
 * @param shortened to so many minutes, or laps where its length is in laps; null where it is not
 * @param state what has become of it
 */
@RecordBuilder
public record Timing(
    Start start,
    @Nullable Integer minutes,
    @Nullable Integer laps,
    int later,
    @Nullable Integer shortened,
    State state) {
  private static final DateTimeFormatter HOUR = DateTimeFormatter.ofPattern("HH:mm", Locale.ROOT);

  /** What has become of a session. */
  public enum State {
    ON,
    STOPPED,
    CANCELLED
  }

  public Timing {
    Objects.requireNonNull(start, "start");
    Objects.requireNonNull(state, "state");
  }

  /** As announced. */
  public static Timing of(Start start, int minutes) {
    return new Timing(start, minutes, null, 0, null, State.ON);
  }

  /** When it starts as things stand. */
  public Instant begins() {
    return start.instant().plus(Duration.ofMinutes(later));
  }

  /**
   * When it ends as things stand.
   *
   * @param lapTime seconds, for a length in laps
   */
  public Instant ends(double lapTime) {
    return begins().plus(lasts(lapTime));
  }

  /**
   * What the circuit's clock does about it; nothing on nearly every day.
   *
   * @param lapTime seconds, for a length in laps
   */
  public Said clocks(double lapTime) {
    if (start.leftOut()) {
      return Said.of("clocks.left_out", hour(start.wall()), hour(start.zoned().toLocalDateTime()));
    }
    if (start.twice()) {
      return Said.of("clocks.twice", hour(start.wall()));
    }
    ZonedDateTime from = begins().atZone(start.zone());
    ZonedDateTime to = ends(lapTime).atZone(start.zone());
    int by = to.getOffset().getTotalSeconds() - from.getOffset().getTotalSeconds();
    return by == 0
        ? Said.NOTHING
        : Said.of("clocks.change", Value.choice(by > 0), hour(to.toLocalDateTime()));
  }

  private static Value hour(LocalDateTime wall) {
    return Value.own(HOUR.format(wall));
  }

  /** How long it is as things stand. */
  public Duration lasts(double lapTime) {
    int length = length();
    return minutes != null
        ? Duration.ofMinutes(length)
        : Duration.ofMillis(Math.round(1000 * lapTime * length));
  }

  /** Its length as things stand, in its own measure. */
  public int length() {
    if (shortened != null) {
      return shortened;
    }
    if (minutes != null) {
      return minutes;
    }
    return laps == null ? 0 : laps;
  }

  /**
   * Laps that fit: those of a length in laps, else whole laps of the time. The one out of the pits
   * takes about as much as the last one, begun in time, runs over.
   *
   * @param lapTime seconds
   */
  public int fits(double lapTime) {
    if (minutes == null) {
      return length();
    }
    return lapTime > 0 ? Math.max(0, (int) Math.floor(60.0 * length() / lapTime)) : 0;
  }

  /** Later by so many minutes than it stands now. */
  public Timing later(int by) {
    return TimingBuilder.builder(this).later(later + by).build();
  }

  /** The same in another state. */
  public Timing as(State other) {
    return TimingBuilder.builder(this).state(other).build();
  }

  /** As it was announced. */
  public Timing asAnnounced() {
    return new Timing(start, minutes, laps, 0, null, State.ON);
  }
}
