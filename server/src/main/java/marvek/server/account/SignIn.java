package marvek.server.account;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import marvek.server.problem.Problem;
import org.springframework.stereotype.Service;

/**
 * Signing in, with a limit on tries. Each try is written down before the password is looked at and
 * taken back when it was right, so that a burst counts as what it is.
 */
@Service
class SignIn {
  private static final Duration WINDOW = Duration.ofMinutes(15);

  /** At one account from one address. */
  static final int AT_ONE_FROM_ONE = 8;

  /** From one address, at whatever accounts. */
  static final int FROM_ONE = 40;

  /** At one account from wherever; places where its owner has signed in do not count as that. */
  static final int AT_ONE = 100;

  private static final Duration REMEMBERED = Duration.ofDays(90);

  private final Accounts accounts;
  private final SignInTries tries;
  private final Passwords passwords;
  private final Clock clock;

  SignIn(Accounts accounts, SignInTries tries, Passwords passwords, Clock clock) {
    this.accounts = accounts;
    this.tries = tries;
    this.passwords = passwords;
    this.clock = clock;
  }

  /** The account of that address and password. Wrong ones take as long as right ones. */
  Account signIn(String email, String password, String from) {
    // One of a few before the try is written: many people at once behind one address are no
    // guesser.
    return passwords.inHand(() -> tried(email, password, from));
  }

  private Account tried(String email, String password, String from) {
    String address = normal(email);
    Instant now = clock.instant();
    Instant since = now.minus(WINDOW);
    SignInTry one = tries.save(new SignInTry(address, from, now));
    Optional<Account> account = accounts.findByEmail(address);
    if (tries.countByEmailAndAddressAndAtAfter(address, from, since) > AT_ONE_FROM_ONE
        || tries.countByAddressAndAtAfter(from, since) > FROM_ONE
        || tries.countByEmailAndAtAfter(address, since) > AT_ONE
            && account.filter(a -> tries.known(a.id(), from, now.minus(REMEMBERED))).isEmpty()) {
      // What was held off does not prolong the wait.
      tries.deleteById(Objects.requireNonNull(one.id()));
      throw Problem.tooMany("refusal.account.were_too_many_tries");
    }
    if (!passwords.compare(password, account.map(Account::password).orElse(null))) {
      throw Problem.unauthorised("refusal.account.address_password_wrong");
    }
    tries.deleteByEmailAndAddress(address, from);
    tries.know(account.orElseThrow().id(), from, now);
    return account.get();
  }

  static String normal(String email) {
    return email.strip().toLowerCase(Locale.ROOT);
  }
}
