package marvek.server.account;

import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
import marvek.core.refusal.Refusal;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Making accounts, openly or by a link that works once, and setting passwords. */
@Service
public class SignUp {
  private static final Duration HOUR = Duration.ofHours(1);
  private static final Duration FORGOTTEN = Duration.ofDays(1);
  private static final int INVITATIONS = 20;
  private static final int TOKEN_BYTES = 24;

  private final Accounts accounts;
  private final OneTimeLinks links;
  private final SignInTries tries;
  private final Passwords passwords;
  private final PeopleSettings settings;
  private final ApplicationEventPublisher events;
  private final TransactionTemplate transaction;
  private final Clock clock;
  private final String serverAddress;
  private final SecureRandom random = new SecureRandom();

  SignUp(
      Accounts accounts,
      OneTimeLinks links,
      SignInTries tries,
      Passwords passwords,
      PeopleSettings settings,
      ApplicationEventPublisher events,
      TransactionTemplate transaction,
      Clock clock,
      @Value("${server.address}") String serverAddress) {
    this.accounts = accounts;
    this.links = links;
    this.tries = tries;
    this.passwords = passwords;
    this.settings = settings;
    this.events = events;
    this.transaction = transaction;
    this.clock = clock;
    this.serverAddress = serverAddress;
  }

  /** That an account was made. */
  public record Made(UUID account, String email) {}

  /** Whether anybody may make an account; else by invitation. */
  boolean open() {
    return settings.open(serverAddress);
  }

  /** Makes an account for somebody at {@code from}. */
  Account signUp(
      String email, String name, String password, @Nullable String invitation, String from) {
    Instant now = clock.instant();
    OneTimeLink link = invitation == null ? null : good(invitation, OneTimeLink.Purpose.INVITE);
    if (link == null && !open()) {
      throw Problem.forbidden("refusal.account.accounts_made_invitation_here");
    }
    // Written down first, so that a burst counts as what it is.
    tries.signedUp(from, now);
    if (link == null
        && (tries.signUps(from, now.minus(HOUR)) > settings.signUpsFromOne()
            || tries.signUps(now.minus(HOUR)) > settings.signUpsInAll())) {
      throw Problem.tooMany("refusal.account.many_accounts_were_made");
    }
    // No connection of the database is held while the password is looked at.
    String hash = hash(email, name, password);
    return Objects.requireNonNull(
        transaction.execute(
            t -> {
              if (link != null) {
                use(link);
              }
              return stored(email, name, hash);
            }));
  }

  /** Makes an account, whoever asks. */
  @Transactional
  public Account make(String email, String name, String password) {
    return stored(email, name, hash(email, name, password));
  }

  private String hash(String email, String name, String password) {
    return passwords.hash(password, List.of(SignIn.normal(email), name, "marvek"));
  }

  private Account stored(String email, String name, String hash) {
    String address = SignIn.normal(email);
    if (accounts.findByEmail(address).isPresent()) {
      throw Problem.bad("refusal.account.no_account_can_made").at("email");
    }
    Account made = accounts.saveAndFlush(new Account(address, name.strip(), hash, clock.instant()));
    events.publishEvent(new Made(made.id(), address));
    return made;
  }

  /** A token for a link that lets one person make an account. */
  @Transactional
  String invite(UUID owner) {
    if (links.waiting(owner, clock.instant()) >= INVITATIONS) {
      throw Problem.bad(
          "refusal.account.your_invitations_not_used",
          marvek.core.said.Value.figure(INVITATIONS, 0));
    }
    byte[] bytes = new byte[TOKEN_BYTES];
    random.nextBytes(bytes);
    String token = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    links.save(new OneTimeLink(OneTimeLink.Purpose.INVITE, token, owner, clock.instant()));
    return token;
  }

  /** Sets a password by a link that the operator has given; answers whose it is. */
  Account reset(String token, String password) {
    OneTimeLink link = good(token, OneTimeLink.Purpose.PASSWORD);
    UUID owner = link.ownerId();
    Account account = owner == null ? null : accounts.findById(owner).orElse(null);
    if (account == null) {
      throw gone();
    }
    String hash = hash(account.email(), account.name(), password);
    transaction.executeWithoutResult(
        t -> {
          use(link);
          change(account.id(), hash);
        });
    return account;
  }

  /** Sets a password, for somebody who has told the one before. */
  void change(UUID id, String before, String password) {
    Account account = accounts.findById(id).orElseThrow();
    check(account, before);
    String hash = hash(account.email(), account.name(), password);
    transaction.executeWithoutResult(t -> change(id, hash));
  }

  /** Refuses where a password is not that of the account. */
  void check(Account account, String password) {
    if (!passwords.right(password, account.password())) {
      throw Problem.bad("refusal.account.not_your_password").at("before");
    }
  }

  private void change(UUID id, String hash) {
    accounts.findById(id).orElseThrow().take(hash);
  }

  /** Forgets what no limit looks at any more. */
  @Scheduled(fixedDelay = 3_600_000, initialDelay = 45_000)
  void forget() {
    Instant then = clock.instant().minus(FORGOTTEN);
    tries.deleteByAtBefore(then);
    tries.forgetSignUps(then);
    tries.forgetLinks(then);
  }

  private OneTimeLink good(String token, OneTimeLink.Purpose purpose) {
    return links
        .good(OneTimeLink.digest(token), purpose, clock.instant())
        .orElseThrow(SignUp::gone);
  }

  private void use(OneTimeLink link) {
    if (links.use(link.id(), clock.instant()) == 0) {
      throw gone();
    }
  }

  private static Refusal gone() {
    return Problem.bad("refusal.account.link_been_used_run").at("link");
  }
}
