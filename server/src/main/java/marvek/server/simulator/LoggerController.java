package marvek.server.simulator;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import marvek.core.day.RunDays;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.Variant;
import marvek.core.line.Watch;
import marvek.core.logger.Mistake;
import marvek.core.logger.Planted;
import marvek.core.logger.Recorder;
import marvek.core.logger.Truth;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.server.access.Driver;
import marvek.server.problem.Problem;
import marvek.server.recording.LivePort;
import marvek.server.recording.Recording;
import marvek.server.recording.Recordings;
import marvek.server.reference.References;
import marvek.server.run.Runs;
import marvek.server.trial.Trials;
import marvek.server.work.Job;
import marvek.server.work.Jobs;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** A simulated driver with a data logger, in the place of a device; and lines while driving. */
@RestController
@RequestMapping("/api")
class LoggerController implements DisposableBean {
  private static final double KILOMETRE = 1000;

  /** Metres that one drive may be long: what it takes grows with them. */
  private static final double LONGEST_DRIVE = 250 * KILOMETRE;

  private static final Logger LOG = LoggerFactory.getLogger(LoggerController.class);

  private final References references;
  private final Runs runs;
  private final Recordings recordings;
  private final LivePort live;
  private final SimulatedRuns simulated;
  private final Jobs jobs;
  private final Trials trials;
  private final ExecutorService senders = Executors.newFixedThreadPool(2);

  LoggerController(
      References references,
      Runs runs,
      Recordings recordings,
      LivePort live,
      SimulatedRuns simulated,
      Jobs jobs,
      Trials trials) {
    this.jobs = jobs;
    this.trials = trials;
    this.references = references;
    this.runs = runs;
    this.recordings = recordings;
    this.live = live;
    this.simulated = simulated;
  }

  @Override
  public void destroy() {
    senders.shutdownNow();
  }

  record HabitRequest(@NotNull Mistake mistake, @NotBlank String corner, @Nullable Double size) {}

  /**
   * What the simulated driver is to do.
   *
   * @param run that it is for; null for a new one
   * @param day that it drives on: empty or null for the reference's own, one of its days, or a kind
   * @param trial of the run's session whose ways are driven in turn, in its order; null for none
   * @param live whether it sends lines while it drives, instead of a file afterwards
   * @param worn whether the device's positions wander and come late
   * @param speedUp how much quicker than real time the lines come
   */
  record DriveRequest(
      @Nullable UUID run,
      @Nullable @Size(max = 100) String name,
      @Nullable @Size(max = 60) String day,
      @Nullable UUID trial,
      @Min(1) @Max(60) int laps,
      @NotNull @Size(max = 40) List<@Valid HabitRequest> habits,
      @Nullable Double spread,
      @Nullable Double pace,
      boolean live,
      @Nullable Boolean worn,
      @Nullable Double speedUp,
      @Nullable Long seed) {}

  record MistakeWords(Mistake mistake, Said words) {}

  @GetMapping("/logger/mistakes")
  List<MistakeWords> mistakes() {
    return java.util.Arrays.stream(Mistake.values())
        .map(m -> new MistakeWords(m, m.said()))
        .toList();
  }

  /** Has the reference driven; where that is not done within a moment, ask for the job. */
  @PostMapping("/references/{id}/logger")
  Job drive(
      @PathVariable UUID id,
      @Valid @RequestBody DriveRequest request,
      @AuthenticationPrincipal Driver driver) {
    References.Opened opened = references.open(driver.id(), id);
    Variant day = day(opened, request.day());
    List<Planted> habits = habits(opened, request);
    List<List<CornerEntry>> inTurn =
        request.trial() == null
            ? List.of()
            : trials.inTurn(driver.id(), id, request.trial(), request.laps());
    UUID into = request.run() == null ? null : runs.own(driver.id(), request.run()).id();
    if (request.live() && opened.layout().plane() == null) {
      throw Problem.bad("refusal.simulator.layout_no_place_earth").at("live");
    }
    double metres = request.laps() * opened.computed().road().length();
    if (metres > LONGEST_DRIVE) {
      throw Problem.bad(
              "refusal.simulator.laps_most_one_drive",
              Value.figure(request.laps(), 0),
              Value.figure(opened.computed().road().length() / KILOMETRE, 1),
              Value.figure(metres / KILOMETRE, 0),
              Value.figure(LONGEST_DRIVE / KILOMETRE, 0),
              Value.figure(
                  Math.max(1, Math.floor(LONGEST_DRIVE / opened.computed().road().length())), 0))
          .at("laps");
    }
    return jobs.start(
        driver.id(),
        watch -> {
          try {
            return driven(driver, opened, request, day, inTurn, habits, into, watch);
          } catch (IOException e) {
            throw new UncheckedIOException(e);
          }
        });
  }

