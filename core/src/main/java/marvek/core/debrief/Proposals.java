package marvek.core.debrief;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import marvek.core.circuit.Centreline;
import marvek.core.debrief.Proposal.Strength;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.Score;
import marvek.core.entry.Step;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.plan.ScoredAction;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.score.Action;
import marvek.core.score.ActionKind;
import marvek.core.survey.Things;
import org.jspecify.annotations.Nullable;

/**
 * Changes that the laps speak for. Where a point was driven earlier or later from lap to lap, the
 * time to the next corner is set against it by a robust slope; a step is proposed only in the
 * direction that the interval of that slope tells, no longer than the limit, no farther than was
 * driven, and for braking never past the computed margin. Where braking past the last place is
 * repeated, more margin is proposed, whatever it costs.
 */
public final class Proposals {
  /** Fewer laps than this never speak for a change. */
  public static final int FEWEST = 5;

  /** The longest step, m, unless the driver sets it lower. */
  public static final double LONGEST_STEP = 5;

  /** The habit that keeps a braking marker from being moved later. */
  private static final String DEEP = "BRAKED_LATE_RAN_DEEP";

  /** Laps that braked past the last place from which on it is repeated and no slip. */
  private static final int REPEATED = 3;

  /** Share of the brakings that are to lie before the last place. */
  private static final double WITHIN = 0.95;

  private static final double FAIR = 0.9;
  private static final double SURE = 0.95;
  private static final double SPREAD_NEEDED = 0.8;
  private static final double SMALLEST_STEP = 0.5;
  private static final double SMALLEST_GAIN = 0.01;
  private static final double KEEP = 1;
  // The same of a share of a pedal.
  private static final double LONGEST_SHARE = 0.1;
  private static final double SHARE_SPREAD = 0.02;
  private static final double SMALLEST_SHARE = 0.01;
  private static final double SHARE_TOLERANCE = 0.06;
  private static final double KEEP_SHARE = 0.02;
  private static final double MOST_SHARE = 0.95;
  private static final int HALVINGS = 6;
  // Share of the grip that throttle and turn may ask for together: what the model is fine to.
  private static final double HELD = 1.02;
  private static final Set<ActionKind> THROTTLES =
      EnumSet.of(ActionKind.LIFT, ActionKind.THROTTLE, ActionKind.FULL);
  private static final List<PointKind> KINDS =
      List.of(
          PointKind.BRAKE,
          PointKind.TURN_IN,
          PointKind.RELEASE,
          PointKind.FIRST_THROTTLE,
          PointKind.FULL_THROTTLE);

  private final ComputedLap computed;
  private final Things things;
  private final List<CornerEntry> entries;
  private final List<LapData> laps;
  private final double longest;
  private final Sections sections;
  private final Centreline road;
  private final ActionsDriven actions;
  private final Debrief debrief;
  private final Set<String> deep;
  // Corners where more margin is proposed, which comes before any gain.
  private final Set<String> cautious = new LinkedHashSet<>();

  private Proposals(
      ComputedLap computed,
      Things things,
      List<CornerEntry> entries,
      List<LapData> laps,
      double longest) {
    this.computed = computed;
    this.things = things;
    this.entries = entries;
    this.laps = laps;
    this.longest = Math.max(SMALLEST_STEP, Math.min(longest, LONGEST_STEP));
    this.sections = new Sections(computed, entries);
    this.road = computed.road();
    this.actions = new ActionsDriven(computed, entries, laps);
    this.debrief = Debriefer.read(computed, entries, actions, laps);
    this.deep = deep();
  }

  /**
   * Proposals for every corner, those that change something first.
   *
   * @param laps of like conditions only
   * @param longest step that the driver allows, m, at most {@link #LONGEST_STEP}
   */
  public static List<Proposal> of(
      ComputedLap computed,
      Things things,
      List<CornerEntry> entries,
      List<LapData> laps,
      double longest) {
    return new Proposals(computed, things, entries, laps, longest).all();
  }

