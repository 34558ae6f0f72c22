package marvek.core.day;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Predicate;
import marvek.core.entry.Carried;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.Day;
import marvek.core.entry.OtherGates;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.entry.Step;
import marvek.core.entry.Variant;
import marvek.core.lap.Conditions;
import marvek.core.lap.Surface;
import marvek.core.line.Watch;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.Drafter;
import marvek.core.plan.LostBrakings;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.score.Matching;
import marvek.core.technique.School;
import marvek.core.vehicle.AirDensity;
import org.jspecify.annotations.Nullable;

/** Works out what a variant of a reference holds. */
public final class Variants {
  private static final double GRAIN = 1;
  private static final double SAME_PLACE = 0.25;
  private static final double SAME_SHARE = 0.005;
  private static final double SAID_SHARE = 0.045;

  /** Share by which the grip differs from which on a day has a line of its own. */
  static final double OTHER_GRIP = 0.15;

  private static final Predicate<Action> SLOWS =
      a -> a.kind() == ActionKind.LIFT || a.kind() == ActionKind.BRAKE;

  // Standard atmosphere at sea level, kelvin.
  private static final double STANDARD = 288.15;

  private Variants() {}

  /**
   * A corner on another day.
   *
   * @param entry as it is to be driven then
   * @param proposed as the computation alone would have it
   * @param changes what differs from the base and why, in words
   * @param byHand kinds of points that the driver set
   */
  public record Adjusted(
      CornerEntry entry, CornerEntry proposed, List<Adjustment> changes, List<PointKind> byHand) {
    public Adjusted {
      changes = List.copyOf(changes);
      byHand = List.copyOf(byHand);
    }
  }

  /**
   * A difference.
   *
   * @param kind of the point, or null for gear, effort and actions
   * @param action id of the action that it is about; null for what is none
   * @param words in the driver's units
   * @param byHand whether the driver set it
   */
  public record Adjustment(
      @Nullable PointKind kind, @Nullable String action, Said words, boolean byHand) {
    /** One that is about no action. */
    public Adjustment(@Nullable PointKind kind, Said words, boolean byHand) {
      this(kind, null, words, byHand);
    }
  }

  /** The conditions of a day, at the height for which the base was computed. */
  public static Conditions conditions(Conditions base, Day day) {
    Double temperature = day.airTemperature();
    double density =
        temperature == null
            ? base.airDensity()
            : AirDensity.atAltitude(0) * STANDARD / (temperature + 273.15);
    return new Conditions(
        base.grip() * day.grip(),
        density,
        day.windSpeed(),
        // Compass degrees run clockwise from north, the computation anticlockwise from east.
        Math.PI / 2 - Math.toRadians(day.windFrom()),
        base.extraMass() + day.extraMass(),
        day.drag(),
        day.downforce(),
        base.driving());
  }

  /**
   * The computed on the day of a variant: on the base's line, or where {@link #ownLine} says so on
   * the quickest found from it.
   *
   * @param footing that the base was computed on
   */
  public static ComputedLap computed(ComputedLap base, Footing footing, Day day) {
    ComputedLap then = held(base, base, footing, day);
    // The search begins on the base's line; what it finds keeps nothing of it.
    return ownLine(base, then) ? then.near(Watch.NOBODY) : then;
  }

  /** The computed on a day, on the line of another lap. */
  public static ComputedLap held(ComputedLap base, ComputedLap line, Footing footing, Day day) {
    return base.with(
            footing.on(day).ground(base.road(), base.corners(), base.vehicle(), day.road()),
            conditions(base.conditions(), day),
            line.path().offset())
        .keeping(line);
  }

  /**
   * Whether a day has a line of its own: with grip far from the base's, other places to pass, or
   * other ground or wind here and there, the quickest line is another one. The rest of what a day
   * changes moves it little.
   */
  public static boolean ownLine(ComputedLap base, ComputedLap then) {
    return Math.abs(then.conditions().grip() / base.conditions().grip() - 1) > OTHER_GRIP
        || !base.ground().sameAs(then.ground())
        || then.conditions().windSpeed() > 0 && then.ground().windDiffers();
  }

  /**
   * A corner on the day of a variant.
   *
   * @param base where the reference was made
   * @param then the computed of the variant's day
   */
  public static Adjusted adjust(
      ComputedLap base, ComputedLap then, Variant variant, CornerEntry own) {
    int c = base.indexOf(own.corner());
    CornerEntry draft = Drafter.entry(then, c);
    CornerEntry proposed = carried(base, then, own, Drafter.entry(base, c), draft);
    Optional<Variant.ByHand> hand = variant.byHand(own.corner());
    CornerEntry entry = hand.map(h -> with(proposed, h)).orElse(proposed);
    List<PointKind> set =
        hand.map(h -> h.points().stream().map(CornerPoint::kind).toList()).orElse(List.of());
    return new Adjusted(
        entry, proposed, changes(base, then, variant, own, entry, hand.orElse(null)), set);
  }

