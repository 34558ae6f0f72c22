package marvek.core.words;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Slowing;
import marvek.core.line.ApexType;
import marvek.core.marker.Tie;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;

/** What is said of the parts of one corner, whatever the length it is told at. */
final class CornerWords {
  // Metres within which something is at the apex.
  private static final double AT_APEX = 3;
  private static final double HARDLY = 1e-6;
  // Metres of a release from the apex within which the brake is bled to it.
  private static final double BLED = 8;
  private static final double AT_THING = 0.75;
  // Share of the throttle from which on it is all of it.
  private static final double ALL = 0.95;

  private enum Firm {
    HARD,
    FIRM,
    LIGHT,
    TOUCH;

    static Firm of(double effort) {
      return effort >= 0.75 ? HARD : effort >= 0.45 ? FIRM : effort >= 0.2 ? LIGHT : TOUCH;
    }
  }

  /** Which apex something is told from, where there are two. */
  private enum From {
    IT,
    NAMED,
    FIRST,
    SECOND
  }

  private final Corner corner;
  private final CornerEntry e;
  private final Speech speech;
  private final List<Action> score;

  CornerWords(Corner corner, CornerEntry entry, Speech speech) {
    this.corner = corner;
    this.e = entry;
    this.speech = speech;
    this.score = Score.of(speech.lap(), entry);
  }

  List<Action> score() {
    return score;
  }

  /** What the driver wrote besides the points. */
  List<Action> own() {
    return score.stream().filter(a -> Score.point(a.id()).isEmpty()).toList();
  }

  Said flat() {
    return Said.of("entry.flat", gear(e.approachGear()).in());
  }

  /** The corner whose brakes are still on where this one is turned into, if nothing else is. */
  Optional<Corner> braked() {
    boolean brakes = score.stream().anyMatch(a -> a.kind() == ActionKind.BRAKE);
    return brakes || e.slowing() != Slowing.LIFT
        ? Optional.empty()
        : Optional.ofNullable(speech.braked().get(corner.id()));
  }

  /** How it is slowed for without brakes of its own, and to what speed. */
  Said lifted() {
    Value to = Value.speed(e.minimumSpeed());
    return braked()
        .map(b -> Said.of("entry.braked.to", new Value.CornerName(b.number(), b.name()), to))
        .orElse(Said.of("entry.lift.to", to));
  }

  /** How it is slowed for without brakes of its own. */
  Said lift() {
    return braked()
        .map(b -> Said.of("entry.braked.only", new Value.CornerName(b.number(), b.name())))
        .orElse(Said.of("entry.lift.only"));
  }

  /** The same where there is little room. */
  Said liftInShort() {
    return Said.of(braked().isPresent() ? "entry.braked.short" : "entry.lift.only");
  }

  Said slowest() {
    return Said.of("entry.speed", Value.speed(e.minimumSpeed()));
  }

  static Said gear(int gear) {
    return Said.of("entry.gear", Value.count(gear));
  }

  /** "two down to third". */
  Said gears() {
    int down = e.approachGear() - e.gear();
    return down > 0
        ? Said.of("entry.gears.down", Value.count(down), gear(e.gear()).in())
        : Said.of("entry.gears.stay", gear(e.gear()).in());
  }

  private Said brake() {
    return e.point(PointKind.BRAKE)
        .map(p -> Said.of("entry.brake.where", where(p).in()))
        .orElse(Said.of("entry.brake.bare"));
  }

  /** Where it is braked and how hard, in words alone. */
  Said braking() {
    return Said.of("entry.brake.spoken", brake().in(), Value.choice(Firm.of(e.firstEffort())));
  }

  /** The same with its share. */
  Said brakingTo() {
    Action play = e.point(PointKind.BRAKE).map(CornerPoint::play).orElse(null);
    Double set = play == null ? null : play.amount();
    double effort = set == null ? e.firstEffort() : set;
    return Said.of(
        "entry.brake.share", brake().in(), Value.choice(Firm.of(effort)), Value.percent(effort));
  }

  /** Where it is braked again, each. */
  List<Said> again() {
    return e.again().stream()
        .map(
            a ->
                Said.of(
                    "entry.again",
                    fromApex(a.station(), false).in(),
                    Value.speed(a.from()),
                    Value.speed(a.to())))
        .toList();
  }

  Optional<Said> hands() {
    return e.point(PointKind.TURN_IN)
        .flatMap(p -> Optional.ofNullable(p.tie()))
        .map(t -> Said.of("entry.hands", near(t).in()));
  }

  Optional<Said> release() {
    Optional<Double> last = e.station(PointKind.APEX);
    Optional<Double> release = e.station(PointKind.RELEASE);
    Optional<Double> first = e.station(PointKind.FIRST_APEX);
    boolean twice =
        first.isPresent() && release.isPresent() && speech.apart(first.get(), release.get()) < BLED;
    Optional<Double> apex = twice ? first : last;
    if (apex.isEmpty() || release.isEmpty()) {
      return Optional.empty();
    }
    double before = speech.apart(release.get(), apex.get());
    Value which = Value.choice(twice);
    if (Math.abs(before) < BLED) {
      return Optional.of(Said.of("entry.release.to", which));
    }
    return Optional.of(
        before > 0
            ? Said.of("entry.release.before", which, Value.length(before))
            : Said.of("entry.release.past"));
  }

