package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import marvek.core.entry.KerbUse;
import marvek.core.said.Said;
import marvek.core.survey.Kerb;

/** More use of a kerb than the survey found it good for. */
@AutoService(Check.class)
public final class KerbAgainstVerdict implements Check {
  private static final String WORDS = "check.KERB_AGAINST_VERDICT";

  @Override
  public String id() {
    return "KERB_AGAINST_VERDICT";
  }

  @Override
  public int rank() {
    return 60;
  }

  @Override
  public void look(Case at) {
    for (KerbUse use : at.entry().kerbs()) {
      for (Kerb k : at.things().kerbs()) {
        boolean same = k.corner().equals(at.entry().corner()) && k.part() == use.part();
        if (same && more(use.how()) > more(k.verdict()) && k.verdict() != Kerb.Verdict.OPEN) {
          at.warn(
              this,
              null,
              Said.of(
                  WORDS,
                  Said.of("kerb.part." + use.part()).in(),
                  Said.of("kerb.verdict." + use.how()).in(),
                  Said.of("kerb.verdict." + k.verdict()).in()));
        }
      }
    }
  }

  /** How much of a kerb a verdict uses, 0 to 3. */
  static int more(Kerb.Verdict v) {
    return switch (v) {
      case KEEP_OFF, OPEN -> 0;
      case TOUCH -> 1;
      case RIDE -> 2;
      case HALF_THE_CAR, STRADDLE -> 3;
    };
  }
}
