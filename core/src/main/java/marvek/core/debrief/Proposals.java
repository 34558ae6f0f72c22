package marvek.core.debrief;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import marvek.core.circuit.Centreline;
import marvek.core.debrief.Proposal.Strength;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.plan.Answers;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.survey.Things;

/**
 * Changes that the laps speak for. Where a point was driven earlier or later from lap to lap, the
 * time to the next corner is set against it by a robust slope; a step is proposed only in the
 * direction that the interval of that slope tells, no longer than the limit, no farther than was
 * driven, and for braking never past the computed margin.
 */
public final class Proposals {
  /** Fewer laps than this never speak for a change. */
  public static final int FEWEST = 5;

  /** The longest step, m, unless the driver sets it lower. */
  public static final double LONGEST_STEP = 5;

  /** The habit that keeps a braking marker from being moved later. */
  private static final String DEEP = "BRAKED_LATE_RAN_DEEP";

  private static final double FAIR = 0.9;
  private static final double SURE = 0.95;
  private static final double SPREAD_NEEDED = 0.8;
  private static final double SMALLEST_STEP = 0.5;
  private static final double SMALLEST_GAIN = 0.004;
  private static final double KEEP = 1;
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
    this.debrief = Debriefer.read(computed, entries, laps);
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
                Debriefer.read(computed, entries, run).corners().stream()
                    .filter(f -> f.habits().stream().anyMatch(h -> h.cause().equals(DEEP)))
                    .forEach(f -> out.add(f.corner())));
    return out;
  }

  private List<Proposal> all() {
    List<Proposal> out = new ArrayList<>();
    for (int c = 0; c < entries.size(); c++) {
      for (PointKind kind : KINDS) {
        int corner = c;
        entries.get(c).station(kind).ifPresent(s -> out.add(one(corner, kind, s)));
      }
    }
    oneACorner(out);
    out.sort(
        java.util.Comparator.comparing((Proposal p) -> !p.change())
            .thenComparing(p -> p.gain() == null ? 0 : -p.gain()));
    return out;
  }

  /**
   * Points of a corner hang together, and two changed at once prove nothing: the one that speaks
   * loudest is proposed, the others wait.
   */
  private void oneACorner(List<Proposal> all) {
    for (int i = 0; i < all.size(); i++) {
      Proposal p = all.get(i);
      boolean louder =
          p.change()
              && all.stream()
                  .anyMatch(
                      q ->
                          q != p
                              && q.change()
                              && q.corner().equals(p.corner())
                              && loudness(q) > loudness(p));
      if (louder) {
        all.set(
            i,
            ProposalBuilder.builder(p)
                .change(false)
                .to(p.station())
                .gain(null)
                .gainLow(null)
                .gainHigh(null)
                .strength(Strength.NONE)
                .reason(Said.of("proposal.louder"))
                .limitedBy(Said.NOTHING)
                .build());
      }
    }
  }

  private static double loudness(Proposal p) {
    Double gain = p.gain();
    // Of equals the first in driving order.
    return (gain == null ? 0 : gain) - 1e-9 * p.kind().ordinal();
  }

  private Proposal one(int c, PointKind kind, double station) {
    CornerEntry entry = entries.get(c);
    List<String> ids = new ArrayList<>();
    List<Double> late = new ArrayList<>();
    List<Double> seconds = new ArrayList<>();
    List<Integer> runs = new ArrayList<>();
    List<String> names = new ArrayList<>();
    for (LapData l : laps) {
      l.corner(entry.corner())
          .map(e -> actions.measured(l.id(), e, entry, kind))
          .ifPresent(
              at -> {
                ids.add(l.id());
                late.add(road.apart(station, at));
                seconds.add(sections.time(l, c));
                if (!names.contains(l.run())) {
                  names.add(l.run());
                }
                runs.add(names.indexOf(l.run()));
              });
    }
    Basis basis = new Basis(c, entry, kind, station, ids, late, seconds);
    if (kind != PointKind.BRAKE && !laps.stream().allMatch(LapData::told)) {
      return basis.none(Said.of("proposal.untold"));
    }
    if (late.size() < FEWEST) {
      return basis.none(Said.of("proposal.few", Value.count(late.size()), Value.count(FEWEST)));
    }
    double[] x = late.stream().mapToDouble(Double::doubleValue).toArray();
    double[] y = seconds.stream().mapToDouble(Double::doubleValue).toArray();
    double middle = Robust.median(x);
    double spread = Robust.spread(x);
    // What changed from one run to the next is not the doing of one point.
    int[] run = runs.stream().mapToInt(Integer::intValue).toArray();
    Robust.Slope fair = Robust.slope(x, y, run, FAIR);
    if (kind == PointKind.BRAKE && deep.contains(entry.corner())) {
      return basis.none(Said.of("proposal.deep"));
    }
    if (spread >= SPREAD_NEEDED && fair.tells()) {
      return byTime(basis, x, fair, Robust.slope(x, y, run, SURE).tells());
    }
    boolean elsewhere =
        Math.abs(middle) > Debriefer.tolerance(kind) && spread < Debriefer.tolerance(kind);
    // A flag does not follow a habit that costs time.
    boolean habit = !debrief.corners().get(c).habits().isEmpty();
    boolean slow =
        Robust.median(y)
            > Math.min(Pace.of(computed, sections, laps).expected(c), Robust.quantile(y, 0)) + 0.1;
    if (elsewhere && !habit && !slow && laps.stream().allMatch(LapData::told)) {
      return asDriven(basis, middle);
    }
    return basis.none(
        spread < SPREAD_NEEDED
            ? Said.of("proposal.same_place")
            : Said.of(
                "proposal.unsure",
                Value.percent(FAIR),
                milli(-fair.high()).in(),
                milli(-fair.low()).in()));
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
    double step = Math.min(longest, driven);
    Said limited = Said.of(driven < longest ? "proposal.limit.driven" : "proposal.limit.step");
    if (basis.kind == PointKind.BRAKE && way > 0) {
      double margin = margin(basis.entry);
      if (step > margin - KEEP) {
        step = margin - KEEP;
        limited = Said.of("proposal.limit.margin", Value.length(margin));
      }
    }
    if (step < SMALLEST_STEP) {
      return basis.none(
          way > 0 && basis.kind == PointKind.BRAKE
              ? Said.of("proposal.no_margin")
              : Said.of("proposal.already"));
    }
    step = Math.floor(step * 2) / 2;
    double gain = Math.abs(slope.value()) * step;
    if (gain < SMALLEST_GAIN) {
      return basis.none(Said.of("proposal.small"));
    }
    double low = Math.min(Math.abs(slope.low()), Math.abs(slope.high())) * step;
    double high = Math.max(Math.abs(slope.low()), Math.abs(slope.high())) * step;
    Strength strength =
        sure && x.length >= 8 ? Strength.STRONG : sure ? Strength.FAIR : Strength.WEAK;
    return basis.step(
        way * step,
        gain,
        low,
        high,
        strength,
        Said.of(
            "proposal.by_time",
            basis.kind.said().in(),
            Value.choice(way > 0),
            Value.figure(Math.abs(slope.value()), 3)),
        limited);
  }

  /** The flag follows what is driven, where that costs nothing. */
  private Proposal asDriven(Basis basis, double middle) {
    double step = Math.signum(middle) * Math.min(Math.abs(middle), longest);
    Said limited = Math.abs(middle) > longest ? Said.of("proposal.limit.step") : Said.NOTHING;
    if (basis.kind == PointKind.BRAKE && step > 0) {
      double margin = margin(basis.entry);
      if (step > margin - KEEP) {
        step = margin - KEEP;
        limited = Said.of("proposal.limit.margin", Value.length(margin));
      }
      if (step < SMALLEST_STEP) {
        return basis.none(Said.of("proposal.later_no_margin"));
      }
    }
    return basis.step(
        Math.rint(step * 2) / 2,
        null,
        null,
        null,
        Strength.FAIR,
        Said.of("proposal.as_driven", Value.length(middle), Value.choice(middle > 0)),
        limited);
  }

  private double margin(CornerEntry entry) {
    CornerAnswer answer = Answers.answer(computed, things, entry);
    CornerAnswer.BrakingNumbers braking = answer.braking();
    return braking == null ? 0 : braking.marginMetres();
  }

  /** What a proposal rests on. */
  private final class Basis {
    private final int c;
    private final CornerEntry entry;
    private final PointKind kind;
    private final double station;
    private final List<String> ids;
    private final List<Double> late;
    private final List<Double> seconds;

    Basis(
        int c,
        CornerEntry entry,
        PointKind kind,
        double station,
        List<String> ids,
        List<Double> late,
        List<Double> seconds) {
      this.c = c;
      this.entry = entry;
      this.kind = kind;
      this.station = station;
      this.ids = ids;
      this.late = late;
      this.seconds = seconds;
    }

    Proposal none(Said reason) {
      return new Proposal(
          entries.get(c).corner(),
          kind,
          false,
          station,
          station,
          null,
          null,
          null,
          late.size(),
          Strength.NONE,
          reason,
          Said.NOTHING,
          ids,
          late,
          seconds);
    }

    Proposal step(
        double by,
        @org.jspecify.annotations.Nullable Double gain,
        @org.jspecify.annotations.Nullable Double low,
        @org.jspecify.annotations.Nullable Double high,
        Strength strength,
        Said reason,
        Said limited) {
      return new Proposal(
          entries.get(c).corner(),
          kind,
          true,
          station,
          road.wrap(station + by),
          gain,
          low,
          high,
          late.size(),
          strength,
          reason,
          limited,
          ids,
          late,
          seconds);
    }
  }
}
