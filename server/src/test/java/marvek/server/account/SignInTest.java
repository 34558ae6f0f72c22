package marvek.server.account;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;
import marvek.server.Refused;
import marvek.server.problem.Problem;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.test.util.ReflectionTestUtils;

/** The limit on tries, with the clock held still. */
class SignInTest {
  private static final Instant NOW = Instant.parse("2026-05-16T10:00:00Z");

  private final Accounts accounts = mock(Accounts.class);
  private final SignInTries tries = mock(SignInTries.class);
  private final PasswordEncoder encoder = mock(PasswordEncoder.class);
  private final List<SignInTry> written = new ArrayList<>();
  private SignIn signIn;

  @BeforeEach
  void setUp() {
    when(encoder.encode(anyString())).thenAnswer(i -> "hash of " + i.getArgument(0));
    when(encoder.matches(anyString(), anyString()))
        .thenAnswer(i -> i.getArgument(1).equals("hash of " + i.getArgument(0)));
    AtomicLong id = new AtomicLong();
    when(tries.save(any()))
        .thenAnswer(
            i -> {
              SignInTry t = i.getArgument(0);
              ReflectionTestUtils.setField(t, "id", id.incrementAndGet());
              written.add(t);
              return t;
            });
    when(tries.countByEmailAndAddressAndAtAfter(anyString(), anyString(), any()))
        .thenAnswer(
            i ->
                written.stream()
                    .filter(
                        t ->
                            t.email().equals(i.getArgument(0))
                                && t.address().equals(i.getArgument(1)))
                    .count());
    when(tries.countByAddressAndAtAfter(anyString(), any()))
        .thenAnswer(
            i -> written.stream().filter(t -> t.address().equals(i.getArgument(0))).count());
    when(tries.countByEmailAndAtAfter(anyString(), any()))
        .thenAnswer(i -> written.stream().filter(t -> t.email().equals(i.getArgument(0))).count());
    signIn = new SignIn(accounts, tries, new Passwords(encoder), Clock.fixed(NOW, ZoneOffset.UTC));
  }

  private void known(String email, String password) {
    when(accounts.findByEmail(email))
        .thenReturn(Optional.of(new Account(email, "N", "hash of " + password, NOW)));
  }

  private void wrong(String email, String from) {
    assertThatThrownBy(() -> signIn.signIn(email, "wrong", from))
        .satisfies(
            e -> assertThat(Refused.what(e)).isEqualTo("The address or the password is wrong."));
  }

  @Test
  void theRightPasswordForgetsEarlierFailuresFromThere() {
    known("a@example.org", "right");
    assertThat(signIn.signIn(" A@Example.org ", "right", "127.0.0.1").email())
        .isEqualTo("a@example.org");
    verify(tries).deleteByEmailAndAddress("a@example.org", "127.0.0.1");
    verify(tries).know(any(), eq("127.0.0.1"), eq(NOW));
  }

  @Test
  void anUnknownAddressAnswersAsAWrongPasswordAndIsComparedAllTheSame() {
    when(accounts.findByEmail("nobody@example.org")).thenReturn(Optional.empty());
    wrong("nobody@example.org", "127.0.0.1");
    verify(encoder).matches(eq("wrong"), anyString());
    // The password that stands for nobody's opens nothing.
    assertThatThrownBy(
            () -> signIn.signIn("nobody@example.org", "nobody has this password", "127.0.0.1"))
        .isInstanceOf(Problem.class);
  }

  @Test
  void theNinthTryFromOnePlaceIsHeldOffBeforeThePasswordIsLookedAt() {
    known("a@example.org", "right");
    for (int i = 0; i < SignIn.AT_ONE_FROM_ONE; i++) {
      wrong("a@example.org", "10.1.1.1");
    }
    assertThatThrownBy(() -> signIn.signIn("a@example.org", "right", "10.1.1.1"))
        .satisfies(e -> assertThat(Refused.what(e)).contains("too many"));
    verify(encoder, never()).matches(eq("right"), anyString());
  }

  @Test
  void whoGuessesElsewhereDoesNotLockTheOwnerOut() {
    known("a@example.org", "right");
    for (int i = 0; i < 3 * SignIn.AT_ONE; i++) {
      written.add(new SignInTry("a@example.org", "10.1." + i / 200 + "." + i % 200, NOW));
    }
    when(tries.known(any(), eq("192.168.1.5"), any())).thenReturn(true);
    assertThatCode(() -> signIn.signIn("a@example.org", "right", "192.168.1.5"))
        .doesNotThrowAnyException();
    // From a place where nobody has signed in, the account is held shut.
    assertThatThrownBy(() -> signIn.signIn("a@example.org", "right", "10.9.9.9"))
        .satisfies(e -> assertThat(Refused.what(e)).contains("too many"));
  }

  @Test
  void oneMachineTryingManyAddressesIsHeldOff() {
    known("a@example.org", "right");
    for (int i = 0; i < SignIn.FROM_ONE; i++) {
      wrong(i + "@example.org", "10.1.1.1");
    }
    assertThatThrownBy(() -> signIn.signIn("a@example.org", "right", "10.1.1.1"))
        .satisfies(e -> assertThat(Refused.what(e)).contains("too many"));
  }

  @Test
  void passwordsThatAreGuessedQuicklyAreRefused() {
    Passwords passwords = new Passwords(encoder);
    for (String weak :
        List.of(
            "aaaaaaaaaa",
            "password1",
            "qwertyuiop",
            "1234567890",
            "driver@example.org",
            "short",
            "é".repeat(60))) {
      assertThatThrownBy(() -> passwords.hash(weak, List.of("driver@example.org", "Inês")))
          .as(weak)
          .isInstanceOf(Problem.class);
    }
    for (String good : List.of("gravel kerb tomato", "Wq7!pfR2", "long enough to be one")) {
      assertThat(passwords.hash(good, List.of("driver@example.org"))).isEqualTo("hash of " + good);
    }
  }
}
