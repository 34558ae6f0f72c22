package marvek.core.marker;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Sight;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.sun.Shadow;
import marvek.core.sun.SunPosition;
import org.jspecify.annotations.Nullable;

/**
 * Judges how far a driver can rely on a landmark at a place, speed, hour and in traffic.
 *
 * <p>Marks start at 100; each reason takes some away. The weights are this project's own judgement
 * and stand together below; what they weigh is measured or computed.
 */
public final class MarkerJudge {
  // What each sort of doubt costs.
  private static final int SEASONAL = 10;
  private static final int MOVABLE = 30;
  private static final int SURFACE = 15;
  private static final int FEEL = 20;
  private static final int UNREADABLE = 8;
  private static final double PER_METRE = 3.5;
  private static final double FREE_METRES = 1.6;
  private static final int MOST_FOR_PRECISION = 35;
  private static final int HIDDEN = 45;
  private static final int LATE = 20;
  private static final int BEHIND_A_CAR = 25;
  private static final int FAR_SIDE = 6;
  private static final int DARK = 45;
  private static final int LOW_SUN = 25;
  private static final int NO_SHADOW = 70;
  private static final int UNNOTED_SHADOW = 35;
  private static final double PER_SHADOW_METRE = 7;
  private static final int MISTAKEN = 18;

  private static final double REACTION = 0.1;
  private static final double LOOKS_BACK = 320;
  private static final double LOOK_STEP = 4;
  private static final double SEEN_IN_TIME = 2;
  private static final double SEEN_LATE = 1;
  private static final double CONFUSED_WITHIN = 120;
  private static final double FAR_ACROSS = 14;
  private static final double LOW_THING = 0.8;
  private static final double DAWN = Math.toRadians(-3);
  private static final double DAZZLES_BELOW = Math.toRadians(15);
  private static final double DAZZLES_WITHIN = Math.toRadians(25);

  private final Centreline road;
  private final List<Landmark> landmarks;
  private final View view;

  /**
   * Makes a judge for one road and view.
   *
   * @param landmarks all there are, to tell those that look alike
   */
  public MarkerJudge(Centreline road, List<Landmark> landmarks, View view) {
    this.road = road;
    this.landmarks = landmarks;
    this.view = view;
  }

  /**
   * From where and when a landmark is looked at.
   *
   * @param time of the session; null when the hour does not matter
   * @param place where on the earth; null when unknown
   * @param traffic whether another car is close ahead
   * @param eye height of the eyes over the road, metres
   */
  public record View(@Nullable Instant time, @Nullable Spot place, boolean traffic, double eye) {
    /** Where the sun stands then, if both are known. */
    public Optional<SunPosition> sun() {
      Instant at = time;
      return at == null ? Optional.empty() : sun(at);
    }

    Optional<SunPosition> sun(Instant at) {
      Spot spot = place;
      return spot == null
          ? Optional.empty()
          : Optional.of(SunPosition.at(at, spot.latitude(), spot.longitude(), spot.height()));
    }
  }

  /** Degrees and metres over the sea. */
  public record Spot(double latitude, double longitude, double height) {}

  /** How far it can be relied on. */
  public enum Grade {
    SOLID,
    USABLE,
    WEAK,
    NOT_TO_BE_RELIED_ON;

    static Grade of(int marks) {
      return marks >= 80 ? SOLID : marks >= 60 ? USABLE : marks >= 35 ? WEAK : NOT_TO_BE_RELIED_ON;
    }
  }

  /** What a reason is about. */
  public enum About {
    PERMANENCE,
    PRECISION,
    VISIBILITY,
    TRAFFIC,
    SIDE,
    LIGHT,
    LOOK_ALIKES
  }

  /**
   * A reason for marks taken away.
   *
   * @param words what it is
   * @param cost marks
   */
  public record Reason(About about, Said words, int cost) {}

  /**
   * A judgement.
   *
   * @param landmark id
   * @param grade in four steps
   * @param marks 0 to 100
   * @param precision metres by which a point tied to it may be missed by eye
   * @param atSpeed metres that 0.1 s is at that speed
   * @param moved metres that a shadow has moved along the road since it was noted; null for
   *     anything else, or when there is no sun
   * @param reasons heaviest first
   */
  public record Judgement(
      String landmark,
      Grade grade,
      int marks,
      double precision,
      double atSpeed,
      @Nullable Double moved,
      List<Reason> reasons) {}

  /**
   * Judges a landmark for a point tied to it.
   *
   * @param past metres from the landmark onwards to the point
   * @param speed there, m/s
   * @param across where the vehicle is then, metres to the left of the centreline
   */
  public Judgement judge(Landmark l, double past, double speed, double across) {
    List<Reason> reasons = new ArrayList<>();
    permanence(l, reasons);
    double precision = l.precisionAt(past);
    if (precision > FREE_METRES) {
      int cost =
          (int) Math.min(MOST_FOR_PRECISION, Math.round(PER_METRE * (precision - FREE_METRES)) + 1);
      Said words =
          Math.abs(past) > 8
              ? Said.of("marker.by_eye", Value.length(past), Value.choice(past > 0))
              : Said.of("marker.blurred", Value.length(precision));
      reasons.add(new Reason(About.PRECISION, words, cost));
    }
    visibility(l, past, speed, reasons);
    traffic(l, reasons);
    double standsAt =
        l.left()
            ? road.left()[road.index(l.station())] + l.out()
            : -road.right()[road.index(l.station())] - l.out();
    if (l.kind() != LandmarkKind.BRIDGE && Math.abs(standsAt - across) > FAR_ACROSS) {
      reasons.add(
          new Reason(
              About.SIDE, Said.of("marker.across", Value.length(standsAt - across)), FAR_SIDE));
    }
    Double moved = light(l, reasons);
    lookAlikes(l, reasons);
    reasons.sort((a, b) -> Integer.compare(b.cost(), a.cost()));
    int marks = Math.max(0, 100 - reasons.stream().mapToInt(Reason::cost).sum());
    return new Judgement(
        l.id(), Grade.of(marks), marks, precision, REACTION * speed, moved, List.copyOf(reasons));
  }

