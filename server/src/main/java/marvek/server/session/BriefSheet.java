package marvek.server.session;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.session.FocusLine;
import marvek.core.session.PlanOfDay;
import marvek.core.session.PlannedLine;
import marvek.core.session.RungLine;
import marvek.core.session.SessionKind;
import marvek.core.session.SessionRules;
import marvek.core.session.StintSplit;
import marvek.core.session.StraightUse;
import marvek.core.session.Today;
import marvek.core.session.TrackSession;
import marvek.core.session.Wheels;
import marvek.core.technique.School;
import marvek.core.units.LapClock;
import org.jspecify.annotations.Nullable;

/** A session's plan as it is read before going out: the same on screen, paper and in files. */
final class BriefSheet {
  /** Differences of a corner that the sheet has room for. */
  private static final int DIFFERENCES = 3;

  /** Steps before a marker below this are nothing a person could use, m. */
  private static final double USEFUL = 2;

  /** Seconds below which a way costs nothing that is told. */
  private static final double TOLD = 0.005;

  private final TrackSession session;
  private final Planner.SessionPlan plan;
  private final List<BriefTrials.ToDrive> trials;
  private final Map<String, String> called;

  private BriefSheet(
      TrackSession session, Planner.SessionPlan plan, List<BriefTrials.ToDrive> trials) {
    this.session = session;
    this.plan = plan;
    this.trials = trials;
    this.called =
        plan.corners().stream().collect(Collectors.toMap(PlannedLine::corner, PlannedLine::called));
  }

  /** What a part is about, in the order in which it is read. */
  enum BriefPartKind {
    DIFFERS,
    FOCUS,
    TRIALS,
    MARKERS,
    WARM,
    LAPS,
    NUMBERS,
    WRONG
  }

  /**
   * A part of the sheet.
   *
   * @param lines none of the markers: those are the plan's corners
   */
  record BriefPart(BriefPartKind kind, Said head, List<BriefLine> lines) {}

  /**
   * A line.
   *
   * @param corner id; null where it is about no corner
   * @param called that corner, as the driver calls it; null likewise
   */
  record BriefLine(@Nullable String corner, @Nullable String called, Said words) {}

  static List<BriefPart> of(
      TrackSession session, Planner.SessionPlan plan, List<BriefTrials.ToDrive> trials) {
    BriefSheet sheet = new BriefSheet(session, plan, trials);
    return Arrays.stream(BriefPartKind.values())
        .filter(k -> k != BriefPartKind.TRIALS || !trials.isEmpty())
        .map(k -> new BriefPart(k, Said.of("page.head", Value.choice(k)), sheet.lines(k)))
        .toList();
  }

  private List<BriefLine> lines(BriefPartKind kind) {
    return switch (kind) {
      case DIFFERS -> differs();
      case FOCUS -> focus();
      case TRIALS -> trials();
      case MARKERS -> List.of();
      case WARM -> warm();
      case LAPS -> laps();
      case NUMBERS -> numbers();
      case WRONG -> wrong();
    };
  }

  private static BriefLine line(String key, Value... values) {
    return new BriefLine(null, null, Said.of(key, values));
  }

  private static <T> Said beside(List<T> parts, Function<T, Said> words) {
    return parts.stream()
        .map(words)
        .reduce((a, b) -> Said.of("page.beside", a.in(), b.in()))
        .orElse(Said.NOTHING);
  }

  private List<BriefLine> differs() {
    List<BriefLine> out = new ArrayList<>();
    for (PlannedLine l : plan.corners()) {
      List<Today.Differing> all = l.today().differences();
      if (!all.isEmpty()) {
        out.add(
            new BriefLine(
                l.corner(),
                l.called(),
                Said.joined(
                    all.stream()
                        .limit(DIFFERENCES)
                        .map(d -> Said.of("page.when", Value.choice(d.when()), d.words().in()))
                        .toList())));
      }
    }
    if (out.isEmpty()) {
      out.add(line("page.differs.none"));
    }
    ways(out);
    plan.corners().stream()
        .flatMap(l -> l.today().differences().stream().limit(1))
        .map(Today.Differing::reason)
        .findFirst()
        .filter(r -> !r.equals(Said.NOTHING))
        .ifPresent(r -> out.add(line("page.differs.mostly", r.in())));
    plan.light().forEach(l -> out.add(new BriefLine(null, null, l)));
    return out;
  }

