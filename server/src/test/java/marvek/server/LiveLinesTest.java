package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.sql.Timestamp;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.test.context.TestPropertySource;

/** Lines that a device sends while it is driven, and how they end. */
@ServerTest
@TestPropertySource(properties = "marvek.live.sweep=200")
class LiveLinesTest {
  @Autowired private People people;
  @Autowired private JdbcTemplate jdbc;
  private Made made;
  private String lines;

  @BeforeEach
  void aRecordingToSend() {
    made = Made.reference(people);
    String sent =
        made.person()
            .post(
                "/api/references/{id}/logger",
                Map.of("laps", 2, "habits", List.of(), "live", true, "speedUp", 200, "seed", 3),
                made.reference())
            .body()
            .path("made")
            .asText();
    settled(sent, "DONE");
    lines = made.person().get("/api/recordings/{id}/file", sent).text();
  }

  private JsonNode recording(String id) {
    JsonNode all = made.person().get("/api/references/{id}/runs", made.reference()).body();
    for (JsonNode run : all.path("runs")) {
      for (JsonNode r : run.path("recordings")) {
        if (r.path("id").asText().equals(id)) {
          return r;
        }
      }
    }
    throw new AssertionError("no recording " + id);
  }

  private void settled(String id, String state) {
    await()
        .atMost(Duration.ofSeconds(60))
        .pollInterval(Duration.ofMillis(100))
        .until(() -> recording(id).path("state").asText().equals(state));
  }

  private JsonNode listen() {
    return made.person()
        .post("/api/references/{id}/live", Map.of("name", "By radio"), made.reference())
        .body();
  }

  private static void send(JsonNode live, String text) throws IOException {
    try (Socket socket = new Socket(InetAddress.getLoopbackAddress(), live.path("port").asInt())) {
      socket
          .getOutputStream()
          .write(
              ("MARVEK " + live.path("token").asText() + "\r\n" + text)
                  .getBytes(StandardCharsets.US_ASCII));
    }
  }

  /** What a process leaves behind that was killed with a line open. */
  private void leftOpen(String id, String text, Instant heard) throws IOException {
    ByteArrayOutputStream body = new ByteArrayOutputStream();
    try (GZIPOutputStream zip = new GZIPOutputStream(body)) {
      zip.write(text.getBytes(StandardCharsets.US_ASCII));
    }
    jdbc.update(
        "insert into recording_part (recording_id, number, owner_id, body)"
            + " select id, 0, owner_id, ? from recording where id = ?",
        body.toByteArray(),
        UUID.fromString(id));
    jdbc.update(
        "update recording set heard_at = ? where id = ?",
        Timestamp.from(heard),
        UUID.fromString(id));
  }

  @Test
  void aLineThatIsCutInTheMiddleOfALapKeepsWhatCame() throws IOException {
    JsonNode live = listen();
    send(live, lines.substring(0, (int) (0.6 * lines.length())));
    String id = live.path("recording").asText();
    settled(id, "DONE");
    String kept = made.person().get("/api/recordings/{id}/file", id).text();
    assertThat(lines).startsWith(kept.substring(0, kept.lastIndexOf('$')));
    assertThat(recording(id).path("report").toString()).contains("1 lap");
  }

  @Test
  void linesThatAreNoSentencesAreCountedAndDoNoHarm() throws IOException {
    JsonNode live = listen();
    send(live, "GET / HTTP/1.1\r\n\r\n" + "x".repeat(5000) + "\r\n$GPRMC,nonsense*00\r\n" + lines);
    String id = live.path("recording").asText();
    settled(id, "DONE");
    assertThat(recording(id).path("report").toString())
        .contains("wrong checksum")
        .contains("1 line that says nothing of place or pedals")
        .contains("2 laps");
  }

