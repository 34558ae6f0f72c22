package marvek.server.account;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Optional;
import marvek.server.problem.Problem;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;
import org.springframework.security.crypto.password.PasswordEncoder;

/** The limit on tries, with the clock held still. */
class SignInTest {
  private static final Instant NOW = Instant.parse("2026-05-16T10:00:00Z");

  private final Accounts accounts = mock(Accounts.class);
  private final SignInFailures failures = mock(SignInFailures.class);
  private final PasswordEncoder encoder = mock(PasswordEncoder.class);
  private SignIn signIn;

  @BeforeEach
  void setUp() {
    when(encoder.encode(anyString())).thenAnswer(i -> "hash of " + i.getArgument(0));
    when(encoder.matches(anyString(), anyString()))
        .thenAnswer(i -> i.getArgument(1).equals("hash of " + i.getArgument(0)));
    when(accounts.save(any())).thenAnswer(i -> i.getArgument(0));
    signIn = new SignIn(accounts, failures, encoder, Clock.fixed(NOW, ZoneOffset.UTC));
  }

  private void known(String email, String password) {
    when(accounts.findByEmail(email))
        .thenReturn(Optional.of(new Account(email, "N", "hash of " + password, NOW)));
  }

  @Test
  void theRightPasswordForgetsEarlierFailures() {
    known("a@example.org", "right");
    assertThat(signIn.signIn(" A@Example.org ", "right", "127.0.0.1").email())
        .isEqualTo("a@example.org");
    verify(failures).deleteByEmail("a@example.org");
    verify(failures, never()).save(any());
  }

  @Test
  void aWrongPasswordIsCountedWithWhereItCameFrom() {
    known("a@example.org", "right");
    assertThatThrownBy(() -> signIn.signIn("a@example.org", "wrong", "10.1.1.1"))
        .isInstanceOf(Problem.class)
        .hasMessageContaining("wrong");
    ArgumentCaptor<SignInFailure> counted = ArgumentCaptor.forClass(SignInFailure.class);
    verify(failures).save(counted.capture());
    assertThat(counted.getValue().address()).isEqualTo("10.1.1.1");
    assertThat(counted.getValue().at()).isEqualTo(NOW);
  }

  @Test
  void anUnknownAddressAnswersAsAWrongPasswordAndIsComparedAllTheSame() {
    when(accounts.findByEmail("nobody@example.org")).thenReturn(Optional.empty());
    assertThatThrownBy(() -> signIn.signIn("nobody@example.org", "x", "127.0.0.1"))
        .hasMessage("The address or the password is wrong.");
    verify(encoder).matches(eq("x"), anyString());
  }

  @Test
  void eightFailuresInAQuarterOfAnHourHoldTheAddressOff() {
    known("a@example.org", "right");
    when(failures.countByEmailAndAtAfter("a@example.org", NOW.minus(Duration.ofMinutes(15))))
        .thenReturn(8L);
    assertThatThrownBy(() -> signIn.signIn("a@example.org", "right", "127.0.0.1"))
        .hasMessageContaining("too many");
    verify(encoder, never()).matches(anyString(), anyString());
  }

  @Test
  void oneMachineTryingManyAddressesIsHeldOffToo() {
    known("a@example.org", "right");
    when(failures.countByAddressAndAtAfter("10.1.1.1", NOW.minus(Duration.ofMinutes(15))))
        .thenReturn(40L);
    assertThatThrownBy(() -> signIn.signIn("a@example.org", "right", "10.1.1.1"))
        .hasMessageContaining("too many");
  }

  @Test
  void signingUpKeepsNoPasswordAndRefusesATakenAddress() {
    when(accounts.findByEmail("new@example.org")).thenReturn(Optional.empty());
    Account made = signIn.signUp("New@Example.org", " Nova ", "long enough");
    assertThat(made.email()).isEqualTo("new@example.org");
    assertThat(made.name()).isEqualTo("Nova");
    assertThat(made.password()).isEqualTo("hash of long enough");
    known("taken@example.org", "x");
    assertThatThrownBy(() -> signIn.signUp("taken@example.org", "N", "long enough"))
        .hasMessageContaining("There is an account");
  }
}
