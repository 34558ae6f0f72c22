package marvek.core.entry;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import marvek.core.circuit.Centreline;
import marvek.core.score.Action;
import marvek.core.score.ActionBuilder;
import marvek.core.score.ActionKind;
import marvek.core.score.Matching;
import marvek.core.score.Sureness;
import org.jspecify.annotations.Nullable;

/**
 * Carries a driver's own corner over to other circumstances: each point is the driver's plus what
 * the model says has changed.
 */
public final class Carried {
  // What goes with what it was for: a second apex, or throttle between two brakings.
  private static final Set<PointKind> GOES =
      EnumSet.of(
          PointKind.FIRST_APEX,
          PointKind.FIRST_THROTTLE,
          PointKind.FULL_THROTTLE,
          PointKind.SHORT_SHIFT);

  private Carried() {}

  /**
   * The corner under the new circumstances.
   *
   * @param own as the driver has it
   * @param was the model's draft where it was proved
   * @param is the model's draft where it is wanted
   * @param grain metres to which a change is rounded: what a person can use
   * @param gears of the vehicle
   * @param sure what is said of every point, or null to leave it
   */
  public static CornerEntry entry(
      Centreline road,
      CornerEntry own,
      CornerEntry was,
      CornerEntry is,
      double grain,
      int gears,
      @Nullable Sureness sure) {
    Slowing slowing = own.slowing() == was.slowing() ? is.slowing() : own.slowing();
    List<CornerPoint> points = new ArrayList<>();
    for (CornerPoint p : own.points()) {
      boolean needless = was.point(p.kind()).isPresent() && is.point(p.kind()).isEmpty();
      if (needless && (slowing != own.slowing() || GOES.contains(p.kind()))) {
        continue;
      }
      double by = moved(road, p.kind(), was, is, grain);
      Sureness now = sure == null ? p.sure() : sure;
      points.add(p.at(road.wrap(p.station() + by)).sure(now));
    }
    for (CornerPoint p : is.points()) {
      boolean isNew = points.stream().noneMatch(q -> q.kind() == p.kind());
      if (isNew && was.point(p.kind()).isEmpty()) {
        points.add(new CornerPoint(p.kind(), p.station(), null, sure));
      }
    }
    ordered(road, points, is, PointKind.BRAKE, PointKind.RELEASE);
    ordered(road, points, is, PointKind.FIRST_THROTTLE, PointKind.FULL_THROTTLE);
    double origin = is.station(PointKind.APEX).orElse(0.0) - road.length() / 2;
    points.sort(
        Comparator.<CornerPoint>comparingDouble(p -> road.ahead(origin, p.station()))
            .thenComparing(CornerPoint::kind));
    List<Action> actions = actions(road, own, was, is, grain, gears, sure);
    return own.copy()
        .slowing(slowing)
        .points(points)
        .actions(actions)
        .again(brakes(actions) ? List.of() : is.again())
        .gear(Math.max(1, Math.min(gears, own.gear() + is.gear() - was.gear())))
        .firstEffort(share(own.firstEffort() + is.firstEffort() - was.firstEffort()))
        .firstThrottle(share(own.firstThrottle() + is.firstThrottle() - was.firstThrottle()))
        .apex(
            own.apexType() == was.apexType() ? is.apexType() : own.apexType(),
            own.apexGap() + is.apexGap() - was.apexGap())
        .done();
  }

  private static boolean brakes(List<Action> actions) {
    return actions.stream().anyMatch(a -> a.kind() == ActionKind.BRAKE);
  }

  /**
   * The driver's actions: one that is the draft's own moves and grows as the draft's does, and goes
   * where the draft has it no more unless the driver has changed it; what the new draft has besides
   * is added.
   */
  private static List<Action> actions(
      Centreline road,
      CornerEntry own,
      CornerEntry was,
      CornerEntry is,
      double grain,
      int gears,
      @Nullable Sureness sure) {
    List<Action> mine = Score.inOrder(road.length(), own, own.actions());
    List<Action> before = Score.inOrder(road.length(), was, was.actions());
    List<Action> after = Score.inOrder(road.length(), is, is.actions());
    Matching drafted = Matching.of(mine, before, road.length());
    Matching drafts = Matching.of(before, after, road.length());
    List<Action> out = new ArrayList<>();
    for (Action a : mine) {
      Action from = drafted.second(a).orElse(null);
      Action to = from == null ? null : drafts.second(from).orElse(null);
      if (from != null && to != null) {
        out.add(shifted(road, a, from, to, grain, gears, sure));
      } else if (from == null || !same(a, from, grain)) {
        out.add(moved(road, a, was, is, grain, gears, sure));
      }
    }
    Matching kept = Matching.of(Score.inOrder(road.length(), is, out), after, road.length());
    for (Action a : after) {
      if (drafts.first(a).isEmpty() && kept.first(a).isEmpty()) {
        String id = Score.free(a.id(), out);
        out.add(ActionBuilder.builder(a).id(id).sure(sure).build());
      }
    }
    return out;
  }

