package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import marvek.core.fixtures.Refused;
import marvek.core.refusal.Refusal;
import marvek.core.said.Said;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** Temperatures across a tread. */
class TreadTest {
  private static SessionTyres read(@Nullable Double... tread) {
    return SessionTyresBuilder.builder(SessionTyres.unknown()).tread(Arrays.asList(tread)).build();
  }

  private static List<String> keys(int count, @Nullable Double... tread) {
    return Tread.of(read(tread), count).stream()
        .flatMap(t -> t.words().stream())
        .map(Said::key)
        .toList();
  }

  private static String choice(Said said) {
    return said.values().get(0).toString();
  }

  /** Bands as practitioners name them (common practice, no source): 5 to 10 °C hotter inside. */
  @Test
  void aWheelThatLeansALittleIsLeftAlone() {
    assertThat(keys(4, 78.0, 82.0, 86.0)).containsExactly("tread.even");
    assertThat(keys(4, 80.0, 80.0, 80.0)).containsExactly("tread.even");
  }

  @Test
  void theHotterSideSaysWhichWayTheCamberGoes() {
    Said less = Tread.of(read(70.0, 80.0, 92.0), 4).get(0).words().get(0);
    assertThat(less.key()).isEqualTo("tread.camber");
    assertThat(choice(less)).contains("no");
    Said more = Tread.of(read(84.0, 82.0, 80.0), 4).get(0).words().get(0);
    assertThat(choice(more)).contains("yes");
  }

  @Test
  void theMiddleSaysWhichWayThePressureGoes() {
    Said full = Tread.of(read(78.0, 92.0, 84.0), 4).get(0).words().get(0);
    assertThat(full.key()).isEqualTo("tread.pressure");
    assertThat(choice(full)).contains("yes");
    Said soft = Tread.of(read(78.0, 72.0, 84.0), 4).get(0).words().get(0);
    assertThat(choice(soft)).contains("no");
  }

  /** A motorcycle leans with its wheels: one side may well work more than the other. */
  @Test
  void aMotorcycleHasNoCamberToSet() {
    assertThat(keys(2, 60.0, 74.0, 90.0)).containsExactly("tread.even");
    assertThat(keys(2, 60.0, 74.0, 90.0, 70.0, 90.0, 74.0))
        .containsExactly("tread.even", "tread.pressure");
  }

  @Test
  void onlyWheelsReadAllAcrossAreTold() {
    assertThat(Tread.of(SessionTyres.unknown(), 4)).isEmpty();
    List<Tread> told = Tread.of(read(null, 80.0, 82.0, 70.0, 80.0, 90.0, 80.0), 4);
    assertThat(told).extracting(Tread::wheel).containsExactly(1);
  }

  /** Whatever is read, something is said, and never both ways of one thing. */
  @Test
  void whateverIsReadHasItsWords() {
    Random random = new Random(41);
    for (int i = 0; i < 500; i++) {
      double outer = 20 + 100 * random.nextDouble();
      double middle = 20 + 100 * random.nextDouble();
      double inner = 20 + 100 * random.nextDouble();
      List<String> said = keys(4, outer, middle, inner);
      assertThat(said).isNotEmpty().doesNotHaveDuplicates();
      boolean leansWell = inner >= outer && inner - outer <= Tread.LEANS;
      boolean even = Math.abs(middle - (inner + outer) / 2) <= Tread.EVEN;
      assertThat(said.contains("tread.even")).isEqualTo(leansWell && even);
    }
  }

  @Test
  void whatNoTyreReadsIsRefused() {
    TrackSession session =
        TrackSessionBuilder.builder(
                TrackSession.of(
                    SessionKind.PRACTICE,
                    "Practice",
                    Timing.of(
                        new Start(LocalDateTime.of(2026, 6, 6, 14, 0), ZoneId.of("Europe/Lisbon")),
                        20)))
            .tyres(read(80.0, 800.0, 80.0))
            .build();
    assertThatThrownBy(session::check)
        .isInstanceOf(Refusal.class)
        .satisfies(e -> assertThat(Refused.what(e)).contains("temperature of the tread is 800"));
  }
}