  /**
   * A corner on laps that differ little from the planned ones, like those with cold tyres: done as
   * planned, each place moved as the lap's own places move. But for where it lifts and brakes again
   * nothing is written anew into it, and nothing is set by hand; it lifts as much as planned,
   * sooner or later. Far less work than {@link #adjust}.
   *
   * @param base that the corner is planned for
   * @param then the other lap
   */
  public static CornerEntry placed(ComputedLap base, ComputedLap then, CornerEntry own) {
    int c = base.indexOf(own.corner());
    boolean whole =
        Drafter.places(then, c).slowing() == Slowing.LIFT || own.actions().stream().anyMatch(SLOWS);
    CornerEntry was = whole ? Drafter.entry(base, c) : null;
    return was != null
        ? carried(base, then, own, was, Drafter.like(then, c, was))
        : carried(base, then, own, Drafter.places(base, c), Drafter.places(then, c));
  }

  /**
   * Where the first braking of a corner comes to on a day, as {@link #adjust} places it but for
   * what is set by hand; empty without one. The least work.
   */
  public static Optional<Double> marker(ComputedLap base, ComputedLap then, CornerEntry own) {
    int c = base.indexOf(own.corner());
    CornerEntry was = Drafter.places(base, c);
    return carried(base, then, own, was, Drafter.places(then, c)).station(PointKind.BRAKE);
  }

  private static CornerEntry carried(
      ComputedLap base, ComputedLap then, CornerEntry own, CornerEntry was, CornerEntry draft) {
    int gears = base.vehicle().gears();
    CornerEntry carried = Carried.entry(base.road(), own, was, draft, GRAIN, gears, null);
    return LostBrakings.kept(then, carried, draft);
  }

  private static CornerEntry with(CornerEntry proposed, Variant.ByHand hand) {
    Variant.Ways ways = hand.ways();
    CornerEntry.Copy copy = (ways == null ? proposed : ways.in(proposed)).copy();
    Slowing slowing = hand.slowing();
    Integer gear = hand.gear();
    Double effort = hand.firstEffort();
    if (slowing != null) {
      copy.slowing(slowing);
    }
    if (gear != null) {
      copy.gear(gear);
    }
    if (effort != null) {
      copy.firstEffort(effort);
    }
    Double throttle = hand.firstThrottle();
    if (throttle != null) {
      copy.firstThrottle(throttle);
    }
    List<Action> actions = new ArrayList<>(proposed.actions());
    actions.removeIf(a -> hand.without().contains(a.id()));
    for (Action a : hand.actions()) {
      actions.removeIf(b -> b.id().equals(a.id()));
      actions.add(a);
    }
    copy.actions(actions);
    List<CornerPoint> points = new ArrayList<>(proposed.points());
    for (CornerPoint p : hand.points()) {
      points.removeIf(q -> q.kind() == p.kind());
      points.add(p);
    }
    return copy.points(points).note(hand.note().isBlank() ? proposed.note() : hand.note()).done();
  }

  /**
   * What a driver's edit sets by hand.
   *
   * @param proposed as the computation alone would have it
   * @param edited as the driver wants it
   * @return nothing where the edit is what was proposed
   */
  public static Optional<Variant.ByHand> byHand(
      double lapLength, CornerEntry proposed, CornerEntry edited) {
    List<CornerPoint> points = new ArrayList<>();
    for (CornerPoint p : edited.points()) {
      CornerPoint was = proposed.point(p.kind()).orElse(null);
      Action play = p.play();
      if (was == null
          || apart(was.station(), p.station(), lapLength) >= SAME_PLACE
          || otherwise(was.play(), play, lapLength)) {
        // Put there by hand for this day: the cue of the reference does not lead there.
        points.add(play == null ? p : p.played(play.unfound().at(p.station())));
      }
    }
    List<Action> actions = new ArrayList<>();
    for (Action a : edited.actions()) {
      Action was = named(proposed, a.id()).orElse(null);
      if (was == null) {
        actions.add(a);
      } else if (otherwise(was, a, lapLength)) {
        actions.add(a.unfound());
      }
    }
    List<String> without =
        proposed.actions().stream()
            .map(Action::id)
            .filter(id -> named(edited, id).isEmpty())
            .toList();
    Variant.Ways ways = Variant.Ways.of(edited);
    boolean effort = Math.abs(edited.firstEffort() - proposed.firstEffort()) >= SAME_SHARE;
    boolean throttle = Math.abs(edited.firstThrottle() - proposed.firstThrottle()) >= SAME_SHARE;
    Variant.ByHand hand =
        new Variant.ByHand(
            edited.corner(),
            points,
            edited.gear() == proposed.gear() ? null : edited.gear(),
            effort && edited.pedals() == null ? edited.firstEffort() : null,
            edited.slowing() == proposed.slowing() ? null : edited.slowing(),
            edited.note().equals(proposed.note()) ? "" : edited.note(),
            throttle ? edited.firstThrottle() : null,
            actions,
            without,
            ways.equals(Variant.Ways.of(proposed)) ? null : ways);
    return hand.says() ? Optional.of(hand) : Optional.empty();
  }

