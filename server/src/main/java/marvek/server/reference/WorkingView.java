package marvek.server.reference;

import java.util.UUID;
import marvek.core.entry.ReferenceContent;
import org.jspecify.annotations.Nullable;

/**
 * A working copy.
 *
 * @param version must be given back when it is stored
 * @param write what the device that stored it called that, null where no device did
 */
record WorkingView(int version, ReferenceContent content, @Nullable UUID write) {
  static WorkingView of(ReferenceRow row) {
    return new WorkingView(row.version(), row.working(), row.lastWrite());
  }
}