  Said apex() {
    Said type = Said.of("entry.apex.type", Value.choice(e.apexType()));
    Said tied =
        e.point(PointKind.APEX)
            .flatMap(p -> Optional.ofNullable(p.tie()))
            .map(t -> Said.of("entry.apex.tied", type.in(), Value.own(t.spoken())))
            .orElse(type);
    return corner.apexes().size() > 1 ? Said.of("entry.apex.twice", tied.in()) : tied;
  }

  /** One word for a pocket. */
  Said apexInShort() {
    boolean twice = e.apexType() == ApexType.MIDDLE && corner.apexes().size() > 1;
    return Said.of("entry.pocket", new Value.Choice(twice ? "TWICE" : e.apexType().name()));
  }

  /** First and full throttle, or the first alone where it is not opened fully. */
  Optional<Said> throttle() {
    if (e.slowing() == Slowing.FLAT) {
      return Optional.empty();
    }
    Optional<Double> first = e.station(PointKind.FIRST_THROTTLE);
    if (e.point(PointKind.FULL_THROTTLE).isEmpty()) {
      return first.map(f -> opened(f, false));
    }
    Said full = e.station(PointKind.FULL_THROTTLE).map(this::toIt).orElse(Said.NOTHING);
    return Optional.of(
        Said.of(
            "entry.throttle.both",
            share().in(),
            first.map(this::toIt).orElse(Said.NOTHING).in(),
            full.in()));
  }

  private Said opened(double at, boolean named) {
    return Said.of("entry.throttle.first", share().in(), fromApex(at, named).in());
  }

  /**
   * First and full throttle, each where it comes in driving.
   *
   * @param full the key that full throttle is told with
   */
  List<Clause> throttleInPlace(String full) {
    List<Clause> out = new ArrayList<>();
    e.station(PointKind.FIRST_THROTTLE)
        .ifPresent(f -> out.add(new Clause(pastApex(f), opened(f, false), opened(f, true))));
    e.station(PointKind.FULL_THROTTLE)
        .ifPresent(
            f ->
                out.add(
                    new Clause(
                        pastApex(f),
                        Said.of(full, fromApex(f, false).in()),
                        Said.of(full, fromApex(f, true).in()))));
    return out;
  }

  /** What the driver wrote besides the points, each where it comes in driving. */
  List<Clause> ownInPlace() {
    return own().stream()
        .map(a -> new Clause(pastApex(a.station()), own(a, false), own(a, true)))
        .toList();
  }

  private Said toIt(double at) {
    return fromApex(at, false);
  }

  Said share() {
    return e.firstThrottle() < ALL
        ? Said.of("entry.throttle.part", Value.percent(e.firstThrottle()))
        : Said.of("entry.throttle.all");
  }

  /** An action of the driver's own, by its cue, or told from the apex. */
  Said own(Action a, boolean named) {
    return a.cue() == null
        ? Said.of(
            "entry.own",
            a.said(score).in(),
            fromApex(a.station(), named).in(),
            Value.choice(a.kind()))
        : a.line(score);
  }

  /**
   * Told from the apex, or the nearer of two; by its station where there is none.
   *
   * @param named whether the apex is to be named
   */
  Said fromApex(double at, boolean named) {
    Optional<Double> apex = e.station(PointKind.APEX);
    if (apex.isEmpty()) {
      return Said.of("entry.at.station", Value.length(at));
    }
    double past = speech.apart(apex.get(), at);
    // Between two apexes the nearer one is meant.
    Optional<Double> first = e.station(PointKind.FIRST_APEX).map(f -> speech.apart(f, at));
    boolean nearFirst = first.isPresent() && Math.abs(first.get()) < Math.abs(past);
    double by = nearFirst ? first.get() : past;
    From from =
        nearFirst ? From.FIRST : first.isPresent() ? From.SECOND : named ? From.NAMED : From.IT;
    return Math.abs(by) < AT_APEX
        ? Said.of("entry.from.at", Value.choice(from))
        : Said.of("entry.from.off", Value.length(by), Value.choice(by > 0), Value.choice(from));
  }

  /** Metres past the apex, by which what is done is put in order. */
  double pastApex(double at) {
    double apex = e.station(PointKind.APEX).or(() -> e.station(PointKind.TURN_IN)).orElse(0.0);
    double past = speech.apart(apex, at);
    // What is done at the apex is said after it, in its own order.
    return Math.abs(past) < AT_APEX ? HARDLY * (past + AT_APEX) : past;
  }

  /** Metres from the apex to the marker, negative. */
  double toBrake() {
    return speech.apart(
        e.station(PointKind.APEX).orElse(0.0), e.station(PointKind.BRAKE).orElse(0.0));
  }

  /** How a point is found: by a cue of its own, or by where it is. */
  Said where(CornerPoint point) {
    return cue(point)
        .orElseGet(
            () -> {
              Tie tie = point.tie();
              return tie == null
                  ? Said.of("entry.at.station", Value.length(point.station()))
                  : near(tie);
            });
  }

  /** How a point is found where that is written as a cue of its own. */
  Optional<Said> cue(CornerPoint point) {
    Action play = point.play();
    return play == null || play.cue() == null ? Optional.empty() : Optional.of(play.by(score));
  }

  private static Said near(Tie tie) {
    Value thing = Value.own(tie.spoken());
    return Math.abs(tie.past()) < AT_THING
        ? Said.of("entry.near.at", thing)
        : Said.of("entry.near.off", Value.length(tie.past()), Value.choice(tie.past() > 0), thing);
  }
}
