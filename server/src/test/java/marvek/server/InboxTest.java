package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.context.TestPropertySource;

/**
 * Files put into the watched folder come in by themselves; recordings can be cancelled and ended.
 */
@ServerTest
@TestPropertySource(properties = "marvek.inbox=target/inbox")
class InboxTest {
  @Autowired private People people;

  private static JsonNode runs(Made made) {
    return made.person().get("/api/references/{id}/runs", made.reference()).body();
  }

  private static String state(Made made, String recording) {
    for (JsonNode run : runs(made).path("runs")) {
      for (JsonNode r : run.path("recordings")) {
        if (r.path("id").asText().equals(recording)) {
          return r.path("state").asText();
        }
      }
    }
    return "none";
  }

  private static String driven(Made made) {
    String id =
        made.person()
            .post(
                "/api/references/{id}/logger",
                Map.of("laps", 2, "habits", List.of(), "live", false, "seed", 3),
                made.reference())
            .body()
            .path("made")
            .asText();
    await().atMost(Duration.ofSeconds(60)).until(() -> state(made, id).equals("DONE"));
    return made.person().get("/api/recordings/{id}/file", id).text();
  }

  /** A file that was written a while ago: one still growing is left alone. */
  private static void put(Path folder, String name, String text) throws IOException {
    Path file = folder.resolve(name);
    Files.writeString(file, text, StandardCharsets.UTF_8);
    Files.setLastModifiedTime(file, FileTime.from(Instant.now().minusSeconds(60)));
  }

  @Test
  void aFileInTheFolderBecomesLapsAndIsMovedAway() throws IOException {
    Made made = Made.reference(people);
    // One empty line more, so that it is not the same file as the logger's own.
    String text = driven(made) + "\r\n";
    Path folder = Path.of(runs(made).path("inbox").asText());
    assertThat(folder).isDirectory();
    put(folder, "session.csv", text);
    put(folder, "nothing.csv", "");
    await()
        .atMost(Duration.ofSeconds(60))
        .until(
            () -> {
              for (JsonNode run : runs(made).path("runs")) {
                for (JsonNode r : run.path("recordings")) {
                  if (r.path("name").asText().equals("session.csv")
                      && r.path("state").asText().equals("DONE")) {
                    return true;
                  }
                }
              }
              return false;
            });
    assertThat(folder.resolve("taken/session.csv")).exists();
    await()
        .atMost(Duration.ofSeconds(20))
        .until(() -> Files.exists(folder.resolve("refused/nothing.csv.why.txt")));
    assertThat(folder.resolve("refused/nothing.csv.why.txt")).content().contains("empty");
    assertThat(folder.resolve("session.csv")).doesNotExist();
    assertThat(runs(made).path("runs")).hasSize(1);
  }

  @Test
  void whatAServerHadInHandWhenItEndedIsTakenAndALinkIsNotFollowed() throws IOException {
    String text = driven(Made.reference(people)) + "\r\n\r\n";
    Made made = Made.reference(people);
    Path inbox = Path.of("target/inbox");
    Path folder = inbox.resolve(made.reference());
    Path ready = Files.createTempDirectory(Path.of("target"), "left");
    Files.createDirectories(ready.resolve("taking"));
    put(ready.resolve("taking"), "left.csv", text);
    Files.createDirectories(inbox);
    put(inbox, "elsewhere.txt", text);
    Path elsewhere = inbox.resolve("elsewhere.txt");
    Files.createSymbolicLink(ready.resolve("link.csv"), elsewhere.toAbsolutePath());
    Files.move(ready, folder);
    await()
        .atMost(Duration.ofSeconds(60))
        .until(() -> Files.exists(folder.resolve("taken/left.csv")));
    await()
        .pollDelay(Duration.ofSeconds(4))
        .until(() -> Files.isSymbolicLink(folder.resolve("link.csv")));
    assertThat(runs(made).path("runs").path(0).path("recordings").findValuesAsText("name"))
        .contains("left.csv")
        .doesNotContain("link.csv");
    assertThat(elsewhere).exists();
  }

  @Test
  void aViewerIsNotToldOfTheFolder() {
    Made made = Made.reference(people);
    People.Person viewer = people.newcomer();
    String email = viewer.get("/api/session").body().path("person").path("email").asText();
    made.person()
        .put(
            "/api/references/{id}/shares",
            Map.of("email", email, "role", "VIEWER"),
            made.reference());
    JsonNode seen = viewer.get("/api/references/{id}/runs", made.reference()).body();
    assertThat(seen.path("inbox").isNull()).isTrue();
    assertThat(seen.path("role").asText()).isEqualTo("VIEWER");
  }

  @Test
  void aLineThatNeverCameIsEndedByTheDriver() throws IOException {
    Made made = Made.reference(people);
    JsonNode live =
        made.person()
            .post("/api/references/{id}/live", Map.of("name", "Alone"), made.reference())
            .body();
    String id = live.path("recording").asText();
    assertThat(live.path("port").asInt()).isPositive();
    assertThat(state(made, id)).isEqualTo("LIVE");
    // A wrong token is told so and opens nothing.
    try (var socket =
            new java.net.Socket(
                java.net.InetAddress.getLoopbackAddress(), live.path("port").asInt());
        var in =
            new java.io.BufferedReader(
                new java.io.InputStreamReader(
                    socket.getInputStream(), StandardCharsets.US_ASCII))) {
      socket.getOutputStream().write("MARVEK nobody\r\n".getBytes(StandardCharsets.US_ASCII));
      assertThat(in.readLine()).isEqualTo("unknown token");
    }
    assertThat(made.person().post("/api/recordings/{id}/again", Map.of(), id).status())
        .isEqualTo(204);
    assertThat(state(made, id)).isEqualTo("FAILED");
    assertThat(made.person().delete("/api/recordings/{id}", id).status()).isEqualTo(204);
    assertThat(state(made, id)).isEqualTo("none");
  }

  @Test
  void whatWaitsForAnAnswerCanBeCancelled() {
    Made made = Made.reference(people);
    String run =
        made.person()
            .post("/api/references/{id}/runs", Map.of("day", "WET"), made.reference())
            .body()
            .path("id")
            .asText();
    StringBuilder odd = new StringBuilder("aa,bb\n");
    for (int i = 0; i < 50; i++) {
      odd.append(i).append(",1\n");
    }
    String id =
        made.person()
            .send(
                "/api/runs/{id}/recordings",
                "odd.csv",
                odd.toString().getBytes(StandardCharsets.UTF_8),
                run)
            .body()
            .path("id")
            .asText();
    assertThat(state(made, id)).isEqualTo("ASKS");
    made.person().post("/api/recordings/{id}/cancel", Map.of(), id);
    assertThat(state(made, id)).isEqualTo("CANCELLED");
    assertThat(runs(made).path("runs").path(0).path("day").asText()).isEqualTo("WET");
    assertThat(made.person().delete("/api/runs/{id}", run).status()).isEqualTo(204);
    assertThat(runs(made).path("runs")).isEmpty();
  }
}
