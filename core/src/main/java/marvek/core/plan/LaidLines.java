package marvek.core.plan;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import marvek.core.survey.Kerb;
import marvek.core.survey.Things;
import marvek.core.survey.TrackLimit;
import marvek.core.technique.School;
import marvek.core.technique.SchoolLine;
import org.jspecify.annotations.Nullable;

/**
 * The lines last laid for the schools of a corner: laying one is a search, and while a flag is
 * dragged the same one is asked for at every move. Only saves time: what is asked for anew comes
 * out the same.
 */
final class LaidLines {
  private static final int MOST = 48;

  /** All that the line of a corner hangs on beside the computed lap. */
  private record Asked(
      int c, List<School> schools, double given, List<Kerb> kerbs, List<TrackLimit> limits) {}

  // The lap whose line this one is driven on, and its lines with it; null for none.
  private final @Nullable ComputedLap keeps;

  LaidLines() {
    this(null);
  }

  LaidLines(@Nullable ComputedLap keeps) {
    this.keeps = keeps;
  }

  @Nullable ComputedLap keeps() {
    return keeps;
  }

  private final Map<Asked, SchoolLine> lines =
      new LinkedHashMap<>(16, 0.75f, true) {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Asked, SchoolLine> eldest) {
          return size() > MOST;
        }
      };

  SchoolLine of(
      int c, List<School> schools, double given, Things things, Supplier<SchoolLine> laid) {
    Asked asked = new Asked(c, schools, given, things.kerbs(), things.limits());
    synchronized (lines) {
      SchoolLine had = lines.get(asked);
      if (had != null) {
        return had;
      }
    }
    SchoolLine line = laid.get();
    synchronized (lines) {
      lines.put(asked, line);
    }
    return line;
  }
}