  private Job.Result driven(
      Driver driver,
      References.Opened opened,
      DriveRequest request,
      @Nullable Variant day,
      List<List<CornerEntry>> inTurn,
      List<Planted> habits,
      @Nullable UUID into,
      Watch watch)
      throws IOException {
    long seed = request.seed() == null ? System.nanoTime() : request.seed();
    SimulatedRuns.Recorded recorded =
        simulated.drive(
            opened,
            opened.working().corners(),
            day,
            inTurn,
            request.laps(),
            habits,
            request.spread() == null ? 1.5 : request.spread(),
            request.pace() == null ? 0.98 : request.pace(),
            Boolean.TRUE.equals(request.worn()) ? Recorder.Noise.worn() : Recorder.Noise.usual(),
            seed,
            watch);
    String name = "simulated-" + request.laps() + "-laps";
    // Begun only now: a drive that is not made leaves no empty run behind.
    UUID run =
        into != null
            ? into
            : runs.start(
                    driver.id(),
                    opened.row().id(),
                    request.name() == null ? "" : request.name(),
                    null,
                    null)
                .id();
    if (request.live()) {
      Recording row =
          recordings.listen(driver.id(), run, name + ".nmea", recorded.driven().truth());
      double speedUp =
          request.speedUp() == null ? 20 : Math.max(1, Math.min(200, request.speedUp()));
      send(String.valueOf(row.token()), recorded.recorder(), speedUp);
      return new Job.Result(row.id(), run);
    }
    Recordings.Taken taken = simulated.stored(driver.id(), run, name + ".csv", recorded);
    return new Job.Result(taken.id(), taken.run());
  }

  /** A day of the reference, or a usual one of a kind that it does not have. */
  private static @Nullable Variant day(References.Opened opened, @Nullable String word) {
    RunDays days = RunDays.of(opened.working());
    String named = days.named(word);
    if (named == null || named.equals(RunDays.OWN)) {
      return null;
    }
    return days.variant(named)
        .or(() -> RunDays.kind(named).map(k -> new Variant(k.name(), k, "", k.usual(), List.of())))
        .orElseThrow(() -> Problem.bad("refusal.simulator.reference_no_day").at("day"));
  }

  private static List<Planted> habits(References.Opened opened, DriveRequest request) {
    return request.habits().stream()
        .map(
            h -> {
              opened.computed().indexOf(h.corner());
              double size = h.size() == null ? 1 : Math.max(0.2, Math.min(2, h.size()));
              return new Planted(h.mistake(), h.corner(), size, 1);
            })
        .toList();
  }

  /** The device's side of a live line. */
  private void send(String token, Recorder recorder, double speedUp) {
    int port = live.port();
    senders.execute(
        () -> {
          try (Socket socket = new Socket(InetAddress.getLoopbackAddress(), port);
              BufferedWriter out =
                  new BufferedWriter(
                      new OutputStreamWriter(
                          socket.getOutputStream(), StandardCharsets.US_ASCII))) {
            out.write("MARVEK " + token + "\r\n");
            out.flush();
            pace(recorder, out, speedUp);
          } catch (IOException e) {
            LOG.info("The simulated device could not send: {}", e.getMessage());
          }
        });
  }

  private static void pace(Recorder recorder, BufferedWriter out, double speedUp) {
    long start = System.nanoTime();
    double[] flushed = {0};
    recorder.nmea(
        10,
        50,
        (due, line) -> {
          try {
            out.write(line);
            out.write("\r\n");
            if (due - flushed[0] > 0.5) {
              flushed[0] = due;
              out.flush();
              long ahead = (long) (due / speedUp * 1e9) - (System.nanoTime() - start);
              if (ahead > 1_000_000) {
                Thread.sleep(ahead / 1_000_000);
              }
            }
          } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
          } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new java.io.UncheckedIOException(new java.io.InterruptedIOException());
          }
        });
  }

  /** Where a device sends its lines. */
  record LiveView(UUID recording, UUID run, int port, String token) {}

  record LiveRequest(@Nullable UUID run, @Nullable @Size(max = 100) String name) {}

  /** Listens for a device of one's own. */
  @PostMapping("/references/{id}/live")
  @ResponseStatus(HttpStatus.CREATED)
  LiveView listen(
      @PathVariable UUID id,
      @Valid @RequestBody LiveRequest request,
      @AuthenticationPrincipal Driver driver) {
    UUID run =
        request.run() != null
            ? runs.own(driver.id(), request.run()).id()
            : runs.start(driver.id(), id, request.name() == null ? "" : request.name(), null, null)
                .id();
    Recording row = recordings.listen(driver.id(), run, "live.nmea", (Truth) null);
    return new LiveView(row.id(), run, live.port(), String.valueOf(row.token()));
  }
}