  private static Optional<Action> named(CornerEntry entry, String id) {
    return entry.actions().stream().filter(a -> a.id().equals(id)).findFirst();
  }

  private static double apart(double a, double b, double lapLength) {
    return Math.abs(Math.IEEEremainder(a - b, lapLength));
  }

  /** Whether an action is done otherwise, however it is found. */
  private static boolean otherwise(@Nullable Action was, @Nullable Action is, double lapLength) {
    if (was == null || is == null) {
      // A point that is written of only to say how it is found is done as before.
      Action one = was == null ? is : was;
      return one != null && one.kind().pedal() && one.amount() != null && is != null;
    }
    Double until = was.until();
    Double ends = is.until();
    boolean ended =
        until == null || ends == null
            ? !Objects.equals(until, ends)
            : apart(until, ends, lapLength) >= SAME_PLACE;
    return apart(was.station(), is.station(), lapLength) >= SAME_PLACE
        || ended
        || was.manner() != is.manner()
        || differ(was.amount(), is.amount())
        || !Objects.equals(was.gear(), is.gear())
        || !was.note().equals(is.note());
  }

  private static boolean differ(@Nullable Double a, @Nullable Double b) {
    return a == null || b == null ? !Objects.equals(a, b) : Math.abs(a - b) >= SAME_SHARE;
  }

  /** The variant with one step of a corner taken by hand for its day. */
  public static Variant moved(
      ComputedLap base, ComputedLap then, Variant variant, CornerEntry own, Step step) {
    Adjusted now = adjust(base, then, variant, own);
    CornerEntry edited = step.in(base.road(), now.entry());
    List<Variant.ByHand> entries = new ArrayList<>(variant.entries());
    entries.removeIf(h -> h.corner().equals(own.corner()));
    byHand(base.road().length(), now.proposed(), edited).ifPresent(entries::add);
    return new Variant(variant.id(), variant.kind(), variant.name(), variant.day(), entries);
  }

  private static List<Adjustment> changes(
      ComputedLap base,
      ComputedLap then,
      Variant variant,
      CornerEntry own,
      CornerEntry entry,
      Variant.@Nullable ByHand hand) {
    List<Adjustment> out = new ArrayList<>();
    Said why = why(base, then, variant);
    if (own.slowing() != entry.slowing()) {
      out.add(
          new Adjustment(
              null,
              Said.of(
                  "variant.slowing",
                  why.in(),
                  Said.of("slowing." + entry.slowing()).in(),
                  Said.of("slowing." + own.slowing()).in()),
              hand != null && hand.slowing() != null));
    }
    for (CornerPoint p : entry.points()) {
      Optional<Double> was = own.station(p.kind());
      if (was.isEmpty()) {
        continue;
      }
      double moved = base.road().apart(was.get(), p.station());
      if (Math.abs(moved) >= 0.5) {
        boolean set = hand != null && hand.points().stream().anyMatch(q -> q.kind() == p.kind());
        out.add(
            new Adjustment(
                p.kind(),
                Said.of(
                    "variant.point",
                    (set ? Said.of("variant.by_hand") : why).in(),
                    p.kind().said().in(),
                    Value.length(moved),
                    Value.choice(moved < 0)),
                set));
      }
    }
    out.addAll(actions(base, own, entry, why, hand));
    out.addAll(gates(base, variant.day(), own));
    if (hand != null && hand.ways() != null) {
      for (School s : entry.schools()) {
        if (!own.schools().contains(s)) {
          Said way = Said.of("variant.way", Said.of("variant.by_hand").in(), s.called().in());
          out.add(new Adjustment(null, way, true));
        }
      }
    }
    if (entry.gear() != own.gear()) {
      int more = entry.gear() - own.gear();
      boolean set = hand != null && hand.gear() != null;
      out.add(
          new Adjustment(
              null,
              Said.of(
                  "variant.gear",
                  (set ? Said.of("variant.by_hand") : why).in(),
                  Value.count(Math.abs(more)),
                  Value.choice(more > 0)),
              set));
    }
    return out;
  }

  /** Places across the road that the day passes by itself on the way through a corner. */
  private static List<Adjustment> gates(ComputedLap base, Day day, CornerEntry own) {
    OtherGates others = day.gates();
    return others == null
        ? List.of()
        : others.gates().stream()
            .filter(g -> g.corner(base.road(), base.corners()).equals(own.corner()))
            .map(g -> new Adjustment(null, Said.of("variant.gate", g.said().in()), true))
            .toList();
  }

