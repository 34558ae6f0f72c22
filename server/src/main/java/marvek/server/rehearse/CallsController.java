package marvek.server.rehearse;

import java.util.UUID;
import marvek.server.access.Driver;
import marvek.server.session.Planner;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** The calls of a lap as sound. */
@RestController
class CallsController {
  private final Planner planner;
  private final Spoken spoken;
  private final Voice voice;

  CallsController(Planner planner, Spoken spoken, Voice voice) {
    this.planner = planner;
    this.spoken = spoken;
    this.voice = voice;
  }

  /** The lap called aloud as a sound file, for a passenger or when parked. */
  @GetMapping(value = "/api/sessions/{id}/calls.wav", produces = "audio/wav")
  ResponseEntity<byte[]> sound(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    Planner.Outing day = planner.driven(driver.id(), id);
    byte[] wav =
        voice.lap(
            spoken.cues(day, driver).stream().map(Spoken.CornerCue::cue).toList(),
            day.then().lap().lapTime());
    return ResponseEntity.ok()
        .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"calls.wav\"")
        .body(wav);
  }
}
