package marvek.server.problem;

import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import org.springframework.boot.web.servlet.error.ErrorController;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.RequestMapping;

/** Answers what failed before or beside the application in the same form as all else. */
@Controller
class ErrorAnswers implements ErrorController {

  @RequestMapping("/error")
  ResponseEntity<ProblemDetail> answer(HttpServletRequest request) {
    boolean gone =
        DatabaseGone.in((Throwable) request.getAttribute(RequestDispatcher.ERROR_EXCEPTION));
    Object code = request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE);
    // Asked for by hand there is no error here to tell of.
    int status = gone ? 503 : code instanceof Integer given ? given : 404;
    ProblemDetail detail =
        ProblemDetail.forStatusAndDetail(HttpStatusCode.valueOf(status), words(status));
    detail.setProperty("where", null);
    detail.setProperty("remedy", remedy(status));
    ResponseEntity.BodyBuilder answer =
        ResponseEntity.status(status).contentType(MediaType.APPLICATION_PROBLEM_JSON);
    return (gone ? answer.header(HttpHeaders.RETRY_AFTER, DatabaseGone.AGAIN) : answer)
        .body(detail);
  }

  private static String words(int status) {
    return switch (status) {
      case 503 -> DatabaseGone.WORDS;
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
