package marvek.core.session;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
import marvek.core.refusal.Refusal;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * One thing that a driver says of a session before any data comes.
 *
 * @param about what it is
 * @param corner id, for what was felt in one
 * @param felt how it went; null for what is no feeling
 * @param words in the driver's own; empty for none
 * @param litres put in or burnt; null for none
 * @param laps that the fuel was burnt in
 * @param hot pressures by wheel, kPa; empty for none
 * @param minutes after stopping at which they were read; null where not said
 * @param bled whether air was let out before
 * @param seconds that it was spoken for; null where it was written
 */
public record Told(
    About about,
    @Nullable String corner,
    @Nullable Felt felt,
    String words,
    @Nullable Double litres,
    @Nullable Integer laps,
    List<@Nullable Double> hot,
    @Nullable Double minutes,
    boolean bled,
    @Nullable Double seconds) {
  /** Seconds that a spoken note lasts at most. */
  public static final double LONGEST = 60;

  /** What something is about. */
  public enum About {
    CORNER,
    /** All that was not said otherwise went as planned. */
    REST,
    FUEL,
    PRESSURES,
    WEATHER,
    TRAFFIC,
    FLAGS,
    LEARNED,
    NOTE
  }

  /** How a corner went. */
  public enum Felt {
    AS_PLANNED,
    EARLY,
    LATE,
    DEEP,
    WIDE,
    UNSURE,
    SCARED,
    GREAT;

    /** Whether it says where the braking was against the plan. */
    public boolean place() {
      return this == AS_PLANNED || this == EARLY || this == LATE || this == DEEP;
    }

    /** What it says of confidence: −1 less, 0 nothing, 1 more. */
    public int confidence() {
      return switch (this) {
        case UNSURE, SCARED -> -1;
        case GREAT -> 1;
        default -> 0;
      };
    }
  }

  /** Minutes after stopping within which a hot pressure tells the hot gas (common practice). */
  public static final double FRESH = 2;

  public Told {
    Objects.requireNonNull(about, "about");
    words = words == null ? "" : words;
    hot =
        hot == null
            ? List.of()
            : Collections.unmodifiableList(new ArrayList<@Nullable Double>(hot));
  }

  /** How a corner was felt. */
  public static Told corner(String corner, Felt felt) {
    return new Told(About.CORNER, corner, felt, "", null, null, List.of(), null, false, null);
  }

  /** Whether hot pressures may be learned from. */
  public boolean fresh() {
    return about == About.PRESSURES && !bled && minutes != null && minutes <= FRESH;
  }

  /**
   * Checks it.
   *
   * @param corners ids of the road's corners
   */
  public void check(List<String> corners) {
    if (about == About.CORNER && (felt == null || corner == null || !corners.contains(corner))) {
      throw Refusal.of("refusal.session.no_corner_here_nothing", Value.own(String.valueOf(corner)))
          .at("log");
    }
    if (words.length() > 2000) {
      throw Refusal.of("refusal.session.note_longer_letters").at("log");
    }
    if (seconds != null && !(seconds > 0 && seconds <= LONGEST + 1)) {
      throw Refusal.of("refusal.session.spoken_note_lasts_minute").at("log");
    }
    boolean fuel = litres == null || litres > 0 && litres <= 500;
    boolean driven = laps == null || laps >= 1 && laps <= 500;
    if (!fuel || !driven) {
      throw Refusal.of("refusal.session.fuel_given_litres_up").at("fuel");
    }
    for (Double p : hot) {
      if (p != null && !(p >= 20 && p <= 900)) {
        throw Refusal.of("refusal.session.pressure_lies_between_kpa").at("pressures");
      }
    }
    if (hot.size() > 4 || minutes != null && !(minutes >= 0 && minutes <= 600)) {
      throw Refusal.of("refusal.session.four_wheels_most_read").at("pressures");
    }
  }
}
