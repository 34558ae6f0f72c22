package marvek.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import marvek.core.circuit.Centreline;
import marvek.core.lap.Limits;
import marvek.core.lap.Path;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.marker.MarkerJudge;
import marvek.core.marker.Views;
import marvek.core.numeric.Earlier;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.score.Cue;
import marvek.core.score.CueKind;
import marvek.core.survey.Kerb;
import marvek.core.survey.Things;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleKind;
import org.jspecify.annotations.Nullable;

/**
 * Where the cues of a score are on the road, how closely each can be met, and which others are in
 * reach.
 */
public final class Cues {
  // A driver reacts within so many seconds of what comes suddenly (common practice, no source).
  private static final double REACTION = 0.1;

  /** Share of an interval by which it is missed in the head: Gibbon 1977, from memory. */
  private static final double OF_INTERVAL = 0.1;

  // Angle to the side that is judged so closely (common practice, no source).
  private static final double BY_ANGLE = Math.toRadians(4);
  // Revs are read, or heard, so closely (common practice, no source).
  private static final double BY_EAR = 100;
  private static final double LIGHT = 0.93;
  private static final double BACK = 0.97;
  private static final double LOOKS_BACK = 200;
  private static final double REACH = 60;
  private static final double NEAR = 14;
  private static final double BETWEEN = 150;
  private static final double LONGEST = 4;
  // A metre that an action would have to move counts as much as so many metres of doubt.
  private static final double PER_METRE = 0.5;
  private static final double PER_MARK = 0.1;
  private static final double MOST_LENGTHS = 4;
  // A kerb hides nothing.
  private static final double LOW = 0.3;

  // Overhangs of a car and of a motorcycle together, metres (common practice, no source).
  private static final double OVER_CAR = 1.9;
  private static final double OVER_MOTORCYCLE = 0.65;

  private final ComputedLap computed;
  private final Centreline road;
  private final List<Landmark> landmarks;
  private final Views views;
  private final Vehicle.Seat seat;
  private final MarkerJudge judge;
  private final double[] speed;

  /**
   * A cue found on the road.
   *
   * @param station where; null where it does not happen
   * @param precision metres to which it can be met
   * @param why it does not happen; nothing where it does
   */
  public record Found(@Nullable Double station, double precision, Said why) {
    static Found at(double station, double precision) {
      return new Found(station, precision, Said.NOTHING);
    }

    static Found never(String key, Value... values) {
      return new Found(null, 0, Said.of(key, values));
    }
  }

  /**
   * A cue in reach of an action.
   *
   * @param cue with the number that fits
   * @param station where it is
   * @param precision metres to which it can be met
   * @param moves metres by which taking it moves the action
   * @param marks of the thing that it hangs on, 0 to 100; null without one
   */
  public record Offer(
      Cue cue, double station, double precision, double moves, @Nullable Integer marks) {}

  /** On the computed lap. */
  public Cues(ComputedLap computed, Things things) {
    this.computed = computed;
    this.road = computed.road();
    this.landmarks = all(things);
    seat = computed.vehicle().seatOrUsual();
    views = new Views(road, landmarks, computed.path().offset(), computed.path().heading(), seat);
    judge = new MarkerJudge(road, landmarks, new MarkerJudge.View(null, null, false, seat.eye()));
    speed = computed.lap().speed();
  }

  /** All that a cue can hang on: landmarks, and kerbs from their beginning to their end. */
  private static List<Landmark> all(Things things) {
    List<Landmark> out = new ArrayList<>(things.landmarks());
    for (Kerb k : things.kerbs()) {
      out.add(
          new Landmark(
              k.id(),
              LandmarkKind.KERB,
              spoken(k),
              k.from(),
              k.left(),
              k.corner(),
              0,
              Math.min(k.height(), LOW),
              Landmark.Permanence.FIXED,
              true,
              null,
              "",
              "",
              Math.max(0, k.to() >= k.from() ? k.to() - k.from() : 0)));
    }
    return List.copyOf(out);
  }

  private static String spoken(Kerb kerb) {
    return kerb.part().name().toLowerCase(Locale.ROOT) + " kerb";
  }

