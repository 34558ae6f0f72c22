package marvek.core.survey;

import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.refusal.Refusal;
import org.jspecify.annotations.Nullable;

/** Refuses things that cannot lie along the road they are said to. */
public final class ThingsCheck {
  private static final Pattern ID = Pattern.compile("[A-Za-z0-9-]{1,60}");
  private static final int LONGEST_NOTE = 1000;

  private final Set<String> corners;
  private final double length;
  private String where = "";

  private ThingsCheck(Set<String> corners, double length) {
    this.corners = corners;
    this.length = length;
  }

  /**
   * Checks everything.
   *
   * @param corners ids there are
   * @param length of the lap, metres
   * @throws Refusal naming the first thing and field that is wrong
   */
  public static void check(Things things, Set<String> corners, double length) {
    ThingsCheck check = new ThingsCheck(corners, length);
    things.landmarks().forEach(check::landmark);
    things.kerbs().forEach(check::kerb);
    things.zones().forEach(check::zone);
    things.limits().forEach(check::limit);
    things.places().forEach(check::place);
    things.severities().forEach(check::severity);
  }

  private void landmark(Landmark l) {
    at(l.id(), l.spoken());
    station("station", l.station());
    words("label", l.label(), 60);
    corner(l.corner());
    within("metres outside the edge", l.out(), -30, 500);
    within("height", l.height(), 0, 200);
    within("length", l.length(), 0, 1500);
    words("note", l.note(), LONGEST_NOTE);
    photo(l.photo());
    Landmark.Seen seen = l.seen();
    if (seen != null) {
      view("comes into view", seen.comes());
      view("leaves the view", seen.leaves());
    }
    if (l.kind() == LandmarkKind.BOARD && l.label().isBlank()) {
      throw problem("A board needs what is written on it.", "label", "Write 100, or its place.");
    }
  }

  private void view(String field, @Nullable Double station) {
    if (station != null) {
      station(field, station);
    }
  }

  /** Checks the cross-section of a kerb alone, wherever it lies. */
  public static void section(Kerb kerb) {
    new ThingsCheck(Set.of(), 1).measures(kerb);
  }

  private void measures(Kerb k) {
    at(k.id(), "the kerb at " + Math.round(k.from()) + " m");
    within("width", k.width(), 0.1, 6);
    within("height", k.height(), 0, 0.6);
  }

  private void kerb(Kerb k) {
    measures(k);
    stretch(k.from(), k.to(), 1500);
    Double bites = k.bites();
    if (bites != null) {
      within("length that bites", bites, 0, 1500);
    }
    if (k.does().stream().distinct().count() != k.does().size()) {
      throw problem("What the kerb does comes twice.", "does", "Say it once.");
    }
    corner(k.corner());
    words("note", k.note(), LONGEST_NOTE);
    photo(k.photo());
  }

  private void zone(Zone z) {
    at(z.id(), z.kind().words() + " at " + Math.round(z.from()) + " m");
    stretch(z.from(), z.to(), length);
    within("severity", z.severity(), 1, 3);
    Double amount = z.amount();
    if (amount != null) {
      within("amount", amount, z.kind().effect().least(), z.kind().effect().most());
    }
    if (z.kind() == ZoneKind.LEVEL && z.side() == Zone.Side.BOTH) {
      throw problem("A level falls to one side.", "side", "Choose the side that is lower.");
    }
    if (z.kind() == ZoneKind.BEYOND && z.side() == Zone.Side.BOTH) {
      throw problem("Ground lies beyond one edge.", "side", "Choose the side that it lies on.");
    }
    Zone.Beyond beyond = z.beyond();
    if (beyond != null) {
      if (z.kind() != ZoneKind.BEYOND) {
        throw problem(
            "Only ground beyond the edge has a grip and a lip of its own.",
            "beyond",
            "Leave them out, or choose that kind.");
      }
      Double grip = beyond.grip();
      if (grip != null) {
        within("grip", grip, Zone.Effect.GRIP.least(), Zone.Effect.GRIP.most());
      }
      Double lip = beyond.lip();
      if (lip != null) {
        within("lip", lip, -0.5, 0.5);
      }
    }
    Zone.Across across = z.across();
    if (across != null) {
      within("metres from the edge", across.near(), 0, 30);
      within("metres from the edge", across.far(), 0, 40);
      if (!(across.far() > across.near())) {
        throw problem(
            "The strip ends before it begins.", "across", "Give the nearer edge of it first.");
      }
    }
    words("note", z.note(), LONGEST_NOTE);
    photo(z.photo());
  }

