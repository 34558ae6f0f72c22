package marvek.core.session;

import java.util.Objects;
import marvek.core.technique.School;

/**
 * A corner that is driven in another way for one session: the quickest for qualifying, what spares
 * or defends for a race, the easier one for a learner. The reference stays as it is.
 *
 * @param corner id
 * @param school that is followed there
 */
public record SessionWay(String corner, School school) {
  public SessionWay {
    Objects.requireNonNull(corner, "corner");
    Objects.requireNonNull(school, "school");
  }
}
