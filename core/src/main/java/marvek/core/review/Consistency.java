package marvek.core.review;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Sight;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.Detail;
import marvek.core.entry.KerbUse;
import marvek.core.entry.PointKind;
import marvek.core.entry.Wording;
import marvek.core.marker.Landmark;
import marvek.core.marker.Tie;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.survey.Kerb;
import marvek.core.survey.Things;
import marvek.core.survey.TrackLimit;
import marvek.core.technique.School;
import marvek.core.vehicle.Vehicle;
import marvek.core.words.Sentence;
import marvek.core.words.Speech;
import org.jspecify.annotations.Nullable;

/** Last check of a reference: what in it does not go together. */
public final class Consistency {
  private static final double LOOKS_BACK = 60;
  private static final double TO_APEX = 12;

  private Consistency() {}

  /** Rules, each of which can be broken at a point or in a corner. */
  public enum Rule {
    ORDER,
    HIDDEN_MARKER,
    BACK_UP_FARTHER,
    RELEASE_AGAINST_CHOICE,
    OVER_REV,
    KERB_AGAINST_VERDICT,
    LIMIT_AT_EXIT,
    APEX_AFTER_FULL,
    CANNOT_BE_MADE,
    OVER_ASKED,
    NO_ESCAPE,
    LIGHT_AGAINST_CHOICE,
    WORDING_DUE
  }

  /**
   * Something that does not go together.
   *
   * @param corner id
   * @param kind the point it is about, or null
   * @param words what, and what to do
   */
  public record Warning(Rule rule, String corner, @Nullable PointKind kind, String words) {}

  /** Checks one corner. */
  public static List<Warning> corner(
      ComputedLap computed, Things things, CornerEntry entry, CornerAnswer answer) {
    return new Check(computed, things, entry, answer).run();
  }

  private static final class Check {
    private final ComputedLap computed;
    private final Centreline road;
    private final Things things;
    private final CornerEntry e;
    private final CornerAnswer answer;
    private final Corner corner;
    private final List<Warning> out = new ArrayList<>();

    Check(ComputedLap computed, Things things, CornerEntry entry, CornerAnswer answer) {
      this.computed = computed;
      this.road = computed.road();
      this.things = things;
      this.e = entry;
      this.answer = answer;
      this.corner = computed.corners().get(computed.indexOf(entry.corner()));
    }

    List<Warning> run() {
      order();
      hidden();
      backUp();
      release();
      gears();
      kerbs();
      exit();
      apexAfterFull();
      made();
      escape();
      light();
      wording();
      return List.copyOf(out);
    }

    private void warn(Rule rule, @Nullable PointKind kind, String pattern, Object... values) {
      out.add(new Warning(rule, e.corner(), kind, String.format(Locale.ROOT, pattern, values)));
    }

    private void order() {
      for (String remark : answer.remarks()) {
        if (remark.contains(" comes before ")) {
          warn(Rule.ORDER, null, "%s", remark);
        }
      }
    }

    private Optional<Landmark> landmark(CornerPoint p) {
      Tie tie = p.tie();
      return tie == null
          ? Optional.empty()
          : things.landmarks().stream().filter(l -> l.id().equals(tie.landmark())).findFirst();
    }

    /** Seen from one and a half seconds before, over the crests between. */
    private void hidden() {
      double eye =
          computed.vehicle().kind() == Vehicle.Kind.MOTORCYCLE
              ? Sight.EYE_MOTORCYCLE
              : Sight.EYE_CAR;
      for (CornerPoint p : e.points()) {
        boolean marks = p.kind() == PointKind.BRAKE || p.kind().marksBraking();
        Optional<Landmark> l = marks ? landmark(p) : Optional.empty();
        if (l.isPresent() && l.get().permanence() != Landmark.Permanence.FEEL) {
          double top = l.get().kind() == Landmark.Kind.SHADOW ? 0 : Math.max(0, l.get().height());
          if (!Sight.clear(road, l.get().station() - LOOKS_BACK, eye, LOOKS_BACK, top)) {
            warn(
                Rule.HIDDEN_MARKER,
                p.kind(),
                "The %s lies behind a crest: %s is not in sight %.0f m before it. Choose one this"
                    + " side of the crest, or one that stands higher.",
                p.kind().word(),
                l.get().spoken(),
                LOOKS_BACK);
          }
        }
      }
    }

