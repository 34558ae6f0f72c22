package marvek.server.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import marvek.core.rehearse.CallSound;
import marvek.core.rehearse.Calls;
import marvek.server.Refused;
import marvek.server.problem.Problem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The server's voice, with programs that stand in for it. */
class VoiceTest {
  @TempDir private Path folder;

  private static final List<Calls.Cue> CUES =
      List.of(
          new Calls.Cue(6, 1, List.of("one, brake at the board", "brake")),
          new Calls.Cue(20, 1, List.of("-two; $(touch never), lift", "lift")));

  private Path program(String script) throws IOException {
    Path made = folder.resolve("voice");
    Files.writeString(made, "#!/bin/sh\n" + script);
    return Files.setPosixFilePermissions(made, PosixFilePermissions.fromString("rwxr-xr-x"));
  }

  private static Voice voice(Path program, Duration each) {
    return voice(program, each, Duration.ofSeconds(10));
  }

  private static Voice voice(Path program, Duration each, Duration turn) {
    return new Voice(
        new VoiceSettings(List.of(program.toString()), each, Duration.ofSeconds(10), turn));
  }

  /** What the program says to everything: half a second of sound. */
  private Path sound() throws IOException {
    short[] loud = new short[11_025];
    Arrays.fill(loud, (short) 8000);
    byte[] wav =
        CallSound.wav(
            List.of(new Calls.Call(0.5, 1, 2, "x")),
            Map.of("x", new CallSound.Spoken(22_050, loud)),
            0.5,
            1);
    return Files.write(folder.resolve("said.wav"), wav);
  }

  @Test
  void aLapIsSpokenAsOneSound() throws IOException {
    Path said = sound();
    Path asked = folder.resolve("asked");
    Voice voice =
        voice(
            program("cat >> '" + asked + "'; echo >> '" + asked + "'; cat '" + said + "'"),
            Duration.ofSeconds(5));
    assertThat(voice.there()).isTrue();
    CallSound.Spoken lap = CallSound.read(voice.lap(CUES, 30));
    // From the tone on the line to the end of the last call.
    assertThat(lap.seconds()).isBetween(18.8, 19.2);
    assertThat(Files.readString(asked).lines())
        .containsExactlyInAnyOrder("one, brake at the board", "-two; $(touch never), lift");
    assertThat(Files.exists(Path.of("never"))).isFalse();
  }

  @Test
  void aVoiceThatHangsOrFailsIsEndedAndSaid() throws IOException {
    Voice hangs = voice(program("sleep 60"), Duration.ofMillis(300));
    long began = System.nanoTime();
    assertThatThrownBy(() -> hangs.lap(CUES, 30))
        .isInstanceOf(Problem.class)
        .satisfies(e -> assertThat(Refused.what(e)).contains("did not speak"));
    assertThat(Duration.ofNanos(System.nanoTime() - began)).isLessThan(Duration.ofSeconds(5));
    Voice fails = voice(program("cat > /dev/null; exit 3"), Duration.ofSeconds(5));
    assertThatThrownBy(() -> fails.lap(CUES, 30)).isInstanceOf(Problem.class);
    Voice babbles = voice(program("cat > /dev/null; yes"), Duration.ofSeconds(5));
    assertThatThrownBy(() -> babbles.lap(CUES, 30)).isInstanceOf(Problem.class);
  }

  @Test
  void withoutAProgramThereIsNoVoice() {
    Voice none = voice(folder.resolve("nothing"), Duration.ofSeconds(1));
    assertThat(none.there()).isFalse();
    assertThatThrownBy(() -> none.lap(CUES, 30))
        .satisfies(e -> assertThat(Refused.what(e)).contains("no voice"));
  }

  @Test
  void oneLapIsSpokenAtATime() throws Exception {
    Path slow = program("cat > /dev/null; sleep 0.4; cat '" + sound() + "'");
    Voice hasty = voice(slow, Duration.ofSeconds(5), Duration.ofMillis(50));
    CompletableFuture<byte[]> first = CompletableFuture.supplyAsync(() -> hasty.lap(CUES, 30));
    Thread.sleep(200);
    assertThatThrownBy(() -> hasty.lap(CUES, 30))
        .satisfies(e -> assertThat(Refused.what(e)).contains("busy"));
    assertThat(first.get()).isNotEmpty();
    assertThat(hasty.lap(CUES, 30)).isNotEmpty();
    // Whoever waits gets a turn.
    Voice patient = voice(slow, Duration.ofSeconds(5));
    CompletableFuture<byte[]> one = CompletableFuture.supplyAsync(() -> patient.lap(CUES, 30));
    Thread.sleep(200);
    assertThat(patient.lap(CUES, 30)).isEqualTo(one.get());
  }
}
