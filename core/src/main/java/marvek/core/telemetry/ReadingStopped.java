package marvek.core.telemetry;

import java.io.InterruptedIOException;

/** Reading was given up on purpose: the stream said so by an {@link InterruptedIOException}. */
public final class ReadingStopped extends RuntimeException {
  private static final long serialVersionUID = 1L;

  private ReadingStopped(Throwable cause) {
    super(cause);
  }

  /** Throws when a failure goes back to a stream that was stopped. */
  static void ifSo(Throwable failure) {
    for (Throwable t = failure; t != null; t = t.getCause()) {
      if (t instanceof InterruptedIOException) {
        throw new ReadingStopped(failure);
      }
    }
  }
}