    private void backUp() {
      Optional<CornerPoint> back = e.point(PointKind.BACK_UP);
      Optional<CornerPoint> brake = e.point(PointKind.BRAKE);
      if (back.isEmpty() || brake.isEmpty()) {
        return;
      }
      double first = away(brake.get(), brake.get().station());
      double second = away(back.get(), brake.get().station());
      if (second > first + 0.5) {
        warn(
            Rule.BACK_UP_FARTHER,
            PointKind.BACK_UP,
            "The back-up marker lies %.0f m from the point, the primary %.0f m: swap them, or say"
                + " why in the note.",
            second,
            first);
      }
    }

    private double away(CornerPoint p, double point) {
      return landmark(p)
          .map(l -> Math.abs(road.apart(l.station(), point)))
          .orElse(Math.abs(road.apart(p.station(), point)));
    }

    private void release() {
      Optional<Double> release = e.station(PointKind.RELEASE);
      Optional<Double> turnIn = e.station(PointKind.TURN_IN);
      Optional<Double> apex = e.station(PointKind.APEX);
      boolean toApex = e.schools().contains(School.TO_APEX);
      Optional<Double> first = e.station(PointKind.FIRST_APEX);
      if (release.isEmpty() || turnIn.isEmpty()) {
        return;
      }
      if (toApex && road.apart(turnIn.get(), release.get()) < 0) {
        warn(
            Rule.RELEASE_AGAINST_CHOICE,
            PointKind.RELEASE,
            "The brake is let go before turn-in, but \"%s\" is chosen.",
            School.TO_APEX.words());
      } else if (e.schools().contains(School.EARLY_ROLL)
          && (apex.isPresent() && road.apart(release.get(), apex.get()) < TO_APEX
              || first.isPresent() && Math.abs(road.apart(release.get(), first.get())) < TO_APEX)) {
        warn(
            Rule.RELEASE_AGAINST_CHOICE,
            PointKind.RELEASE,
            "The brake is held to the apex, but \"%s\" is chosen.",
            School.EARLY_ROLL.words());
      }
    }

    private void gears() {
      boolean spins = answer.gears().stream().anyMatch(g -> g.gear() == e.gear() && !g.usable());
      if (spins) {
        warn(
            Rule.OVER_REV,
            null,
            "Gear %d is outside the revs at the slowest point: take another.",
            e.gear());
      }
      answer.shifts().down().stream()
          .filter(d -> !d.safe())
          .forEach(
              d ->
                  warn(
                      Rule.OVER_REV,
                      PointKind.DOWNSHIFT,
                      "The shift down to %d would turn %.0f revs: shift later.",
                      d.gear(),
                      d.revs()));
    }

    private void kerbs() {
      for (KerbUse use : e.kerbs()) {
        for (Kerb k : things.kerbs()) {
          boolean same = k.corner().equals(e.corner()) && k.part() == use.part();
          if (same && more(use.how()) > more(k.verdict()) && k.verdict() != Kerb.Verdict.OPEN) {
            warn(
                Rule.KERB_AGAINST_VERDICT,
                null,
                "%s kerb: the entry says %s, the survey %s.",
                word(use.part()),
                word(use.how()),
                word(k.verdict()));
          }
        }
      }
    }

    private static int more(Kerb.Verdict v) {
      return switch (v) {
        case KEEP_OFF, OPEN -> 0;
        case TOUCH -> 1;
        case RIDE -> 2;
        case HALF_THE_CAR, STRADDLE -> 3;
      };
    }

    private void exit() {
      Optional<Double> at = e.station(PointKind.EXIT);
      if (at.isEmpty()) {
        return;
      }
      boolean left = !corner.left();
      for (TrackLimit limit : things.limits()) {
        boolean here =
            limit.corner().equals(e.corner())
                && limit.part() == Kerb.Part.EXIT
                && limit.left() == left
                && limit.wheelsInside() > 0;
        if (!here) {
          continue;
        }
        double over = over(at.get(), left);
        double allowed = allowed(limit, left);
        boolean rides =
            e.kerbs().stream().anyMatch(u -> u.part() == Kerb.Part.EXIT && more(u.how()) >= 3);
        if (over > allowed + 0.05 || (rides && allowed <= 0)) {
          warn(
              Rule.LIMIT_AT_EXIT,
              PointKind.EXIT,
              "The exit uses more than the limit allows here%s. A breach costs: %s",
              rides ? " (half the car on the kerb)" : "",
              limit.cost().isBlank() ? "see the event's rules." : limit.cost() + ".");
        }
      }
    }

