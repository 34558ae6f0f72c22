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

  private final Centreline road;
  private final CornerEntry was;
  private final CornerEntry is;
  private final double grain;
  private final int gears;
  private final @Nullable Sureness sure;

  private Carried(
      Centreline road,
      CornerEntry was,
      CornerEntry is,
      double grain,
      int gears,
      @Nullable Sureness sure) {
    this.road = road;
    this.was = was;
    this.is = is;
    this.grain = grain;
    this.gears = gears;
    this.sure = sure;
  }

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
    return new Carried(road, was, is, grain, gears, sure).of(own);
  }

  private CornerEntry of(CornerEntry own) {
    Slowing slowing = own.slowing() == was.slowing() ? is.slowing() : own.slowing();
    List<CornerPoint> points = new ArrayList<>();
    for (CornerPoint p : own.points()) {
      boolean needless = was.point(p.kind()).isPresent() && is.point(p.kind()).isEmpty();
      if (needless && (slowing != own.slowing() || GOES.contains(p.kind()))) {
        continue;
      }
      Sureness now = sure == null ? p.sure() : sure;
      points.add(p.at(road.wrap(p.station() + moved(p.kind()))).sure(now));
    }
    for (CornerPoint p : is.points()) {
      boolean isNew = points.stream().noneMatch(q -> q.kind() == p.kind());
      if (isNew && was.point(p.kind()).isEmpty()) {
        points.add(new CornerPoint(p.kind(), p.station(), null, sure));
      }
    }
    ordered(points, PointKind.BRAKE, PointKind.RELEASE);
    ordered(points, PointKind.FIRST_THROTTLE, PointKind.FULL_THROTTLE);
    double origin = is.station(PointKind.APEX).orElse(0.0) - road.length() / 2;
    points.sort(
        Comparator.<CornerPoint>comparingDouble(p -> road.ahead(origin, p.station()))
            .thenComparing(CornerPoint::kind));
    List<Action> actions = actions(own);
    return own.copy()
        .slowing(slowing)
        .points(points)
        .actions(actions)
        .again(brakes(actions) ? List.of() : is.again())
        .gear(geared(own.gear(), is.gear() - was.gear()))
        .firstEffort(share(own.firstEffort() + is.firstEffort() - was.firstEffort(), 1))
        .firstThrottle(share(own.firstThrottle() + is.firstThrottle() - was.firstThrottle(), 1))
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
   * is added. A further braking that the entry only had a remark of is written now: none is lost.
   */
  private List<Action> actions(CornerEntry own) {
    double lap = road.length();
    List<Action> mine = Score.inOrder(lap, own, own.actions());
    List<Action> before = Score.inOrder(lap, was, was.actions());
    List<Action> after = Score.inOrder(lap, is, is.actions());
    Matching drafted = Matching.of(mine, before, lap);
    Matching drafts = Matching.of(before, after, lap);
    List<Action> out = new ArrayList<>();
    for (Action a : mine) {
      Action from = drafted.second(a).orElse(null);
      Action to = from == null ? null : drafts.second(from).orElse(null);
      if (from != null && to != null) {
        out.add(shifted(a, from, to));
      } else if (from == null || !same(a, from)) {
        out.add(moved(a));
      }
    }
    Matching kept = Matching.of(Score.inOrder(lap, is, out), after, lap);
    for (Action a : after) {
      boolean isNew =
          drafts.first(a).isEmpty() || (a.kind() == ActionKind.BRAKE && !own.again().isEmpty());
      if (isNew && kept.first(a).isEmpty()) {
        String id = Score.free(a.id(), out);
        out.add(ActionBuilder.builder(a).id(id).sure(sure).build());
      }
    }
    return out;
  }

  private boolean same(Action a, Action b) {
    return Math.abs(road.apart(a.station(), b.station())) <= grain
        && Objects.equals(a.amount(), b.amount());
  }

  /** An action of the draft goes by what the draft's own does. */
  private Action shifted(Action a, Action from, Action to) {
    Double amount = a.amount();
    Double before = from.amount();
    Double after = to.amount();
    Integer geared = from.gear();
    Integer gearing = to.gear();
    Double grown = amount;
    if (amount != null && before != null && after != null && a.kind().shared()) {
      grown = share(amount + after - before, a.kind().most());
    }
    int up = geared == null || gearing == null ? 0 : gearing - geared;
    return shifted(a, rounded(from.station(), to.station()), grown, up);
  }

  /** An action of the driver's own goes with the point of the draft that it belongs to. */
  private Action moved(Action action) {
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
    return shifted(action, moved(leads), action.amount(), is.gear() - was.gear());
  }

  private Action shifted(Action a, double by, @Nullable Double amount, int up) {
    Double until = a.until();
    Integer gear = a.gear();
    return ActionBuilder.builder(Math.abs(by) > 0.01 ? a.unfound() : a)
        .station(road.wrap(a.station() + by))
        .until(until == null ? null : road.wrap(until + by))
        .amount(amount)
        .gear(gear == null ? null : geared(gear, up))
        .sure(sure == null ? a.sure() : sure)
        .build();
  }

  private int geared(int gear, int up) {
    return Math.max(1, Math.min(gears, gear + up));
  }

  /** Two points that would change places stand where they are drafted. */
  private void ordered(List<CornerPoint> points, PointKind first, PointKind second) {
    CornerPoint a = points.stream().filter(p -> p.kind() == first).findFirst().orElse(null);
    CornerPoint b = points.stream().filter(p -> p.kind() == second).findFirst().orElse(null);
    if (a == null || b == null || road.apart(a.station(), b.station()) >= 0) {
      return;
    }
    points.replaceAll(
        p -> p == a || p == b ? is.point(p.kind()).map(q -> p.at(q.station())).orElse(p) : p);
  }

  private static double share(double value, double most) {
    return Math.max(0, Math.min(most, Math.round(value * 100) / 100.0));
  }

  private double moved(PointKind kind) {
    PointKind leads =
        switch (kind) {
          case BUILD_UP, TARGET, BACK_UP, DOWNSHIFT -> PointKind.BRAKE;
          case FIRST_APEX -> was.station(kind).isPresent() ? kind : PointKind.APEX;
          case SHORT_SHIFT -> PointKind.FULL_THROTTLE;
          default -> kind;
        };
    Optional<Double> before = was.station(leads);
    Optional<Double> after = is.station(leads);
    return before.isEmpty() || after.isEmpty() ? 0 : rounded(before.get(), after.get());
  }

  private double rounded(double from, double to) {
    return Math.rint(road.apart(from, to) / grain) * grain;
  }
}
