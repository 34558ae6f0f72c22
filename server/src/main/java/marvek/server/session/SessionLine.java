package marvek.server.session;

import java.time.Instant;
import java.time.LocalDateTime;
import java.util.List;
import java.util.UUID;
import marvek.core.said.Said;
import marvek.core.session.DaySheet;
import marvek.core.session.TrackSession;
import org.jspecify.annotations.Nullable;

/**
 * A session in the calendar.
 *
 * @param begins as things stand
 * @param ends as things stand
 * @param local when it begins, on the circuit's clock
 * @param clocks what the circuit's clock does about it; nothing on nearly every day
 * @param driven runs that belong to it
 * @param logged lines in its log
 */
record SessionLine(
    UUID id,
    UUID event,
    @Nullable UUID reference,
    @Nullable String title,
    TrackSession session,
    Instant begins,
    Instant ends,
    LocalDateTime local,
    Said clocks,
    boolean made,
    int version,
    List<DaySheet.Due> due,
    int driven) {}
