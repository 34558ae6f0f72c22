package marvek.core.telemetry;

import java.util.Map;
import java.util.Set;

/** A trace of two samples, where a lap must have one. */
final class TraceExample {
  static final Trace SHORT =
      new Trace(
          50,
          50,
          new double[] {0, 1},
          new double[] {0, 50},
          new double[] {0, 0},
          new double[] {50, 50},
          new double[] {0, 0},
          Map.of(),
          Set.of(),
          0,
          2);

  private TraceExample() {}
}