  /**
   * Corners into which the driver was too deep in any of the runs, however many others are there.
   */
  private Set<String> deep() {
    Set<String> out = new LinkedHashSet<>();
    laps.stream()
        .collect(Collectors.groupingBy(LapData::run, LinkedHashMap::new, Collectors.toList()))
        .values()
        .forEach(
            run ->
                Debriefer.read(computed, entries, actions, run).corners().stream()
                    .filter(f -> f.habits().stream().anyMatch(h -> h.cause().equals(DEEP)))
                    .forEach(f -> out.add(f.corner())));
    return out;
  }

  private List<Proposal> all() {
    List<Proposal> out = new ArrayList<>();
    for (int c = 0; c < entries.size(); c++) {
      CornerEntry entry = entries.get(c);
      for (PointKind kind : KINDS) {
        int corner = c;
        entry
            .station(kind)
            .ifPresent(s -> out.add(one(point(corner, kind, s), Debriefer.tolerance(kind))));
      }
      for (Debrief.ActionFinding f : actions.of(entry)) {
        if (f.seen()) {
          out.add(one(place(c, f), f.tolerance()));
        }
        if (f.seen() && f.amount() != null) {
          out.add(one(share(c, f), SHARE_TOLERANCE));
        }
      }
    }
    oneACorner(out);
    out.sort(Comparator.comparing((Proposal p) -> !p.change()).thenComparing(p -> -loudness(p)));
    return out;
  }

  /**
   * Actions of a corner hang together, and two changed at once prove nothing: the one that speaks
   * loudest is proposed, the others wait.
   */
  private void oneACorner(List<Proposal> all) {
    Map<String, Proposal> loudest = new LinkedHashMap<>();
    for (Proposal p : all) {
      if (p.change()) {
        // Of equals the first in driving order.
        loudest.merge(p.corner(), p, (a, b) -> loudness(b) > loudness(a) ? b : a);
      }
    }
    all.replaceAll(
        p ->
            p.change() && loudest.get(p.corner()) != p
                ? ProposalBuilder.builder(p)
                    .change(false)
                    .to(p.from())
                    .gain(null)
                    .gainLow(null)
                    .gainHigh(null)
                    .strength(Strength.NONE)
                    .reason(Said.of("proposal.louder"))
                    .limitedBy(Said.NOTHING)
                    .build()
                : p);
  }

  private double loudness(Proposal p) {
    Double gain = p.gain();
    boolean marker = p.action().equals(Score.id(PointKind.BRAKE));
    return marker && cautious.contains(p.corner()) ? Double.MAX_VALUE : gain == null ? 0 : gain;
  }

  private Basis point(int c, PointKind kind, double station) {
    CornerEntry entry = entries.get(c);
    Subject of =
        new Subject(
            Score.id(kind),
            Objects.requireNonNull(Score.kind(kind)),
            kind.said(),
            false,
            true,
            station);
    Basis basis = new Basis(c, entry, of);
    for (LapData l : laps) {
      l.corner(entry.corner())
          .map(e -> actions.measured(l.id(), e, entry, kind))
          .ifPresent(at -> basis.add(l, road.apart(station, at)));
    }
    return basis;
  }

  private Basis place(int c, Debrief.ActionFinding f) {
    return of(c, f, false, f.planned(), f.lates());
  }

  private Basis share(int c, Debrief.ActionFinding f) {
    Double written = f.amount();
    return of(c, f, true, written == null ? 0 : written, f.amounts());
  }

  private Basis of(
      int c, Debrief.ActionFinding f, boolean share, double from, List<@Nullable Double> measured) {
    Basis basis =
        new Basis(
            c, entries.get(c), new Subject(f.action(), f.kind(), f.said(), share, false, from));
    for (LapData l : laps) {
      int i = f.laps().indexOf(l.id());
      Double at = i < 0 ? null : measured.get(i);
      if (at != null) {
        basis.add(l, share ? at - from : at);
      }
    }
    return basis;
  }

