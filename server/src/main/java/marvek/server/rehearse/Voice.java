package marvek.server.rehearse;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import marvek.core.rehearse.CallSound;
import marvek.core.rehearse.CallSound.Spoken;
import marvek.core.rehearse.Calls;
import marvek.server.problem.Problem;
import org.springframework.stereotype.Component;

/**
 * Speaks calls by a program of its own, a process for each text, with a time limit. One lap is
 * spoken at a time; whoever waits too long for another's is told that the server is busy.
 */
@Component
class Voice {
  private static final int MOST_BYTES = 4_000_000;
  private static final int ROUNDS = 12;
  private static final double BEFORE = 2;

  private final VoiceSettings settings;
  private final Semaphore mouth = new Semaphore(1);

  Voice(VoiceSettings settings) {
    this.settings = settings;
  }

  /** Whether there is one on this machine. */
  boolean there() {
    String program = settings.command().get(0);
    if (program.contains("/")) {
      return Files.isExecutable(Path.of(program));
    }
    for (String folder : String.valueOf(System.getenv("PATH")).split(":")) {
      if (!folder.isEmpty() && Files.isExecutable(Path.of(folder, program))) {
        return true;
      }
    }
    return false;
  }

  /**
   * The lap called aloud, as WAV. What is called is chosen by how long the voice really takes.
   *
   * @param lapTime seconds
   */
  byte[] lap(List<Calls.Cue> cues, double lapTime) {
    if (!there()) {
      throw Problem.notFound("refusal.rehearse.no_voice_server");
    }
    turn();
    try {
      long until = System.nanoTime() + settings.all().toNanos();
      Map<String, Spoken> spoken = new HashMap<>();
      List<Calls.Call> calls = List.of();
      for (int round = 0; round < ROUNDS; round++) {
        calls = Calls.of(cues, 1, text -> seconds(spoken, text));
        List<String> silent =
            calls.stream().map(Calls.Call::text).filter(t -> !spoken.containsKey(t)).toList();
        if (silent.isEmpty()) {
          break;
        }
        for (String text : silent) {
          spoken.put(text, said(text, until));
        }
      }
      List<Calls.Call> known = calls.stream().filter(c -> spoken.containsKey(c.text())).toList();
      double first = known.stream().mapToDouble(Calls.Call::start).min().orElse(0);
      return CallSound.wav(known, spoken, Math.min(0, first) - BEFORE, lapTime);
    } finally {
      mouth.release();
    }
  }

  private void turn() {
    try {
      if (!mouth.tryAcquire(settings.turn().toMillis(), TimeUnit.MILLISECONDS)) {
        throw Problem.busy();
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw Problem.busy();
    }
  }

  private static double seconds(Map<String, Spoken> spoken, String text) {
    Spoken said = spoken.get(text);
    return said == null ? Calls.estimate(text) : said.seconds();
  }

  private Spoken said(String text, long until) {
    long limit = Math.min(until, System.nanoTime() + settings.each().toNanos());
    try {
      Process process =
          new ProcessBuilder(settings.command())
              .redirectError(ProcessBuilder.Redirect.DISCARD)
              .start();
      try {
        return spoken(process, text, limit);
      } finally {
        end(process);
      }
    } catch (IOException e) {
      throw failed();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw failed();
    }
  }

  /** Ends the process when its time is over, so that reading from it ends too. */
  private static Spoken spoken(Process process, String text, long limit)
      throws IOException, InterruptedException {
    Thread watch = new Thread(() -> ended(process, limit), "voice");
    watch.setDaemon(true);
    watch.start();
    try (OutputStream in = process.getOutputStream()) {
      in.write(text.getBytes(StandardCharsets.UTF_8));
    }
    ByteArrayOutputStream wav = new ByteArrayOutputStream();
    try (InputStream out = process.getInputStream()) {
      byte[] some = new byte[16_384];
      for (int n = out.read(some); n >= 0; n = out.read(some)) {
        wav.write(some, 0, n);
        if (wav.size() > MOST_BYTES) {
          throw failed();
        }
      }
    }
    if (!process.waitFor(1, TimeUnit.SECONDS) || process.exitValue() != 0) {
      throw failed();
    }
    return CallSound.read(wav.toByteArray());
  }

  private static void ended(Process process, long limit) {
    try {
      Duration left = Duration.ofNanos(Math.max(1, limit - System.nanoTime()));
      if (!process.waitFor(left.toMillis() + 1, TimeUnit.MILLISECONDS)) {
        end(process);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  /** What it started itself would keep its output open. */
  private static void end(Process process) {
    process.descendants().forEach(ProcessHandle::destroyForcibly);
    process.destroyForcibly();
  }

  private static Problem failed() {
    return Problem.failed("refusal.rehearse.voice_did_not_speak");
  }
}
