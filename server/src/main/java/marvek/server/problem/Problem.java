package marvek.server.problem;

import marvek.core.refusal.Refusal;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;

/** A refusal, and what HTTP calls it. */
public final class Problem extends Refusal {
  private static final long serialVersionUID = 1L;

  private final HttpStatus status;
  private final transient @Nullable Object current;

  private Problem(HttpStatus status, Said what, Said remedy, @Nullable Object current) {
    super(what, remedy);
    this.status = status;
    this.current = current;
  }

  private static Problem of(HttpStatus status, String key, Value... values) {
    return new Problem(status, what(key, values), remedy(key, values), null);
  }

  /** There is nothing of that name, here or among theirs; the key has words for that alone. */
  public static Problem none(String key, Value... values) {
    return new Problem(HttpStatus.NOT_FOUND, Said.of(key, values), Said.of("refusal.gone"), null);
  }

  /** This server has none of it. */
  public static Problem notFound(String key, Value... values) {
    return of(HttpStatus.NOT_FOUND, key, values);
  }

  public static Problem bad(String key, Value... values) {
    return of(HttpStatus.UNPROCESSABLE_ENTITY, key, values);
  }

  /** Someone else was first; {@code current} is what stands now. */
  public static Problem conflict(@Nullable Object current, String key, Value... values) {
    return new Problem(HttpStatus.CONFLICT, what(key, values), remedy(key, values), current);
  }

  /** Known to them, but not theirs to do. */
  public static Problem forbidden(String key, Value... values) {
    return of(HttpStatus.FORBIDDEN, key, values);
  }

  public static Problem tooMany(String key, Value... values) {
    return of(HttpStatus.TOO_MANY_REQUESTS, key, values);
  }

  /** More is asked for at once than there are hands. */
  public static Problem busy() {
    return of(HttpStatus.SERVICE_UNAVAILABLE, "refusal.busy");
  }

  /** A program that this server asks did not do its part. */
  public static Problem failed(String key, Value... values) {
    return of(HttpStatus.BAD_GATEWAY, key, values);
  }

  /** What is allowed is used up. */
  public static Problem full(String key, Value... values) {
    return of(HttpStatus.INSUFFICIENT_STORAGE, key, values);
  }

  public static Problem tooLarge() {
    return of(HttpStatus.PAYLOAD_TOO_LARGE, "refusal.too_large");
  }

  public static Problem unauthorised(String key, Value... values) {
    return of(HttpStatus.UNAUTHORIZED, key, values);
  }

  /** What to do about a failure. */
  public static Said remedy(RuntimeException failure) {
    return failure instanceof Refusal r ? r.remedy() : Said.of("refusal.again");
  }

  HttpStatus status() {
    return status;
  }

  @Nullable Object current() {
    return current;
  }
}
