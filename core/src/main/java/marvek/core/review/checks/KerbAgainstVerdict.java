package marvek.core.review.checks;

import com.google.auto.service.AutoService;
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
    at.kerbsUsed()
        .forEach(
            (k, use) -> {
              if (more(use.how()) > more(k.verdict()) && k.verdict() != Kerb.Verdict.OPEN) {
                at.warn(this, WORDS, use, Said.of("kerb.verdict." + k.verdict()).in());
              }
            });
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
