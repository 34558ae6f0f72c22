package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import marvek.core.fixtures.Refused;
import marvek.core.lap.Surface;
import marvek.core.logger.SimulatedWeather;
import marvek.core.refusal.Refusal;
import org.junit.jupiter.api.Test;

/** What stations send, and what it makes of a session. */
class WeatherTest {
  private static final Instant NOON = Instant.parse("2026-06-06T12:00:00Z");

  private static Weather read(String text) {
    return Weather.read(text.getBytes(StandardCharsets.UTF_8));
  }

  @Test
  void jsonAndCsvSayTheSame() {
    Weather json =
        read(
            """
            {"readings": [{"at": "2026-06-06T14:00:00+02:00", "air": 21.5, "rain": 1.2, "wet": 0.9}],
             "forecast": [{"at": "2026-06-06T13:00:00Z", "rainLow": 0, "rainHigh": 2.5}]}
            """);
    Weather csv =
        read(
            """
            at,air,rain,rainLow,rainHigh,wet
            2026-06-06T12:00:00Z,21.5,1.2,,,0.9
            2026-06-06T13:00:00Z,,,0,2.5,
            """);
    assertThat(csv).isEqualTo(json);
    assertThat(json.stale(NOON.plus(Duration.ofMinutes(9)))).isFalse();
    assertThat(json.stale(NOON.plus(Duration.ofMinutes(11)))).isTrue();
    assertThat(json.at(NOON.plus(Duration.ofHours(5)))).isEmpty();
  }

  @Test
  void whatCannotBeUnderstoodIsSaidWithWhatToDo() {
    for (String bad :
        List.of(
            "{nonsense",
            "time,air\n2026,3",
            "at,air\nyesterday,3",
            "at,air\n2026-06-06T12:00:00Z,warm",
            "{\"readings\":[{\"at\":\"2026-06-06T12:00:00Z\",\"air\":\"hot\"}]}",
            "{\"readings\":[{\"at\":\"2026-06-06T12:00:00Z\",\"wind\":1e300}]}")) {
      assertThatThrownBy(() -> read(bad))
          .as(bad)
          .isInstanceOfSatisfying(
              Refusal.class, r -> assertThat(Refused.remedy(r)).contains("by hand"));
    }
  }

  private static Weather.Moment moment(double rain, Double wet) {
    return new Weather.Moment(NOON, 18.0, null, 1004.0, 5.0, 270.0, rain, rain, wet);
  }

  @Test
  void theRoadFollowsRainAndWhatIsLeftOfIt() {
    assertThat(Weather.surface(moment(0, 0.0))).isEqualTo(Surface.DRY);
    assertThat(Weather.surface(moment(2, 0.9)).state()).isEqualTo(Surface.State.WET);
    assertThat(Weather.surface(moment(1, 0.3)).state()).isEqualTo(Surface.State.DAMP);
    assertThat(Weather.surface(moment(0, 0.3))).isEqualTo(Surface.drying(0.7));
    assertThat(Weather.surface(moment(2, null)).state()).isEqualTo(Surface.State.WET);
  }

  @Test
  void aShowerMakesTheSessionWetAndLeavesTheRestAsItWas() {
    SessionDay dry =
        SessionDayBuilder.builder(SessionDay.usual()).rubber(SessionDay.Rubber.GREEN).build();
    Weather weather = new Weather(List.of(moment(3, 0.95)), List.of());
    SessionDay wet = weather.proposed(dry, NOON).orElseThrow();
    assertThat(wet.day().road().state()).isEqualTo(Surface.State.WET);
    assertThat(wet.day().grip()).isLessThan(0.8);
    assertThat(wet.day().airTemperature()).isEqualTo(18.0);
    assertThat(wet.day().windFrom()).isEqualTo(270.0);
    assertThat(wet.pressure()).isEqualTo(1004.0);
    assertThat(wet.rubber()).isEqualTo(SessionDay.Rubber.GREEN);
    // A grip that the driver set for a wet road stands while it stays wet.
    SessionDay set = SessionDayBuilder.builder(wet).day(wet.day().withGrip(0.62)).build();
    assertThat(weather.proposed(set, NOON).orElseThrow().day().grip()).isEqualTo(0.62);
  }

  /** The simulated station is physically even: water comes with rain and goes slowly. */
  @Test
  void theSimulatedStationIsTheSameEachTimeAndItsWaterFollowsItsRain() {
    int rained = 0;
    for (int d = 0; d < 12; d++) {
      Instant from = NOON.plus(Duration.ofDays(d)).minus(Duration.ofHours(6));
      List<SimulatedWeather.Sample> day =
          new SimulatedWeather(7).between(from, from.plus(Duration.ofHours(14)));
      assertThat(new SimulatedWeather(7).between(from, from.plus(Duration.ofHours(14))))
          .isEqualTo(day);
      for (int i = 1; i < day.size(); i++) {
        SimulatedWeather.Sample a = day.get(i - 1);
        SimulatedWeather.Sample b = day.get(i);
        assertThat(b.wet()).isBetween(0.0, 1.0);
        assertThat(b.rain() > 0 || b.wet() <= a.wet()).isTrue();
        assertThat(Math.abs(b.air() - a.air())).isLessThan(4);
        rained += b.rain() > 0 ? 1 : 0;
      }
    }
    assertThat(rained).isGreaterThan(20);
  }
}
