package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import marvek.core.plan.Answers;

/** Points that come in another order than they are driven in. */
@AutoService(Check.class)
public final class Order implements Check {
  @Override
  public String id() {
    return "ORDER";
  }

  @Override
  public int rank() {
    return 10;
  }

  @Override
  public void look(Case at) {
    // The plan says so of itself.
    at.answer().remarks().stream()
        .filter(r -> r.key().equals(Answers.ORDER))
        .forEach(r -> at.warn(this, null, r));
  }
}
