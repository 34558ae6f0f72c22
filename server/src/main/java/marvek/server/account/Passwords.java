package marvek.server.account;

import com.nulabinc.zxcvbn.Zxcvbn;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;

/**
 * Passwords: how good one is, and comparing them. Comparing is slow on purpose, so only a few are
 * compared at once.
 */
@Component
class Passwords {
  /** Characters; OWASP ASVS 5, 6.2.1 asks for eight at least. */
  static final int LEAST = 8;

  /** What bcrypt reads. */
  private static final int MOST_BYTES = 72;

  /** Of the estimator's 0 to 4: 2 takes more than a million guesses. */
  private static final int GOOD_ENOUGH = 2;

  private static final int AT_ONCE = 4;
  private static final int WAIT_SECONDS = 8;

  private final PasswordEncoder encoder;
  private final Zxcvbn estimator = new Zxcvbn();
  private final Semaphore hands = new Semaphore(AT_ONCE, true);
  private final String nobody;

  Passwords(PasswordEncoder encoder) {
    this.encoder = encoder;
    this.nobody = encoder.encode("nobody has this password");
  }

  /** The hash of a password that is good enough; {@code about} are words that others know. */
  String hash(String password, List<String> about) {
    if (password.length() < LEAST
        || password.getBytes(StandardCharsets.UTF_8).length > MOST_BYTES) {
      throw Problem.bad("refusal.account.password_needs_characters").at("password");
    }
    if (inHand(() -> estimator.measure(password, about).getScore()) < GOOD_ENOUGH) {
      throw Problem.bad("refusal.account.password_guessed_quickly").at("password");
    }
    return inHand(() -> encoder.encode(password));
  }

  /** Whether a password is that of a hash; without one it takes as long and is wrong. */
  boolean right(String password, @Nullable String hash) {
    return inHand(() -> compare(password, hash));
  }

  /** The same for whoever is one of the few already. */
  boolean compare(String password, @Nullable String hash) {
    if (password.getBytes(StandardCharsets.UTF_8).length > MOST_BYTES) {
      return false;
    }
    return encoder.matches(password, hash == null ? nobody : hash) && hash != null;
  }

  /** Does something as one of a few; whoever waits holds nothing. */
  <T> T inHand(java.util.function.Supplier<T> work) {
    try {
      if (!hands.tryAcquire(WAIT_SECONDS, TimeUnit.SECONDS)) {
        throw Problem.busy();
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw Problem.busy();
    }
    try {
      return work.get();
    } finally {
      hands.release();
    }
  }
}
