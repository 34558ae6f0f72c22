package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import marvek.core.said.Value;
import marvek.core.survey.Kerb;

/** More than a touch of a kerb that throws the vehicle. */
@AutoService(Check.class)
public final class KerbThrows implements Check {
  private static final String WORDS = "check.KERB_THROWS";

  @Override
  public String id() {
    return "KERB_THROWS";
  }

  @Override
  public int rank() {
    return 63;
  }

  @Override
  public void look(Case at) {
    at.kerbsUsed()
        .forEach(
            (k, use) -> {
              if (k.does().contains(Kerb.Does.LAUNCHES) && KerbAgainstVerdict.more(use.how()) > 1) {
                at.warn(this, WORDS, use, Value.length(k.height(), 2));
              }
            });
  }
}
