package marvek.server.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.UncheckedIOException;
import java.util.Arrays;
import java.util.Map;
import java.util.Random;
import marvek.core.telemetry.Channel;
import marvek.core.telemetry.LapGrid;
import org.junit.jupiter.api.Test;

/** Arrays as bytes and back. */
class PackedTest {
  @Test
  void valuesComeBackToSinglePrecision() {
    Random chance = new Random(3);
    for (int n : new int[] {0, 1, 7, 5000}) {
      double[] values = chance.doubles(n, -1e6, 1e6).toArray();
      double[] back = Packed.doubles(Packed.bytes(values));
      assertThat(back).hasSize(n);
      for (int i = 0; i < n; i++) {
        assertThat(back[i]).isEqualTo((double) (float) values[i]);
      }
    }
  }

  @Test
  void whatIsNotKnownStaysSo() {
    double[] odd = {Double.NaN, 0, -0.0, Double.POSITIVE_INFINITY, 1e-30, -1e30};
    double[] back = Packed.doubles(Packed.bytes(odd));
    assertThat(back[0]).isNaN();
    assertThat(back[3]).isInfinite();
    assertThat(back[4]).isEqualTo((double) (float) 1e-30);
  }

  @Test
  void aLapComesBackWithAllItsChannels() {
    int n = 2000;
    double[] speed = new double[n];
    double[] brake = new double[n];
    double[] times = new double[n + 1];
    for (int i = 0; i < n; i++) {
      speed[i] = 50 + 20 * Math.sin(i / 90.0);
      brake[i] = Math.max(0, Math.sin(i / 60.0));
      times[i + 1] = times[i] + 2 / speed[i];
    }
    LapGrid grid = new LapGrid(2, times, speed, new double[n], Map.of(Channel.BRAKE, brake));
    byte[] bytes = Packed.bytes(grid);
    LapGrid back = Packed.grid(bytes);
    assertThat(back.step()).isEqualTo(2);
    assertThat(back.channels().keySet()).containsExactly(Channel.BRAKE);
    assertThat(back.times()).hasSize(n + 1);
    assertThat(back.times()[n]).isEqualTo((double) (float) times[n]);
    assertThat(back.speed()[123]).isEqualTo((double) (float) speed[123]);
    assertThat(back.channels().get(Channel.BRAKE)[77]).isEqualTo((double) (float) brake[77]);
    // Smooth channels take less than the numbers themselves.
    assertThat(bytes.length).isLessThan(4 * 4 * n * 3 / 4);
  }

  @Test
  void bytesOfAnotherMakeAreRefused() {
    byte[] bytes = Packed.bytes(new double[] {1, 2, 3});
    assertThatThrownBy(() -> Packed.grid(bytes)).isInstanceOf(UncheckedIOException.class);
    byte[] cut = Arrays.copyOf(bytes, bytes.length / 2);
    assertThatThrownBy(() -> Packed.doubles(cut)).isInstanceOf(UncheckedIOException.class);
    assertThatThrownBy(() -> Packed.doubles(new byte[] {1, 2, 3}))
        .isInstanceOf(UncheckedIOException.class);
  }
}
