package marvek.core.survey;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.IntConsumer;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Loop;
import marvek.core.lap.Ground;
import marvek.core.marker.LandmarkKind;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleKind;
import org.jspecify.annotations.Nullable;

/**
 * What may be driven beyond the edges of the road, by the survey: how far, on what grip, at what
 * risk, and what must not. Whether it is used is for a reference to say; nothing beyond an edge is
 * used unasked.
 */
public final class Edges {
  // Share of the load on the wheels of the side that uses an edge (common practice, no source).
  private static final double INNER_LOAD = 0.3;
  private static final double OUTER_LOAD = 0.65;

  /** A touch of a kerb, metres. */
  public static final double TOUCH = 0.3;

  // Kept to something hard behind, metres.
  private static final double FROM_HARD = 0.5;
  // Of a barrier its end is known: it goes on to one side or the other, metres.
  private static final double BARRIER_GOES_ON = 30;
  private static final double ON_IT = 0.05;
  private static final double HIGH = 0.05;
  // Share of its grip that wet paint loses (common practice, no source).
  private static final double WET_PAINT = 0.4;

  // A limit at the way in or out holds so far outside the corner, metres.
  private static final double LEADS = 80;

  private final Centreline road;
  private final List<Corner> corners;
  private final Things things;
  private final Vehicle vehicle;

  private Edges(Centreline road, List<Corner> corners, Things things, Vehicle vehicle) {
    this.road = road;
    this.corners = corners;
    this.things = things;
    this.vehicle = vehicle;
  }

  /** All edges that the survey knows, in the order of the lap. */
  public static List<Edge> all(
      Centreline road, List<Corner> corners, Things things, Vehicle vehicle) {
    Edges edges = new Edges(road, corners, things, vehicle);
    List<Edge> out = new ArrayList<>();
    things.kerbs().forEach(k -> out.add(edges.of(k)));
    things.zones().stream()
        .filter(z -> z.kind() == ZoneKind.BEYOND)
        .forEach(z -> out.add(edges.of(z)));
    out.sort((a, b) -> Double.compare(a.from(), b.from()));
    return List.copyOf(out);
  }

  /** The edges of these ids. */
  public static List<Edge> of(
      Centreline road, List<Corner> corners, Things things, Vehicle vehicle, List<String> ids) {
    return ids.isEmpty()
        ? List.of()
        : all(road, corners, things, vehicle).stream().filter(e -> ids.contains(e.id())).toList();
  }

  /** Metres past the kerb's inner edge that a tyre may use, by floor, verdict and limits. */
  public static double allowed(Kerb kerb, Vehicle vehicle, Things things) {
    if (kerb.verdict() == Kerb.Verdict.KEEP_OFF) {
      return 0;
    }
    Double reach = KerbClearance.of(kerb, vehicle).reach();
    double most = reach == null ? kerb.width() : Math.min(reach, kerb.width());
    boolean touched =
        kerb.verdict() == Kerb.Verdict.TOUCH || kerb.does().contains(Kerb.Does.LAUNCHES);
    return Math.min(touched ? Math.min(most, TOUCH) : most, lets(kerb, vehicle, things));
  }

  /** Metres past the kerb's inner edge that the limits at it let a tyre go. */
  private static double lets(Kerb kerb, Vehicle vehicle, Things things) {
    return things.limits().stream()
        .filter(
            l ->
                l.corner().equals(kerb.corner())
                    && l.part() == kerb.part()
                    && l.left() == kerb.left())
        .mapToDouble(l -> l.lets(vehicle, kerb.width()))
        .min()
        .orElse(Double.MAX_VALUE);
  }

  /** The kerb under a wheel, if any. */
  public static Optional<Kerb> under(
      Centreline road, Things things, Vehicle vehicle, int i, double offset) {
    double half = vehicle.width() / 2;
    double station = i * road.step();
    return things.kerbs().stream()
        .filter(
            k ->
                (k.left() ? offset + half - road.left()[i] : -offset + half - road.right()[i]) > 0
                    && road.ahead(k.from(), station) <= road.ahead(k.from(), k.to()))
        .findFirst();
  }