  private Proposal one(Basis basis, double tolerance) {
    boolean told = laps.stream().allMatch(LapData::told);
    if (!basis.of.marker() && !told) {
      return basis.none(Said.of("proposal.untold"));
    }
    if (basis.off.size() < FEWEST) {
      return basis.none(
          Said.of("proposal.few", Value.count(basis.off.size()), Value.count(FEWEST)));
    }
    double[] x = basis.off.stream().mapToDouble(Double::doubleValue).toArray();
    double[] y = basis.seconds.stream().mapToDouble(Double::doubleValue).toArray();
    double middle = Robust.median(x);
    double spread = Robust.spread(x);
    // What changed from one run to the next is not the doing of one point.
    int[] run = basis.runs.stream().mapToInt(Integer::intValue).toArray();
    Robust.Slope fair = Robust.slope(x, y, run, FAIR);
    if (basis.of.slows() && deep.contains(basis.entry.corner())) {
      return basis.of.marker() ? deeper(basis, x) : basis.none(Said.of("proposal.deep"));
    }
    if (spread >= (basis.of.share() ? SHARE_SPREAD : SPREAD_NEEDED) && fair.tells()) {
      return byTime(basis, x, fair, Robust.slope(x, y, run, SURE).tells());
    }
    boolean elsewhere = Math.abs(middle) > tolerance && spread < tolerance;
    // A flag does not follow a habit that costs time.
    boolean habit = !debrief.corners().get(basis.c).habits().isEmpty();
    boolean slow =
        Robust.median(y)
            > Math.min(Pace.of(computed, sections, laps).expected(basis.c), Robust.quantile(y, 0))
                + 0.1;
    if (elsewhere && !habit && !slow && told) {
      return asDriven(basis, middle);
    }
    return basis.none(
        spread < (basis.of.share() ? SHARE_SPREAD : SPREAD_NEEDED)
            ? Said.of("proposal.same_place")
            : Said.of(
                "proposal.unsure",
                Value.percent(FAIR),
                milli(-fair.high() * basis.of.unit()).in(),
                milli(-fair.low() * basis.of.unit()).in(),
                Value.choice(basis.of.share())));
  }

  /**
   * Where the driver keeps braking past the last place the marker comes sooner, by what the
   * brakings need to lie before that place; what it costs is not asked.
   */
  private Proposal deeper(Basis basis, double[] late) {
    double margin = margin(basis.entry);
    long past = Arrays.stream(late).filter(m -> m > margin).count();
    double missing = Robust.quantile(late, WITHIN) - margin;
    if (past < REPEATED || missing <= 0) {
      return basis.none(Said.of("proposal.deep"));
    }
    double grain = basis.of.smallest();
    double step = Math.min(Math.ceil(missing / grain) * grain, Math.floor(longest / grain) * grain);
    cautious.add(basis.entry.corner());
    return basis
        .step(
            -step,
            Strength.FAIR,
            Said.of(
                "proposal.repeated",
                Value.count((int) past),
                Value.count(late.length),
                Value.percent(WITHIN)),
            step < missing ? Said.of("proposal.limit.step") : Said.NOTHING)
        .build();
  }

  private static Said milli(double seconds) {
    return Double.isInfinite(seconds)
        ? Said.of("proposal.anything")
        : Said.of("proposal.seconds", Value.signed(seconds, 3));
  }

