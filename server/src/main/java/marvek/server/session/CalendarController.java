package marvek.server.session;

import java.io.IOException;
import java.time.ZoneId;
import java.util.List;
import java.util.UUID;
import marvek.server.access.Driver;
import marvek.server.problem.Problem;
import marvek.server.reference.References;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** Sessions as iCalendar. */
@RestController
@RequestMapping("/api")
class CalendarController {
  private static final long LARGEST = 1_000_000;

  private final Calendars calendars;
  private final Sessions sessions;
  private final References references;

  CalendarController(Calendars calendars, Sessions sessions, References references) {
    this.calendars = calendars;
    this.sessions = sessions;
    this.references = references;
  }

  @GetMapping(value = "/calendar.ics", produces = "text/calendar")
  ResponseEntity<byte[]> all(@AuthenticationPrincipal Driver driver) {
    return file(sessions.all(driver.id()), "marvek.ics");
  }

  @GetMapping(value = "/sessions/{id}/session.ics", produces = "text/calendar")
  ResponseEntity<byte[]> one(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    return file(List.of(sessions.own(driver.id(), id)), "session.ics");
  }

  private ResponseEntity<byte[]> file(List<SessionRow> of, String name) {
    return ResponseEntity.ok()
        .contentType(MediaType.parseMediaType("text/calendar;charset=UTF-8"))
        .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + name + "\"")
        .body(calendars.written(of));
  }

  /** Takes the sessions of a calendar, for the reference changed last. */
  @PostMapping(value = "/calendar", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
  Calendars.Taken take(@RequestParam MultipartFile file, @AuthenticationPrincipal Driver driver)
      throws IOException {
    if (file.getSize() > LARGEST) {
      throw Problem.tooLarge();
    }
    String name = file.getOriginalFilename();
    UUID reference = references.of(driver.id()).stream().findFirst().map(r -> r.id()).orElse(null);
    ZoneId circuit =
        reference == null
            ? ZoneId.of("UTC")
            : references.open(driver.id(), reference).layout().circuit().zone();
    return calendars.take(
        driver.id(), name == null ? "Calendar" : name, file.getBytes(), reference, circuit);
  }
}
