package marvek.core.session;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import marvek.core.anew.Refresh;
import marvek.core.circuit.Corner;
import marvek.core.day.Footing;
import marvek.core.day.Paced;
import marvek.core.day.Variants;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Day;
import marvek.core.entry.DayKind;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Slowing;
import marvek.core.entry.Variant;
import marvek.core.lap.Driving;
import marvek.core.lap.Surface;
import marvek.core.numeric.Spread;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.survey.Things;
import marvek.core.technique.School;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/**
 * The reference as it is to be driven in a session: what differs from the reference itself, in
 * which laps, and for which one reason.
 *
 * @param lapTime computed for the session, s
 * @param base computed for the reference, s
 * @param laps that fit into the session
 * @param warmFrom first lap with warm tyres
 * @param corners in driving order
 */
public record Today(
    double lapTime, double base, int laps, int warmFrom, List<CornerToday> corners) {
  /** Metres below which nobody can use a difference. */
  private static final double USE = 2;

  /** Share of grip by which the last laps must differ to be told apart. */
  private static final double LATER = 0.01;

  private static final double SHARE = 0.05;
  private static final double MASS = 1;
  private static final double WIND = 1;
  private static final double GRIP = 0.004;

  /** In which laps something holds. */
  public enum When {
    ALL,
    FIRST,
    LAST
  }

  public Today {
    corners = List.copyOf(corners);
  }

  /**
   * What differs.
   *
   * @param when in which laps
   * @param kind of the point that it is about; null for gear, effort and actions
   * @param words what, rounded to what a person can use
   * @param reason the one that weighs most; nothing where the driver set it
   * @param metres by which a point moves, positive to later; 0 for what is no place
   */
  public record Differing(
      When when, @Nullable PointKind kind, Said words, Said reason, double metres) {}

  /**
   * A corner.
   *
   * @param corner id
   * @param entry as it is to be driven with warm tyres
   * @param differences from the reference, weightiest first
   * @param brake metres by which the first marker moves, positive to later; null without one
   * @param early metres by which it comes sooner than in the session's warm laps on each lap until
   *     the tyres are warm, rounded
   * @param slowest m/s in the session
   * @param slowestBase m/s at the same place in the reference
   * @param way that was chosen for the session; null for none
   * @param wayCosts seconds that it costs against driving as in the reference; null for none, and
   *     where it cannot be driven in the session or leads to the same, so that it is not
   */
  public record CornerToday(
      String corner,
      CornerEntry entry,
      List<Differing> differences,
      @Nullable Double brake,
      List<Double> early,
      double slowest,
      double slowestBase,
      @Nullable School way,
      @Nullable Double wayCosts) {
    public CornerToday {
      differences = List.copyOf(differences);
      early = List.copyOf(early);
    }
  }

  /**
   * How the tyres' grip and the mass go through the session.
   *
   * @param session planned
   * @param burnt kg of fuel by lap
   * @param rate at which a lap wears the tyres, 1 as on a lap of the reference
   */
  private record Course(TrackSession session, Vehicle vehicle, double burnt, double rate) {
    Day on(int lap, double lapTime, boolean warm) {
      double share = warm ? 1 : session.tyres().warmUp(session.day()).share(lap, lapTime);
      return session
          .day()
          .at(
              session.hour(),
              share * session.tyres().worn(lap, rate),
              session.fuel().more(vehicle)
                  - Math.min(burnt * (lap - 1), session.fuel().most(vehicle)));
    }
  }

  /** The day of a session's laps with warm tyres, as the computation asks for it. */
  public static Day warm(TrackSession session, Vehicle vehicle) {
    return session
        .day()
        .at(session.hour(), session.tyres().worn(0, 1), session.fuel().more(vehicle));
  }

  /** The day of the reference that a session's hand-set places come from, on its own conditions. */
  private static Variant variant(ReferenceContent content, TrackSession session, Vehicle vehicle) {
    Day day = warm(session, vehicle);
    Optional<Variant> like =
        content.variants().stream().filter(v -> v.id().equals(session.day().like())).findFirst();
    return new Variant(
        like.map(Variant::id).orElse("session"),
        like.map(Variant::kind).orElse(kind(day)),
        like.map(Variant::name).orElse(""),
        day,
        like.map(Variant::entries).orElse(List.of()));
  }

  /**
   * Another entry of a corner of the reference, as it would be in a session: one that was written
   * before, or somewhere else.
   *
   * @param base as computed for the reference
   * @param then as computed for {@link #warm}
   */
  public static CornerEntry carried(
      ComputedLap base, ComputedLap then, Things things, TrackSession session, CornerEntry other) {
    Day day = warm(session, base.vehicle());
    Variant plain = new Variant("session", kind(day), "", day, List.of());
    return settled(then, things, other, Variants.adjust(base, then, plain, other).entry());
  }

  /** Speeds, gears on arrival and markers as they are on the day. */
  private static CornerEntry settled(
      ComputedLap then, Things things, CornerEntry own, CornerEntry adjusted) {
    CornerEntry moved = Answers.followed(then, things, own, adjusted);
    return Refresh.entry(then, things, moved);
  }

  private static DayKind kind(Day day) {
    return switch (day.road().state()) {
      case DRY -> DayKind.OTHER_HOUR;
      case DAMP -> DayKind.DAMP;
      case WET -> DayKind.WET;
      case DRYING -> DayKind.DRYING;
    };
  }

  /**
   * The reference for a session.
   *
   * @param base as computed for the reference
   * @param then as computed for {@link #warm}
   * @param roads for the laps with cold and with worn tyres
   * @param spread of the laps, and then of the corners, which do not hang on each other
   * @param burnt kg of fuel by lap
   */
  public static Today of(
      ComputedLap base,
      ComputedLap then,
      Roads roads,
      Spread spread,
      Things things,
      ReferenceContent content,
      TrackSession session,
      double burnt) {
    Variant variant = variant(content, session, base.vehicle());
    double rate = TyreWork.rate(base, then, session.tyres().spared());
    Course course = new Course(session, base.vehicle(), burnt, rate);
    double lapTime = then.lap().lapTime();
    int laps = session.timing().fits(lapTime);
    int warmFrom = session.tyres().warmUp(session.day()).warmFrom(lapTime);
    List<Day> days = new ArrayList<>();
    for (int lap = 1; lap < Math.min(warmFrom, laps + 1); lap++) {
      days.add(course.on(lap, lapTime, false));
    }
    Day end = course.on(Math.max(1, laps), lapTime, true);
    boolean tires =
        laps > warmFrom
            && (Math.abs(end.grip() / variant.day().grip() - 1) >= LATER
                || Math.abs(end.extraMass() - variant.day().extraMass()) >= MASS * 5);
    int coldLaps = days.size();
    if (tires) {
      days.add(end);
    }
    List<ComputedLap> held = spread.each(days, day -> roads.held(then, day));
    List<ComputedLap> cold = held.subList(0, coldLaps);
    ComputedLap late = tires ? held.get(coldLaps) : null;
    List<CornerToday> out =
        spread.each(
            content.corners(),
            own -> corner(base, then, things, variant, own, way(session, own), cold, late, end));
    return new Today(lapTime, base.lap().lapTime(), laps, warmFrom, out);
  }

  /**
   * A session's lap at its own pace: with all three shares of the grip alike, and the margin that
   * the reference has.
   *
   * @param then as computed for {@link #warm}
   * @return the same where the session has no pace of its own
   */
  public static ComputedLap paced(ComputedLap then, TrackSession session) {
    Double pace = session.pace();
    if (pace == null) {
      return then;
    }
    double margin = then.conditions().driving().margin();
    Driving driving = Paced.off(then, then.ground(), pace, margin, List.of()).driving();
    return then.on(then.conditions().withDriving(driving));
  }

  /** Where computed laps come from; whoever has them at hand need not compute them again. */
  @FunctionalInterface
  public interface Roads {
    /** A lap on the line of another, on the ground and in the conditions of a day. */
    ComputedLap held(ComputedLap line, Day day);

    /** Computed each time. */
    static Roads computed(ComputedLap base, Footing footing) {
      return (line, day) -> Variants.held(base, line, footing, day);
    }

    /** The same, driven as another lap is. */
    default Roads as(ComputedLap then) {
      Driving driving = then.conditions().driving();
      return (line, day) -> {
        ComputedLap held = held(line, day);
        return held.conditions().driving().equals(driving)
            ? held
            : held.on(held.conditions().withDriving(driving));
      };
    }
  }

  private static CornerToday corner(
      ComputedLap base,
      ComputedLap then,
      Things things,
      Variant variant,
      CornerEntry own,
      @Nullable School way,
      List<ComputedLap> cold,
      @Nullable ComputedLap late,
      Day end) {
    Variants.Adjusted adjusted = Variants.adjust(base, then, variant, own);
    CornerEntry usual = settled(then, things, own, adjusted.entry());
    Optional<Alternatives.Offer> other =
        way == null
            ? Optional.empty()
            : Alternatives.school(then, things, List.of(usual), own.corner(), way);
    CornerEntry entry = other.map(o -> o.way().entries().get(0)).orElse(usual);
    int c = base.indexOf(own.corner());
    List<Differing> out = new ArrayList<>();
    if (other.isPresent() && way != null) {
      out.addAll(besides(base, own, entry, When.ALL, Said.of("today.why.way", way.called().in())));
    } else {
      out.addAll(differences(base, own, entry, adjusted, reason(base, then, variant.day(), c)));
    }
    List<Double> early = new ArrayList<>();
    CornerEntry first = null;
    for (ComputedLap lap : cold) {
      // Of the laps after the first only the marker is told.
      Optional<Double> marker;
      if (first == null) {
        first = Variants.placed(then, lap, entry);
        marker = first.station(PointKind.BRAKE);
      } else {
        marker = Variants.marker(then, lap, entry);
      }
      double sooner = -moved(base, entry.station(PointKind.BRAKE), marker).orElse(0.0);
      early.add((double) Math.round(Math.max(0, sooner)));
    }
    if (first != null) {
      out.addAll(besides(base, entry, first, When.FIRST, Said.of("today.why.cold")));
    }
    if (late != null) {
      Said why =
          Math.abs(end.grip() / variant.day().grip() - 1) >= LATER
              ? Said.of("today.why.worn")
              : Said.of("today.why.lighter");
      out.addAll(besides(base, entry, Variants.placed(then, late, entry), When.LAST, why));
    }
    return new CornerToday(
        own.corner(),
        entry,
        out,
        moved(base, own, entry).orElse(null),
        early,
        then.lap().speed()[then.slowest(c)],
        base.lap().speed()[then.slowest(c)],
        way,
        other.map(Alternatives.Offer::predicted).orElse(null));
  }

  /** What was chosen for a corner in a session. */
  private static @Nullable School way(TrackSession session, CornerEntry own) {
    return session.ways().stream()
        .filter(w -> w.corner().equals(own.corner()))
        .map(SessionWay::school)
        .findFirst()
        .orElse(null);
  }

  /** Metres by which the first marker moved. */
  private static Optional<Double> moved(ComputedLap base, CornerEntry was, CornerEntry is) {
    return moved(base, was.station(PointKind.BRAKE), is.station(PointKind.BRAKE));
  }

  private static Optional<Double> moved(
      ComputedLap base, Optional<Double> was, Optional<Double> is) {
    return was.isEmpty() || is.isEmpty()
        ? Optional.empty()
        : Optional.of(base.road().apart(was.get(), is.get()));
  }

  private static List<Differing> differences(
      ComputedLap base,
      CornerEntry own,
      CornerEntry entry,
      Variants.Adjusted adjusted,
      Said reason) {
    List<Differing> out = new ArrayList<>(besides(base, own, entry, When.ALL, reason));
    // What the driver set for such a day is said as that.
    for (int i = 0; i < out.size(); i++) {
      Differing d = out.get(i);
      if (d.kind() != null && adjusted.byHand().contains(d.kind())) {
        out.set(
            i, new Differing(d.when(), d.kind(), d.words(), Said.of("today.why.hand"), d.metres()));
      }
    }
    return out;
  }

  /** Where two entries of a corner differ by what a person can use. */
  private static List<Differing> besides(
      ComputedLap base, CornerEntry was, CornerEntry is, When when, Said reason) {
    List<Differing> out = new ArrayList<>();
    if (was.slowing() != is.slowing()) {
      out.add(
          new Differing(
              when,
              null,
              Said.of(
                  "today.slowing",
                  Said.of("slowing." + was.slowing()).in(),
                  Said.of("slowing." + is.slowing()).in()),
              reason,
              0));
    }
    List<Differing> places = new ArrayList<>();
    for (PointKind kind : PointKind.values()) {
      Optional<Double> a = was.station(kind);
      Optional<Double> b = is.station(kind);
      if (a.isEmpty() || b.isEmpty() || !kind.drafted()) {
        continue;
      }
      double metres = base.road().apart(a.get(), b.get());
      if (Math.abs(metres) >= USE) {
        places.add(
            new Differing(
                when,
                kind,
                Said.of(
                    "today.place",
                    kind.said().in(),
                    Value.length(Math.abs(metres)),
                    Value.choice(metres < 0)),
                reason,
                (double) Math.round(metres)));
      }
    }
    places.sort(
        Comparator.comparing((Differing d) -> d.kind() != PointKind.BRAKE)
            .thenComparing(d -> -Math.abs(d.metres())));
    out.addAll(places);
    if (was.gear() != is.gear()) {
      out.add(
          new Differing(
              when,
              null,
              Said.of("today.gear", Value.count(is.gear()), Value.count(was.gear())),
              reason,
              0));
    }
    boolean braked = was.slowing() == Slowing.BRAKE && is.slowing() == Slowing.BRAKE;
    if (braked && Math.abs(was.firstEffort() - is.firstEffort()) >= SHARE) {
      out.add(
          new Differing(
              when,
              null,
              Said.of(
                  "today.effort",
                  Value.percent(is.firstEffort()),
                  Value.percent(was.firstEffort())),
              reason,
              0));
    }
    for (Variants.ActionChange c : Variants.actions(base, was, is)) {
      done(c, when, reason).ifPresent(out::add);
    }
    return out;
  }

  /** What becomes of an action, where a person can use it. */
  private static Optional<Differing> done(Variants.ActionChange c, When when, Said reason) {
    Action was = c.was();
    Action is = c.is();
    Said words = null;
    if (is == null) {
      words = was == null ? null : Said.of("today.action.without", was.said(List.of(was)).in());
    } else if (was == null) {
      words = Said.of("today.action.added", is.said(List.of(is)).in());
    } else if (Math.abs(c.metres()) >= USE) {
      words =
          Said.of(
              "today.place",
              is.kind().said().in(),
              Value.length(Math.abs(c.metres())),
              Value.choice(c.metres() < 0));
    } else {
      Double from = was.amount();
      Double to = is.amount();
      if (c.amount() && from != null && to != null) {
        words =
            Said.of(
                "today.action.amount",
                is.kind().said().in(),
                Value.percent(to),
                Value.percent(from));
      }
    }
    return Optional.ofNullable(words)
        .map(w -> new Differing(when, null, w, reason, (double) Math.round(c.metres())));
  }

  /** What of the day weighs most in a corner. */
  static Said reason(ComputedLap base, ComputedLap then, Day day, int corner) {
    Corner at = base.corners().get(corner);
    double here = groundShare(base, then, at);
    if (here < 1 - 0.03) {
      return Said.of("today.why.damp", Value.percent(1 - here));
    }
    double grip = then.conditions().grip() / base.conditions().grip() - 1;
    double pace = then.conditions().driving().turning() / base.conditions().driving().turning() - 1;
    if (Math.abs(pace) > Math.max(GRIP, Math.abs(grip))) {
      return Said.of("today.why.pace", Value.choice(pace < 0));
    }
    double mass =
        (then.conditions().extraMass() - base.conditions().extraMass()) / base.vehicle().mass();
    // Speeds go with the root of the grip; mass costs by drag and load sensitivity alone.
    double byMass = 0.3 * mass;
    double byWind = day.windSpeed() / Math.max(15, base.lap().speed()[base.slowest(corner)]);
    double byTow = day.drag() - 1;
    double most =
        Math.max(
            Math.max(Math.abs(grip), Math.abs(byMass)), Math.max(byWind * 0.2, Math.abs(byTow)));
    if (most == Math.abs(grip) && most >= GRIP) {
      Surface.State road = day.road().state();
      return Said.of(
          "today.why.grip", Value.choice(road), Value.percent(1 + grip), Value.choice(grip < 0));
    }
    if (Math.abs(byTow) == most && byTow != 0) {
      return Said.of("today.why.tow");
    }
    if (day.windSpeed() >= WIND && most == byWind * 0.2) {
      return Said.of("today.why.wind", Value.figure(day.windSpeed(), 0));
    }
    return Math.abs(mass) * base.vehicle().mass() >= MASS
        ? Said.of("today.why.mass", Value.signed(mass * base.vehicle().mass(), 0))
        : Said.of("today.why.day");
  }

  /** Grip on the session's line through a corner against the reference's ground there. */
  private static double groundShare(ComputedLap base, ComputedLap then, Corner at) {
    int from = base.road().index(at.entry());
    int to = base.road().index(at.exit());
    double least = 1;
    int n = base.road().size();
    for (int k = 0; k <= base.road().loop().ahead(from, to); k++) {
      int i = (from + k) % n;
      double was = base.path().grip()[i];
      least = was > 0 ? Math.min(least, then.path().grip()[i] / was) : least;
    }
    return least;
  }
}
