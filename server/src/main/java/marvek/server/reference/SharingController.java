package marvek.server.reference;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Email;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.words.Comparison;
import marvek.server.access.Driver;
import marvek.server.sharing.Role;
import marvek.server.sharing.SharedWith;
import marvek.server.sharing.Sharing;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** A reference open to others, and the remarks they pin to it. */
@RestController
@RequestMapping("/api/references/{id}")
class SharingController {
  private final References references;
  private final Sharing sharing;
  private final Remarks remarks;
  private final Speaking speaking;

  SharingController(References references, Sharing sharing, Remarks remarks, Speaking speaking) {
    this.references = references;
    this.sharing = sharing;
    this.remarks = remarks;
    this.speaking = speaking;
  }

  record ShareRequest(@NotBlank @Email @Size(max = 200) String email, @NotNull Role role) {}

  record LetInRequest(boolean sees) {}

  record RemarkRequest(
      @NotBlank @Size(max = 60) String corner,
      @Nullable PointKind kind,
      @NotBlank @Size(max = 2000) String text,
      @Nullable CornerEntry proposed) {}

  record DecisionRequest(boolean accepted, int version) {}

  /**
   * A remark.
   *
   * @param changes what the proposal would change, in words
   * @param mine whether the person who looks wrote it
   */
  record RemarkView(
      UUID id,
      String author,
      boolean mine,
      String corner,
      @Nullable PointKind kind,
      String text,
      @Nullable CornerEntry proposed,
      List<String> changes,
      Remark.State state,
      Instant createdAt) {}

  @GetMapping("/shares")
  List<SharedWith> shares(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    references.open(driver.id(), id);
    return sharing.people(driver.id(), id);
  }

  @PutMapping("/shares")
  List<SharedWith> share(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody ShareRequest body) {
    references.open(driver.id(), id);
    sharing.open(driver.id(), id, body.email(), body.role());
    return sharing.people(driver.id(), id);
  }

  /** Lets a coach see what the driver knows by heart, or no longer. */
  @PutMapping("/shares/{share}/rehearsed")
  List<SharedWith> letIn(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @PathVariable UUID share,
      @Valid @RequestBody LetInRequest body) {
    references.open(driver.id(), id);
    sharing.letIn(driver.id(), id, share, body.sees());
    return sharing.people(driver.id(), id);
  }

  @DeleteMapping("/shares/{share}")
  List<SharedWith> close(
      @AuthenticationPrincipal Driver driver, @PathVariable UUID id, @PathVariable UUID share) {
    references.open(driver.id(), id);
    sharing.close(driver.id(), id, share);
    return sharing.people(driver.id(), id);
  }

  @GetMapping("/remarks")
  List<RemarkView> remarks(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    References.Opened opened = references.read(driver.id(), id);
    return remarks.on(driver.id(), id).stream()
        .map(s -> view(opened, driver, s.remark(), s.author()))
        .toList();
  }

  @PostMapping("/remarks")
  @ResponseStatus(HttpStatus.CREATED)
  List<RemarkView> pin(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody RemarkRequest body) {
    remarks.pin(driver.id(), id, body.corner(), body.kind(), body.text(), body.proposed());
    return remarks(driver, id);
  }

  @DeleteMapping("/remarks/{remark}")
  List<RemarkView> takeBack(
      @AuthenticationPrincipal Driver driver, @PathVariable UUID id, @PathVariable UUID remark) {
    remarks.takeBack(driver.id(), id, remark);
    return remarks(driver, id);
  }

  @PostMapping("/remarks/{remark}/decision")
  WorkingView decide(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @PathVariable UUID remark,
      @Valid @RequestBody DecisionRequest body) {
    ReferenceRow row = remarks.decide(driver.id(), id, remark, body.accepted(), body.version());
    return WorkingView.of(row);
  }

  private RemarkView view(References.Opened opened, Driver driver, Remark remark, String author) {
    CornerEntry was = remark.was();
    CornerEntry proposed = remark.proposed();
    List<String> changes =
        was == null || proposed == null
            ? List.of()
            : Comparison.between(
                    opened.layout().corners().stream()
                        .filter(c -> c.id().equals(remark.corner()))
                        .toList(),
                    opened.computed().road().length(),
                    new ReferenceContent(List.of(was)),
                    new ReferenceContent(List.of(proposed)),
                    speaking.speech(driver))
                .stream()
                .map(Comparison.Difference::words)
                .toList();
    return new RemarkView(
        remark.id(),
        author,
        remark.authorId().equals(driver.id()),
        remark.corner(),
        remark.kind(),
        remark.text(),
        proposed,
        changes,
        remark.state(),
        remark.createdAt());
  }
}
