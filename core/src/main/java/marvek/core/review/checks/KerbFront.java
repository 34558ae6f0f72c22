package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import marvek.core.circuit.Centreline;
import marvek.core.said.Value;

/** A kerb that is joined where its front edge bites. */
@AutoService(Check.class)
public final class KerbFront implements Check {
  private static final String WORDS = "check.KERB_FRONT";

  @Override
  public String id() {
    return "KERB_FRONT";
  }

  @Override
  public int rank() {
    return 62;
  }

  @Override
  public void look(Case at) {
    Centreline road = at.road();
    at.kerbsUsed()
        .forEach(
            (k, use) -> {
              Double join = use.join();
              boolean bites =
                  KerbAgainstVerdict.more(use.how()) > 0
                      && join != null
                      && k.usableAfter() > 0
                      && road.ahead(road.wrap(k.from() - BEFORE), join)
                          < BEFORE + k.usableAfter() - ENOUGH;
              if (bites) {
                at.warn(this, WORDS, use, Value.length(road.wrap(k.from() + k.usableAfter())));
              }
            });
  }

  // Joined a little before it begins it is met at its front; told to half a metre.
  private static final double BEFORE = 20;
  private static final double ENOUGH = 0.5;
}
