package marvek.server.keeping;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import marvek.server.access.Driver;
import org.springframework.core.io.InputStreamResource;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What an account keeps: used of allowed, the basket, all of it as a file, and leaving. */
@RestController
@RequestMapping("/api/account")
class KeepingController {
  private final Allowance allowance;
  private final Basket basket;
  private final Leaving leaving;
  private final Takeout takeout;

  KeepingController(Allowance allowance, Basket basket, Leaving leaving, Takeout takeout) {
    this.allowance = allowance;
    this.basket = basket;
    this.leaving = leaving;
    this.takeout = takeout;
  }

  record Thing(@NotNull Basket.Sort sort, @NotNull UUID id) {}

  record LeaveRequest(@NotNull @Size(max = 200) String password) {}

  /** When the account is deleted. */
  record Leave(Instant at) {}

  @GetMapping("/used")
  Allowance.Used used(@AuthenticationPrincipal Driver driver) {
    return allowance.used(driver.id());
  }

  @GetMapping("/basket")
  List<Basket.Away> basket(@AuthenticationPrincipal Driver driver) {
    return basket.of(driver.id());
  }

  /** Puts something into the basket. */
  @PostMapping("/basket")
  List<Basket.Away> put(@AuthenticationPrincipal Driver driver, @Valid @RequestBody Thing thing) {
    basket.put(driver.id(), thing.sort(), thing.id());
    return basket.of(driver.id());
  }

  /** Brings something back out of it. */
  @PostMapping("/basket/back")
  List<Basket.Away> back(@AuthenticationPrincipal Driver driver, @Valid @RequestBody Thing thing) {
    basket.back(driver.id(), thing.sort(), thing.id());
    return basket.of(driver.id());
  }

  /** Deletes for good what is in it. */
  @DeleteMapping("/basket")
  List<Basket.Away> empty(@AuthenticationPrincipal Driver driver) {
    basket.empty(driver.id());
    return basket.of(driver.id());
  }

  @GetMapping(value = "/everything.zip", produces = "application/zip")
  ResponseEntity<InputStreamResource> everything(@AuthenticationPrincipal Driver driver)
      throws IOException {
    return ResponseEntity.ok()
        .header(
            HttpHeaders.CONTENT_DISPOSITION,
            ContentDisposition.attachment().filename("marvek.zip").build().toString())
        .body(new InputStreamResource(takeout.of(driver.id())));
  }

  /** Has the account deleted after a day; until then it can be kept. */
  @PostMapping("/leave")
  Leave leave(@AuthenticationPrincipal Driver driver, @Valid @RequestBody LeaveRequest body) {
    return new Leave(leaving.ask(driver.id(), body.password()));
  }

  @DeleteMapping("/leave")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void stay(@AuthenticationPrincipal Driver driver) {
    leaving.stay(driver.id());
  }
}
