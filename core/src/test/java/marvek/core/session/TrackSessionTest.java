package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDateTime;
import java.time.ZoneId;
import marvek.core.fixtures.Refused;
import marvek.core.refusal.Refusal;
import org.junit.jupiter.api.Test;

/** A session with a number that cannot be is refused in words, with the part that it stands in. */
class TrackSessionTest {
  private static final TrackSession PLAIN =
      TrackSession.of(
          SessionKind.PRACTICE,
          "Practice",
          Timing.of(
              new Start(LocalDateTime.of(2026, 6, 6, 14, 0), ZoneId.of("Europe/Lisbon")), 20));

  private static void refused(TrackSession session, String where, String what) {
    assertThatThrownBy(session::check)
        .isInstanceOf(Refusal.class)
        .satisfies(
            e -> {
              assertThat(Refused.where(e)).isEqualTo(where);
              assertThat(Refused.what(e)).isEqualTo(what);
              assertThat(Refused.remedy(e)).isEqualTo("Correct it.");
            });
  }

  @Test
  void aPaceThatNobodyDrivesIsRefused() {
    PLAIN.check();
    refused(
        TrackSessionBuilder.builder(PLAIN).pace(-1.5).build(),
        "pace",
        "The pace is -1.5, and lies between 0 and 0.3.");
  }
}