  private void ways(List<BriefLine> out) {
    for (PlannedLine l : plan.corners()) {
      School way = l.today().way();
      if (way == null) {
        continue;
      }
      Double costs = l.today().wayCosts();
      out.add(
          costs == null
              ? line("page.no_way", Value.own(l.called()), way.called().in())
              : line(
                  "page.way",
                  Value.own(l.called()),
                  way.called().in(),
                  Value.choice(Math.abs(costs) >= TOLD),
                  Value.signed(costs, 2)));
    }
  }

  private List<BriefLine> focus() {
    List<BriefLine> out = new ArrayList<>();
    if (!session.aim().isBlank()) {
      out.add(line("page.focus.aim", Value.own(session.aim())));
    }
    for (FocusLine f : plan.focus()) {
      out.add(new BriefLine(f.focus().corner(), f.called(), f.words().then(f.cure())));
    }
    if (plan.focus().isEmpty()) {
      out.add(line("page.focus.none"));
    }
    plan.notToday().forEach(n -> out.add(new BriefLine(null, null, n)));
    return out;
  }

  private List<BriefLine> trials() {
    return trials.stream()
        .map(
            t ->
                new BriefLine(
                    t.corner().isEmpty() ? null : t.corner(),
                    t.corner().isEmpty() ? null : called(t.corner()),
                    t.ways().then(t.order())))
        .toList();
  }

  private List<BriefLine> warm() {
    List<BriefLine> out = new ArrayList<>();
    int from = plan.today().warmFrom();
    out.add(line("page.warm.from", Value.count(from)));
    PlanOfDay.SettlingLine settles = plan.settling();
    if (settles != null) {
      out.add(new BriefLine(null, null, settles.words()));
    }
    List<PlannedLine> sooner =
        plan.corners().stream()
            .filter(l -> l.today().early().stream().anyMatch(m -> m >= USEFUL))
            .toList();
    if (!sooner.isEmpty()) {
      out.add(
          line(
              "page.warm.sooner",
              Value.count(from - 1),
              beside(
                      sooner,
                      l ->
                          Said.of(
                              "page.warm.corner",
                              Value.own(l.called()),
                              Said.listed(
                                      l.today().early().stream()
                                          .map(m -> Said.of("page.one", Value.length(m)))
                                          .toList())
                                  .in()))
                  .in()));
    } else if (from > 1) {
      out.add(line("page.warm.nothing"));
    }
    plan.brakes()
        .ifPresent(
            b ->
                out.add(
                    line(
                        "page.warm.brakes",
                        Value.count(b.presses()),
                        Value.speed(b.from()),
                        Value.speed(b.to()),
                        Value.own(called(b.into())))));
    out.add(line("page.warm.how"));
    return out;
  }

  private List<BriefLine> laps() {
    List<BriefLine> out = new ArrayList<>();
    out.add(line("page.laps.fit", Value.count(plan.today().laps())));
    // The way in is practised before it counts, on warm tyres and not on the last lap.
    if (plan.pits() != null
        && (session.kind() == SessionKind.TEST || session.kind() == SessionKind.PRACTICE)
        && plan.today().laps() > plan.today().warmFrom()) {
      int lap = (plan.today().warmFrom() + plan.today().laps()) / 2;
      out.add(line("page.practise", Value.count(lap), Value.length(plan.pits().metres())));
    }
    for (RungLine r : plan.rungs()) {
      List<Double> rungs = r.rungs().rungs();
      Said steps =
          beside(
              IntStream.range(0, rungs.size()).boxed().toList(),
              i ->
                  Said.of(
                      rungs.get(i) > 0 ? "page.laps.before" : "page.laps.at",
                      Value.count(r.firstLap() + i),
                      Value.length(rungs.get(i))));
      out.add(
          new BriefLine(
              r.rungs().corner(),
              r.called(),
              Said.of("page.laps.rungs", steps.in(), r.words().in())));
    }
    return out;
  }

