package marvek.server.reference;

import java.util.UUID;
import marvek.server.access.Driver;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** How far a search is, and its end. */
@RestController
@RequestMapping("/api/searches")
class SearchController {
  private final Searches searches;

  SearchController(Searches searches) {
    this.searches = searches;
  }

  @GetMapping("/{id}")
  Search one(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    return searches.shown(driver.id(), id);
  }

  /** Cancels it: nothing is stored then. */
  @DeleteMapping("/{id}")
  Search cancel(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    return searches.cancel(driver.id(), id);
  }
}