  /** Metres between two places on the road. */
  double apart(double station, double other) {
    return Math.abs(road.apart(station, other));
  }

  private double speedAt(double station) {
    return speed[road.index(station)];
  }

  /** Metres from nose to tail. */
  public static double length(Vehicle vehicle) {
    return vehicle.wheelbase()
        + (vehicle.kind() == VehicleKind.MOTORCYCLE ? OVER_MOTORCYCLE : OVER_CAR);
  }

  private Optional<Landmark> landmark(String id) {
    return landmarks.stream().filter(l -> l.id().equals(id)).findFirst();
  }

  /**
   * Where a cue is.
   *
   * @param action that it is for; where it stands now says which of several crests is meant
   * @param score all actions of the corner, for cues on others
   */
  public Found find(Cue cue, Action action, List<Action> score) {
    return find(cue, action, score, new LinkedHashSet<>());
  }

  private Found find(Cue cue, Action action, List<Action> score, Set<String> asked) {
    Optional<Landmark> thing = landmark(cue.thing());
    if (cue.kind().thing() && thing.isEmpty()) {
      return Found.never("cue.gone", Value.own(cue.spoken()));
    }
    return switch (cue.kind()) {
      case PAST -> past(thing.orElseThrow(), cue.number());
      case LENGTHS -> past(thing.orElseThrow(), cue.number() * length(computed.vehicle()));
      case SHARE -> share(thing.orElseThrow(), cue.number());
      case BETWEEN -> between(thing.orElseThrow(), cue);
      case INTO_VIEW -> into(thing.orElseThrow());
      case OUT_OF_VIEW -> out(thing.orElseThrow());
      case BESIDE -> beside(thing.orElseThrow());
      case SECONDS -> after(cue, action, score, asked);
      case LIMITER -> limiter(cue.number(), action);
      case REVS -> revs(cue.number(), action);
      case SETTLED -> settled(action);
      case FEEL -> Found.at(action.station(), speedAt(action.station()) * 0.15);
    };
  }

  private Found past(Landmark l, double metres) {
    return Found.at(road.wrap(l.station() + metres), l.precisionAt(metres));
  }

  private Found share(Landmark l, double share) {
    if (l.length() <= 0) {
      return Found.never("cue.not_long", Value.own(l.spoken()));
    }
    // Ends and the middle are told best; in between it is judged by eye from the nearest of them.
    double near = Math.min(Math.min(share, 1 - share), Math.abs(share - 0.5));
    double half = Math.abs(share - 0.5) < Math.min(share, 1 - share) ? 0.05 * l.length() : 0;
    return Found.at(
        road.wrap(l.station() + share * l.length()),
        Math.hypot(l.kind().precision(), Landmark.BY_EYE * near * l.length() + half));
  }

  private Found between(Landmark from, Cue cue) {
    Optional<Landmark> to = landmark(cue.other());
    if (to.isEmpty()) {
      return Found.never("cue.gone", Value.own(cue.otherSpoken()));
    }
    double way = road.ahead(from.station(), to.get().station());
    double near = Math.min(cue.number(), 1 - cue.number());
    double precision =
        Math.hypot(
            Math.hypot(
                (1 - cue.number()) * from.kind().precision(),
                cue.number() * to.get().kind().precision()),
            Landmark.BY_EYE * near * way);
    return Found.at(road.wrap(from.station() + cue.number() * way), precision);
  }

  private Found into(Landmark l) {
    OptionalDouble at = views.comesIntoView(l);
    if (at.isEmpty()) {
      return Found.never("cue.always_seen", Value.own(l.spoken()));
    }
    return Found.at(at.getAsDouble(), Math.hypot(1, speedAt(at.getAsDouble()) * REACTION));
  }

  private Found out(Landmark l) {
    OptionalDouble at = views.leavesView(l);
    if (at.isEmpty()) {
      return Found.never("cue.stays_seen", Value.own(l.spoken()));
    }
    double station = at.getAsDouble();
    // Measured, only the eye's own delay is left of the doubt.
    double sin = Math.sin(seat.halfAngle());
    double byAngle = views.leavingMeasured(l) ? 1 : views.aside(l) / (sin * sin) * BY_ANGLE;
    return Found.at(station, Math.hypot(speedAt(station) * REACTION, byAngle));
  }

