package marvek.core.entry;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import marvek.core.line.ApexType;
import marvek.core.score.Action;
import marvek.core.technique.Pedals;
import marvek.core.technique.School;
import org.jspecify.annotations.Nullable;

/**
 * What a reference holds about one corner.
 *
 * @param corner id of the corner in the layout version
 * @param slowing brake, lift or flat
 * @param points in driving order; any may be missing
 * @param approachGear gear in which the corner is reached
 * @param approachSpeed m/s at the braking marker, or at turn-in where there is none
 * @param firstEffort share of the greatest braking at the first press, 0 to 1
 * @param gear at the slowest point
 * @param minimumSpeed m/s
 * @param apexType early, middle or late
 * @param apexGap metres from the inside edge to the vehicle's middle at the apex
 * @param firstThrottle share of full throttle at first throttle, 0 to 1
 * @param note the driver's own words
 * @param schools answers to the questions on which practitioners differ, one each at most
 * @param givenAway how much of the linked corner that gives way is given, 0 to 1
 * @param apexOff metres that the apex is kept further off the inside than the line's own
 * @param pedals planned shape of the pedals; null for braking scaled evenly to what is needed
 * @param details what else there is to say
 * @param kerbs what is done with them
 * @param priority place in the driver's own order of corners, 1 is the first; null for the computed
 * @param wording the driver's own sentence, or null
 * @param again brakings after the one that the marker is for, in driving order
 * @param actions what the driver does besides, in any order; {@link Score} has all together
 */
