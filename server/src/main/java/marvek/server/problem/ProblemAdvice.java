package marvek.server.problem;

import com.fasterxml.jackson.databind.JsonMappingException;
import java.sql.SQLException;
import java.util.Objects;
import marvek.core.circuit.OutlineProblem;
import marvek.core.refusal.Refusal;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
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
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;

/** Answers every refusal as RFC 9457 problem details with {@code where} and {@code remedy}. */
@RestControllerAdvice
class ProblemAdvice extends ResponseEntityExceptionHandler {
  private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);

  // SQLSTATE class 22, data exception: a character or a number that the database does not keep.
  private static final String NO_SUCH_VALUE = "22";
  private static final String UNIQUE = "23505";
  private static final String REFERENCED = "23503";

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
    return detail(
        HttpStatus.CONFLICT,
        "Another window saved first.",
        null,
        "Reload to see what stands there, then make your change again.");
  }

  /** Two requests at once made the same thing, and the other was first; or a value does not fit. */
  @ExceptionHandler
  ResponseEntity<ProblemDetail> broken(DataIntegrityViolationException e) {
    String state = e.getRootCause() instanceof SQLException sql ? sql.getSQLState() : "";
    if (state != null && state.startsWith(NO_SUCH_VALUE)) {
      return answer(
          detail(
              HttpStatus.UNPROCESSABLE_ENTITY,
              "A text or number cannot be stored as it stands.",
              null,
              "Take out characters that cannot be seen, and try again."));
    }
    if (UNIQUE.equals(state) || REFERENCED.equals(state)) {
      return answer(
          detail(
              HttpStatus.CONFLICT,
              "This was made or changed elsewhere at the same moment.",
              null,
              "Reload to see what stands there, then try again if it is still needed."));
    }
    return unexpected(e);
  }

  @ExceptionHandler
  ProblemDetail bad(IllegalArgumentException e) {
    return detail(
        HttpStatus.UNPROCESSABLE_ENTITY,
        Objects.requireNonNullElse(e.getMessage(), "That value cannot be used."),
        null,
        "Correct it and try again.");
  }

  @ExceptionHandler
  ResponseEntity<ProblemDetail> unexpected(Exception e) {
    if (DatabaseGone.in(e)) {
      LOG.error("The database does not answer: {}", e.getClass().getSimpleName());
      return ResponseEntity.status(HttpStatus.SERVICE_UNAVAILABLE)
          .header(HttpHeaders.RETRY_AFTER, DatabaseGone.AGAIN)
          .body(
              detail(
                  HttpStatus.SERVICE_UNAVAILABLE, DatabaseGone.WORDS, null, DatabaseGone.REMEDY));
    }
    LOG.error("Unexpected failure", e);
    return answer(
        detail(
            HttpStatus.INTERNAL_SERVER_ERROR,
            "Something went wrong on the server.",
            null,
            "Nothing you typed is lost. Try again; if it comes back, the log says more."));
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
    String where = field == null ? null : field.getField();
    String what =
        field == null
            ? "A value does not fit."
            : "The " + field.getField() + " " + field.getDefaultMessage() + ".";
    return respond(HttpStatus.UNPROCESSABLE_ENTITY, what, where, "Correct it and try again.");
  }

  @Override
  protected @Nullable ResponseEntity<Object> handleHttpMessageNotReadable(
      HttpMessageNotReadableException e,
      HttpHeaders headers,
      HttpStatusCode status,
      WebRequest request) {
    return respond(
        HttpStatus.BAD_REQUEST,
        "The request cannot be read.",
        e.getCause() instanceof JsonMappingException j ? where(j) : null,
        "Send JSON as /v3/api-docs describes it.");
  }

  /** The place of a value, as "corners[2].points". */
  private static @Nullable String where(JsonMappingException e) {
    StringBuilder path = new StringBuilder();
    for (JsonMappingException.Reference r : e.getPath()) {
      if (r.getFieldName() == null) {
        path.append('[').append(r.getIndex()).append(']');
      } else {
        path.append(path.isEmpty() ? "" : ".").append(r.getFieldName());
      }
    }
    return path.isEmpty() ? null : path.toString();
  }

  @Override
  protected @Nullable ResponseEntity<Object> handleMaxUploadSizeExceededException(
      MaxUploadSizeExceededException e,
      HttpHeaders headers,
      HttpStatusCode status,
      WebRequest request) {
    return respond(
        HttpStatus.PAYLOAD_TOO_LARGE,
        "The file is larger than 12 MB.",
        null,
        "Bring one lap only, or thin the points to one a metre.");
  }

  private static ResponseEntity<Object> respond(
      HttpStatus status, String what, @Nullable String where, String remedy) {
    return ResponseEntity.status(status).body(detail(status, what, where, remedy));
  }

  private static ProblemDetail detail(
      HttpStatus status, String what, @Nullable String where, String remedy) {
    ProblemDetail detail = ProblemDetail.forStatusAndDetail(status, what);
    detail.setProperty("where", where);
    detail.setProperty("remedy", remedy);
    return detail;
  }
}