  private List<BriefLine> numbers() {
    List<BriefLine> out = new ArrayList<>();
    out.add(
        line(
            "page.lap.tiers",
            beside(
                    plan.targets().tiers(),
                    t -> Said.of("page.one", Value.own(LapClock.of(t.lap()))))
                .in()));
    Optional.ofNullable(session.pace())
        .ifPresent(
            pace ->
                out.add(
                    line(
                        "page.lap.pace",
                        Value.figure(100 * pace, 1),
                        Value.own(LapClock.of(plan.today().lapTime())))));
    Optional.ofNullable(plan.targets().own())
        .ifPresent(own -> out.add(line("page.lap.own", Value.own(LapClock.of(own)))));
    out.add(
        line(
            "page.fuel",
            Value.figure(plan.fuel().litres(), 1),
            Value.count(plan.fuel().laps()),
            Value.figure(plan.fuel().need().perLap(), 2)));
    tyres(out);
    StintSplit split = plan.split();
    if (split != null) {
      out.add(
          line(
              "page.split",
              Value.count(split.change()),
              Value.count(split.earliest()),
              Value.count(split.latest())));
    }
    straights(out);
    if (plan.pits() != null) {
      out.add(
          line(
              "page.pits",
              Value.length(plan.pits().metres()),
              Value.speed(plan.pits().aimed()),
              Value.choice(plan.pits().left() != null),
              Value.choice(Boolean.TRUE.equals(plan.pits().left()))));
    }
    if (plan.race() != null && plan.race().start() != null) {
      var start = plan.race().start();
      out.add(
          line(
              "page.start",
              Value.speed(start.arrival()),
              Value.own(called(start.corner())),
              Value.length(start.metres()),
              Value.choice(start.metres() < 0)));
    }
    SessionRules rules = session.rules();
    if (rules.limits() != SessionRules.Limits.UNKNOWN) {
      Double penalty = rules.penalty();
      out.add(
          line(
              "page.limits",
              Value.choice(rules.limits()),
              Value.count(rules.counted() ? rules.warnings() : 0),
              Value.choice(rules.counted() && penalty != null),
              Value.figure(penalty == null ? 0 : penalty, 0)));
    }
    if (!rules.must().isBlank()) {
      out.add(line("page.must", Value.own(rules.must())));
    }
    return out;
  }

  private void tyres(List<BriefLine> out) {
    if (!session.tyres().set().isBlank() || session.tyres().age() > 0) {
      out.add(
          line(
              "page.tyres",
              Value.choice(!session.tyres().set().isBlank()),
              Value.own(session.tyres().set()),
              Value.count(session.tyres().age())));
    }
    if (!plan.wheels().isEmpty()) {
      out.add(line("page.cold", beside(plan.wheels(), this::wheel).in()));
    }
    if (!session.tyres().spared().isEmpty()) {
      out.add(line("page.spared", Value.own(called(session.tyres().spared()))));
    }
  }

  private Said wheel(Wheels w) {
    Said which =
        Said.of(
            plan.motorcycle() ? "page.wheel.of_two" : "page.wheel.of_four",
            Value.own(String.valueOf(w.wheel())));
    Double cold = w.cold();
    return Said.of(
        "page.wheel.cold",
        which.in(),
        cold == null ? w.refused().in() : Said.of("page.one", Value.figure(cold, 0)).in());
  }

  private void straights(List<BriefLine> out) {
    StraightUse straights = plan.straights();
    if (straights == null) {
      return;
    }
    List<StraightUse.Share> shares =
        straights.shares().stream().filter(s -> s.tenths() > 0).toList();
    if (!shares.isEmpty()) {
      out.add(
          line(
              "page.boost.shared",
              beside(
                      shares,
                      s ->
                          Said.of(
                              "page.boost.after",
                              Value.figure(10.0 * s.tenths(), 0),
                              Value.own(called(s.after()))))
                  .in()));
    }
    for (StraightUse.DeviceGain d : straights.device()) {
      out.add(
          line(
              "page.device",
              Value.length(d.from()),
              Value.length(d.to()),
              Value.own(called(d.into())),
              Value.length(d.metres())));
    }
  }

  private List<BriefLine> wrong() {
    List<BriefLine> out = new ArrayList<>();
    for (PlannedLine l : plan.corners()) {
      if (l.shortRunOff() || l.blind()) {
        out.add(new BriefLine(l.corner(), l.called(), l.escape()));
      }
    }
    plan.cautions().forEach(c -> out.add(new BriefLine(null, null, c)));
    return out;
  }

  private String called(List<String> corners) {
    return corners.stream().map(this::called).collect(Collectors.joining(", "));
  }

  private String called(String corner) {
    return called.getOrDefault(corner, corner);
  }
}
