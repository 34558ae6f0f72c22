package marvek.server.session;

import java.util.List;
import java.util.UUID;
import marvek.core.said.Said;
import marvek.server.access.Driver;

/** Trials that a brief tells of, from whoever plans them. */
public interface BriefTrials {
  /**
   * A trial to be driven.
   *
   * @param corner id; empty for the whole lap
   * @param ways the two
   * @param order in which they are driven, or that there is no room
   */
  record ToDrive(String corner, Said ways, Said order) {}

  /** Those of a session that is the driver's own. */
  List<ToDrive> of(Driver driver, UUID session);
}
