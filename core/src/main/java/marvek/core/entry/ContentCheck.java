package marvek.core.entry;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import marvek.core.circuit.Corner;
import marvek.core.line.Gate;
import marvek.core.refusal.Refusal;
import marvek.core.refusal.Where;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
import marvek.core.score.CueKind;
import marvek.core.survey.Kerb;
import marvek.core.technique.Pedals;
import marvek.core.technique.Question;
import marvek.core.technique.School;
import org.jspecify.annotations.Nullable;

/** Refuses content that no layout and vehicle could give. */
public final class ContentCheck {
  private static final int LONGEST_NOTE = 2000;
  private static final int MOST_VARIANTS = 20;
  private static final int MOST_KERBS = 6;
  private static final int MOST_EDGES = 200;
  private static final double MOST_ALONGSIDE = 2000;
  private static final int MOST_ACTIONS = 40;

  private ContentCheck() {}

  /**
   * Checks a whole reference.
   *
   * @param corners of the layout
   * @param length of the lap, metres
   * @param gears of the vehicle
   * @throws Refusal naming the first corner and field that is wrong
   */
  public static void content(
      List<Corner> corners, double length, int gears, ReferenceContent content) {
    Set<String> seen = new LinkedHashSet<>();
    for (CornerEntry entry : content.corners()) {
      if (!seen.add(entry.corner())) {
        throw Refusal.of("refusal.entry.corner_comes_twice", Value.own(entry.corner()))
            .at(entry.corner());
      }
      entry(corners, length, gears, entry);
    }
    OwnPace pace = content.pace();
    if (pace != null) {
      pace(corners, pace);
    }
    RoadUse use = content.use();
    if (use != null) {
      use(length, use);
    }
    Set<String> variants = new LinkedHashSet<>();
    if (content.variants().size() > MOST_VARIANTS) {
      throw Refusal.of("refusal.entry.more_variants", Value.figure(MOST_VARIANTS, 0))
          .at("variants");
    }
    for (Variant v : content.variants()) {
      if (!variants.add(v.id())) {
        throw Refusal.of("refusal.entry.variant_comes_twice").at(v.called());
      }
      variant(corners, length, gears, v);
    }
  }

  /** Checks a pace. */
  public static void pace(List<Corner> corners, OwnPace pace) {
    Said where = Said.of("where.pace");
    within(where, "field.braking", pace.driving().braking(), 0.3, 1);
    within(where, "field.turning", pace.driving().turning(), 0.3, 1);
    within(where, "field.traction", pace.driving().traction(), 0.3, 1);
    within(where, "field.margin", pace.driving().margin(), 0.02, 1.5);
    Set<String> seen = new LinkedHashSet<>();
    for (OwnPace.InCorner c : pace.corners()) {
      if (corners.stream().noneMatch(k -> k.id().equals(c.corner())) || !seen.add(c.corner())) {
        throw Refusal.of("refusal.entry.corner_not_here_comes", Value.own(c.corner())).at(where);
      }
      within(where, Said.of("field.factor_of", Value.own(c.corner())), c.factor(), 0.5, 1.5);
    }
  }

  /**
   * Checks what of the road is used. Whether an edge may be opened the survey decides, each time
   * anew.
   */
  public static void use(double length, RoadUse use) {
    Said where = Said.of("where.use");
    Set<String> seen = new LinkedHashSet<>();
    if (use.opened().size() > MOST_EDGES || use.gates().size() > MOST_EDGES) {
      throw Refusal.of("refusal.entry.more_edges_gates", Value.figure(MOST_EDGES, 0)).at(where);
    }
    for (String id : use.opened()) {
      if (id.length() > 60 || !seen.add(id)) {
        throw Refusal.of("refusal.entry.edge_comes_twice", Value.own(id)).at(where);
      }
    }
    gates(length, use.gates(), seen);
  }

  private static void gates(double length, List<Gate> gates, Set<String> seen) {
    for (Gate g : gates) {
      Said gate = Said.of("where.gate", Value.length(g.station()));
      if (g.id().length() > 60 || !seen.add(g.id())) {
        throw Refusal.of("refusal.entry.gate_comes_twice").at(gate);
      }
      within(gate, "field.station", g.station(), 0, length);
      within(gate, "field.distance_from_the_edge", g.metres(), -30, 60);
      within(gate, "field.tolerance", g.tolerance(), 0, 20);
      within(gate, "field.held_alongside", g.over(), 0, Math.min(length / 2, MOST_ALONGSIDE));
    }
  }

