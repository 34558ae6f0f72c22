package marvek.server.problem;

import marvek.core.refusal.Refusal;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;

/** A refusal in words: what is wrong, where, and what to do. */
public final class Problem extends Refusal {
  private static final long serialVersionUID = 1L;

  private final HttpStatus status;
  private final transient @Nullable Object current;

  private Problem(
      HttpStatus status,
      String what,
      @Nullable String where,
      String remedy,
      @Nullable Object current) {
    super(what, where, remedy);
    this.status = status;
    this.current = current;
  }

  public static Problem notFound(String what) {
    return notFound(what, "It may have been removed; go back to the paddock.");
  }

  /** This server has none of it. */
  public static Problem notFound(String what, String remedy) {
    return new Problem(HttpStatus.NOT_FOUND, what, null, remedy, null);
  }

  public static Problem bad(String what, @Nullable String where, String remedy) {
    return new Problem(HttpStatus.UNPROCESSABLE_ENTITY, what, where, remedy, null);
  }

  /** Someone else was first; {@code current} is what stands now. */
  public static Problem conflict(String what, String remedy, @Nullable Object current) {
    return new Problem(HttpStatus.CONFLICT, what, null, remedy, current);
  }

  /** Known to them, but not theirs to do. */
  public static Problem forbidden(String what, String remedy) {
    return new Problem(HttpStatus.FORBIDDEN, what, null, remedy, null);
  }

  public static Problem tooMany(String what, String remedy) {
    return new Problem(HttpStatus.TOO_MANY_REQUESTS, what, null, remedy, null);
  }

  /** More is asked for at once than there are hands. */
  public static Problem busy() {
    return new Problem(
        HttpStatus.SERVICE_UNAVAILABLE,
        "The server is busy.",
        null,
        "Nothing is lost. Try again in a few seconds.",
        null);
  }

  /** A program that this server asks did not do its part. */
  public static Problem failed(String what, String remedy) {
    return new Problem(HttpStatus.BAD_GATEWAY, what, null, remedy, null);
  }

  /** What is allowed is used up. */
  public static Problem full(String what, String remedy) {
    return new Problem(HttpStatus.INSUFFICIENT_STORAGE, what, null, remedy, null);
  }

  public static Problem tooLarge() {
    return new Problem(
        HttpStatus.PAYLOAD_TOO_LARGE,
        "This is too large.",
        null,
        "Send it in smaller parts, or as a file.",
        null);
  }

  public static Problem unauthorised(String what, String remedy) {
    return new Problem(HttpStatus.UNAUTHORIZED, what, null, remedy, null);
  }

  /** What to do about a failure, in words. */
  public static String remedy(RuntimeException failure) {
    return failure instanceof Refusal r ? r.remedy() : "Try again; if it fails again, tell us.";
  }

  HttpStatus status() {
    return status;
  }

  @Nullable Object current() {
    return current;
  }
}
