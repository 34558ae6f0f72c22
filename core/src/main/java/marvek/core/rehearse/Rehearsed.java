package marvek.core.rehearse;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import marvek.core.refusal.Refusal;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * What a driver did by heart: one fact that was told, or one lap that was driven.
 *
 * @param fact id of what was told; empty for a lap
 * @param told what was answered; null for "no idea", and for a lap
 * @param right what was right then
 * @param precision to which it could be told then
 * @param rate 1 for full speed; 0 for a fact
 * @param lag seconds that the device lags, taken off
 * @param dark whether it was driven with closed eyes
 * @param start road seconds since the line at which the piece begins; null for the whole lap
 * @param end at which it ends; null likewise
 * @param keys what was asked for
 * @param presses in seconds by the wall since the start
 * @param stations where each action was planned that was asked for, by corner and action; null
 *     where the device did not say
 */
public record Rehearsed(
    String fact,
    @Nullable Double told,
    double right,
    double precision,
    double rate,
    double lag,
    boolean dark,
    @Nullable Double start,
    @Nullable Double end,
    List<Performance.Control> keys,
    List<Performance.Press> presses,
    @Nullable Map<String, Double> stations) {
  private static final int MOST_PRESSES = 1000;

  // Metres within which an action is where it was.
  private static final double THERE = 1;

  public Rehearsed {
    Objects.requireNonNull(fact, "fact");
    keys = keys == null ? List.of() : List.copyOf(keys);
    presses = presses == null ? List.of() : List.copyOf(presses);
    stations = stations == null ? null : Collections.unmodifiableMap(new TreeMap<>(stations));
  }

  /**
   * What was due of a lap in the piece that was driven.
   *
   * @param all actions of the lap
   * @param lapTime seconds, for pieces over the line
   */
  public List<Performance.DueAction> due(List<Performance.DueAction> all, double lapTime) {
    Double from = start;
    Double to = end;
    List<Performance.DueAction> out = new ArrayList<>();
    for (Performance.DueAction d : all) {
      if (!keys.contains(d.key())) {
        continue;
      }
      if (from == null || to == null) {
        out.add(d);
        continue;
      }
      for (double at : new double[] {d.at() - lapTime, d.at(), d.at() + lapTime}) {
        if (at >= from && at <= to) {
          out.add(d.at(at));
        }
      }
    }
    out.sort(Comparator.comparingDouble(Performance.DueAction::at));
    return out;
  }

  /** What was pressed, held against what was due of a lap; a bias is told at full speed only. */
  public Performance against(Drive drive) {
    Performance done =
        Performance.of(
            due(drive.due(), drive.lapTime()),
            presses.stream().map(p -> p.at(Performance.road(p.at(), lag, rate))).toList(),
            drive::station);
    return rate < 1 ? done.withoutBias() : done;
  }

  /**
   * What was met of actions that are still where they were planned then: of others nothing can be
   * said any more.
   */
  public List<Performance.Met> still(Drive drive) {
    Map<String, Double> then = stations;
    if (then == null) {
      return List.of();
    }
    return against(drive).met().stream()
        .filter(
            m -> {
              Double was = then.get(m.due().corner() + "/" + m.due().action());
              return was != null && Math.abs(was - m.due().station()) <= THERE;
            })
        .toList();
  }

  /** Whether it is a lap that was driven. */
  public boolean driven() {
    return fact.isEmpty();
  }

  /**
   * Checks it.
   *
   * @throws Refusal naming what is wrong
   */
  public void check() {
    if (fact.length() > 200) {
      throw Refusal.of("refusal.rehearse.no_fact").at("fact");
    }
    if (driven() && !(rate >= 0.25 && rate <= 1)) {
      throw Refusal.of("refusal.rehearse.lap_driven_quarter_full").at("rate");
    }
    if (!(lag >= 0 && lag <= 0.5)) {
      throw Refusal.of("refusal.rehearse.lag_more_half_second").at("lag");
    }
    if (presses.size() > MOST_PRESSES) {
      throw Refusal.of("refusal.rehearse.more_presses_no_lap", Value.figure(MOST_PRESSES, 0))
          .at("presses");
    }
    Double was = told;
    Map<String, Double> then = stations;
    if (then != null && then.size() > MOST_PRESSES) {
      throw Refusal.of("refusal.rehearse.more_actions_no_lap", Value.figure(MOST_PRESSES, 0))
          .at("stations");
    }
    boolean figures =
        Double.isFinite(right)
            && Double.isFinite(precision)
            && (was == null || Double.isFinite(was))
            && presses.stream().allMatch(p -> Double.isFinite(p.at()) && share(p.amount()));
    if (!figures) {
      throw Refusal.of("refusal.rehearse.number_missing").at("told");
    }
  }

  private static boolean share(@Nullable Double amount) {
    return amount == null || (amount >= 0 && amount <= 1);
  }
}
