package marvek.core.survey;

import java.util.Set;
import java.util.regex.Pattern;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.refusal.Refusal;
import marvek.core.refusal.Where;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/** Refuses things that cannot lie along the road they are said to. */
public final class ThingsCheck {
  private static final Pattern ID = Pattern.compile("[A-Za-z0-9-]{1,60}");
  private static final int LONGEST_NOTE = 1000;

  private final Set<String> corners;
  private final double length;
  private Said where = Said.NOTHING;

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
    at(l.id(), Where.field(l.spoken()));
    station("field.station", l.station());
    words("field.label", l.label(), 60);
    corner(l.corner());
    within("field.metres_outside_the_edge", l.out(), -30, 500);
    within("field.height", l.height(), 0, 200);
    within("field.length", l.length(), 0, 1500);
    words("field.note", l.note(), LONGEST_NOTE);
    photo(l.photo());
    Landmark.Seen seen = l.seen();
    if (seen != null) {
      view("field.comes_into_view", seen.comes());
      view("field.leaves_the_view", seen.leaves());
    }
    if (l.kind() == LandmarkKind.BOARD && l.label().isBlank()) {
      throw problem("refusal.survey.board_needs_what_written", "field.label");
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
    at(k.id(), Said.of("where.kerb", Value.length(k.from())));
    within("field.width", k.width(), 0.1, 6);
    within("field.height", k.height(), 0, 0.6);
  }

  private void kerb(Kerb k) {
    measures(k);
    stretch(k.from(), k.to(), 1500);
    Double bites = k.bites();
    if (bites != null) {
      within("field.length_that_bites", bites, 0, 1500);
    }
    if (k.does().stream().distinct().count() != k.does().size()) {
      throw problem("refusal.survey.what_kerb_does_comes", "field.does");
    }
    corner(k.corner());
    words("field.note", k.note(), LONGEST_NOTE);
    photo(k.photo());
  }

  private void zone(Zone z) {
    at(z.id(), Said.of("where.zone", z.kind().said().in(), Value.length(z.from())));
    stretch(z.from(), z.to(), length);
    within("field.severity", z.severity(), 1, 3);
    Double amount = z.amount();
    if (amount != null) {
      within("field.amount", amount, z.kind().effect().least(), z.kind().effect().most());
    }
    if (z.kind() == ZoneKind.LEVEL && z.side() == Zone.Side.BOTH) {
      throw problem("refusal.survey.level_falls_one_side", "field.side");
    }
    if (z.kind() == ZoneKind.BEYOND && z.side() == Zone.Side.BOTH) {
      throw problem("refusal.survey.ground_lies_beyond_one", "field.side");
    }
    Zone.Beyond beyond = z.beyond();
    if (beyond != null) {
      if (z.kind() != ZoneKind.BEYOND) {
        throw problem("refusal.survey.only_ground_beyond_edge", "field.beyond");
      }
      Double grip = beyond.grip();
      if (grip != null) {
        within("field.grip", grip, Zone.Effect.GRIP.least(), Zone.Effect.GRIP.most());
      }
      Double lip = beyond.lip();
      if (lip != null) {
        within("field.lip", lip, -0.5, 0.5);
      }
    }
    Zone.Across across = z.across();
    if (across != null) {
      within("field.metres_from_the_edge", across.near(), 0, 30);
      within("field.metres_from_the_edge", across.far(), 0, 40);
      if (!(across.far() > across.near())) {
        throw problem("refusal.survey.strip_ends_before_begins", "field.across");
      }
    }
    words("field.note", z.note(), LONGEST_NOTE);
    photo(z.photo());
  }

  private void severity(Severity s) {
    at(s.id(), Said.of("where.usual", s.kind().said().in()));
    if (s.kind() == ZoneKind.BEYOND) {
      throw problem("refusal.survey.nothing_usual_ground_beyond", "field.kind");
    }
    double least = s.kind().effect().least();
    double most = s.kind().effect().most();
    within("field.slight", s.slight(), least, most);
    within("field.plain", s.plain(), least, most);
    within("field.severe", s.severe(), least, most);
    double usual = Math.signum(s.kind().usual(3) - s.kind().usual(1));
    if ((s.plain() - s.slight()) * usual < 0 || (s.severe() - s.plain()) * usual < 0) {
      throw problem("refusal.survey.severe_must_more_plain", "field.severe");
    }
  }

  private void limit(TrackLimit l) {
    at(l.id(), Said.of("where.limit", Value.own(l.corner())));
    if (l.corner().isEmpty()) {
      throw problem("refusal.survey.track_limit_belongs_corner", "field.corner");
    }
    corner(l.corner());
    within("field.wheels_inside", l.wheelsInside(), 0, 4);
    words("field.what_belongs_to_the_track", l.belongs(), LONGEST_NOTE);
    words("field.what_a_breach_costs", l.cost(), LONGEST_NOTE);
    within("field.number_of_breaches", l.breaches().size(), 0, 500);
    l.breaches().forEach(b -> words("field.note_of_a_breach", b.note(), LONGEST_NOTE));
  }

  private void place(Place p) {
    at(p.id(), Said.of("where.place", Value.length(p.from())));
    station("field.station", p.from());
    station("field.end", p.to());
    words("field.label", p.label(), 60);
    words("field.note", p.note(), LONGEST_NOTE);
  }

  private void at(String id, Said what) {
    where = what;
    if (!ID.matcher(id).matches()) {
      throw problem("refusal.survey.id_other_characters_letters", "field.id");
    }
  }

  private void station(String field, double s) {
    if (!(s >= 0 && s < length)) {
      throw problem(
          "refusal.survey.off_lap",
          field,
          Value.own(plain(s)),
          Value.figure(Math.floor(length), 0));
    }
  }

  private void stretch(double from, double to, double most) {
    station("field.start", from);
    station("field.end", to);
    double span = ((to - from) % length + length) % length;
    if (span < 0.5 || span > most) {
      throw problem(
          "refusal.survey.from_makes_no_stretch",
          "field.end",
          Value.length(from),
          Value.length(to));
    }
  }

  private void corner(String id) {
    if (!id.isEmpty() && !corners.contains(id)) {
      throw problem("refusal.survey.no_corner_here", "field.corner", Value.own(id));
    }
  }

  private void photo(String id) {
    if (!id.isEmpty() && !ID.matcher(id).matches()) {
      throw problem("refusal.survey.no_picture", "field.photo");
    }
  }

  private void words(String field, @Nullable String text, int most) {
    if (text == null || text.length() > most) {
      throw problem(
          "refusal.survey.missing_longer_characters",
          field,
          Said.of(field).in(),
          Value.figure(most, 0));
    }
  }

  private void within(String field, double value, double least, double most) {
    if (!(value >= least && value <= most)) {
      throw problem(
          "refusal.survey.out_range",
          field,
          Value.own(plain(value)),
          Value.own(plain(least)),
          Value.own(plain(most)));
    }
  }

  private Refusal problem(String key, String field, Value... values) {
    return Refusal.of(key, values).at(Said.of("where.of_thing", where.in(), Said.of(field).in()));
  }

  private static String plain(double value) {
    return value == Math.rint(value) && Math.abs(value) < 1e9
        ? Long.toString((long) value)
        : Double.toString(value);
  }
}