  private Found beside(Landmark l) {
    return Found.at(
        l.station(), Math.hypot(l.kind().precision(), views.aside(l) * Math.tan(BY_ANGLE)));
  }

  private Found after(Cue cue, Action action, List<Action> score, Set<String> asked) {
    Optional<Action> before = score.stream().filter(a -> a.id().equals(cue.other())).findFirst();
    if (before.isEmpty() || before.get().id().equals(action.id())) {
      return Found.never("cue.no_action");
    }
    if (!asked.add(before.get().id())) {
      return Found.never("cue.circle", action.kind().said().in(), before.get().kind().said().in());
    }
    double station = before.get().station();
    double precision = 0;
    Cue its = before.get().cue();
    if (its != null) {
      Found found = find(its, before.get(), score, asked);
      if (found.why() != Said.NOTHING && found.station() == null && circles(found)) {
        return found;
      }
      station = found.station() == null ? station : found.station();
      precision = found.precision();
    }
    double at = drive(station, cue.number());
    double timed = speedAt(at) * Math.max(REACTION, OF_INTERVAL * Math.abs(cue.number()));
    return Found.at(at, Math.hypot(precision, timed));
  }

  private static boolean circles(Found found) {
    return found.why().key().equals("cue.circle");
  }

  /** The station reached some seconds after another on the computed lap. */
  private double drive(double station, double seconds) {
    double left = Math.abs(seconds);
    double s = station;
    double by = Math.signum(seconds);
    while (left > 0) {
      double metres = Math.min(road.step(), speedAt(s) * left);
      left -= metres / speedAt(s);
      s += by * metres;
      if (metres < road.step()) {
        break;
      }
    }
    return road.wrap(s);
  }

  private double seconds(double from, double to) {
    double apart = road.apart(from, to);
    double sum = 0;
    for (double s = 0; s < Math.abs(apart); s += road.step()) {
      double metres = Math.min(road.step(), Math.abs(apart) - s);
      sum += metres / speedAt(from + Math.signum(apart) * s);
    }
    return Math.signum(apart) * sum;
  }

  /** Station at which revs are reached in the gear of the approach; NaN where they are not. */
  private double reached(double revs, Action action) {
    Vehicle vehicle = computed.vehicle();
    int at = road.index(action.station());
    int gear = computed.lap().gear()[at];
    double wanted = vehicle.speed(revs, gear);
    int n = road.size();
    int back = (int) (2 * LOOKS_BACK / road.step());
    double found = Double.NaN;
    for (int k = 0; k < back; k++) {
      int i = Math.floorMod(at - k, n);
      int before = Math.floorMod(i - 1, n);
      if (computed.lap().gear()[i] != gear || speed[before] > speed[i] + 0.05) {
        break;
      }
      if (speed[before] < wanted && speed[i] >= wanted) {
        found = i * road.step();
        break;
      }
    }
    return found;
  }

  private Found limiter(double seconds, Action action) {
    double limit = computed.vehicle().engine().limitRevs();
    double from = reached(limit * 0.998, action);
    if (Double.isNaN(from)) {
      return Found.never("cue.no_limiter", Value.figure(limit, 0));
    }
    double v = speedAt(from);
    return Found.at(road.wrap(from + seconds * v), v * Math.max(REACTION, OF_INTERVAL * seconds));
  }

  private Found revs(double revs, Action action) {
    double at = reached(revs, action);
    if (Double.isNaN(at)) {
      return Found.never("cue.no_revs", Value.figure(revs, 0));
    }
    int i = road.index(at);
    int gear = computed.lap().gear()[i];
    double slope = computed.lap().along()[i] / speed[i] * computed.vehicle().revs(1, gear);
    return Found.at(at, Math.hypot(speedAt(at) * REACTION, BY_EAR / Math.max(slope, 0.5)));
  }