  private Proposal byTime(Basis basis, double[] x, Robust.Slope slope, boolean sure) {
    double way = -Math.signum(slope.value());
    // No farther than a good share of the laps has been.
    double driven = way > 0 ? Robust.quantile(x, 0.9) : -Robust.quantile(x, 0.1);
    double most = basis.of.share() ? LONGEST_SHARE : longest;
    Said limit = Said.of(driven < most ? "proposal.limit.driven" : "proposal.limit.step");
    Bound bound = bound(basis, way, Math.min(most, driven), limit);
    if (bound.step() < basis.of.smallest()) {
      return basis.none(bound.held() ? Said.of("proposal.no_margin") : Said.of("proposal.already"));
    }
    double step = Math.floor(bound.step() / basis.of.smallest()) * basis.of.smallest();
    double gain = Math.abs(slope.value()) * step;
    if (gain < SMALLEST_GAIN) {
      return basis.none(Said.of("proposal.small"));
    }
    double low = Math.min(Math.abs(slope.low()), Math.abs(slope.high())) * step;
    double high = Math.max(Math.abs(slope.low()), Math.abs(slope.high())) * step;
    Strength strength =
        sure && x.length >= 8 ? Strength.STRONG : sure ? Strength.FAIR : Strength.WEAK;
    return basis
        .step(
            way * step,
            strength,
            Said.of(
                basis.of.share() ? "proposal.by_share" : "proposal.by_time",
                basis.of.what().in(),
                Value.choice(way > 0),
                Value.figure(Math.abs(slope.value()) * basis.of.unit(), 3)),
            bound.limit())
        .gain(gain)
        .gainLow(low)
        .gainHigh(high)
        .build();
  }

  /** The flag follows what is driven, where that costs nothing. */
  private Proposal asDriven(Basis basis, double middle) {
    double most = basis.of.share() ? LONGEST_SHARE : longest;
    Said limit = Math.abs(middle) > most ? Said.of("proposal.limit.step") : Said.NOTHING;
    Bound bound = bound(basis, Math.signum(middle), Math.min(Math.abs(middle), most), limit);
    if (bound.held() && bound.step() < basis.of.smallest()) {
      return basis.none(Said.of("proposal.later_no_margin"));
    }
    return basis
        .step(
            Math.signum(middle)
                * Math.rint(bound.step() / basis.of.smallest())
                * basis.of.smallest(),
            Strength.FAIR,
            basis.of.share()
                ? Said.of(
                    "proposal.as_shared",
                    basis.of.what().in(),
                    Value.percent(Math.abs(middle)),
                    Value.choice(middle > 0))
                : Said.of("proposal.as_driven", Value.length(middle), Value.choice(middle > 0)),
            bound.limit())
        .build();
  }

  /**
   * How long a step may be.
   *
   * @param held whether the vehicle keeps it from being longer
   */
  private record Bound(double step, boolean held, Said limit) {}

  private Bound bound(Basis basis, double way, double step, Said limit) {
    if (basis.of.marker()) {
      double margin = margin(basis.entry);
      return way > 0 && step > margin - KEEP
          ? new Bound(margin - KEEP, true, Said.of("proposal.limit.margin", Value.length(margin)))
          : new Bound(step, false, limit);
    }
    if (basis.of.point() || holds(basis, way, step)) {
      return new Bound(step, false, limit);
    }
    // The longest that the corner is still made with, and a little more.
    double made = 0;
    double missed = step;
    for (int k = 0; k < HALVINGS; k++) {
      double half = (made + missed) / 2;
      if (holds(basis, way, half)) {
        made = half;
      } else {
        missed = half;
      }
    }
    return new Bound(made, true, Said.of("proposal.limit.made"));
  }

