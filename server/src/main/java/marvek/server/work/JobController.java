package marvek.server.work;

import java.util.UUID;
import marvek.server.access.Driver;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** How far heavy work is, and its end. */
@RestController
@RequestMapping("/api/jobs")
class JobController {
  private final Jobs jobs;

  JobController(Jobs jobs) {
    this.jobs = jobs;
  }

  @GetMapping("/{id}")
  Job one(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    return jobs.shown(driver.id(), id);
  }

  /** Cancels it: nothing is stored then. */
  @DeleteMapping("/{id}")
  Job cancel(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    return jobs.cancel(driver.id(), id);
  }
}