  private double load(int i) {
    Path path = computed.path();
    Limits limits = computed.limits();
    double square = speed[i] * speed[i];
    return limits.load(path, i, square) / limits.levelLoad(speed[i]);
  }

  private Found settled(Action action) {
    int at = road.index(action.station());
    int n = road.size();
    int lightest = -1;
    for (int k = (int) (-NEAR / road.step()); k < LOOKS_BACK / road.step(); k++) {
      int i = Math.floorMod(at - k, n);
      if (load(i) < LIGHT && (lightest < 0 || load(i) < load(lightest))) {
        lightest = i;
      } else if (lightest >= 0 && load(i) > BACK) {
        break;
      }
    }
    if (lightest < 0) {
      return Found.never("cue.not_light");
    }
    int i = lightest;
    for (int k = 0; k < n && load(i) < BACK; k++) {
      i = (i + 1) % n;
    }
    return Found.at(i * road.step(), Math.hypot(1, speed[i] * REACTION / 2));
  }

  /** Where what is looked at stands from where it is; empty where it is not told, or is gone. */
  public Optional<Gaze> gaze(Action action, List<Action> score) {
    Cue target = action.target();
    if (target == null) {
      return Optional.empty();
    }
    Optional<Landmark> looked =
        target.kind().thing()
            ? landmark(target.thing())
            : score.stream()
                .filter(a -> a.id().equals(target.other()))
                .findFirst()
                .map(this::onLine);
    return looked.map(l -> gaze(action.station(), l, target.named(score)));
  }

  /** That what is looked at is not there any more; nothing where none was told. */
  Said lost(Action action) {
    Cue target = action.target();
    return target == null
        ? Said.NOTHING
        : target.kind().thing()
            ? Said.of("gaze.gone", Value.own(target.spoken()))
            : Said.of("gaze.no_action");
  }

  /** A place of the line, on the road. */
  private Landmark onLine(Action action) {
    int i = road.index(action.station());
    return new Landmark(
        action.id(),
        LandmarkKind.SEAM,
        "",
        action.station(),
        true,
        "",
        computed.path().offset()[i] - road.left()[i],
        0,
        Landmark.Permanence.FIXED,
        true,
        null,
        "",
        "",
        0);
  }

  private Gaze gaze(double station, Landmark looked, Value name) {
    double metres = road.apart(station, looked.station());
    double angle = views.angle(station, looked, looked.station());
    Said why =
        metres <= 0
            ? Said.of("gaze.behind", name)
            : !views.clear(station, looked, looked.station())
                ? Said.of("gaze.hidden", name)
                : angle > seat.halfAngle()
                    ? Said.of("gaze.aside", name, Value.figure(Math.toDegrees(angle), 0))
                    : Said.NOTHING;
    return Gaze.of(angle, metres, seconds(station, looked.station()), why);
  }

  /** The same cue with the number that puts it at a station; null where it has none that does. */
  public @Nullable Cue moved(Cue cue, double station, Action action, List<Action> score) {
    Optional<Landmark> thing = landmark(cue.thing());
    if (!cue.kind().number() || (cue.kind().thing() && thing.isEmpty())) {
      return null;
    }
    double past = thing.map(l -> road.apart(l.station(), station)).orElse(0.0);
    return switch (cue.kind()) {
      case PAST -> cue.with(past);
      case LENGTHS -> cue.with(past / length(computed.vehicle()));
      case SHARE -> {
        double share = past / Math.max(0.1, thing.orElseThrow().length());
        yield share < 0 || share > 1 ? null : cue.with(share);
      }
      case BETWEEN -> {
        Optional<Landmark> to = landmark(cue.other());
        double way =
            to.map(l -> road.ahead(thing.orElseThrow().station(), l.station())).orElse(0.0);
        double share = way > 0 ? past / way : -1;
        yield share < 0 || share > 1 ? null : cue.with(share);
      }
      case SECONDS ->
          score.stream()
              .filter(a -> a.id().equals(cue.other()))
              .findFirst()
              .map(a -> cue.with(seconds(a.station(), station)))
              .orElse(null);
      case LIMITER -> {
        double from = reached(computed.vehicle().engine().limitRevs() * 0.998, action);
        double seconds = Double.isNaN(from) ? -1 : road.apart(from, station) / speedAt(from);
        yield seconds < 0 ? null : cue.with(seconds);
      }
      case REVS -> {
        int i = road.index(station);
        yield cue.with(computed.vehicle().revs(speed[i], computed.lap().gear()[i]));
      }
      default -> null;
    };
  }