  @Test
  void whatAKilledProcessLeftOpenIsEndedAndReadOnce() throws IOException {
    String cut = listen().path("recording").asText();
    String waits = listen().path("recording").asText();
    String open = listen().path("recording").asText();
    leftOpen(open, lines, Instant.now());
    leftOpen(cut, lines, Instant.now().minusSeconds(600));
    settled(cut, "DONE");
    assertThat(recording(cut).path("report").toString()).contains("2 laps");
    // One that has not begun, and one that still brings something, are left alone.
    assertThat(recording(waits).path("state").asText()).isEqualTo("LIVE");
    assertThat(recording(open).path("state").asText()).isEqualTo("LIVE");
    Integer laps =
        jdbc.queryForObject(
            "select count(*) from driven_lap where recording_id = ? and number > 0",
            Integer.class,
            UUID.fromString(cut));
    assertThat(laps).isEqualTo(2);
  }

  @Test
  void aSlowLineIsHeardFromItsFirstSentenceOn() throws IOException {
    JsonNode live = listen();
    String id = live.path("recording").asText();
    try (Socket socket = new Socket(InetAddress.getLoopbackAddress(), live.path("port").asInt())) {
      String first = lines.substring(0, lines.indexOf('\n') + 1);
      socket
          .getOutputStream()
          .write(
              ("MARVEK " + live.path("token").asText() + "\r\n" + first)
                  .getBytes(StandardCharsets.US_ASCII));
      await()
          .atMost(Duration.ofSeconds(20))
          .until(
              () ->
                  Integer.valueOf(1)
                      .equals(
                          jdbc.queryForObject(
                              "select count(*) from recording where id = ? and heard_at is not null",
                              Integer.class,
                              UUID.fromString(id))));
      assertThat(recording(id).path("state").asText()).isEqualTo("LIVE");
      assertThat(made.person().get("/api/recordings/{id}/file", id).text()).isEqualTo(first);
    }
  }

  @Test
  void aTokenOpensOneRecordingOnly() throws IOException {
    JsonNode live = listen();
    send(live, lines);
    String id = live.path("recording").asText();
    settled(id, "DONE");
    try (Socket again = new Socket(InetAddress.getLoopbackAddress(), live.path("port").asInt())) {
      // No more than the first line, or the refusal could reach a writer instead of a reader.
      again
          .getOutputStream()
          .write(
              ("MARVEK " + live.path("token").asText() + "\r\n")
                  .getBytes(StandardCharsets.US_ASCII));
      assertThat(new String(again.getInputStream().readAllBytes(), StandardCharsets.US_ASCII))
          .isEqualTo("unknown token\r\n");
    }
    settled(id, "DONE");
    assertThat(made.person().get("/api/recordings/{id}/file", id).text()).isEqualTo(lines);
  }

  @Test
  void strangersThatSayNothingTakeNobodysLineAndATokenHasOneLineAtATime() throws IOException {
    JsonNode live = listen();
    int port = live.path("port").asInt();
    byte[] hello =
        ("MARVEK " + live.path("token").asText() + "\r\n").getBytes(StandardCharsets.US_ASCII);
    List<Socket> silent = new ArrayList<>();
    try {
      for (int k = 0; k < 12; k++) {
        silent.add(new Socket(InetAddress.getLoopbackAddress(), port));
      }
      // One that never ends its line is let go, and holds no more than a line.
      Socket endless = new Socket(InetAddress.getLoopbackAddress(), port);
      silent.add(endless);
      endless.getOutputStream().write("x".repeat(100_000).getBytes(StandardCharsets.US_ASCII));
      try (Socket mine = new Socket(InetAddress.getLoopbackAddress(), port)) {
        mine.getOutputStream().write(hello);
        mine.getOutputStream().write(lines.getBytes(StandardCharsets.US_ASCII));
        mine.getOutputStream().flush();
        String id = live.path("recording").asText();
        await()
            .atMost(Duration.ofSeconds(20))
            .until(() -> !made.person().get("/api/recordings/{id}/file", id).text().isEmpty());
        try (Socket again = new Socket(InetAddress.getLoopbackAddress(), port)) {
          again.getOutputStream().write(hello);
          assertThat(new String(again.getInputStream().readAllBytes(), StandardCharsets.US_ASCII))
              .isEqualTo("this token has a line already\r\n");
        }
      }
      String id = live.path("recording").asText();
      settled(id, "DONE");
      assertThat(made.person().get("/api/recordings/{id}/file", id).text()).isEqualTo(lines);
    } finally {
      for (Socket s : silent) {
        s.close();
      }
    }
  }
}
