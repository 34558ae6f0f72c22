package marvek.core.review.checks;

import com.google.auto.service.AutoService;
import marvek.core.entry.Wording;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.words.Sentence;
import marvek.core.words.Speech;

/** Own words that were written when the points said something else. */
@AutoService(Check.class)
public final class WordingDue implements Check {
  private static final String WORDS = "check.WORDING_DUE";

  @Override
  public String id() {
    return "WORDING_DUE";
  }

  @Override
  public int rank() {
    return 130;
  }

  @Override
  public void look(Case at) {
    Wording own = at.entry().wording();
    String now = Sentence.line(at.corner(), at.entry(), Speech.PLAIN.on(at.road().length()));
    if (own != null && !own.about().equals(now)) {
      at.warn(this, null, Said.of(WORDS, Value.own(own.about())));
    }
  }
}