public record CornerEntry(
    String corner,
    Slowing slowing,
    List<CornerPoint> points,
    int approachGear,
    double approachSpeed,
    double firstEffort,
    int gear,
    double minimumSpeed,
    ApexType apexType,
    double apexGap,
    double firstThrottle,
    String note,
    List<School> schools,
    double givenAway,
    double apexOff,
    @Nullable Pedals pedals,
    Map<Detail, String> details,
    List<KerbUse> kerbs,
    @Nullable Integer priority,
    @Nullable Wording wording,
    List<BrakedAgain> again,
    List<Action> actions) {

  /** An entry with nothing but its points and numbers. */
  public CornerEntry(
      String corner,
      Slowing slowing,
      List<CornerPoint> points,
      int approachGear,
      double approachSpeed,
      double firstEffort,
      int gear,
      double minimumSpeed,
      ApexType apexType,
      double apexGap,
      double firstThrottle,
      String note) {
    this(
        corner,
        slowing,
        points,
        approachGear,
        approachSpeed,
        firstEffort,
        gear,
        minimumSpeed,
        apexType,
        apexGap,
        firstThrottle,
        note,
        List.of(),
        0,
        0,
        null,
        Map.of(),
        List.of(),
        null,
        null,
        List.of(),
        List.of());
  }

  public CornerEntry {
    Objects.requireNonNull(corner, "corner");
    Objects.requireNonNull(slowing, "slowing");
    Objects.requireNonNull(apexType, "apexType");
    Objects.requireNonNull(note, "note");
    points = List.copyOf(points);
    // Content stored before there were any has none of these.
    schools = schools == null ? List.of() : List.copyOf(schools);
    details = details == null ? Map.of() : java.util.Collections.unmodifiableMap(sorted(details));
    kerbs = kerbs == null ? List.of() : List.copyOf(kerbs);
    again = again == null ? List.of() : List.copyOf(again);
    actions = actions == null ? List.of() : List.copyOf(actions);
  }

  private static Map<Detail, String> sorted(Map<Detail, String> details) {
    details.values().forEach(v -> Objects.requireNonNull(v, "detail"));
    return new TreeMap<>(details);
  }

  /** The point of a kind, where there is one. */
  public Optional<CornerPoint> point(PointKind kind) {
    return points.stream().filter(p -> p.kind() == kind).findFirst();
  }

  /** Station of the point of a kind, m. */
  public Optional<Double> station(PointKind kind) {
    return point(kind).map(CornerPoint::station);
  }

  /** What is said about something, or empty. */
  public String detail(Detail detail) {
    return details.getOrDefault(detail, "");
  }

  /** A copy in which something is to differ. */
  public Copy copy() {
    return new Copy(this);
  }

  /** A copy being changed. */
  public static final class Copy {
    private final CornerEntry was;
    private Slowing slowing;
    private List<CornerPoint> points;
    private int approachGear;
    private double approachSpeed;
    private double firstEffort;
    private int gear;
    private double minimumSpeed;
    private ApexType apexType;
    private double apexGap;
    private double firstThrottle;
    private String note;
    private List<School> schools;
    private double givenAway;
    private @Nullable Pedals pedals;
    private Map<Detail, String> details;
    private List<KerbUse> kerbs;
    private double apexOff;
    private @Nullable Wording wording;
    private List<BrakedAgain> again;
    private List<Action> actions;

    private Copy(CornerEntry was) {
      this.was = was;
      slowing = was.slowing;
      points = was.points;
      approachGear = was.approachGear;
      approachSpeed = was.approachSpeed;
      firstEffort = was.firstEffort;
      gear = was.gear;
      minimumSpeed = was.minimumSpeed;
      apexType = was.apexType;
      apexGap = was.apexGap;
      firstThrottle = was.firstThrottle;
      note = was.note;
      schools = was.schools;
      givenAway = was.givenAway;
      pedals = was.pedals;
      details = was.details;
      kerbs = was.kerbs;
      apexOff = was.apexOff;
      wording = was.wording;
      again = was.again;
      actions = was.actions;
    }

    /** With another way of slowing. */
    public Copy slowing(Slowing value) {
      slowing = value;
      return this;
    }

    /** With other points. */
    public Copy points(List<CornerPoint> value) {
      points = value;
      return this;
    }

    /** Moves a point that there is. */
    public Copy moved(PointKind kind, double station) {
      points = points.stream().map(p -> p.kind() == kind ? p.at(station) : p).toList();
      return this;
    }

    /** Arriving in a gear, at a speed in m/s. */
    public Copy approach(int inGear, double speed) {
      approachGear = inGear;
      approachSpeed = speed;
      return this;
    }

    /** With another share of the greatest braking at the first press, 0 to 1. */
    public Copy firstEffort(double value) {
      firstEffort = value;
      return this;
    }

    /** With another gear. */
    public Copy gear(int value) {
      gear = value;
      return this;
    }

    /** With another least speed, m/s. */
    public Copy minimumSpeed(double value) {
      minimumSpeed = value;
      return this;
    }

    /** With another apex, the vehicle's middle so many metres from the inside edge. */
    public Copy apex(ApexType type, double gap) {
      apexType = type;
      apexGap = gap;
      return this;
    }

    /** With another share of the first throttle. */
    public Copy firstThrottle(double value) {
      firstThrottle = value;
      return this;
    }

    /** With another note. */
    public Copy note(String value) {
      note = value;
      return this;
    }

    /** With other answers to the questions. */
    public Copy schools(List<School> value) {
      schools = value;
      return this;
    }

    /** With another share of what it gives way to a linked corner, 0 to 1. */
    public Copy givenAway(double value) {
      givenAway = value;
      return this;
    }

    /** With another shape of the pedals; null for none. */
    public Copy pedals(@Nullable Pedals value) {
      pedals = value;
      return this;
    }

    /** With other details. */
    public Copy details(Map<Detail, String> value) {
      details = value;
      return this;
    }

    /** With the apex kept so many metres further off the inside than the line's own. */
    public Copy apexOff(double value) {
      apexOff = value;
      return this;
    }

    /** With other uses of kerbs. */
    public Copy kerbs(List<KerbUse> value) {
      kerbs = value;
      return this;
    }

    /** With own words; null for none. */
    public Copy wording(@Nullable Wording value) {
      wording = value;
      return this;
    }

    /** With other brakings after the first. */
    public Copy again(List<BrakedAgain> value) {
      again = value;
      return this;
    }

    /** With other actions beyond the points. */
    public Copy actions(List<Action> value) {
      actions = value;
      return this;
    }

    /** The entry as it was copied. */
    public CornerEntry done() {
      return new CornerEntry(
          was.corner,
          slowing,
          points,
          approachGear,
          approachSpeed,
          firstEffort,
          gear,
          minimumSpeed,
          apexType,
          apexGap,
          firstThrottle,
          note,
          schools,
          givenAway,
          apexOff,
          pedals,
          details,
          kerbs,
          was.priority,
          wording,
          again,
          actions);
    }
  }
}
