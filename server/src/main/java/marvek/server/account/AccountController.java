package marvek.server.account;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import marvek.server.access.Driver;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** One's own password and sessions, and inviting others. */
@RestController
@RequestMapping("/api/account")
class AccountController {
  private final SignUp signUp;
  private final Everywhere everywhere;

  AccountController(SignUp signUp, Everywhere everywhere) {
    this.signUp = signUp;
    this.everywhere = everywhere;
  }

  record PasswordRequest(
      @NotNull @Size(max = 200) String before, @NotNull @Size(max = 200) String password) {}

  /** A token that makes one account; the page makes a link of it. */
  record Invitation(String token) {}

  /** Sets another password, and ends all other sessions. */
  @PutMapping("/password")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void password(
      @AuthenticationPrincipal Driver driver,
      @Valid @RequestBody PasswordRequest body,
      HttpServletRequest request) {
    signUp.change(driver.id(), body.before(), body.password());
    everywhere.out(driver.id(), request.getSession().getId());
  }

  /** Ends all other sessions. */
  @DeleteMapping("/sessions")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void signOutElsewhere(@AuthenticationPrincipal Driver driver, HttpServletRequest request) {
    everywhere.out(driver.id(), request.getSession().getId());
  }

  @PostMapping("/invitations")
  @ResponseStatus(HttpStatus.CREATED)
  Invitation invite(@AuthenticationPrincipal Driver driver) {
    return new Invitation(signUp.invite(driver.id()));
  }
}
