package marvek.core.survey;

import com.fasterxml.jackson.annotation.JsonAlias;
import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Objects;
import marvek.core.lap.Surface;
import marvek.core.lap.Surface.Dries;
import org.jspecify.annotations.Nullable;

/**
 * A stretch where something is different.
 *
 * @param id stable name inside the layout version
 * @param kind what it is
 * @param side where across the road; of a level reading the side that is lower
 * @param from station, m
 * @param to station, m
 * @param severity 1 slight, 2 plain, 3 severe
 * @param amount in the unit of the kind's {@link Effect}; null for what is usual for kind and
 *     severity
 * @param across the strip that it lies on, counted from the edge of its side; null for that side of
 *     the middle, or for the usual strip of a dirty edge
 * @param beyond of ground beyond the edge; null while nothing of it is known
 * @param dries when it dries on a drying road; null for what is usual for its kind
 * @param note in the driver's words
 * @param photo id of a picture, or empty
 */
@RecordBuilder
public record Zone(
    String id,
    ZoneKind kind,
    Side side,
    double from,
    double to,
    int severity,
    // Files and databases of before call it so, when it was about grip alone.
    @JsonAlias("grip") @Nullable Double amount,
    @Nullable Across across,
    @Nullable Dries dries,
    @Nullable Beyond beyond,
    String note,
    String photo) {

  /** What a dirty edge is without a strip of its own. */
  private static final Across EDGE = new Across(0, 2);

  public Zone {
    Objects.requireNonNull(id, "id");
    Objects.requireNonNull(kind, "kind");
    Objects.requireNonNull(side, "side");
    Objects.requireNonNull(note, "note");
    Objects.requireNonNull(photo, "photo");
  }

  /** One with nothing but its amount given by hand. */
  public Zone(
      String id,
      ZoneKind kind,
      Side side,
      double from,
      double to,
      int severity,
      @Nullable Double amount,
      String note,
      String photo) {
    this(id, kind, side, from, to, severity, amount, null, null, null, note, photo);
  }

  /** What water has to do with a kind of zone. */
  public enum Water {
    /** Nothing: it is there on every day. */
    NONE,
    /** It counts while the road is not dry, and dries with it. */
    STANDS,
    /** It counts while the road is not dry, and is the last to dry. */
    LAST
  }

  /** Where across the road. */
  public enum Side {
    LEFT,
    RIGHT,
    BOTH
  }

  /** What a zone acts on, and the unit of its amount. */
  public enum Effect {
    /** Share of the grip that is left. */
    GRIP(0.1, 1.3),
    /** Share of the load that is left at {@link Zones#BUMPS_AT} m/s; less is lost more slowly. */
    LOAD(0.5, 1),
    /** Radius of the crest, m. */
    CREST(20, 20_000),
    /** Radius of the dip, m. */
    DIP(20, 20_000),
    /** Fall of the road to the outside of the bend, metres for each metre. */
    CAMBER_OUT(0, 0.3),
    /** Fall of the road to the inside of the bend, metres for each metre. */
    CAMBER_IN(0, 0.3),
    /** Fall of the road to the side that is named, metres for each metre, as measured. */
    LEVEL(0, 0.6),
    /** Factor on the day's wind. */
    WIND(0, 4),
    /** Metres that are kept from the edge on top of the usual. */
    ROOM(0, 20),
    /** Metres that can be driven beyond the edge; used by a reference only where it is opened. */
    BEYOND(0.2, 30);

    private final double least;
    private final double most;

    Effect(double least, double most) {
      this.least = least;
      this.most = most;
    }

    /** The least that can be given. */
    public double least() {
      return least;
    }

    /** The most that can be given. */
    public double most() {
      return most;
    }
  }

  /**
   * A strip of the road, for a zone on one side.
   *
   * @param near metres from the edge at which it begins
   * @param far metres from the edge at which it ends
   */
  public record Across(double near, double far) {}

  /**
   * What ground beyond the edge is like.
   *
   * @param grip share of the grip that it leaves; null while it is not known
   * @param lip metres by which it lies higher than the road, negative lower; null while it is not
   *     known
   */
  public record Beyond(@Nullable Double grip, @Nullable Double lip) {}

  /** How much it is, in the unit of its kind. */
  public double size() {
    return amount == null ? kind.usual(severity) : amount;
  }

  /** The strip that it lies on, if it is narrower than its side of the road. */
  public @Nullable Across strip() {
    return across == null && kind == ZoneKind.DIRTY_EDGE ? EDGE : across;
  }

  /** The same with its amount told by a table, where it has none of its own. */
  public Zone told(List<Severity> table) {
    return amount != null
        ? this
        : table.stream()
            .filter(s -> s.kind() == kind)
            .findFirst()
            .map(s -> ZoneBuilder.builder(this).amount(s.of(severity)).build())
            .orElse(this);
  }

  /** Share of the grip that is left here where it counts fully. */
  public double gripLeft() {
    return kind.effect() == Effect.GRIP ? size() : 1;
  }

  /** Share of the grip that is left here on a day. */
  public double gripLeft(Surface surface) {
    double counts = kind.water() == Water.NONE ? 1 : surface.holds(drying());
    return 1 - counts * (1 - gripLeft());
  }

  private Dries drying() {
    Dries usual = kind.water() == Water.LAST ? Dries.LAST : Dries.WITH_THE_REST;
    return dries == null ? usual : dries;
  }

  /** Whether the computation feels it on some day. */
  public boolean counts() {
    return switch (kind.effect()) {
      case GRIP, LOAD, WIND -> size() != 1;
      case ROOM -> size() > 0;
      case CREST, DIP, CAMBER_IN, CAMBER_OUT, LEVEL -> true;
      // It lies beside the road: the choice of a reference opens it.
      case BEYOND -> false;
    };
  }

  /** Whether the road lies otherwise there, on the side that is named or all across. */
  public boolean lies() {
    return switch (kind.effect()) {
      case LOAD, CREST, DIP, CAMBER_IN, CAMBER_OUT -> true;
      case GRIP, LEVEL, WIND, ROOM, BEYOND -> false;
    };
  }

  /**
   * Whether the computation feels it on a day.
   *
   * @param wind of the day, m/s
   */
  public boolean counts(Surface surface, double wind) {
    return switch (kind.effect()) {
      case GRIP -> gripLeft(surface) != 1;
      case WIND -> size() != 1 && wind > 0;
      default -> counts();
    };
  }
}
