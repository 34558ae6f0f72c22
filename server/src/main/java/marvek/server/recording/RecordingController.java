package marvek.server.recording;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.UUID;
import marvek.core.telemetry.Mapping;
import marvek.server.access.Driver;
import marvek.server.problem.Problem;
import org.springframework.core.io.InputStreamResource;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Files that come from runs. */
@RestController
@RequestMapping("/api")
class RecordingController {
  private final Recordings recordings;

  RecordingController(Recordings recordings) {
    this.recordings = recordings;
  }

  /** Takes a file as the body of the request, as it is, of any size up to 512 MB. */
  @PostMapping("/runs/{id}/recordings")
  @ResponseStatus(HttpStatus.CREATED)
  Recordings.Taken take(
      @PathVariable UUID id,
      @RequestParam String name,
      HttpServletRequest request,
      @AuthenticationPrincipal Driver driver)
      throws IOException {
    if (request.getContentLengthLong() > Recordings.LARGEST) {
      throw Problem.bad("refusal.recording.file_larger");
    }
    return recordings.take(
        driver.id(), id, name, request.getInputStream(), request.getContentLengthLong(), null);
  }

  record MappingRequest(@NotNull List<Mapping.Column> columns) {}

  /** Says what the columns hold; the file is read anew and the answer remembered. */
  @PutMapping("/recordings/{id}/mapping")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void map(
      @PathVariable UUID id,
      @Valid @RequestBody MappingRequest request,
      @AuthenticationPrincipal Driver driver) {
    recordings.map(driver.id(), id, request.columns());
  }

  @PostMapping("/recordings/{id}/again")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void again(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) throws IOException {
    recordings.again(driver.id(), id);
  }

  @PostMapping("/recordings/{id}/cancel")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void cancel(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    recordings.cancel(driver.id(), id);
  }

  @DeleteMapping("/recordings/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    recordings.remove(driver.id(), id);
  }

  /** The file as it came. */
  @GetMapping("/recordings/{id}/file")
  ResponseEntity<InputStreamResource> file(
      @PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    Recording row = recordings.own(driver.id(), id);
    InputStream in = recordings.file(driver.id(), id);
    return ResponseEntity.ok()
        .contentType(MediaType.APPLICATION_OCTET_STREAM)
        .header(
            HttpHeaders.CONTENT_DISPOSITION,
            ContentDisposition.attachment()
                .filename(row.name(), java.nio.charset.StandardCharsets.UTF_8)
                .build()
                .toString())
        .body(new InputStreamResource(in));
  }

  /** What the simulated driver really did, for recordings that the simulator made. */
  @GetMapping("/recordings/{id}/truth")
  marvek.core.logger.Truth truth(@PathVariable UUID id, @AuthenticationPrincipal Driver driver) {
    marvek.core.logger.Truth truth = recordings.own(driver.id(), id).truth();
    if (truth == null) {
      throw Problem.none("refusal.none.nobody_knows_truth_recording");
    }
    return truth;
  }
}