  private static void gates(Said where, @Nullable OtherGates others) {
    if (others == null) {
      return;
    }
    if (others.gates().size() > MOST_EDGES || others.without().size() > MOST_EDGES) {
      throw Refusal.of("refusal.entry.more_edges_gates", Value.figure(MOST_EDGES, 0)).at(where);
    }
    gates(Double.MAX_VALUE, others.gates(), new LinkedHashSet<>());
    others.without().forEach(id -> tooLong(where, "field.id_of_a_gate", id));
  }

  /** Checks one variant. */
  public static void variant(List<Corner> corners, double length, int gears, Variant v) {
    Said where = Said.of("where.variant", v.called().in());
    if (v.id().length() > 60 || v.name().length() > 60) {
      throw Refusal.of("refusal.entry.name_longer_characters").at(where);
    }
    day(where, v.day());
    OtherGates others = v.day().gates();
    if (others != null) {
      gates(length, others.gates(), new LinkedHashSet<>());
    }
    for (Variant.ByHand h : v.entries()) {
      if (corners.stream().noneMatch(c -> c.id().equals(h.corner()))) {
        throw Refusal.of("refusal.entry.no_corner_layout_version", Value.own(h.corner())).at(where);
      }
      for (CornerPoint p : h.points()) {
        within(where, Said.of("field.station_of", p.kind().said().in()), p.station(), 0, length);
      }
      Variant.Ways ways = h.ways();
      if (ways != null) {
        technique(where, ways);
        kerbs(where, length, ways.kerbs());
      }
      Integer gear = h.gear();
      if (gear != null) {
        within(where, "field.gear", gear, 1, gears);
      }
      Double effort = h.firstEffort();
      if (effort != null) {
        within(where, "field.first_effort", effort, 0, 1);
      }
      Double throttle = h.firstThrottle();
      if (throttle != null) {
        within(where, "field.first_throttle", throttle, 0, 1);
      }
      Set<String> ids = new LinkedHashSet<>();
      if (h.actions().size() > MOST_ACTIONS || h.without().size() > MOST_ACTIONS) {
        throw Refusal.of("refusal.entry.more_actions", Value.figure(MOST_ACTIONS, 0)).at(where);
      }
      for (Action a : h.actions()) {
        ownId(where, a, ids);
        action(where, length, gears, a);
      }
      for (String id : h.without()) {
        tooLong(where, "field.id_of_an_action", id);
      }
      tooLong(where, "field.note", h.note());
    }
  }

  /** Checks what a day is like. */
  public static void day(Said where, Day day) {
    gates(where, day.gates());
    within(where, "field.grip", day.grip(), 0.2, 1.2);
    within(where, "field.extra_mass", day.extraMass(), -150, 300);
    within(where, "field.wind", day.windSpeed(), 0, 40);
    within(where, "field.direction_of_the_wind", day.windFrom(), 0, 360);
    within(where, "field.drag", day.drag(), 0.4, 1.2);
    within(where, "field.downforce", day.downforce(), 0.4, 1.2);
    Double temperature = day.airTemperature();
    if (temperature != null) {
      within(where, "field.air_temperature", temperature, -30, 60);
    }
    if (!day.hour().isEmpty() && !day.hour().matches("([01]?\\d|2[0-3]):[0-5]\\d")) {
      throw Refusal.of("refusal.entry.not_hour", Value.own(day.hour())).at(where);
    }
  }

