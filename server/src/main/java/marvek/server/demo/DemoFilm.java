package marvek.server.demo;

import marvek.server.access.DemoSettings;
import marvek.server.problem.Problem;
import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.Resource;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/**
 * A drawn film of the quickest lap of the demo's last dry session, from the line on, as a camera on
 * the vehicle would take it: 640 × 360, 30 a second, 80° wide, the number of each frame as blocks
 * at the top.
 */
@RestController
@RequestMapping("/api/demo")
class DemoFilm {
  private final DemoSettings settings;

  DemoFilm(DemoSettings settings) {
    this.settings = settings;
  }

  @GetMapping("/film.webm")
  ResponseEntity<Resource> film() {
    if (!settings.demo()) {
      throw Problem.none("refusal.none.no_demo_server");
    }
    return ResponseEntity.ok()
        .contentType(MediaType.parseMediaType("video/webm"))
        .body(new ClassPathResource("demo/film.webm"));
  }
}