  private void severity(Severity s) {
    at(s.id(), "what is usual for " + s.kind().words());
    if (s.kind() == ZoneKind.BEYOND) {
      throw problem("Nothing is usual for ground beyond the edge.", "kind", "Measure each.");
    }
    double least = s.kind().effect().least();
    double most = s.kind().effect().most();
    within("slight", s.slight(), least, most);
    within("plain", s.plain(), least, most);
    within("severe", s.severe(), least, most);
    double usual = Math.signum(s.kind().usual(3) - s.kind().usual(1));
    if ((s.plain() - s.slight()) * usual < 0 || (s.severe() - s.plain()) * usual < 0) {
      throw problem(
          "Severe must be more than plain, and plain more than slight.",
          "severe",
          "Put them in order.");
    }
  }

  private void limit(TrackLimit l) {
    at(l.id(), "the limit at " + l.corner());
    if (l.corner().isEmpty()) {
      throw problem("A track limit belongs to a corner.", "corner", "Choose one.");
    }
    corner(l.corner());
    within("wheels inside", l.wheelsInside(), 0, 4);
    words("what belongs to the track", l.belongs(), LONGEST_NOTE);
    words("what a breach costs", l.cost(), LONGEST_NOTE);
    within("number of breaches", l.breaches().size(), 0, 500);
    l.breaches().forEach(b -> words("note of a breach", b.note(), LONGEST_NOTE));
  }

  private void place(Place p) {
    at(p.id(), "the place at " + Math.round(p.from()) + " m");
    station("station", p.from());
    station("end", p.to());
    words("label", p.label(), 60);
    words("note", p.note(), LONGEST_NOTE);
  }

  private void at(String id, String what) {
    where = what;
    if (!ID.matcher(id).matches()) {
      throw problem("The id has other characters than letters, digits and -.", "id", "Correct it.");
    }
  }

  private void station(String field, double s) {
    if (!(s >= 0 && s < length)) {
      throw problem(
          String.format(Locale.ROOT, "%s m is off the lap.", plain(s)),
          field,
          String.format(Locale.ROOT, "Give metres from the line, 0 to %.0f.", Math.floor(length)));
    }
  }

  private void stretch(double from, double to, double most) {
    station("start", from);
    station("end", to);
    double span = ((to - from) % length + length) % length;
    if (span < 0.5 || span > most) {
      throw problem(
          String.format(Locale.ROOT, "From %.0f to %.0f m makes no stretch.", from, to),
          "end",
          "The end must lie past the start in the direction of driving.");
    }
  }

  private void corner(String id) {
    if (!id.isEmpty() && !corners.contains(id)) {
      throw problem("There is no corner " + id + " here.", "corner", "Choose another, or none.");
    }
  }

  private void photo(String id) {
    if (!id.isEmpty() && !ID.matcher(id).matches()) {
      throw problem("There is no such picture.", "photo", "Take it again.");
    }
  }

  private void words(String field, @Nullable String text, int most) {
    if (text == null || text.length() > most) {
      throw problem(
          "The " + field + " is missing or longer than " + most + " characters.",
          field,
          "Shorten it.");
    }
  }

  private void within(String field, double value, double least, double most) {
    if (!(value >= least && value <= most)) {
      throw problem(
          plain(value) + " is out of range.",
          field,
          "Give " + plain(least) + " to " + plain(most) + ".");
    }
  }

  private Refusal problem(String message, String field, String remedy) {
    return new Refusal(message, where + ", " + field, remedy);
  }

  private static String plain(double value) {
    return value == Math.rint(value) && Math.abs(value) < 1e9
        ? Long.toString((long) value)
        : Double.toString(value);
  }
}
