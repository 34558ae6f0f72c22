package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import java.util.Optional;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.plan.CornerAnswer;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.survey.Kerb;
import marvek.core.survey.TrackLimit;

/** An exit that uses more than the track limit allows. */
@AutoService(Check.class)
public final class LimitAtExit implements Check {
  private static final String WORDS = "check.LIMIT_AT_EXIT";

  @Override
  public String id() {
    return "LIMIT_AT_EXIT";
  }

  @Override
  public int rank() {
    return 70;
  }

  @Override
  public void look(Case at) {
    CornerEntry e = at.entry();
    Optional<Double> exit = e.station(PointKind.EXIT);
    if (exit.isEmpty()) {
      return;
    }
    boolean left = !at.corner().left();
    for (TrackLimit limit : at.things().limits()) {
      boolean here =
          limit.corner().equals(e.corner())
              && limit.part() == Kerb.Part.EXIT
              && limit.left() == left
              && limit.wheelsInside() > 0;
      if (!here) {
        continue;
      }
      double over = over(at, exit.get(), left);
      double allowed = allowed(at, limit, left);
      boolean rides =
          e.kerbs().stream()
              .anyMatch(u -> u.part() == Kerb.Part.EXIT && KerbAgainstVerdict.more(u.how()) >= 3);
      if (over > allowed + 0.05 || (rides && allowed <= 0)) {
        Said cost =
            limit.cost().isBlank()
                ? Said.of(WORDS + ".rules")
                : Said.of(WORDS + ".cost", Value.own(limit.cost()));
        at.warn(this, PointKind.EXIT, Said.of(WORDS, Value.choice(rides), cost.in()));
      }
    }
  }

  /** Metres by which the outer wheel is past the road's edge at the exit as planned. */
  private static double over(Case at, double station, boolean left) {
    CornerAnswer.Profile p = at.answer().profile();
    int k = (int) Math.round(at.road().ahead(p.from(), station) / p.step());
    if (k >= p.offset().length) {
      return -1;
    }
    int i = at.road().index(station);
    double edge = left ? at.road().left()[i] : at.road().right()[i];
    double side = left ? p.offset()[k] : -p.offset()[k];
    return side + at.computed().vehicle().width() / 2 - edge;
  }

  private static double allowed(Case at, TrackLimit limit, boolean left) {
    double kerb =
        at.things().kerbs().stream()
            .filter(
                k ->
                    k.corner().equals(at.entry().corner())
                        && k.part() == Kerb.Part.EXIT
                        && k.left() == left)
            .mapToDouble(Kerb::width)
            .findFirst()
            .orElse(0);
    return limit.lets(at.computed().vehicle(), kerb);
  }
}