  /** Cues in reach of an action, the best first; an action found by feel is always in reach. */
  public List<Offer> reach(Action action, List<Action> score) {
    List<Cue> tried = new ArrayList<>();
    double station = action.station();
    double own = length(computed.vehicle());
    List<Landmark> near =
        landmarks.stream()
            .filter(l -> apart(l, station) < REACH)
            .sorted(Comparator.comparingDouble(l -> apart(l, station)))
            .toList();
    for (Landmark l : near) {
      tried.add(Cue.of(CueKind.PAST, l.id(), l.spoken(), 0));
      if (Math.abs(road.apart(l.station(), station)) < MOST_LENGTHS * own) {
        tried.add(Cue.of(CueKind.LENGTHS, l.id(), l.spoken(), 0));
      }
      if (l.length() > 0) {
        tried.add(Cue.of(CueKind.SHARE, l.id(), l.spoken(), 0));
      }
      tried.add(Cue.of(CueKind.BESIDE, l.id(), l.spoken(), 0));
    }
    for (Landmark l : landmarks) {
      double ahead = road.apart(station, l.station() + l.length());
      if (ahead > 0 && ahead < LOOKS_BACK) {
        tried.add(Cue.of(CueKind.INTO_VIEW, l.id(), l.spoken(), 0));
        tried.add(Cue.of(CueKind.OUT_OF_VIEW, l.id(), l.spoken(), 0));
      }
    }
    between(station).ifPresent(tried::add);
    for (Action a : score) {
      double since = seconds(a.station(), station);
      if (!a.id().equals(action.id()) && since > 0 && since <= LONGEST) {
        tried.add(Cue.after(a.id(), since));
      }
    }
    tried.add(Cue.of(CueKind.LIMITER, 0));
    tried.add(Cue.of(CueKind.SETTLED, 0));
    tried.add(Cue.of(CueKind.FEEL, 0));
    List<Offer> offers = new ArrayList<>();
    for (Cue cue : tried) {
      offer(cue, action, score).ifPresent(offers::add);
    }
    offers.sort(Comparator.comparingDouble(Cues::doubt).thenComparing(o -> o.cue().kind()));
    return List.copyOf(offers);
  }

  private double apart(Landmark l, double station) {
    double past = road.apart(l.station(), station);
    return past < 0 ? -past : Math.max(0, past - l.length());
  }

  private Optional<Cue> between(double station) {
    Landmark before = null;
    Landmark after = null;
    for (Landmark l : landmarks) {
      double past = road.apart(l.station(), station);
      if (past > 0 && (before == null || past < road.apart(before.station(), station))) {
        before = l;
      } else if (past < 0 && (after == null || -past < road.apart(station, after.station()))) {
        after = l;
      }
    }
    if (before == null
        || after == null
        || road.ahead(before.station(), after.station()) > BETWEEN) {
      return Optional.empty();
    }
    return Optional.of(
        new Cue(CueKind.BETWEEN, before.id(), before.spoken(), after.id(), after.spoken(), 0.5));
  }

  private static double doubt(Offer o) {
    Integer marks = o.marks();
    return o.precision()
        + PER_METRE * Math.abs(o.moves())
        + (marks == null ? 0 : PER_MARK * (100 - marks));
  }

  private Optional<Offer> offer(Cue cue, Action action, List<Action> score) {
    Cue fitting = cue.kind().number() ? moved(cue, action.station(), action, score) : cue;
    if (fitting == null) {
      return Optional.empty();
    }
    Found found = find(fitting, action, score);
    Double at = found.station();
    if (at == null) {
      return Optional.empty();
    }
    double moves = road.apart(action.station(), at);
    if (Math.abs(moves) > NEAR) {
      return Optional.empty();
    }
    Integer marks =
        landmark(cue.thing())
            .map(
                l ->
                    judge
                        .judge(
                            l,
                            road.apart(l.station(), at),
                            speedAt(at),
                            computed.path().offset()[road.index(at)])
                        .marks())
            .orElse(null);
    return Optional.of(new Offer(fitting, at, found.precision(), moves, marks));
  }

