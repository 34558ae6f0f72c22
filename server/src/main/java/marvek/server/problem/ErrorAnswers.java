package marvek.server.problem;

import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import java.sql.SQLException;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.web.servlet.error.ErrorController;
import org.springframework.dao.DataAccessException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.transaction.TransactionException;
import org.springframework.web.bind.annotation.RequestMapping;

/** Answers what failed before or beside the application in the same form as all else. */
@Controller
class ErrorAnswers implements ErrorController {

  @RequestMapping("/error")
  ResponseEntity<ProblemDetail> answer(HttpServletRequest request) {
    boolean gone = gone((Throwable) request.getAttribute(RequestDispatcher.ERROR_EXCEPTION));
    Object code = request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE);
    // Asked for by hand there is no error here to tell of.
    int status = gone ? 503 : code instanceof Integer given ? given : 404;
    ProblemDetail detail =
        ProblemDetail.forStatusAndDetail(HttpStatus.valueOf(status), words(status));
    detail.setProperty("where", null);
    detail.setProperty("remedy", remedy(status));
    ResponseEntity.BodyBuilder answer =
        ResponseEntity.status(status).contentType(MediaType.APPLICATION_PROBLEM_JSON);
    return (gone ? answer.header(HttpHeaders.RETRY_AFTER, "5") : answer).body(detail);
  }

  /** Whether it failed for want of the database. */
  private static boolean gone(@Nullable Throwable failure) {
    for (Throwable t = failure; t != null; t = t.getCause()) {
      if (t instanceof DataAccessException
          || t instanceof TransactionException
          || t instanceof SQLException) {
        return true;
      }
    }
    return false;
  }

  private static String words(int status) {
    return switch (status) {
      case 503 -> "The database does not answer.";
      case 404 -> "There is nothing at this address.";
      case 413 -> "This is too large.";
      default ->
          status >= 500 ? "Something went wrong on the server." : "The request cannot be read.";
    };
  }

  private static String remedy(int status) {
    return status >= 500
        ? "Nothing you typed is lost. Try again in a moment; if it comes back, the log says more."
        : "Check the address, or go back to the start.";
  }
}
