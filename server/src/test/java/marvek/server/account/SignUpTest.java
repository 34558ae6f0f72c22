package marvek.server.account;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Optional;
import marvek.server.Refused;
import marvek.server.problem.Problem;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;

/** Who may make an account, with the clock held still. */
class SignUpTest {
  private static final Instant NOW = Instant.parse("2026-05-16T10:00:00Z");
  private static final Instant AN_HOUR_AGO = NOW.minus(Duration.ofHours(1));
  private static final String PASSWORD = "gravel kerb tomato";

  private final Accounts accounts = mock(Accounts.class);
  private final OneTimeLinks links = mock(OneTimeLinks.class);
  private final SignInTries tries = mock(SignInTries.class);
  private final ApplicationEventPublisher events = mock(ApplicationEventPublisher.class);
  private final PasswordEncoder encoder = mock(PasswordEncoder.class);

  @BeforeEach
  void setUp() {
    when(encoder.encode(anyString())).thenAnswer(i -> "hash of " + i.getArgument(0));
    when(accounts.saveAndFlush(any())).thenAnswer(i -> i.getArgument(0));
  }

  private SignUp at(PeopleSettings.SignUp how, String address) {
    return new SignUp(
        accounts,
        links,
        tries,
        new Passwords(encoder),
        new PeopleSettings(how, 3, 5),
        events,
        new TransactionTemplate(mock(PlatformTransactionManager.class)),
        Clock.fixed(NOW, ZoneOffset.UTC),
        address);
  }

  @ParameterizedTest
  @CsvSource({
    "AUTO, 127.0.0.1, true",
    "AUTO, ::1, true",
    "AUTO, 0.0.0.0, false",
    "AUTO, 192.168.1.4, false",
    "OPEN, 0.0.0.0, true",
    "INVITED, 127.0.0.1, false"
  })
  void anybodyMayOnLoopbackOnlyUnlessSaidOtherwise(
      PeopleSettings.SignUp how, String address, boolean open) {
    assertThat(at(how, address).open()).isEqualTo(open);
  }

  @Test
  void anAccountIsMadeWithoutItsPasswordAndToldToWhoWaitsForIt() {
    Account made =
        at(PeopleSettings.SignUp.OPEN, "0.0.0.0")
            .signUp(" New@Example.org", " Nova ", PASSWORD, null, "10.0.0.1");
    assertThat(made.email()).isEqualTo("new@example.org");
    assertThat(made.name()).isEqualTo("Nova");
    assertThat(made.password()).isEqualTo("hash of " + PASSWORD);
    verify(events).publishEvent(new SignUp.Made(made.id(), "new@example.org"));
    verify(tries).signedUp("10.0.0.1", NOW);
  }

  @Test
  void manyInAnHourAreHeldOffByAddressAndInAllAndInvitationsPass() {
    SignUp open = at(PeopleSettings.SignUp.OPEN, "0.0.0.0");
    when(tries.signUps("10.0.0.1", AN_HOUR_AGO)).thenReturn(4L);
    assertThatThrownBy(() -> open.signUp("a@example.org", "N", PASSWORD, null, "10.0.0.1"))
        .satisfies(e -> assertThat(Refused.what(e)).contains("Many accounts"));
    open.signUp("a@example.org", "N", PASSWORD, null, "10.0.0.2");
    when(tries.signUps(AN_HOUR_AGO)).thenReturn(6L);
    assertThatThrownBy(() -> open.signUp("b@example.org", "N", PASSWORD, null, "10.0.0.2"))
        .satisfies(e -> assertThat(Refused.what(e)).contains("Many accounts"));
    OneTimeLink link = new OneTimeLink(OneTimeLink.Purpose.INVITE, "token", null, NOW);
    when(links.good(OneTimeLink.digest("token"), OneTimeLink.Purpose.INVITE, NOW))
        .thenReturn(Optional.of(link));
    when(links.use(link.id(), NOW)).thenReturn(1);
    open.signUp("b@example.org", "N", PASSWORD, "token", "10.0.0.1");
    verify(links).use(link.id(), NOW);
  }

  @Test
  void aLinkThatSomebodyElseUsedMeanwhileMakesNothing() {
    OneTimeLink link = new OneTimeLink(OneTimeLink.Purpose.INVITE, "token", null, NOW);
    when(links.good(any(), eq(OneTimeLink.Purpose.INVITE), any())).thenReturn(Optional.of(link));
    when(links.use(link.id(), NOW)).thenReturn(0);
    assertThatThrownBy(
            () ->
                at(PeopleSettings.SignUp.INVITED, "0.0.0.0")
                    .signUp("a@example.org", "N", PASSWORD, "token", "10.0.0.1"))
        .isInstanceOf(Problem.class)
        .satisfies(e -> assertThat(Refused.what(e)).contains("has been used"));
  }
}
