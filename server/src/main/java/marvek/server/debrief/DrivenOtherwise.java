package marvek.server.debrief;

import java.util.Map;
import java.util.Set;
import java.util.UUID;

/** Laps on which a corner was driven another way on purpose, from whoever plans such. */
public interface DrivenOtherwise {
  /** Ids of laps by id of the corner. */
  Map<String, Set<String>> laps(UUID person, UUID reference);
}