  /**
   * What becomes of an action.
   *
   * @param was null for one that is added
   * @param is null for one that is left out
   * @param metres by which it moves, positive to later; 0 for one that is added or left out
   */
  public record ActionChange(@Nullable Action was, @Nullable Action is, double metres) {
    /** Whether its share differs by what is said of it. */
    public boolean amount() {
      Double from = was == null ? null : was.amount();
      Double to = is == null ? null : is.amount();
      return is != null
          && is.kind().shared()
          && from != null
          && to != null
          && Math.abs(to - from) >= SAID_SHARE;
    }
  }

  /** What becomes of the actions beyond the points: matched, moved, added and left out. */
  public static List<ActionChange> actions(ComputedLap base, CornerEntry own, CornerEntry entry) {
    List<Action> was = written(base, own);
    List<Action> is = written(base, entry);
    Matching matching = Matching.of(was, is, base.road().length());
    List<ActionChange> out = new ArrayList<>();
    for (Action a : is) {
      Action before = matching.first(a).orElse(null);
      double metres = before == null ? 0 : base.road().apart(before.station(), a.station());
      out.add(new ActionChange(before, a, metres));
    }
    for (Action a : was) {
      if (matching.second(a).isEmpty()) {
        out.add(new ActionChange(a, null, 0));
      }
    }
    return out;
  }

  private static List<Adjustment> actions(
      ComputedLap base,
      CornerEntry own,
      CornerEntry entry,
      Said why,
      Variant.@Nullable ByHand hand) {
    List<Adjustment> out = new ArrayList<>();
    for (ActionChange c : actions(base, own, entry)) {
      Action was = c.was();
      Action is = c.is();
      if (is == null) {
        String id = was == null ? "" : was.id();
        boolean set = hand != null && hand.without().contains(id);
        Value by = (set ? Said.of("variant.by_hand") : why).in();
        Said what = was == null ? Said.NOTHING : was.said(written(base, own));
        out.add(new Adjustment(null, id, Said.of("variant.action.without", by, what.in()), set));
        continue;
      }
      boolean set = hand != null && hand.actions().stream().anyMatch(h -> h.id().equals(is.id()));
      Value by = (set ? Said.of("variant.by_hand") : why).in();
      Value what = is.kind().said().in();
      if (was == null) {
        Value said = is.said(written(base, entry)).in();
        out.add(new Adjustment(null, is.id(), Said.of("variant.action.added", by, said), set));
        continue;
      }
      if (Math.abs(c.metres()) >= 0.5) {
        Said words =
            Said.of(
                "variant.point", by, what, Value.length(c.metres()), Value.choice(c.metres() < 0));
        out.add(new Adjustment(null, is.id(), words, set));
      }
      Double from = was.amount();
      Double to = is.amount();
      if (c.amount() && from != null && to != null) {
        out.add(
            new Adjustment(
                null,
                is.id(),
                Said.of("variant.action.amount", by, what, Value.percent(to), Value.percent(from)),
                set));
      }
    }
    return out;
  }

  private static List<Action> written(ComputedLap base, CornerEntry entry) {
    return Score.of(base.road(), entry).stream()
        .filter(a -> Score.point(a.id()).isEmpty())
        .toList();
  }

  private static Said why(ComputedLap base, ComputedLap then, Variant variant) {
    List<Said> parts = new ArrayList<>();
    Conditions a = base.conditions();
    Conditions b = then.conditions();
    parts.add(variant.called());
    if (Math.abs(b.grip() / a.grip() - 1) > 0.004) {
      parts.add(Said.of("variant.grip", Value.percent(b.grip() / a.grip())));
    }
    if (Math.abs(b.extraMass() - a.extraMass()) > 0.5) {
      parts.add(Said.of("variant.mass", Value.signed(b.extraMass() - a.extraMass(), 0)));
    }
    if (b.windSpeed() > 0.2) {
      parts.add(
          Said.of(
              "variant.wind",
              Value.figure(b.windSpeed(), 0),
              Value.figure(variant.day().windFrom(), 0)));
    }
    if (variant.day().gates() != null) {
      parts.add(Said.of("variant.gates"));
    }
    if (b.drag() < a.drag()) {
      parts.add(Said.of("variant.drag", Value.percent(b.drag())));
    }
    if (Math.abs(b.airDensity() / a.airDensity() - 1) > 0.004) {
      parts.add(Said.of("variant.air", Value.percent(b.airDensity() / a.airDensity())));
    }
    if (variant.day().road().state() != Surface.State.DRY) {
      parts.add(Said.of("variant.road", variant.day().road().said().in()));
    }
    return Said.of("variant.why", Said.listed(parts).in());
  }
}