  private static boolean same(Action a, Action b, double grain) {
    return Math.abs(a.station() - b.station()) <= grain && Objects.equals(a.amount(), b.amount());
  }

  private static Action shifted(
      Centreline road,
      Action a,
      Action from,
      Action to,
      double grain,
      int gears,
      @Nullable Sureness sure) {
    double by = Math.rint(road.apart(from.station(), to.station()) / grain) * grain;
    Double until = a.until();
    Double amount = a.amount();
    Double before = from.amount();
    Double after = to.amount();
    Integer gear = a.gear();
    Integer geared = from.gear();
    Integer gearing = to.gear();
    int up = geared == null || gearing == null ? 0 : gearing - geared;
    double more = before == null || after == null ? 0 : after - before;
    return ActionBuilder.builder(Math.abs(by) > 0.01 ? a.unfound() : a)
        .station(road.wrap(a.station() + by))
        .until(until == null ? null : road.wrap(until + by))
        .amount(
            amount == null || !a.kind().shared() ? amount : Double.valueOf(share(amount + more)))
        .gear(gear == null ? null : Math.max(1, Math.min(gears, gear + up)))
        .sure(sure == null ? a.sure() : sure)
        .build();
  }

  /** An action goes with the point of the draft that it belongs to. */
  private static Action moved(
      Centreline road,
      Action action,
      CornerEntry was,
      CornerEntry is,
      double grain,
      int gears,
      @Nullable Sureness sure) {
    PointKind leads =
        switch (action.kind()) {
          case BRAKE, LIFT -> PointKind.BRAKE;
          case EASE -> PointKind.RELEASE;
          case SHIFT -> PointKind.DOWNSHIFT;
          case HANDS -> PointKind.TURN_IN;
          case THROTTLE -> PointKind.FIRST_THROTTLE;
          case FULL -> PointKind.FULL_THROTTLE;
          case PLACE, APEX, EYES, BODY -> PointKind.APEX;
        };
    double by = moved(road, leads, was, is, grain);
    Double until = action.until();
    Integer gear = action.gear();
    return ActionBuilder.builder(Math.abs(by) > 0.01 ? action.unfound() : action)
        .station(road.wrap(action.station() + by))
        .until(until == null ? null : road.wrap(until + by))
        .gear(gear == null ? null : Math.max(1, Math.min(gears, gear + is.gear() - was.gear())))
        .sure(sure == null ? action.sure() : sure)
        .build();
  }

  /** Two points that would change places stand where they are drafted. */
  private static void ordered(
      Centreline road,
      List<CornerPoint> points,
      CornerEntry is,
      PointKind first,
      PointKind second) {
    CornerPoint a = points.stream().filter(p -> p.kind() == first).findFirst().orElse(null);
    CornerPoint b = points.stream().filter(p -> p.kind() == second).findFirst().orElse(null);
    if (a == null || b == null || road.apart(a.station(), b.station()) >= 0) {
      return;
    }
    points.replaceAll(
        p -> p == a || p == b ? is.point(p.kind()).map(q -> p.at(q.station())).orElse(p) : p);
  }

  private static double share(double value) {
    return Math.max(0, Math.min(1, Math.round(value * 100) / 100.0));
  }

  private static double moved(
      Centreline road, PointKind kind, CornerEntry was, CornerEntry is, double grain) {
    PointKind leads =
        switch (kind) {
          case BUILD_UP, TARGET, BACK_UP, DOWNSHIFT -> PointKind.BRAKE;
          case FIRST_APEX -> was.station(kind).isPresent() ? kind : PointKind.APEX;
          case SHORT_SHIFT -> PointKind.FULL_THROTTLE;
          default -> kind;
        };
    Optional<Double> before = was.station(leads);
    Optional<Double> after = is.station(leads);
    if (before.isEmpty() || after.isEmpty()) {
      return 0;
    }
    return Math.rint(road.apart(before.get(), after.get()) / grain) * grain;
  }
}