  /** Share of the grip that a kerb leaves to the tyres on it in the dry. */
  private static double grip(Kerb kerb) {
    double bears = bears(kerb);
    return oneAxle(kerb) ? 1 - 2 * (1 - bears) : bears;
  }

  /**
   * Whether one axle alone loses grip on it; the vehicle has no more than that axle, half of it.
   */
  private static boolean oneAxle(Kerb kerb) {
    return kerb.does().contains(Kerb.Does.TURNS) != kerb.does().contains(Kerb.Does.PUSHES);
  }

  private static double bears(Kerb kerb) {
    return switch (kerb.profile()) {
      case FLAT -> 0.97;
      case RAMP -> 0.95;
      case CROWN -> 0.88;
      case SERRATED -> 0.85;
      case SAUSAGE, STEP -> 0.75;
    };
  }

  private static double wetLoss(Kerb kerb) {
    return kerb.slippery() ? WET_PAINT : 0;
  }

  /** Whether there are two wheels in line, both of which go where one goes. */
  private boolean rider() {
    return vehicle.kind() == VehicleKind.MOTORCYCLE;
  }

  private Edge of(Kerb kerb) {
    List<Edge.Risk> risks = new ArrayList<>();
    if (kerb.profile() == KerbProfile.SAUSAGE
        || kerb.profile() == KerbProfile.STEP
        || kerb.height() > HIGH
        || kerb.does().contains(Kerb.Does.LAUNCHES)) {
      risks.add(Edge.Risk.THROWS);
    }
    if (kerb.does().contains(Kerb.Does.LOCKS)) {
      risks.add(Edge.Risk.LOCKS);
    }
    double bites = kerb.usableAfter();
    if (bites > 0) {
      risks.add(Edge.Risk.BITES);
    }
    boolean bitesAllAlong = bites >= road.ahead(kerb.from(), kerb.to());
    if (kerb.slippery()) {
      risks.add(Edge.Risk.PAINT);
    }
    switch (kerb.behind()) {
      case GRASS, TURF, GRAVEL -> risks.add(Edge.Risk.SOFT);
      case DROP -> risks.add(Edge.Risk.DROP);
      case TARMAC, WALL -> {
        // Nothing to be said of it; at a wall it is not used.
      }
    }
    double reach = allowed(kerb, vehicle, things);
    boolean throwsRider = rider() && risks.contains(Edge.Risk.THROWS);
    Edge.Never never =
        kerb.verdict() == Kerb.Verdict.KEEP_OFF
            ? Edge.Never.KEEP_OFF
            : lets(kerb, vehicle, things) <= 0
                ? Edge.Never.LIMIT
                : bitesAllAlong
                    ? Edge.Never.BITES
                    : reach <= 0
                        ? Edge.Never.FLOOR
                        : throwsRider
                            ? Edge.Never.RIDER
                            : hard(kerb.left(), kerb.from(), kerb.to(), reach);
    if (kerb.behind() == Kerb.Behind.WALL) {
      never = never == null ? Edge.Never.WALL : never;
    }
    near(risks, kerb.left(), kerb.from(), kerb.to());
    return new Edge(
        kerb.id(),
        true,
        kerb.left(),
        bitesAllAlong ? kerb.from() : road.wrap(kerb.from() + bites),
        kerb.to(),
        reach,
        grip(kerb),
        wetLoss(kerb),
        never,
        risks);
  }