  private void permanence(Landmark l, List<Reason> reasons) {
    int cost =
        switch (l.permanence()) {
          case FIXED -> 0;
          case SEASONAL -> SEASONAL;
          case MOVABLE -> MOVABLE;
          case SURFACE -> SURFACE;
          case FEEL -> FEEL;
          case LIGHT -> 1;
        };
    if (cost > 0) {
      reasons.add(
          new Reason(
              About.PERMANENCE, Said.of("marker.permanence", l.permanence().said().in()), cost));
    }
    if (!l.readable()) {
      reasons.add(new Reason(About.PERMANENCE, Said.of("marker.unreadable"), UNREADABLE));
    }
  }

  private void visibility(Landmark l, double past, double speed, List<Reason> reasons) {
    if (l.permanence() == Landmark.Permanence.FEEL) {
      return;
    }
    double seen = 0;
    double top = Math.max(0, l.kind() == LandmarkKind.SHADOW ? 0 : l.height());
    for (double back = LOOK_STEP; back <= LOOKS_BACK; back += LOOK_STEP) {
      if (!Sight.clear(road, l.station() - back, view.eye(), back, top)) {
        break;
      }
      seen = back;
    }
    if (seen >= LOOKS_BACK - LOOK_STEP) {
      return;
    }
    double seconds = (seen + Math.min(0, past)) / Math.max(speed, 1);
    if (seconds < SEEN_IN_TIME) {
      Said words = Said.of("marker.crest", Value.length(seen), Value.figure(seen / speed, 1));
      reasons.add(new Reason(About.VISIBILITY, words, seconds < SEEN_LATE ? HIDDEN : LATE));
    }
  }

  private void traffic(Landmark l, List<Reason> reasons) {
    boolean hidden =
        switch (l.kind()) {
          case BRIDGE, TREE, SHADOW -> false;
          case CREST -> l.permanence() != Landmark.Permanence.FEEL;
          default -> l.out() < 0 || (l.height() < LOW_THING && l.out() < 3);
        };
    if (view.traffic() && hidden) {
      reasons.add(new Reason(About.TRAFFIC, Said.of("marker.car"), BEHIND_A_CAR));
    }
  }

  private @Nullable Double light(Landmark l, List<Reason> reasons) {
    Instant time = view.time();
    Optional<SunPosition> sun = view.sun();
    if (time == null || sun.isEmpty()) {
      if (l.permanence() == Landmark.Permanence.LIGHT) {
        reasons.add(new Reason(About.LIGHT, Said.of("marker.hour"), UNNOTED_SHADOW));
      }
      return null;
    }
    double heading = road.heading()[road.index(l.station())];
    if (sun.get().elevation() < DAWN) {
      reasons.add(new Reason(About.LIGHT, Said.of("marker.dark"), DARK));
    } else if (sun.get().elevation() < DAZZLES_BELOW) {
      double towards = Math.PI / 2 - sun.get().azimuth();
      double off = Math.abs(Math.IEEEremainder(heading - towards, 2 * Math.PI));
      if (off < DAZZLES_WITHIN) {
        reasons.add(
            new Reason(
                About.LIGHT,
                Said.of(
                    "marker.dazzles",
                    Value.figure(Math.toDegrees(Math.max(0, sun.get().elevation())), 0),
                    Value.figure(Math.toDegrees(off), 0)),
                LOW_SUN));
      }
    }
    return l.kind() == LandmarkKind.SHADOW ? shadow(l, time, sun.get(), heading, reasons) : null;
  }

  private @Nullable Double shadow(
      Landmark l, Instant time, SunPosition sun, double heading, List<Reason> reasons) {
    Optional<Shadow> now = Shadow.of(l.height(), sun);
    if (now.isEmpty()) {
      reasons.add(new Reason(About.LIGHT, Said.of("marker.no_shadow"), NO_SHADOW));
      return null;
    }
    Instant noted = l.noted();
    Optional<Shadow> then =
        noted == null ? Optional.empty() : view.sun(noted).flatMap(s -> Shadow.of(l.height(), s));
    if (noted == null || then.isEmpty()) {
      reasons.add(new Reason(About.LIGHT, Said.of("marker.no_hour"), UNNOTED_SHADOW));
      return null;
    }
    double moved = now.get().movedAlong(then.get(), heading);
    int cost = (int) Math.min(NO_SHADOW, Math.round(PER_SHADOW_METRE * Math.abs(moved)));
    if (cost > 0) {
      reasons.add(
          new Reason(
              About.LIGHT,
              Said.of("marker.moved", Value.length(moved), Value.choice(moved > 0)),
              cost));
    }
    return moved;
  }

  private void lookAlikes(Landmark l, List<Reason> reasons) {
    for (Landmark other : landmarks) {
      double apart = road.apart(l.station(), other.station());
      boolean alike =
          other.kind() == l.kind()
              && !other.id().equals(l.id())
              && Math.abs(apart) < CONFUSED_WITHIN
              && Math.abs(apart) > 1
              && (other.label().equals(l.label()) || !l.readable() || !other.readable());
      if (alike) {
        reasons.add(
            new Reason(
                About.LOOK_ALIKES,
                Said.of(
                    "marker.alike",
                    l.kind().said().in(),
                    Value.length(apart),
                    Value.choice(apart > 0)),
                MISTAKEN));
        return;
      }
    }
  }
}
