package marvek.core.reference;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import marvek.core.circuit.Corner;
import marvek.core.line.ApexType;
import marvek.core.marker.Tie;
import marvek.core.units.Display;

/** Says a corner in plain words, in the driver's units. */
public final class Sentence {
  private static final String[] ORDINALS = {
    "neutral", "first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth",
    "tenth"
  };
  private static final String[] COUNTS = {
    "", "one", "two", "three", "four", "five", "six", "seven"
  };

  private Sentence() {}

  /** The whole corner as one sentence or two. */
  public static String full(Corner corner, CornerEntry e, Display units) {
    List<String> parts = new ArrayList<>();
    String apexWord = apex(corner, e);
    switch (e.slowing()) {
      case FLAT -> parts.add("flat in " + ordinal(e.approachGear()));
      case LIFT -> parts.add("lift to " + units.speed(e.minimumSpeed()));
      case BRAKE -> {
        String where = e.point(PointKind.BRAKE).map(p -> "brake" + place(p, units)).orElse("brake");
        parts.add(
            where
                + ", "
                + firmness(e.firstEffort())
                + " ("
                + Math.round(e.firstEffort() * 100)
                + " %)");
        int down = e.approachGear() - e.gear();
        if (down > 0) {
          parts.add(count(down) + " down to " + ordinal(e.gear()));
        } else {
          parts.add("stay in " + ordinal(e.gear()));
        }
      }
    }
    e.point(PointKind.TURN_IN)
        .flatMap(p -> Optional.ofNullable(p.tie()))
        .ifPresent(t -> parts.add("hands " + near(t, units)));
    if (e.slowing() == Slowing.BRAKE) {
      release(e, units).ifPresent(parts::add);
    }
    parts.add(apexWord);
    if (e.slowing() != Slowing.FLAT) {
      if (e.slowing() == Slowing.BRAKE) {
        parts.add(units.speed(e.minimumSpeed()));
      }
      if (e.point(PointKind.FULL_THROTTLE).isPresent()) {
        parts.add(
            (e.firstThrottle() < 0.95
                    ? Math.round(e.firstThrottle() * 100) + " % throttle "
                    : "throttle ")
                + fromApex(e, PointKind.FIRST_THROTTLE, units)
                + ", all of it "
                + fromApex(e, PointKind.FULL_THROTTLE, units));
      }
    }
    String text = String.join("; ", parts);
    String note = e.note().isBlank() ? "" : " " + sentenceCase(e.note().strip());
    return sentenceCase(text) + "." + (note.isEmpty() || note.endsWith(".") ? note : note + ".");
  }

  /** Marker, gear and one word, for a pocket card. */
  public static String pocket(Corner corner, CornerEntry e, Display units) {
    String marker =
        switch (e.slowing()) {
          case FLAT -> "flat";
          case LIFT -> "lift";
          case BRAKE ->
              e.point(PointKind.BRAKE)
                  .map(p -> p.tie() == null ? units.length(p.station()) : brief(p.tie(), units))
                  .orElse("brake");
        };
    String word =
        switch (e.apexType()) {
          case EARLY -> "early";
          case MIDDLE -> corner.apexes().size() > 1 ? "twice" : "in";
          case LATE -> "late";
        };
    return marker + " · " + e.gear() + " · " + word;
  }

  /** "100 board + 8 m". */
  public static String brief(Tie tie, Display units) {
    String name = tie.spoken().replaceFirst("^the ", "");
    long past = Math.round(tie.past());
    return past == 0 ? name : name + (past > 0 ? " + " : " − ") + units.length(tie.past());
  }

  private static String place(CornerPoint point, Display units) {
    Tie tie = point.tie();
    return tie == null ? " at " + units.length(point.station()) : " " + near(tie, units);
  }

  private static String near(Tie tie, Display units) {
    if (Math.abs(tie.past()) < 0.75) {
      return "at " + tie.spoken();
    }
    return units.length(tie.past()) + (tie.past() > 0 ? " past " : " before ") + tie.spoken();
  }

  private static String firmness(double effort) {
    return effort >= 0.75 ? "hard" : effort >= 0.45 ? "firm" : effort >= 0.2 ? "light" : "a touch";
  }

  private static Optional<String> release(CornerEntry e, Display units) {
    Optional<Double> apex = e.station(PointKind.APEX);
    Optional<Double> release = e.station(PointKind.RELEASE);
    if (apex.isEmpty() || release.isEmpty()) {
      return Optional.empty();
    }
    double before = apex.get() - release.get();
    return Optional.of(
        Math.abs(before) < 8
            ? "bleed it to the apex"
            : before > 0
                ? "off the brake " + units.length(before) + " before the apex"
                : "off the brake past the apex");
  }

  private static String apex(Corner corner, CornerEntry e) {
    String type =
        e.apexType() == ApexType.LATE
            ? "late apex"
            : e.apexType() == ApexType.EARLY ? "early apex" : "apex in the middle";
    String twice = corner.apexes().size() > 1 ? "two apexes, the second decides, " : "";
    String tie =
        e.point(PointKind.APEX)
            .flatMap(p -> Optional.ofNullable(p.tie()))
            .map(t -> " at " + t.spoken())
            .orElse("");
    return twice + type + tie;
  }

  private static String fromApex(CornerEntry e, PointKind kind, Display units) {
    Optional<Double> apex = e.station(PointKind.APEX);
    Optional<Double> at = e.station(kind);
    if (apex.isEmpty() || at.isEmpty()) {
      return "";
    }
    double past = at.get() - apex.get();
    return Math.abs(past) < 3
        ? "at the apex"
        : units.length(past) + (past > 0 ? " past it" : " before it");
  }

  private static String ordinal(int gear) {
    return gear >= 0 && gear < ORDINALS.length ? ORDINALS[gear] : "gear " + gear;
  }

  private static String count(int n) {
    return n < COUNTS.length ? COUNTS[n] : Integer.toString(n);
  }

  private static String sentenceCase(String text) {
    return text.isEmpty()
        ? text
        : text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1);
  }
}