  /** Checks one corner. */
  public static void entry(List<Corner> corners, double length, int gears, CornerEntry e) {
    Corner corner =
        corners.stream()
            .filter(c -> c.id().equals(e.corner()))
            .findFirst()
            .orElseThrow(
                () ->
                    Refusal.of("refusal.entry.no_corner_layout_version", Value.own(e.corner()))
                        .at(e.corner()));
    Said where = Where.corner(corner.number());
    Set<PointKind> kinds = new LinkedHashSet<>();
    for (CornerPoint p : e.points()) {
      if (!kinds.add(p.kind())) {
        throw Refusal.of("refusal.entry.comes_twice", p.kind().said().in()).at(where);
      }
      within(where, Said.of("field.station_of", p.kind().said().in()), p.station(), 0, length);
    }
    within(where, "field.gear", e.gear(), 1, gears);
    within(where, "field.gear_on_approach", e.approachGear(), 1, gears);
    within(where, "field.first_effort", e.firstEffort(), 0, 1);
    within(where, "field.first_throttle", e.firstThrottle(), 0, 1);
    within(where, "field.speed_on_approach", e.approachSpeed(), 0, 140);
    within(where, "field.minimum_speed", e.minimumSpeed(), 0, 140);
    within(where, "field.distance_at_the_apex", e.apexGap(), -20, 40);
    tooLong(where, "field.note", e.note());
    technique(where, Variant.Ways.of(e));
    e.details()
        .forEach(
            (detail, text) -> {
              if (!detail.choices().isEmpty()
                  && !text.isEmpty()
                  && !detail.choices().contains(text)) {
                throw Refusal.of(
                        "refusal.entry.no_answer",
                        Value.own(text),
                        detail.said().in(),
                        Said.listed(detail.choices().stream().map(detail::told).toList()).in())
                    .at(where);
              }
              tooLong(where, detail.said(), text);
            });
    kerbs(where, length, e.kerbs());
    Integer priority = e.priority();
    if (priority != null) {
      within(where, "field.priority", priority, 1, 999);
    }
    for (BrakedAgain a : e.again()) {
      within(where, "field.place_of_a_further_braking", a.station(), 0, length);
      within(where, "field.speed_of_a_further_braking", a.from(), 0, 150);
      within(where, "field.speed_of_a_further_braking", a.to(), 0, 150);
    }
    score(where, length, gears, e);
    Wording wording = e.wording();
    if (wording != null) {
      tooLong(where, "field.wording", wording.text());
      tooLong(where, "field.wording", wording.about());
    }
  }

  private static void score(Said where, double length, int gears, CornerEntry e) {
    Set<String> ids = new LinkedHashSet<>();
    if (e.actions().size() > MOST_ACTIONS) {
      throw Refusal.of("refusal.entry.more_actions", Value.figure(MOST_ACTIONS, 0)).at(where);
    }
    for (Action a : e.actions()) {
      ownId(where, a, ids);
      action(where, length, gears, a);
    }
    for (CornerPoint p : e.points()) {
      Action play = p.play();
      if (play != null) {
        action(where, length, gears, play);
      }
    }
  }

  private static void ownId(Said where, Action a, Set<String> ids) {
    if (a.id().isBlank() || a.id().length() > 60 || !ids.add(a.id())) {
      throw Refusal.of("refusal.entry.action_comes_twice", Value.own(a.id())).at(where);
    }
    if (Score.point(a.id()).isPresent()) {
      throw Refusal.of("refusal.entry.action_one_points_every", Value.own(a.id())).at(where);
    }
  }

  /** Checks one action. */
  private static void action(Said corner, double length, int gears, Action a) {
    Said where =
        Said.of("where.action", corner.in(), Value.own(plain(a.kind())), Value.own(a.id()));
    within(where, "field.station", a.station(), 0, length);
    Double until = a.until();
    within(where, "field.station_where_it_ends", until == null ? 0 : until, 0, length);
    Double amount = a.amount();
    if (amount != null && a.kind().shared()) {
      within(where, "field.share", amount, 0, a.kind().most());
    } else if (amount != null) {
      within(where, "field.distance", amount, -30, 60);
    }
    Double tolerance = a.tolerance();
    within(where, "field.tolerance", tolerance == null ? 0 : tolerance, 0, 20);
    Integer gear = a.gear();
    if (gear != null) {
      within(where, "field.gear", gear, 1, gears);
    } else if (a.kind() == ActionKind.SHIFT && Score.point(a.id()).isEmpty()) {
      throw Refusal.of("refusal.entry.shift_says_no_gear").at(where);
    }
    if (!a.kind().manners().contains(a.manner())) {
      throw Refusal.of(
              "refusal.entry.cannot_done_manner", Value.own(String.valueOf(a.kind().manners())))
          .at(where);
    }
    tooLong(where, "field.note", a.note());
    cue(where, a.cue());
    cue(where, a.together());
    cue(where, a.backUp());
    looked(where, a);
    if (a.stance() != null && a.kind() != ActionKind.BODY) {
      throw Refusal.of("refusal.entry.no_stance").at(where);
    }
  }

