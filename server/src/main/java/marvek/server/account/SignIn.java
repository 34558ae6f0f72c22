package marvek.server.account;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import java.util.Optional;
import marvek.server.problem.Problem;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Signing up and in, with a limit on tries. */
@Service
public class SignIn {
  private static final Duration WINDOW = Duration.ofMinutes(15);
  private static final int TRIES_PER_EMAIL = 8;
  private static final int TRIES_PER_ADDRESS = 40;

  private final Accounts accounts;
  private final SignInFailures failures;
  private final PasswordEncoder encoder;
  private final Clock clock;
  private final String nobody;

  SignIn(Accounts accounts, SignInFailures failures, PasswordEncoder encoder, Clock clock) {
    this.accounts = accounts;
    this.failures = failures;
    this.encoder = encoder;
    this.clock = clock;
    this.nobody = encoder.encode("nobody has this password");
  }

  /** Makes an account; the address must be new. */
  @Transactional
  public Account signUp(String email, String name, String password) {
    String address = normal(email);
    if (accounts.findByEmail(address).isPresent()) {
      throw Problem.bad(
          "There is an account with this address.", "email", "Sign in, or use another address.");
    }
    return accounts.save(
        new Account(address, name.strip(), encoder.encode(password), clock.instant()));
  }

  /** The account of that address and password. Wrong ones take as long as right ones. */
  @Transactional(noRollbackFor = Problem.class)
  public Account signIn(String email, String password, String from) {
    String address = normal(email);
    Instant since = clock.instant().minus(WINDOW);
    if (failures.countByEmailAndAtAfter(address, since) >= TRIES_PER_EMAIL
        || failures.countByAddressAndAtAfter(from, since) >= TRIES_PER_ADDRESS) {
      throw Problem.tooMany(
          "There were too many tries.", "Wait a quarter of an hour, then sign in again.");
    }
    Optional<Account> account = accounts.findByEmail(address);
    boolean right = encoder.matches(password, account.map(Account::password).orElse(nobody));
    if (account.isEmpty() || !right) {
      failures.save(new SignInFailure(address, from, clock.instant()));
      throw Problem.unauthorised(
          "The address or the password is wrong.", "Check both and try again.");
    }
    failures.deleteByEmail(address);
    return account.get();
  }

  private static String normal(String email) {
    return email.strip().toLowerCase(Locale.ROOT);
  }
}
