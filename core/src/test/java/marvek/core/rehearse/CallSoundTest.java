package marvek.core.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayInputStream;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import marvek.core.refusal.Refusal;
import marvek.core.rehearse.CallSound.Spoken;
import org.junit.jupiter.api.Test;

/** Calls as a sound, read back by the sound library of the JDK. */
class CallSoundTest {
  private static final int RATE = 8000;

  private static Spoken loud(double seconds) {
    short[] samples = new short[(int) (seconds * RATE)];
    Arrays.fill(samples, (short) 9000);
    return new Spoken(RATE, samples);
  }

  private static short[] samples(byte[] wav) throws Exception {
    try (AudioInputStream in = AudioSystem.getAudioInputStream(new ByteArrayInputStream(wav))) {
      AudioFormat format = in.getFormat();
      assertThat(format.getSampleRate()).isEqualTo(RATE);
      assertThat(format.getChannels()).isEqualTo(1);
      assertThat(format.getSampleSizeInBits()).isEqualTo(16);
      byte[] bytes = in.readAllBytes();
      short[] out = new short[bytes.length / 2];
      for (int i = 0; i < out.length; i++) {
        out[i] = (short) (bytes[2 * i] & 0xFF | bytes[2 * i + 1] << 8);
      }
      return out;
    }
  }

  @Test
  void everyCallEndsWhereItIsToEndAndAToneMarksTheLine() throws Exception {
    List<Calls.Call> calls =
        List.of(
            new Calls.Call(1, 2, 3, "brake"), new Calls.Call(4, 5.5, 6.5, "brake, the 100 board"));
    Map<String, Spoken> spoken = Map.of("brake", loud(0.5), "brake, the 100 board", loud(1.2));
    short[] out = samples(CallSound.wav(calls, spoken, -2, 8));
    assertThat(out.length).isEqualTo(10 * RATE);
    assertThat(last(out, 0, 3.5) / (double) RATE - 2).isCloseTo(0.12, within(0.005));
    assertThat(last(out, 3.5, 5) / (double) RATE - 2).isCloseTo(2, within(0.001));
    assertThat(first(out, 3.2) / (double) RATE - 2).isCloseTo(1.5, within(0.001));
    assertThat(last(out, 5, 10) / (double) RATE - 2).isCloseTo(5.5, within(0.001));
    // The tone swings 880 times a second: as many zeros crossed upwards in a tenth of one.
    int ups = 0;
    for (int i = (int) (2.01 * RATE); i < 2.11 * RATE; i++) {
      ups += out[i - 1] < 0 && out[i] >= 0 ? 1 : 0;
    }
    assertThat(ups).isBetween(86, 90);
  }

  private static int last(short[] out, double from, double to) {
    int at = -1;
    for (int i = (int) (from * RATE); i < to * RATE; i++) {
      at = Math.abs(out[i]) > 200 ? i + 1 : at;
    }
    return at;
  }

  private static int first(short[] out, double from) {
    int i = (int) (from * RATE);
    while (out[i] == 0) {
      i++;
    }
    return i;
  }

  @Test
  void aVoiceIsReadWithoutItsSilence() {
    byte[] wav =
        CallSound.wav(List.of(new Calls.Call(1, 2, 3, "x")), Map.of("x", loud(0.5)), 0.5, 4);
    Spoken back = CallSound.read(wav);
    assertThat(back.rate()).isEqualTo(RATE);
    assertThat(back.seconds()).isCloseTo(0.5, within(0.002));
    // A writer to a pipe says that it will be very long.
    byte[] piped = wav.clone();
    piped[40] = 0;
    piped[41] = (byte) 0xF0;
    piped[42] = (byte) 0xFF;
    piped[43] = 0x7F;
    assertThat(CallSound.read(piped)).usingRecursiveComparison().isEqualTo(back);
    for (byte[] bad :
        List.of(new byte[0], new byte[60], Arrays.copyOf(wav, 30), "no sound".getBytes())) {
      assertThatThrownBy(() -> CallSound.read(bad)).isInstanceOf(Refusal.class);
    }
  }

  /** A voice that is slower than was reckoned leaves out or shortens what no longer fits. */
  @Test
  void whatTheVoiceReallyTakesReplacesTheEstimate() {
    List<Calls.Cue> cues =
        List.of(
            new Calls.Cue(5, 1, List.of("one two three four five", "one")),
            new Calls.Cue(8.5, 1, List.of("six seven eight nine ten", "six")));
    assertThat(Calls.of(cues, 1)).extracting(Calls.Call::text).allMatch(t -> t.length() > 3);
    List<Calls.Call> slow = Calls.of(cues, 1, t -> 2 * Calls.estimate(t));
    assertThat(slow).hasSize(2);
    assertThat(slow.get(1).text()).isEqualTo("six");
    assertThat(slow.get(0).end()).isLessThanOrEqualTo(slow.get(1).start());
  }
}
