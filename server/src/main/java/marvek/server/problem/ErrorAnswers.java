package marvek.server.problem;

import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import marvek.core.words.Speaker;
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
        ProblemAdvice.told(
            Speaker.PLAIN::say,
            HttpStatusCode.valueOf(status),
            ProblemAdvice.what(HttpStatusCode.valueOf(status)),
            null,
            ProblemAdvice.remedy(HttpStatusCode.valueOf(status)));
    ResponseEntity.BodyBuilder answer =
        ResponseEntity.status(status).contentType(MediaType.APPLICATION_PROBLEM_JSON);
    return (gone ? answer.header(HttpHeaders.RETRY_AFTER, DatabaseGone.AGAIN) : answer)
        .body(detail);
  }
}