    /** Metres by which the outer wheel is past the road's edge at the exit as planned. */
    private double over(double station, boolean left) {
      CornerAnswer.Profile p = answer.profile();
      int k = (int) Math.round(road.ahead(p.from(), station) / p.step());
      if (k >= p.offset().length) {
        return -1;
      }
      int i = road.index(station);
      double edge = left ? road.left()[i] : road.right()[i];
      double side = left ? p.offset()[k] : -p.offset()[k];
      return side + computed.vehicle().width() / 2 - edge;
    }

    private double allowed(TrackLimit limit, boolean left) {
      // With two wheels to stay inside, the outer two may be a car's width over.
      double spare = limit.wheelsInside() <= 2 ? computed.vehicle().width() * 0.9 : 0;
      double kerb =
          things.kerbs().stream()
              .filter(
                  k ->
                      k.corner().equals(e.corner())
                          && k.part() == Kerb.Part.EXIT
                          && k.left() == left)
              .mapToDouble(Kerb::width)
              .findFirst()
              .orElse(0);
      return switch (limit.line()) {
        case WHITE_LINE, KERB_INNER, TARMAC -> spare;
        case KERB_OUTER -> kerb + spare;
        case NONE -> Double.MAX_VALUE;
      };
    }

    private void apexAfterFull() {
      Optional<Double> full = e.station(PointKind.FULL_THROTTLE);
      Optional<Double> apex = e.station(PointKind.APEX);
      if (full.isPresent() && apex.isPresent() && road.apart(apex.get(), full.get()) < 0) {
        warn(
            Rule.APEX_AFTER_FULL,
            PointKind.APEX,
            "Full throttle comes %.0f m before the apex.",
            -road.apart(apex.get(), full.get()));
      }
    }

    private void made() {
      CornerAnswer.BrakingNumbers braking = answer.braking();
      if (braking != null && !braking.makesIt()) {
        warn(
            Rule.CANNOT_BE_MADE,
            PointKind.BRAKE,
            "From here the corner cannot be made: brake %.0f m sooner at least.",
            Math.max(1, -braking.marginMetres()));
      }
      CornerAnswer.Pressing pressing = answer.pressing();
      if (pressing != null && pressing.asks() > 1.03) {
        warn(
            Rule.OVER_ASKED,
            PointKind.BRAKE,
            "Braking and turning ask %.0f %% of the grip.",
            pressing.asks() * 100);
      }
    }

    private void escape() {
      Hazards hazards = Hazards.of(computed, things, e);
      if (hazards.shortRunOff() && e.detail(Detail.ESCAPE).isBlank()) {
        warn(
            Rule.NO_ESCAPE,
            null,
            "The run-off is short and no escape plan is your own yet. Offered: %s.",
            hazards.escape());
      }
    }

    private void light() {
      for (CornerPoint p : e.points()) {
        boolean shadow =
            landmark(p).map(l -> l.permanence() == Landmark.Permanence.LIGHT).orElse(false);
        if (shadow && e.schools().contains(School.NO_LIGHT)) {
          warn(
              Rule.LIGHT_AGAINST_CHOICE,
              p.kind(),
              "The %s is tied to a shadow, but shadows are never to be used here.",
              p.kind().word());
        }
      }
    }

    private void wording() {
      Wording own = e.wording();
      if (own != null
          && !own.about().equals(Sentence.line(corner, e, Speech.PLAIN.on(road.length())))) {
        warn(
            Rule.WORDING_DUE,
            null,
            "Your own words were written when the points said: %s",
            own.about());
      }
    }

    private static String word(Enum<?> e) {
      return e.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }
  }

  /** Checks a whole reference. */
  public static List<Warning> all(ComputedLap computed, Things things, List<CornerEntry> entries) {
    List<Warning> out = new ArrayList<>();
    for (CornerEntry e : entries) {
      out.addAll(corner(computed, things, e, Answers.answer(computed, things, e)));
    }
    return List.copyOf(out);
  }
}
