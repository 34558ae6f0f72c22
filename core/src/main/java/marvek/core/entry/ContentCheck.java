package marvek.core.entry;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import marvek.core.circuit.Corner;
import marvek.core.line.Gate;
import marvek.core.refusal.Refusal;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.score.Cue;
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
        throw new Refusal(
            "Corner " + entry.corner() + " comes twice.", entry.corner(), "Leave one entry.");
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
      throw new Refusal(
          "There are more than " + MOST_VARIANTS + " variants.", "variants", "Leave some out.");
    }
    for (Variant v : content.variants()) {
      if (!variants.add(v.id())) {
        throw new Refusal("A variant comes twice.", v.called(), "Leave one of them.");
      }
      variant(corners, length, gears, v);
    }
  }

  /** Checks a pace. */
  public static void pace(List<Corner> corners, OwnPace pace) {
    String where = "own pace";
    within(where, "braking", pace.driving().braking(), 0.3, 1);
    within(where, "turning", pace.driving().turning(), 0.3, 1);
    within(where, "traction", pace.driving().traction(), 0.3, 1);
    within(where, "margin", pace.driving().margin(), 0.02, 1.5);
    Set<String> seen = new LinkedHashSet<>();
    for (OwnPace.InCorner c : pace.corners()) {
      if (corners.stream().noneMatch(k -> k.id().equals(c.corner())) || !seen.add(c.corner())) {
        throw new Refusal(
            "Corner " + c.corner() + " is not here, or comes twice.", where, "Leave it out.");
      }
      within(where, "factor of " + c.corner(), c.factor(), 0.5, 1.5);
    }
  }

  /**
   * Checks what of the road is used. Whether an edge may be opened the survey decides, each time
   * anew.
   */
  public static void use(double length, RoadUse use) {
    String where = "use of the road";
    Set<String> seen = new LinkedHashSet<>();
    if (use.opened().size() > MOST_EDGES || use.gates().size() > MOST_EDGES) {
      throw new Refusal(
          "There are more than " + MOST_EDGES + " edges or gates.", where, "Leave some out.");
    }
    for (String id : use.opened()) {
      if (id.length() > 60 || !seen.add(id)) {
        throw new Refusal("The edge " + id + " comes twice.", where, "Leave one of them.");
      }
    }
    for (Gate g : use.gates()) {
      String gate = String.format(Locale.ROOT, "gate at %.0f m", g.station());
      if (g.id().length() > 60 || !seen.add(g.id())) {
        throw new Refusal("A gate comes twice.", gate, "Leave one of them.");
      }
      within(gate, "station", g.station(), 0, length);
      within(gate, "distance from the edge", g.metres(), -30, 60);
      within(gate, "tolerance", g.tolerance(), 0, 20);
    }
  }

  /** Checks one variant. */
  public static void variant(List<Corner> corners, double length, int gears, Variant v) {
    String where = "variant " + v.called();
    if (v.id().length() > 60 || v.name().length() > 60) {
      throw new Refusal("A name is longer than 60 characters.", where, "Shorten it.");
    }
    day(where, v.day());
    for (Variant.ByHand h : v.entries()) {
      if (corners.stream().noneMatch(c -> c.id().equals(h.corner()))) {
        throw new Refusal(
            "There is no corner " + h.corner() + " in this layout version.",
            where,
            "Choose the layout that the reference was made for.");
      }
      for (CornerPoint p : h.points()) {
        within(where, "station of the " + p.kind().word(), p.station(), 0, length);
      }
      Integer gear = h.gear();
      if (gear != null) {
        within(where, "gear", gear, 1, gears);
      }
      Double effort = h.firstEffort();
      if (effort != null) {
        within(where, "first effort", effort, 0, 1);
      }
      Double throttle = h.firstThrottle();
      if (throttle != null) {
        within(where, "first throttle", throttle, 0, 1);
      }
      Set<String> ids = new LinkedHashSet<>();
      if (h.actions().size() > MOST_ACTIONS || h.without().size() > MOST_ACTIONS) {
        throw new Refusal(
            "There are more than " + MOST_ACTIONS + " actions.", where, "Leave some out.");
      }
      for (Action a : h.actions()) {
        ownId(where, a, ids);
        action(where, length, gears, a);
      }
      for (String id : h.without()) {
        tooLong(where, "id of an action", id);
      }
      tooLong(where, "note", h.note());
    }
  }

  /** Checks what a day is like. */
  public static void day(String where, Variant.Day day) {
    within(where, "grip", day.grip(), 0.2, 1.2);
    within(where, "extra mass", day.extraMass(), -150, 300);
    within(where, "wind", day.windSpeed(), 0, 40);
    within(where, "direction of the wind", day.windFrom(), 0, 360);
    within(where, "drag", day.drag(), 0.4, 1.2);
    within(where, "downforce", day.downforce(), 0.4, 1.2);
    Double temperature = day.airTemperature();
    if (temperature != null) {
      within(where, "air temperature", temperature, -30, 60);
    }
    if (!day.hour().isEmpty() && !day.hour().matches("([01]?\\d|2[0-3]):[0-5]\\d")) {
      throw new Refusal("\"" + day.hour() + "\" is not an hour.", where, "Give it like 18:30.");
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
                    new Refusal(
                        "There is no corner " + e.corner() + " in this layout version.",
                        e.corner(),
                        "Choose the layout that the reference was made for."));
    String where = "T" + corner.number();
    Set<PointKind> kinds = new LinkedHashSet<>();
    for (CornerPoint p : e.points()) {
      if (!kinds.add(p.kind())) {
        throw new Refusal("The " + p.kind().word() + " comes twice.", where, "Leave one of them.");
      }
      within(where, "station of the " + p.kind().word(), p.station(), 0, length);
    }
    within(where, "gear", e.gear(), 1, gears);
    within(where, "gear on approach", e.approachGear(), 1, gears);
    within(where, "first effort", e.firstEffort(), 0, 1);
    within(where, "first throttle", e.firstThrottle(), 0, 1);
    within(where, "speed on approach", e.approachSpeed(), 0, 140);
    within(where, "minimum speed", e.minimumSpeed(), 0, 140);
    within(where, "distance at the apex", e.apexGap(), -20, 40);
    tooLong(where, "note", e.note());
    technique(where, e);
    e.details()
        .forEach(
            (detail, text) -> {
              if (!detail.choices().isEmpty()
                  && !text.isEmpty()
                  && !detail.choices().contains(text)) {
                throw new Refusal(
                    "\"" + text + "\" is no answer to \"" + plain(detail) + "\".",
                    where,
                    "Choose one of " + String.join(", ", detail.choices()) + ".");
              }
              tooLong(where, plain(detail), text);
            });
    if (e.kerbs().size() > MOST_KERBS) {
      throw new Refusal(
          "There are more than " + MOST_KERBS + " uses of kerbs.", where, "Leave some out.");
    }
    for (KerbUse use : e.kerbs()) {
      if (use.how() == Kerb.Verdict.OPEN) {
        throw new Refusal(
            "The use of a kerb is open.", where, "Say keep off, touch, ride, half or straddle.");
      }
      Double join = use.join();
      Double leave = use.leave();
      within(where, "station where a kerb is joined", join == null ? 0 : join, 0, length);
      within(where, "station where a kerb is left", leave == null ? 0 : leave, 0, length);
      tooLong(where, "reason for a kerb", use.why());
    }
    Integer priority = e.priority();
    if (priority != null) {
      within(where, "priority", priority, 1, 999);
    }
    for (BrakedAgain a : e.again()) {
      within(where, "place of a further braking", a.station(), 0, length);
      within(where, "speed of a further braking", a.from(), 0, 150);
      within(where, "speed of a further braking", a.to(), 0, 150);
    }
    score(where, length, gears, e);
    Wording wording = e.wording();
    if (wording != null) {
      tooLong(where, "wording", wording.text());
      tooLong(where, "wording", wording.about());
    }
  }

  private static void score(String where, double length, int gears, CornerEntry e) {
    Set<String> ids = new LinkedHashSet<>();
    if (e.actions().size() > MOST_ACTIONS) {
      throw new Refusal(
          "There are more than " + MOST_ACTIONS + " actions.", where, "Leave some out.");
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

  private static void ownId(String where, Action a, Set<String> ids) {
    if (a.id().isBlank() || a.id().length() > 60 || !ids.add(a.id())) {
      throw new Refusal("The action " + a.id() + " comes twice.", where, "Leave one of them.");
    }
    if (Score.point(a.id()).isPresent()) {
      throw new Refusal(
          "The action " + a.id() + " is one of the points that every corner has.",
          where,
          "Give it another id, or move the point.");
    }
  }

  /** Checks one action. */
  private static void action(String corner, double length, int gears, Action a) {
    String where =
        corner + ", " + a.kind().name().toLowerCase(Locale.ROOT).replace('_', ' ') + " " + a.id();
    within(where, "station", a.station(), 0, length);
    Double until = a.until();
    within(where, "station where it ends", until == null ? 0 : until, 0, length);
    Double amount = a.amount();
    if (amount != null && a.kind().shared()) {
      within(where, "share", amount, 0, a.kind().most());
    } else if (amount != null) {
      within(where, "distance", amount, -30, 60);
    }
    Double tolerance = a.tolerance();
    within(where, "tolerance", tolerance == null ? 0 : tolerance, 0, 20);
    Integer gear = a.gear();
    if (gear != null) {
      within(where, "gear", gear, 1, gears);
    } else if (a.kind() == ActionKind.SHIFT && Score.point(a.id()).isEmpty()) {
      throw new Refusal("A shift says no gear.", where, "Give the gear that is taken.");
    }
    if (!a.kind().manners().contains(a.manner())) {
      throw new Refusal(
          "It cannot be done in this manner.", where, "Choose one of " + a.kind().manners() + ".");
    }
    tooLong(where, "note", a.note());
    cue(where, a.cue());
    cue(where, a.together());
    cue(where, a.backUp());
  }

  private static void cue(String where, @Nullable Cue cue) {
    if (cue == null) {
      return;
    }
    double number = cue.number();
    switch (cue.kind()) {
      case PAST -> within(where, "metres of the cue", number, -500, 500);
      case LENGTHS -> within(where, "lengths of the cue", number, -30, 30);
      case SHARE, BETWEEN -> within(where, "share of the cue", number, 0, 1);
      case SECONDS, LIMITER -> within(where, "seconds of the cue", number, 0, 20);
      case REVS -> within(where, "revs of the cue", number, 500, 25000);
      default -> {}
    }
    if (cue.kind().thing() && cue.thing().isBlank()) {
      throw new Refusal("A cue names no thing.", where, "Choose one of the survey.");
    }
    tooLong(where, "name of a cue", cue.spoken() + cue.otherSpoken());
  }

  private static String plain(Enum<?> named) {
    return named.name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  private static void technique(String where, CornerEntry e) {
    Set<Question> asked = new LinkedHashSet<>();
    for (School s : e.schools()) {
      if (!asked.add(s.question())) {
        throw new Refusal(
            "\"" + plain(s.question()) + "\" is answered twice.", where, "Choose one answer.");
      }
    }
    within(where, "share given away", e.givenAway(), 0, 1);
    within(where, "distance added at the apex", e.apexOff(), -3, 12);
    Pedals pedals = e.pedals();
    if (pedals != null) {
      within(where, "rise of the brake", pedals.rise(), 0, 1);
      within(where, "hold of the brake", pedals.hold(), pedals.rise(), 1);
      within(where, "brake left at turn-in", pedals.trail(), 0, 1);
      within(where, "hold of the throttle", pedals.maintain(), 0, 1);
      Double peak = pedals.peak();
      if (peak != null) {
        within(where, "peak of the brake", peak, 0, 1.2);
      }
    }
  }

  private static void tooLong(String where, String what, String text) {
    if (text.length() > LONGEST_NOTE) {
      throw new Refusal(
          "The " + what + " is longer than " + LONGEST_NOTE + " characters.", where, "Shorten it.");
    }
  }

  private static void within(String where, String what, double value, double least, double most) {
    if (!(value >= least && value <= most)) {
      throw new Refusal(
          "The " + what + " (" + value + ") is out of range.",
          where,
          "It must lie between " + least + " and " + most + ".");
    }
  }
}