  private Edge of(Zone zone) {
    boolean left = zone.side() == Zone.Side.LEFT;
    Zone.Beyond beyond = zone.beyond();
    Double width = zone.amount();
    Double grip = beyond == null ? null : beyond.grip();
    Double lip = beyond == null ? null : beyond.lip();
    if (width == null || grip == null || lip == null || zone.side() == Zone.Side.BOTH) {
      return new Edge(
          zone.id(), false, left, zone.from(), zone.to(), 0, 1, 0, Edge.Never.UNKNOWN, List.of());
    }
    List<Edge.Risk> risks = new ArrayList<>();
    if (Math.abs(lip) > 0.01) {
      risks.add(Edge.Risk.LIP);
    }
    if (grip < 0.9) {
      risks.add(Edge.Risk.LESS_GRIP);
    }
    double reach = width - Ground.MARGIN;
    double share = grip;
    double wetLoss = 0;
    double kerbs = 0;
    Edge.Never never = over(lip, width) ? null : Edge.Never.FLOOR;
    for (Kerb kerb : things.kerbs()) {
      if (kerb.left() == left && overlap(zone.from(), zone.to(), kerb.from(), kerb.to())) {
        Double clears = KerbClearance.of(kerb, vehicle).reach();
        share = Math.min(share, grip(kerb));
        wetLoss = Math.max(wetLoss, wetLoss(kerb));
        kerbs = Math.max(kerbs, kerb.width());
        if (kerb.verdict() == Kerb.Verdict.KEEP_OFF) {
          never = Edge.Never.KEEP_OFF;
        } else if (kerb.behind() == Kerb.Behind.WALL) {
          never = Edge.Never.WALL;
        } else if (clears != null) {
          never = Edge.Never.FLOOR;
        }
      }
    }
    double lets = lets(zone, left, kerbs);
    reach = Math.min(reach, lets);
    if (never == null && lets <= 0) {
      never = Edge.Never.LIMIT;
    }
    if (never == null) {
      never = hard(left, zone.from(), zone.to(), width);
    }
    near(risks, left, zone.from(), zone.to());
    return new Edge(
        zone.id(), false, left, zone.from(), zone.to(), reach, share, wetLoss, never, risks);
  }

  /** Whether the floor clears the lip with a wheel up or down there. */
  private boolean over(double lip, double width) {
    if (lip <= 0) {
      return -lip < vehicle.floorOrUsual().rideHeight();
    }
    Kerb step =
        new Kerb(
            "lip",
            true,
            0,
            1,
            "",
            Kerb.Part.EXIT,
            KerbProfile.FLAT,
            width,
            lip,
            Kerb.Behind.TARMAC,
            false,
            Kerb.Verdict.OPEN,
            "",
            "");
    return KerbClearance.of(step, vehicle).reach() == null;
  }

  /** Metres past the edge that the limits anywhere along on that side let a tyre go. */
  private double lets(Zone zone, boolean left, double kerbs) {
    return things.limits().stream()
        .filter(l -> l.left() == left)
        .filter(l -> corners.stream().anyMatch(c -> holds(l, c, zone.from(), zone.to())))
        .mapToDouble(l -> l.lets(vehicle, kerbs))
        .min()
        .orElse(Double.MAX_VALUE);
  }

  private boolean holds(TrackLimit l, Corner c, double from, double to) {
    return l.corner().equals(c.id())
        && switch (l.part()) {
          case ENTRY -> overlap(from, to, road.wrap(c.entry() - LEADS), c.apexes().get(0));
          case APEX -> overlap(from, to, c.entry(), c.exit());
          case EXIT -> overlap(from, to, c.apex(), road.wrap(c.exit() + LEADS));
        };
  }

  /** Something that must not be driven toward. */
  private Edge.@Nullable Never hard(boolean left, double from, double to, double reach) {
    for (Zone z : things.zones()) {
      if (z.side() == (left ? Zone.Side.RIGHT : Zone.Side.LEFT)
          || !overlap(from, to, z.from(), z.to())) {
        continue;
      }
      if (z.kind() == ZoneKind.WALL || z.kind() == ZoneKind.NARROW) {
        return Edge.Never.WALL;
      }
      if (z.kind() == ZoneKind.LOOSE) {
        return Edge.Never.LOOSE;
      }
    }
    boolean barrier =
        things.landmarks().stream()
            .anyMatch(
                l ->
                    l.kind() == LandmarkKind.BARRIER
                        && l.left() == left
                        && l.out() < reach + FROM_HARD
                        && overlap(
                            from - BARRIER_GOES_ON,
                            to + BARRIER_GOES_ON,
                            l.station(),
                            l.station()));
    return barrier ? Edge.Never.WALL : null;
  }