  private static void looked(Said where, Action a) {
    Cue target = a.target();
    if (target == null) {
      return;
    }
    boolean place =
        target.kind() == CueKind.BESIDE
            || target.kind() == CueKind.SECONDS
                && target.number() == 0
                && !target.other().isBlank();
    if (a.kind() != ActionKind.EYES || !place) {
      throw Refusal.of("refusal.entry.looks_at_no_place").at(where);
    }
    cue(where, target);
  }

  private static void cue(Said where, @Nullable Cue cue) {
    if (cue == null) {
      return;
    }
    double number = cue.number();
    switch (cue.kind()) {
      case PAST -> within(where, "field.metres_of_the_cue", number, -500, 500);
      case LENGTHS -> within(where, "field.lengths_of_the_cue", number, -30, 30);
      case SHARE, BETWEEN -> within(where, "field.share_of_the_cue", number, 0, 1);
      case SECONDS, LIMITER -> within(where, "field.seconds_of_the_cue", number, 0, 20);
      case REVS -> within(where, "field.revs_of_the_cue", number, 500, 25000);
      default -> {}
    }
    if (cue.kind().thing() && cue.thing().isBlank()) {
      throw Refusal.of("refusal.entry.cue_names_no_thing").at(where);
    }
    tooLong(where, "field.name_of_a_cue", cue.spoken() + cue.otherSpoken());
  }

  private static String plain(Enum<?> named) {
    return named.name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  private static void kerbs(Said where, double length, List<KerbUse> kerbs) {
    if (kerbs.size() > MOST_KERBS) {
      throw Refusal.of("refusal.entry.more_uses_kerbs", Value.figure(MOST_KERBS, 0)).at(where);
    }
    for (KerbUse use : kerbs) {
      if (use.how() == Kerb.Verdict.OPEN) {
        throw Refusal.of("refusal.entry.use_kerb_open").at(where);
      }
      Double join = use.join();
      Double leave = use.leave();
      within(where, "field.station_where_a_kerb_is_joined", join == null ? 0 : join, 0, length);
      within(where, "field.station_where_a_kerb_is_left", leave == null ? 0 : leave, 0, length);
      tooLong(where, "field.reason_for_a_kerb", use.why());
    }
  }

  private static void technique(Said where, Variant.Ways e) {
    Set<Question> asked = new LinkedHashSet<>();
    for (School s : e.schools()) {
      if (!asked.add(s.question())) {
        throw Refusal.of("refusal.entry.answered_twice", s.question().said().in()).at(where);
      }
    }
    within(where, "field.share_given_away", e.givenAway(), 0, 1);
    within(where, "field.distance_added_at_the_apex", e.apexOff(), -3, 12);
    Pedals pedals = e.pedals();
    if (pedals != null) {
      within(where, "field.rise_of_the_brake", pedals.rise(), 0, 1);
      within(where, "field.hold_of_the_brake", pedals.hold(), pedals.rise(), 1);
      within(where, "field.brake_left_at_turn_in", pedals.trail(), 0, 1);
      within(where, "field.hold_of_the_throttle", pedals.maintain(), 0, 1);
      Double peak = pedals.peak();
      if (peak != null) {
        within(where, "field.peak_of_the_brake", peak, 0, 1.2);
      }
    }
  }

  private static void tooLong(Said where, String field, String text) {
    tooLong(where, Said.of(field), text);
  }

  private static void tooLong(Said where, Said what, String text) {
    if (text.length() > LONGEST_NOTE) {
      throw Refusal.of("refusal.entry.longer_characters", what.in(), Value.figure(LONGEST_NOTE, 0))
          .at(where);
    }
  }

  private static void within(Said where, String field, double value, double least, double most) {
    within(where, Said.of(field), value, least, most);
  }

  private static void within(Said where, Said what, double value, double least, double most) {
    if (!(value >= least && value <= most)) {
      throw Refusal.of(
              "refusal.entry.out_range",
              what.in(),
              Value.number(value),
              Value.number(least),
              Value.number(most))
          .at(where);
    }
  }
}