  /** Whether the corner is made with a step and a little more, without more than there is. */
  private boolean holds(Basis basis, double way, double step) {
    double keep = basis.of.share() ? KEEP_SHARE : KEEP;
    double to = basis.of.from() + way * (step + keep);
    double at = basis.of.share() ? Math.max(0, Math.min(MOST_SHARE, to)) : to;
    CornerEntry then = new Step(basis.of.action(), basis.of.share(), at).in(road, basis.entry);
    Map<String, ScoredAction> was = new LinkedHashMap<>();
    Answers.answer(computed, things, basis.entry).score().forEach(a -> was.put(a.action().id(), a));
    boolean asksMore = basis.of.asksMore(way);
    if (!order(then).equals(order(basis.entry))) {
      return false;
    }
    return Answers.answer(computed, things, then).score().stream()
        .allMatch(
            a -> {
              ScoredAction before = was.get(a.action().id());
              boolean no = !asksMore && before != null && !before.made();
              return (a.made() || no) && asked(a) <= Math.max(HELD, asked(before));
            });
  }

  private List<String> order(CornerEntry entry) {
    return Score.of(road, entry).stream().map(Action::id).toList();
  }

  /** Most that throttle and turn ask for, as a share of what there is; 0 for other pedals. */
  private static double asked(@Nullable ScoredAction s) {
    if (s == null || !THROTTLES.contains(s.action().kind())) {
      return 0;
    }
    Double asked = s.asked();
    Double before = s.before();
    return Math.max(asked == null ? 0 : asked, before == null ? 0 : before);
  }

  private double margin(CornerEntry entry) {
    CornerAnswer answer = Answers.answer(computed, things, entry);
    CornerAnswer.BrakingNumbers braking = answer.braking();
    return braking == null ? 0 : braking.marginMetres();
  }

  /**
   * What a proposal is of.
   *
   * @param action id
   * @param point whether it is a point that every corner has
   * @param from station, or share, as it is written
   */
  private record Subject(
      String action, ActionKind kind, Said what, boolean share, boolean point, double from) {
    /** The marker for braking. */
    boolean marker() {
      return point && kind == ActionKind.BRAKE;
    }

    /** Whether it slows the vehicle for the corner. */
    boolean slows() {
      return kind == ActionKind.BRAKE || kind == ActionKind.LIFT;
    }

    /** Whether a step this way slows the vehicle less for what comes. */
    boolean asksMore(double way) {
      return switch (kind) {
        case LIFT -> way > 0;
        case BRAKE -> share ? way < 0 : way > 0;
        case EASE -> way < 0;
        default -> false;
      };
    }

    double smallest() {
      return share ? SMALLEST_SHARE : SMALLEST_STEP;
    }

    /** What slopes are told for: a metre, or ten percent. */
    double unit() {
      return share ? 0.1 : 1;
    }
  }

  /** What a proposal rests on. */
  private final class Basis {
    private final int c;
    private final CornerEntry entry;
    private final Subject of;
    private final List<String> ids = new ArrayList<>();
    private final List<Double> off = new ArrayList<>();
    private final List<Double> seconds = new ArrayList<>();
    private final List<Integer> runs = new ArrayList<>();
    private final List<String> names = new ArrayList<>();

    Basis(int c, CornerEntry entry, Subject of) {
      this.c = c;
      this.entry = entry;
      this.of = of;
    }

    void add(LapData lap, double by) {
      ids.add(lap.id());
      off.add(by);
      seconds.add(sections.time(lap, c));
      if (!names.contains(lap.run())) {
        names.add(lap.run());
      }
      runs.add(names.indexOf(lap.run()));
    }

    /** What stands stays. */
    Proposal none(Said reason) {
      return new Proposal(
          entry.corner(),
          of.action,
          of.kind,
          of.what,
          of.share,
          false,
          of.from,
          of.from,
          null,
          null,
          null,
          off.size(),
          Strength.NONE,
          reason,
          Said.NOTHING,
          ids,
          off,
          seconds);
    }

    /** It goes further by so much. */
    ProposalBuilder step(double by, Strength strength, Said reason, Said limited) {
      double to =
          of.share ? Math.max(0, Math.min(MOST_SHARE, of.from + by)) : road.wrap(of.from + by);
      return ProposalBuilder.builder(none(reason))
          .change(true)
          .to(to)
          .strength(strength)
          .limitedBy(limited);
    }
  }
}
