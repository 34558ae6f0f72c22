package marvek.server.recording;

import java.io.BufferedReader;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import marvek.core.refusal.Refusal;
import marvek.core.telemetry.Blocks;
import marvek.core.telemetry.DrivenLap;
import marvek.core.telemetry.ReadReport;
import marvek.core.telemetry.RecordingFile;
import marvek.server.keeping.Allowance;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.SmartLifecycle;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Listens for a device that sends lines while it is driven: a first line {@code MARVEK token}, then
 * NMEA 0183 sentences and lines of pedals. All that comes is stored at once; laps are shown as they
 * are driven, and when the line ends the whole is read like any other file.
 */
@Component
public class LivePort implements SmartLifecycle {
  private static final Logger LOG = LoggerFactory.getLogger(LivePort.class);
  private static final int MOST_LINES = 8;
  private static final int PEEK_EVERY = 1500;
  private static final int LONGEST_LINE = 400;
  // Who says nothing of itself in time is not listened to, however many of them there are.
  private static final int MOST_GREETING = 32;
  private static final int GREETING = 5_000;
  // So much without an end of line is no device.
  private static final int FLOOD = 1_000_000;
  private static final int SILENCE = 60_000;
  private static final int HEARD_EVERY = 20_000;

  private final int wanted;
  private final RecordingRows rows;
  private final Recordings recordings;
  private final Importer importer;
  private final Parts parts;
  private final Allowance allowance;
  private final Clock clock;
  private final ExecutorService threads = Executors.newCachedThreadPool();
  private final Semaphore free = new Semaphore(MOST_LINES);
  private final Semaphore greeting = new Semaphore(MOST_GREETING);
  private final Set<UUID> taken = ConcurrentHashMap.newKeySet();
  private volatile boolean running;
  private int port;
  private ServerSocket listening;

  @SuppressWarnings("NullAway.Init")
  LivePort(
      @Value("${marvek.live.port:0}") int wanted,
      RecordingRows rows,
      Recordings recordings,
      Importer importer,
      Parts parts,
      Allowance allowance,
      Clock clock) {
    this.allowance = allowance;
    this.wanted = wanted;
    this.rows = rows;
    this.recordings = recordings;
    this.importer = importer;
    this.parts = parts;
    this.clock = clock;
  }

  /** Port on the loopback interface. */
  public int port() {
    return port;
  }

  @Override
  public void start() {
    try {
      listening = new ServerSocket(wanted, 10, InetAddress.getLoopbackAddress());
      port = listening.getLocalPort();
      running = true;
      threads.execute(this::accept);
    } catch (IOException e) {
      LOG.warn("No live lines: port {} cannot be opened", wanted, e);
    }
  }

  @Override
  public void stop() {
    running = false;
    try {
      if (listening != null) {
        listening.close();
      }
    } catch (IOException e) {
      LOG.debug("Closing the live port", e);
    }
    threads.shutdownNow();
  }

  @Override
  public boolean isRunning() {
    return running;
  }

  private void accept() {
    while (running) {
      try {
        Socket socket = listening.accept();
        if (greeting.tryAcquire()) {
          threads.execute(() -> serve(socket));
        } else {
          socket.close();
        }
      } catch (IOException e) {
        if (running) {
          LOG.warn("The live port failed", e);
        }
        return;
      }
    }
  }

  private void serve(Socket socket) {
    boolean greets = true;
    try (socket;
        BufferedReader in =
            new BufferedReader(
                new InputStreamReader(socket.getInputStream(), StandardCharsets.US_ASCII))) {
      Recording row = greeted(socket, in);
      greeting.release();
      greets = false;
      if (row == null || row.state() != Recording.State.LIVE) {
        refuse(socket, "unknown token");
      } else if (!taken.add(row.id())) {
        refuse(socket, "this token has a line already");
      } else {
        try {
          listen(socket, row, in);
        } finally {
          taken.remove(row.id());
        }
      }
    } catch (IOException | Problem e) {
      LOG.info("A live line broke off: {}", e.getMessage());
    } finally {
      if (greets) {
        greeting.release();
      }
    }
  }

  /** The recording whose token comes in the first line; null without one in time. */
  private @Nullable Recording greeted(Socket socket, BufferedReader in) throws IOException {
    long until = System.nanoTime() + GREETING * 1_000_000L;
    socket.setSoTimeout(GREETING);
    StringBuilder hello = new StringBuilder();
    try {
      for (int c = in.read(); c >= 0 && c != '\n'; c = in.read()) {
        hello.append((char) c);
        if (hello.length() > LONGEST_LINE || System.nanoTime() > until) {
          return null;
        }
      }
    } catch (SocketTimeoutException e) {
      return null;
    }
    String said = hello.toString().strip();
    return said.startsWith("MARVEK ") ? rows.findByToken(said.substring(7)).orElse(null) : null;
  }

  private static void refuse(Socket socket, String why) throws IOException {
    socket.getOutputStream().write((why + "\r\n").getBytes(StandardCharsets.US_ASCII));
  }