  /**
   * A score with every station where its cue is now. An action whose cue does not happen stays
   * where it was.
   */
  public List<Action> placed(List<Action> score) {
    List<Action> out = new ArrayList<>(score);
    // What hangs on others comes after them; four rounds are enough for chains of four.
    for (int round = 0; round < 4; round++) {
      boolean still = true;
      for (int k = 0; k < out.size(); k++) {
        Action a = out.get(k);
        Double at = station(a, out);
        if (at != null && Math.abs(road.apart(at, a.station())) > 0.01) {
          out.set(k, a.at(at));
          still = false;
        }
      }
      if (still) {
        break;
      }
    }
    return List.copyOf(out);
  }

  /**
   * The cues of an action: where each is, and which counts. Of two that are held together that is
   * the earlier; where neither happens, the one behind them.
   *
   * @param score all actions of the corner, for cues on others
   */
  public List<HeldCue> held(Action a, List<Action> score) {
    List<HeldCue> out = new ArrayList<>();
    Cue first = a.cue();
    Cue with = a.together();
    Cue behind = a.backUp();
    if (first != null) {
      out.add(held(HeldCue.Role.MAIN, first, a, score));
    }
    if (with != null) {
      out.add(held(HeldCue.Role.TOGETHER, with, a, score));
    }
    if (behind != null) {
      out.add(held(HeldCue.Role.BACK_UP, behind, a, score));
    }
    int counts = -1;
    for (int k = 0; k < out.size(); k++) {
      Double at = out.get(k).station();
      Double before = counts < 0 ? null : out.get(counts).station();
      boolean stands = out.get(k).role() == HeldCue.Role.BACK_UP;
      if (at != null && (before == null || !stands && road.apart(before, at) < 0)) {
        counts = k;
      }
    }
    if (counts >= 0) {
      out.set(counts, out.get(counts).counting());
    }
    return List.copyOf(out);
  }

  /**
   * How an action comes that is held by cues.
   *
   * @param by metres from its place at which it comes on average; negative is earlier, as of two
   *     held together the earlier counts
   * @param precision metres to which it is met
   */
  public record Met(double by, double precision) {}

  /** How an action comes by its cues; empty where none of them happens. */
  public Optional<Met> met(Action a, List<Action> score) {
    return met(held(a, score));
  }

  Optional<Met> met(List<HeldCue> held) {
    Optional<HeldCue> counts = held.stream().filter(HeldCue::counts).findFirst();
    Double at = counts.map(HeldCue::station).orElse(null);
    if (at == null) {
      return Optional.empty();
    }
    Met alone = new Met(0, counts.get().precision());
    if (counts.get().role() == HeldCue.Role.BACK_UP) {
      return Optional.of(alone);
    }
    return Optional.of(
        held.stream()
            .filter(h -> !h.counts() && h.role() != HeldCue.Role.BACK_UP)
            .findFirst()
            .map(h -> together(alone, at, h))
            .orElse(alone));
  }

  private Met together(Met alone, double at, HeldCue other) {
    Double also = other.station();
    if (also == null) {
      return alone;
    }
    Earlier earlier = Earlier.of(0, alone.precision(), road.apart(at, also), other.precision());
    return new Met(earlier.mean(), earlier.sigma());
  }

  private HeldCue held(HeldCue.Role role, Cue cue, Action a, List<Action> score) {
    Found found = find(cue, a, score);
    return new HeldCue(
        role, cue, cue.said(score), found.station(), found.precision(), false, found.why());
  }

  /** Where an action comes by its cues; null without one that happens. */
  private @Nullable Double station(Action a, List<Action> score) {
    return held(a, score).stream()
        .filter(HeldCue::counts)
        .findFirst()
        .map(HeldCue::station)
        .orElse(null);
  }
}
