package marvek.server.account;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Email;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.UUID;
import marvek.core.units.Display;
import marvek.server.access.DemoSettings;
import marvek.server.access.Driver;
import marvek.server.account.Account.CornerWords;
import marvek.server.account.Account.Theme;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.core.authority.AuthorityUtils;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Sign up, sign in, sign out, and who is signed in. */
@RestController
@RequestMapping("/api")
class SessionController {
  private final SignIn signIn;
  private final SignUp signUp;
  private final Accounts accounts;
  private final SecurityContextRepository contexts;
  private final DemoSettings demo;
  private final Everywhere everywhere;

  SessionController(
      SignIn signIn,
      SignUp signUp,
      Accounts accounts,
      SecurityContextRepository contexts,
      DemoSettings demo,
      Everywhere everywhere) {
    this.everywhere = everywhere;
    this.signIn = signIn;
    this.signUp = signUp;
    this.accounts = accounts;
    this.contexts = contexts;
    this.demo = demo;
  }

  /**
   * Who is signed in, if anybody, and what this server offers.
   *
   * @param open whether accounts are made without an invitation
   */
  record SessionView(@Nullable Person person, boolean demo, boolean open) {}

  /**
   * A person and what they chose to read.
   *
   * @param leavesAt when the account is deleted for good, if that was asked for
   */
  record Person(
      UUID id,
      String name,
      String email,
      Display.Speed speed,
      Display.Length length,
      Account.Theme theme,
      Account.CornerWords corners,
      @Nullable Instant leavesAt) {}

  /**
   * Who wants an account.
   *
   * @param invitation token of the link that they were given, if any
   */
  record SignUpRequest(
      @NotBlank @Email @Size(max = 200) String email,
      @NotBlank @Size(max = 100) String name,
      @NotNull @Size(max = 200) String password,
      @Nullable @Size(max = 100) String invitation) {}

  record SignInRequest(
      @NotBlank @Size(max = 200) String email, @NotNull @Size(max = 200) String password) {}

  record ResetRequest(
      @NotBlank @Size(max = 100) String link, @NotNull @Size(max = 200) String password) {}

  record DemoRequest(@NotNull DemoSettings.Person person) {}

  record Preferences(
      @NotNull Display.Speed speed,
      @NotNull Display.Length length,
      @NotNull Theme theme,
      @NotNull CornerWords corners) {}

  @GetMapping("/session")
  SessionView session(
      @AuthenticationPrincipal @Nullable Driver driver,
      @io.swagger.v3.oas.annotations.Parameter(hidden = true) CsrfToken csrf) {
    csrf.getToken();
    return view(driver == null ? null : accounts.findById(driver.id()).orElse(null));
  }

  @PostMapping("/accounts")
  @ResponseStatus(HttpStatus.CREATED)
  SessionView signUp(
      @Valid @RequestBody SignUpRequest body,
      HttpServletRequest request,
      HttpServletResponse response) {
    Account account =
        signUp.signUp(
            body.email(), body.name(), body.password(), body.invitation(), request.getRemoteAddr());
    return enter(account, request, response);
  }

  /** Sets a password by a link that the operator has given. */
  @PostMapping("/session/password")
  SessionView reset(
      @Valid @RequestBody ResetRequest body,
      HttpServletRequest request,
      HttpServletResponse response) {
    Account account = signUp.reset(body.link(), body.password());
    everywhere.out(account.id(), null);
    return enter(account, request, response);
  }

  @PostMapping("/session")
  SessionView signIn(
      @Valid @RequestBody SignInRequest body,
      HttpServletRequest request,
      HttpServletResponse response) {
    Account account = signIn.signIn(body.email(), body.password(), request.getRemoteAddr());
    return enter(account, request, response);
  }

  @PostMapping("/session/demo")
  SessionView demo(
      @Valid @RequestBody DemoRequest body,
      HttpServletRequest request,
      HttpServletResponse response) {
    if (!demo.demo()) {
      throw Problem.none("refusal.none.no_demo_server");
    }
    Account account =
        accounts
            .findByEmail(body.person().email())
            .orElseThrow(() -> Problem.none("refusal.none.demo_scenario_not_loaded"));
    return enter(account, request, response);
  }

  @DeleteMapping("/session")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void signOut(HttpServletRequest request) {
    var session = request.getSession(false);
    if (session != null) {
      session.invalidate();
    }
    SecurityContextHolder.clearContext();
  }

  @PutMapping("/session/preferences")
  @Transactional
  SessionView prefer(@AuthenticationPrincipal Driver driver, @Valid @RequestBody Preferences body) {
    Account account = accounts.findById(driver.id()).orElseThrow();
    account.prefer(new Display(body.speed(), body.length()), body.theme(), body.corners());
    return view(account);
  }

  private SessionView enter(
      Account account, HttpServletRequest request, HttpServletResponse response) {
    if (request.getSession(false) != null) {
      request.changeSessionId();
    }
    SecurityContext context = SecurityContextHolder.createEmptyContext();
    context.setAuthentication(
        UsernamePasswordAuthenticationToken.authenticated(
            new Driver(account.id(), account.name()),
            null,
            AuthorityUtils.createAuthorityList("DRIVER")));
    SecurityContextHolder.setContext(context);
    contexts.saveContext(context, request, response);
    return view(account);
  }

  private SessionView view(@Nullable Account account) {
    return new SessionView(
        account == null
            ? null
            : new Person(
                account.id(),
                account.name(),
                account.email(),
                account.display().speed(),
                account.display().length(),
                account.theme(),
                account.cornerWords(),
                account.leavesAt()),
        demo.demo(),
        signUp.open());
  }
}
