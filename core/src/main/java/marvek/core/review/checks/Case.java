package marvek.core.review.checks;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.CornerPoint;
import marvek.core.entry.KerbUse;
import marvek.core.entry.PointKind;
import marvek.core.marker.Landmark;
import marvek.core.marker.Tie;
import marvek.core.plan.ComputedLap;
import marvek.core.plan.CornerAnswer;
import marvek.core.review.Warning;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.survey.Kerb;
import marvek.core.survey.Things;
import org.jspecify.annotations.Nullable;

/** A corner that is checked, with all that a check may look at. */
public final class Case {
  private final ComputedLap computed;
  private final Things things;
  private final CornerEntry entry;
  private final CornerAnswer answer;
  private final Corner corner;
  private final List<Warning> warnings = new ArrayList<>();

  public Case(ComputedLap computed, Things things, CornerEntry entry, CornerAnswer answer) {
    this.computed = computed;
    this.things = things;
    this.entry = entry;
    this.answer = answer;
    this.corner = computed.corners().get(computed.indexOf(entry.corner()));
  }

  ComputedLap computed() {
    return computed;
  }

  Centreline road() {
    return computed.road();
  }

  Things things() {
    return things;
  }

  CornerEntry entry() {
    return entry;
  }

  CornerAnswer answer() {
    return answer;
  }

  Corner corner() {
    return corner;
  }

  Optional<Landmark> landmark(CornerPoint p) {
    Tie tie = p.tie();
    return tie == null
        ? Optional.empty()
        : things.landmarks().stream().filter(l -> l.id().equals(tie.landmark())).findFirst();
  }

  /** Kerbs of the survey of which the entry says how they are used, with how. */
  Map<Kerb, KerbUse> kerbsUsed() {
    Map<Kerb, KerbUse> out = new LinkedHashMap<>();
    for (KerbUse use : entry.kerbs()) {
      for (Kerb k : things.kerbs()) {
        if (k.corner().equals(entry.corner()) && k.part() == use.part()) {
          out.put(k, use);
        }
      }
    }
    return out;
  }

  /** Warns of how a kerb is used: which part, how, and what else there is to say of it. */
  void warn(Check check, String words, KerbUse use, Value besides) {
    warn(
        check,
        null,
        Said.of(
            words,
            Said.of("kerb.part." + use.part()).in(),
            Said.of("kerb.verdict." + use.how()).in(),
            besides));
  }

  void warn(Check check, @Nullable PointKind kind, Said words) {
    warnings.add(new Warning(check.id(), entry.corner(), kind, words));
  }

  /** All that was warned of so far. */
  public List<Warning> warnings() {
    return List.copyOf(warnings);
  }
}
