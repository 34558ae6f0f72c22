package marvek.server.problem;

import com.fasterxml.jackson.databind.JsonMappingException;
import java.sql.SQLException;
import java.util.function.Function;
import marvek.core.circuit.OutlineProblem;
import marvek.core.refusal.Refusal;
import marvek.core.refusal.Where;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.words.Speaker;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.TypeMismatchException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.dao.OptimisticLockingFailureException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.validation.FieldError;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.multipart.support.MissingServletRequestPartException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;

/** Answers every refusal as RFC 9457 problem details with {@code where} and {@code remedy}. */
@RestControllerAdvice
class ProblemAdvice extends ResponseEntityExceptionHandler {
  private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);

  // SQLSTATE class 22, data exception: a character or a number that the database does not keep.
  private static final String NO_SUCH_VALUE = "22";
  private static final String UNIQUE = "23505";
  private static final String REFERENCED = "23503";

  private final InWords words;

  ProblemAdvice(InWords words) {
    this.words = words;
  }

  @ExceptionHandler
  ProblemDetail refused(Refusal r) {
    ProblemDetail detail = detail(HttpStatus.UNPROCESSABLE_ENTITY, r.what(), r.where(), r.remedy());
    if (r instanceof OutlineProblem o) {
      detail.setProperty("kind", o.kind().name());
    }
    return detail;
  }

  @ExceptionHandler
  ProblemDetail problem(Problem p) {
    ProblemDetail detail = detail(p.status(), p.what(), p.where(), p.remedy());
    detail.setProperty("current", p.current());
    return detail;
  }

  @ExceptionHandler
  ProblemDetail locked(OptimisticLockingFailureException e) {
    return detail(HttpStatus.CONFLICT, "refusal.saved_first");
  }

  /** Two requests at once made the same thing, and the other was first; or a value does not fit. */
  @ExceptionHandler
  ResponseEntity<ProblemDetail> broken(DataIntegrityViolationException e) {
    String state = e.getRootCause() instanceof SQLException sql ? sql.getSQLState() : "";
    if (state != null && state.startsWith(NO_SUCH_VALUE)) {
      return answer(detail(HttpStatus.UNPROCESSABLE_ENTITY, "refusal.cannot_be_stored"));
    }
    if (UNIQUE.equals(state) || REFERENCED.equals(state)) {
      return answer(detail(HttpStatus.CONFLICT, "refusal.same_moment"));
    }
    return unexpected(e);
  }

  @ExceptionHandler
  ProblemDetail bad(IllegalArgumentException e) {
    String why = e.getMessage();
    return detail(
        HttpStatus.UNPROCESSABLE_ENTITY,
        why == null ? Said.of("refusal.unusable.what") : Said.of("stored", Value.own(why)),
        null,
        Said.of("refusal.unusable.remedy"));
  }

  @ExceptionHandler
  ResponseEntity<ProblemDetail> unexpected(Exception e) {
    if (DatabaseGone.in(e)) {
      LOG.error("The database does not answer: {}", e.getClass().getSimpleName());
      return ResponseEntity.status(HttpStatus.SERVICE_UNAVAILABLE)
          .header(HttpHeaders.RETRY_AFTER, DatabaseGone.AGAIN)
          .body(
              told(
                  Speaker.PLAIN::say,
                  HttpStatus.SERVICE_UNAVAILABLE,
                  DatabaseGone.WHAT,
                  null,
                  DatabaseGone.REMEDY));
    }
    LOG.error("Unexpected failure", e);
    return answer(detail(HttpStatus.INTERNAL_SERVER_ERROR, "refusal.failed"));
  }

  private static ResponseEntity<ProblemDetail> answer(ProblemDetail detail) {
    return ResponseEntity.status(detail.getStatus()).body(detail);
  }

  @Override
  protected @Nullable ResponseEntity<Object> handleMethodArgumentNotValid(
      MethodArgumentNotValidException e,
      HttpHeaders headers,
      HttpStatusCode status,
      WebRequest request) {
    FieldError field = e.getBindingResult().getFieldError();
    return field == null
        ? respond(
            HttpStatus.UNPROCESSABLE_ENTITY,
            Said.of("refusal.does_not_fit"),
            null,
            Said.of("refusal.unusable.remedy"))
        : respond(
            HttpStatus.UNPROCESSABLE_ENTITY,
            Said.of(
                "refusal.field_does_not_fit",
                Value.own(field.getField()),
                Value.own(String.valueOf(field.getDefaultMessage()))),
            Where.field(field.getField()),
            Said.of("refusal.unusable.remedy"));
  }

  @Override
  protected @Nullable ResponseEntity<Object> handleHttpMessageNotReadable(
      HttpMessageNotReadableException e,
      HttpHeaders headers,
      HttpStatusCode status,
      WebRequest request) {
    return respond(
        HttpStatus.BAD_REQUEST,
        Said.of("refusal.unreadable.what"),
        e.getCause() instanceof JsonMappingException j ? where(j) : null,
        Said.of("refusal.unreadable.remedy"));
  }

  /** The place of a value, as "corners[2].points". */
  private static @Nullable Said where(JsonMappingException e) {
    StringBuilder path = new StringBuilder();
    for (JsonMappingException.Reference r : e.getPath()) {
      if (r.getFieldName() == null) {
        path.append('[').append(r.getIndex()).append(']');
      } else {
        path.append(path.isEmpty() ? "" : ".").append(r.getFieldName());
      }
    }
    return path.isEmpty() ? null : Where.field(path.toString());
  }

  @Override
  protected @Nullable ResponseEntity<Object> handleMaxUploadSizeExceededException(
      MaxUploadSizeExceededException e,
      HttpHeaders headers,
      HttpStatusCode status,
      WebRequest request) {
    return respond(
        HttpStatus.PAYLOAD_TOO_LARGE,
        Said.of("refusal.file_too_large.what"),
        null,
        Said.of("refusal.file_too_large.remedy"));
  }

  /** What is refused before any of ours is asked: an address, a method, a parameter. */
  @Override
  protected @Nullable ResponseEntity<Object> handleExceptionInternal(
      Exception e,
      @Nullable Object body,
      HttpHeaders headers,
      HttpStatusCode status,
      WebRequest request) {
    Said what = what(status);
    Said remedy = Said.of("refusal.unusable.remedy");
    String field = null;
    if (e instanceof MissingServletRequestParameterException m) {
      what = Said.of("refusal.value_missing");
      field = m.getParameterName();
    } else if (e instanceof MissingServletRequestPartException m) {
      what = Said.of("refusal.value_missing");
      field = m.getRequestPartName();
    } else if (e instanceof TypeMismatchException m) {
      what = Said.of("refusal.value_does_not_fit", Value.own(String.valueOf(m.getValue())));
      field = m.getPropertyName();
    } else {
      remedy = remedy(status);
    }
    Said where = field == null ? null : Where.field(field);
    ProblemDetail detail = told(words::say, status, what, where, remedy);
    return ResponseEntity.status(status).headers(headers).body(detail);
  }

  private ResponseEntity<Object> respond(
      HttpStatus status, Said what, @Nullable Said where, Said remedy) {
    return ResponseEntity.status(status).body(detail(status, what, where, remedy));
  }

  private ProblemDetail detail(HttpStatus status, String key) {
    return detail(status, Said.of(key + ".what"), null, Said.of(key + ".remedy"));
  }

  private ProblemDetail detail(HttpStatus status, Said what, @Nullable Said where, Said remedy) {
    return told(words::say, status, what, where, remedy);
  }

  /** What is said of a status that nobody said more of. */
  static Said what(HttpStatusCode status) {
    return switch (status.value()) {
      case 503 -> DatabaseGone.WHAT;
      case 404 -> Said.of("refusal.no_address");
      case 413 -> Said.of("refusal.too_large.what");
      default ->
          Said.of(status.is5xxServerError() ? "refusal.failed.what" : "refusal.unreadable.what");
    };
  }

  static Said remedy(HttpStatusCode status) {
    return Said.of(status.is5xxServerError() ? "refusal.failed.later" : "refusal.check_address");
  }

  static ProblemDetail told(
      Function<Said, String> words,
      HttpStatusCode status,
      Said what,
      @Nullable Said where,
      Said remedy) {
    ProblemDetail detail = ProblemDetail.forStatusAndDetail(status, words.apply(what));
    detail.setProperty("where", where == null ? null : words.apply(where));
    detail.setProperty("remedy", words.apply(remedy));
    return detail;
  }
}