  private void near(List<Edge.Risk> risks, boolean left, double from, double to) {
    boolean none =
        things.zones().stream()
            .anyMatch(
                z ->
                    z.kind() == ZoneKind.NO_RUN_OFF
                        && z.side() != (left ? Zone.Side.RIGHT : Zone.Side.LEFT)
                        && overlap(from, to, z.from(), z.to()));
    if (none) {
      risks.add(Edge.Risk.NO_RUN_OFF);
    }
    boolean limit =
        things.limits().stream()
            .filter(l -> l.left() == left && l.wheelsInside() > 0)
            .anyMatch(l -> corners.stream().anyMatch(c -> holds(l, c, from, to)));
    if (limit) {
      risks.add(Edge.Risk.LIMIT_NEAR);
    }
  }

  private boolean overlap(double from, double to, double a, double b) {
    return road.ahead(from, a) <= road.ahead(from, to) || road.ahead(a, from) <= road.ahead(a, b);
  }

  /** The ground with these edges opened: room beyond the road, and what grip is left on it. */
  public static Ground open(Centreline road, Ground ground, List<Edge> edges, Vehicle vehicle) {
    List<Edge> usable = edges.stream().filter(Edge::usable).toList();
    if (usable.isEmpty()) {
      return ground;
    }
    Ground.Lie was = ground.lie() == null ? Ground.Lie.of(road) : ground.lie();
    double[] left = was.keepLeft().clone();
    double[] right = was.keepRight().clone();
    double half = vehicle.width() / 2;
    List<Ground.Strip> strips = new ArrayList<>();
    for (Edge e : usable) {
      double[] keep = e.left() ? left : right;
      double[] under = e.left() ? ground.left() : ground.right();
      double[] side = ones(road);
      double[] whole = ones(road);
      boolean rider = vehicle.kind() == VehicleKind.MOTORCYCLE;
      double load = rider ? 1 : inside(road, e) ? INNER_LOAD : OUTER_LOAD;
      each(
          road,
          e,
          i -> {
            // Where something takes room from the road nothing is opened.
            if (keep[i] <= 0) {
              keep[i] = Math.min(keep[i], -(e.reach() + Ground.MARGIN));
            }
            side[i] = under[i] * (1 - load * (1 - e.grip(ground.water())));
            whole[i] = under[i] * e.grip(ground.water());
          });
      // Of two wheels in line both are on it once the middle is.
      strips.add(new Ground.Strip(e.left(), 0, rider ? ON_IT : half - ON_IT, side));
      if (e.reach() > vehicle.width()) {
        strips.add(new Ground.Strip(e.left(), 0, -half, whole));
      }
    }
    return ground.with(was.keeping(left, right), strips);
  }

  private static boolean inside(Centreline road, Edge e) {
    double turn =
        road.loop()
            .between(road.index(e.from()), road.index(e.to()))
            .indices()
            .mapToDouble(i -> road.curvature()[i])
            .sum();
    return turn > 0 == e.left();
  }

  private static void each(Centreline road, Edge e, IntConsumer what) {
    Loop loop = road.loop();
    int first = road.index(e.from());
    int count = (int) (road.ahead(e.from(), e.to()) / road.step());
    for (int k = 0; k <= count; k++) {
      what.accept(loop.at(first + k));
    }
  }

  private static double[] ones(Centreline road) {
    double[] ones = new double[road.size()];
    Arrays.fill(ones, 1);
    return ones;
  }
}
