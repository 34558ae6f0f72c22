package marvek.server.session;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import marvek.core.said.Said;
import org.jspecify.annotations.Nullable;

/**
 * A session with its plan.
 *
 * @param parts sessions that were joined into it
 * @param plan null where it has no reference
 * @param conditions that it is planned for
 * @param brief the plan as it is read before going out; nothing without a plan
 * @param briefRead what the brief said when it was read
 */
record PlannedSession(
    SessionLine line,
    String event,
    List<RunOfSession> runs,
    List<PartOfSession> parts,
    Planner.@Nullable SessionPlan plan,
    Said conditions,
    List<BriefSheet.BriefPart> brief,
    @Nullable Map<String, String> briefRead,
    @Nullable Instant briefReadAt) {
  /** A session that was joined into another one. */
  record PartOfSession(UUID id, String name, Instant begins) {}

  record RunOfSession(UUID id, String name, Instant drivenAt) {}
}