  private void listen(Socket socket, Recording row, BufferedReader in) throws IOException {
    if (!free.tryAcquire()) {
      refuse(socket, "too many lines at once");
      return;
    }
    try {
      socket.setSoTimeout(SILENCE);
      // Nothing is answered: a device that never reads would lose its last lines on closing.
      take(row, in);
    } finally {
      free.release();
    }
  }

  private void take(Recording row, BufferedReader in) throws IOException {
    long bytes = 0;
    long asked = 0;
    Instant heard = Instant.EPOCH;
    Importer.Target target = importer.target(row);
    Peek peek = new Peek(row, target);
    try (OutputStream out = parts.to(row.id(), row.ownerId())) {
      String line;
      while (bytes < Recordings.LARGEST && (line = next(in)) != null) {
        if (line.length() > LONGEST_LINE) {
          continue;
        }
        byte[] sent = (line + "\r\n").getBytes(StandardCharsets.US_ASCII);
        if (bytes >= asked) {
          asked = bytes + Recordings.ASK_EVERY;
          if (!allowance.has(row.ownerId(), bytes)) {
            LOG.info("The live recording {} is ended: its account has no room", row.id());
            break;
          }
        }
        out.write(sent);
        bytes += sent.length;
        boolean looked = peek.line(line);
        Instant now = clock.instant();
        // By time as well: a device that sends once a second is not silent.
        if (looked || now.isAfter(heard.plusMillis(HEARD_EVERY))) {
          out.flush();
          rows.heard(row.id(), now);
          heard = now;
        }
      }
    }
    recordings.ended(row.id(), bytes);
  }

  /** Ends lines that a process had open when it was killed; any process may do so. */
  @Scheduled(fixedDelayString = "${marvek.live.sweep:30000}")
  void sweep() {
    for (UUID id : rows.silentSince(clock.instant().minusMillis(2L * SILENCE))) {
      try {
        LOG.info("The live recording {} fell silent and is ended", id);
        recordings.broken(id);
      } catch (IOException e) {
        LOG.warn("The live recording {} could not be ended", id, e);
      }
    }
  }

  /** The next line, cut where it is too long; null at the end or after a silence. */
  private static @Nullable String next(BufferedReader in) throws IOException {
    StringBuilder line = new StringBuilder();
    int length = 0;
    try {
      for (int c = in.read(); c != '\n'; c = in.read()) {
        if (c < 0) {
          return length == 0 ? null : ended(line);
        }
        // What is too long is let go as it comes.
        if (++length <= LONGEST_LINE + 2) {
          line.append((char) c);
        } else if (length > FLOOD) {
          return null;
        }
      }
      return ended(line);
    } catch (SocketTimeoutException | java.net.SocketException e) {
      // What came before is a recording all the same.
      return null;
    }
  }

  private static String ended(StringBuilder line) {
    boolean ends = line.length() > 0 && line.charAt(line.length() - 1) == '\r';
    return ends ? line.substring(0, line.length() - 1) : line.toString();
  }

  /** Looks at the lines since the last lap and shows those that are over. */
  private final class Peek {
    private final Recording row;
    private final Importer.Target target;
    private final Deque<String> recent = new ArrayDeque<>();
    private final List<Importer.Ready> done = new ArrayList<>();
    private int since;

    Peek(Recording row, Importer.Target target) {
      this.row = row;
      this.target = target;
    }

    /** Whether the lines so far have been looked at and should be stored. */
    boolean line(String line) {
      recent.add(line);
      if (++since < PEEK_EVERY) {
        return false;
      }
      since = 0;
      List<DrivenLap> found = new ArrayList<>();
      ReadReport report = new ReadReport();
      byte[] text = String.join("\r\n", recent).getBytes(StandardCharsets.US_ASCII);
      try {
        RecordingFile.read(
            new ByteArrayInputStream(text),
            RecordingFile.sniff(text),
            new Blocks(target.reader(report, found::add)),
            report);
      } catch (Refusal | IOException e) {
        return true;
      }
      List<DrivenLap> whole = found.stream().filter(l -> l.kind().whole()).toList();
      double last = done.isEmpty() ? -1 : done.get(done.size() - 1).lap().start();
      boolean news = false;
      for (DrivenLap l : whole) {
        if (l.start() > last + 1) {
          DrivenLap numbered =
              new DrivenLap(
                  done.size() + 1, l.kind(), l.start(), l.lapTime(), l.trace(), l.remark());
          done.add(target.ready(row, numbered));
          news = true;
        }
      }
      if (news) {
        importer.store(row, done, report);
        trim(whole.get(whole.size() - 1), found);
      }
      return true;
    }

    /**
     * Lines from before the last lap's end are not needed any more, but for the way to a corner.
     */
    private void trim(DrivenLap last, List<DrivenLap> found) {
      double over = last.lapTime();
      double all = found.stream().mapToDouble(DrivenLap::lapTime).sum();
      double keep = Math.max(0.15, (all - over) / Math.max(all, 1) + 0.25);
      int size = (int) Math.min(recent.size(), Math.ceil(keep * recent.size()));
      while (recent.size() > size) {
        recent.removeFirst();
      }
    }
  }
}
