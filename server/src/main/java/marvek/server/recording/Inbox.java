package marvek.server.recording;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.AccessDeniedException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import marvek.server.problem.Problem;
import marvek.server.reference.References;
import marvek.server.run.RunRow;
import marvek.server.run.Runs;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * A watched folder with one folder inside for each reference: files put there are taken into the
 * reference's newest run and moved to {@code taken}; what cannot be taken goes to {@code refused}.
 */
@Component
public class Inbox {
  private static final Logger LOG = LoggerFactory.getLogger(Inbox.class);
  private static final Duration AT_REST = Duration.ofSeconds(2);
  private static final String TAKING = "taking";
  private static final Duration SAME_DAY = Duration.ofHours(12);

  private final Set<Path> swept = ConcurrentHashMap.newKeySet();
  private final @Nullable Path folder;
  private final References references;
  private final Runs runs;
  private final Recordings recordings;
  private final Clock clock;

  Inbox(
      @Value("${marvek.inbox:}") String folder,
      References references,
      Runs runs,
      Recordings recordings,
      Clock clock) {
    this.folder = folder.isBlank() ? null : Path.of(folder);
    this.references = references;
    this.runs = runs;
    this.recordings = recordings;
    this.clock = clock;
  }

  /** Where files for a reference are put, or null when no folder is watched. */
  public @Nullable String of(UUID reference) {
    if (folder == null) {
      return null;
    }
    Path place = folder.resolve(reference.toString());
    try {
      Files.createDirectories(place);
    } catch (IOException e) {
      LOG.warn("The folder {} cannot be made", place, e);
      return null;
    }
    return place.toAbsolutePath().toString();
  }

  @Scheduled(fixedDelay = 1500)
  void look() {
    if (folder == null || !Files.isDirectory(folder)) {
      return;
    }
    try (Stream<Path> all = Files.list(folder)) {
      // No link is followed: it could lead to what is none of the driver's.
      all.filter(p -> Files.isDirectory(p, LinkOption.NOFOLLOW_LINKS)).forEach(this::look);
    } catch (IOException e) {
      LOG.warn("The folder {} cannot be read", folder, e);
    }
  }

  private void look(Path place) {
    UUID reference;
    try {
      reference = UUID.fromString(String.valueOf(place.getFileName()));
    } catch (IllegalArgumentException e) {
      return;
    }
    Optional<UUID> owner = references.ownerOf(reference);
    leftover(place);
    try (Stream<Path> files = Files.list(place)) {
      for (Path file : files.filter(Inbox::plain).sorted().toList()) {
        if (owner.isPresent() && atRest(file)) {
          take(owner.get(), reference, file);
        }
      }
    } catch (IOException | RuntimeException e) {
      LOG.warn("The folder {} cannot be read", place, e);
    }
  }

  private static boolean plain(Path file) {
    return Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS);
  }

  /** What a server that was ended had in hand is put back, once after the start. */
  private void leftover(Path place) {
    if (!swept.add(place)) {
      return;
    }
    Path taking = place.resolve(TAKING);
    if (!Files.isDirectory(taking, LinkOption.NOFOLLOW_LINKS)) {
      return;
    }
    try (Stream<Path> files = Files.list(taking)) {
      for (Path file : files.filter(Inbox::plain).sorted().toList()) {
        move(file, "..");
      }
    } catch (IOException e) {
      LOG.warn("The folder {} cannot be read", taking, e);
    }
  }

  private boolean atRest(Path file) throws IOException {
    return Files.getLastModifiedTime(file).toInstant().isBefore(clock.instant().minus(AT_REST));
  }

  private void take(UUID owner, UUID reference, Path file) throws IOException {
    // In hand first: another server process that watches the same folder finds it gone.
    Path taking = move(file, TAKING);
    if (taking == null) {
      return;
    }
    try (InputStream in = Files.newInputStream(taking, LinkOption.NOFOLLOW_LINKS)) {
      // What is still being written comes short of, or beyond, what it was at first.
      long expected = Files.size(taking);
      UUID run = run(owner, reference);
      recordings.take(owner, run, String.valueOf(file.getFileName()), in, expected, null);
    } catch (Problem | IOException e) {
      LOG.warn("{} was not taken: {}", taking, e.getMessage());
      Path refused = move(taking, "../refused");
      if (refused != null) {
        Files.writeString(
            refused.resolveSibling(refused.getFileName() + ".why.txt"),
            e instanceof AccessDeniedException
                ? "The server may not read this file: let the user that it runs as read it."
                : String.valueOf(e.getMessage()));
      }
      return;
    } catch (RuntimeException e) {
      // No fault of the file's: it is tried again.
      move(taking, "..");
      throw e;
    }
    // Put away last: what breaks off before is taken again, and known again by its content.
    move(taking, "../taken");
  }

  private UUID run(UUID owner, UUID reference) {
    List<RunRow> all = runs.newest(reference);
    Instant recent = clock.instant().minus(SAME_DAY);
    return !all.isEmpty() && all.get(0).drivenAt().isAfter(recent)
        ? all.get(0).id()
        : runs.start(owner, reference, "", null, null).id();
  }

  private static @Nullable Path move(Path file, String to) throws IOException {
    Path folder = file.resolveSibling(to).normalize();
    Files.createDirectories(folder);
    String name = String.valueOf(file.getFileName());
    Path target = folder.resolve(name);
    for (int i = 1; Files.exists(target); i++) {
      target = folder.resolve(i + "-" + name);
    }
    try {
      return Files.move(file, target, StandardCopyOption.ATOMIC_MOVE);
    } catch (NoSuchFileException e) {
      return null;
    }
  }
}
