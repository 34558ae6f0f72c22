package marvek.server.guard;

import java.io.IOException;

/** How long was waited for a client, against what it has brought or taken. */
final class Pace {
  private static final double NANOS = 1e9;

  private final GuardSettings settings;
  private final String words;
  private long waited;
  private long bytes;

  Pace(GuardSettings settings, String words) {
    this.settings = settings;
    this.words = words;
  }

  long bytes() {
    return bytes;
  }

  /** Notes that so many bytes took so many nanoseconds; breaks off where that is too slow. */
  void took(long nanos, long more) throws IOException {
    waited += nanos;
    bytes += more;
    double allowed =
        settings.grace().toNanos() + bytes * NANOS / Math.max(1, settings.bytesASecond());
    if (waited > allowed) {
      throw new IOException(words);
    }
  }
}
