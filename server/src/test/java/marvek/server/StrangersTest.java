package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.context.ActiveProfiles;

/** Strangers on real connections, at a server whose deadlines are short. */
@SpringBootTest(
    webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT,
    properties = {
      "marvek.guard.head=1500ms",
      "marvek.guard.grace=1500ms",
      "marvek.guard.bodies=20",
      "marvek.guard.connections=40",
      "marvek.guard.proxies=127.0.0.7",
      "marvek.people.sign-up=OPEN",
      "server.tomcat.connection-timeout=3s",
    })
@ActiveProfiles("test")
@Tag("slow")
class StrangersTest {
  @LocalServerPort private int port;

  private final List<Socket> open = new ArrayList<>();

  @AfterEach
  void close() throws IOException {
    for (Socket s : open) {
      s.close();
    }
  }

  private Socket from(String address) throws IOException {
    Socket socket = new Socket();
    socket.bind(new InetSocketAddress(InetAddress.getByName(address), 0));
    socket.connect(new InetSocketAddress("127.0.0.1", port), 5000);
    socket.setSoTimeout(8000);
    open.add(socket);
    return socket;
  }

  private static void say(Socket socket, String text) throws IOException {
    socket.getOutputStream().write(text.getBytes(StandardCharsets.US_ASCII));
    socket.getOutputStream().flush();
  }

  private static String head(String method, String path, String more) {
    return method + " " + path + " HTTP/1.1\r\nHost: x\r\n" + more;
  }

  /** What comes until the other side ends it. */
  private static String heard(Socket socket) throws IOException {
    InputStream in = socket.getInputStream();
    StringBuilder text = new StringBuilder();
    try {
      for (int b = in.read(); b >= 0; b = in.read()) {
        text.append((char) b);
      }
    } catch (java.net.SocketException e) {
      return text.toString();
    }
    return text.toString();
  }

  private double readersWorst(int asks) throws Exception {
    HttpClient reader = HttpClient.newHttpClient();
    double worst = 0;
    for (int i = 0; i < asks; i++) {
      long began = System.nanoTime();
      HttpResponse<String> answer =
          reader.send(
              HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/api/session"))
                  .timeout(Duration.ofSeconds(5))
                  .build(),
              HttpResponse.BodyHandlers.ofString());
      assertThat(answer.statusCode()).isEqualTo(200);
      worst = Math.max(worst, (System.nanoTime() - began) / 1e9);
    }
    return worst;
  }

  /** That many requests begun from four addresses, their bodies still to come. */
  private List<Socket> begun(int count) throws IOException {
    List<Socket> sockets = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      Socket s = from("127.0.0." + (2 + i % 4));
      sockets.add(s);
      say(
          s,
          head(
              "POST",
              "/api/session",
              "Content-Type: application/json\r\nContent-Length: 5000\r\n\r\n{"));
    }
    return sockets;
  }

  @Test
  void bodiesThatDripDoNotStopThoseWhoRead() throws Exception {
    readersWorst(5);
    // A first wave, gone at once: what is measured is the guard, not code that runs first here.
    for (Socket s : begun(220)) {
      s.close();
    }
    readersWorst(5);
    List<Socket> dripping = begun(220);
    Thread drip =
        new Thread(
            () -> {
              for (int n = 0; n < 20; n++) {
                for (Socket s : dripping) {
                  try {
                    say(s, " ");
                  } catch (IOException e) {
                    // Broken off by the server, as it should.
                  }
                }
                try {
                  Thread.sleep(200);
                } catch (InterruptedException e) {
                  return;
                }
              }
            });
    drip.start();
    assertThat(readersWorst(60)).isLessThan(1.0);
    drip.join();
    // Beyond what one address may have on its way it is told so; what drips is broken off.
    int refused = 0;
    for (Socket s : dripping) {
      refused += heard(s).contains("503") ? 1 : 0;
    }
    assertThat(refused).isGreaterThan(100);
  }

  @Test
  void aHeadThatDripsIsBrokenOff() throws Exception {
    Socket s = from("127.0.0.2");
    say(s, head("GET", "/api/session", "X-A: "));
    long began = System.nanoTime();
    boolean broken = false;
    while (!broken && System.nanoTime() - began < 10e9) {
      try {
        say(s, "a");
        Thread.sleep(100);
      } catch (IOException e) {
        broken = true;
      }
    }
    assertThat(broken).isTrue();
    assertThat((System.nanoTime() - began) / 1e9).isBetween(1.0, 4.0);
  }

  @Test
  void aConnectionThatIsKeptMayAskAgainLater() throws Exception {
    Socket s = from("127.0.0.2");
    for (int i = 0; i < 3; i++) {
      say(s, head("GET", "/livez", "\r\n"));
      StringBuilder answer = new StringBuilder();
      while (answer.indexOf("UP") < 0) {
        int b = s.getInputStream().read();
        assertThat(b).as("after %s", answer).isNotNegative();
        answer.append((char) b);
      }
      Thread.sleep(100);
      s.getInputStream().skip(s.getInputStream().available());
      assertThat(answer).contains("HTTP/1.1 200");
      Thread.sleep(1700);
    }
  }

  @Test
  void connectionsOfOneAddressAreCountedAndOthersPass() throws Exception {
    // 127.0.0.x is loopback, which may have eight times as many.
    List<Socket> all = new ArrayList<>();
    for (int i = 0; i < 40 * 8; i++) {
      all.add(from("127.0.0.3"));
    }
    Thread.sleep(300);
    Socket one = from("127.0.0.3");
    assertThat(heard(one)).isEmpty();
    assertThat(readersWorst(5)).isLessThan(1.0);
    assertThat(all).hasSize(320);
  }

  @Test
  void onlyTheNamedProxySaysWhereARequestComesFromAndThatItWasEncrypted() throws Exception {
    String forwarded =
        "X-Forwarded-For: 203.0.113.9\r\nX-Forwarded-Proto: https\r\nConnection: close\r\n\r\n";
    Socket proxy = from("127.0.0.7");
    say(proxy, head("GET", "/api/session", forwarded));
    String told = heard(proxy);
    assertThat(told).contains("Strict-Transport-Security");
    assertThat(told.lines().filter(l -> l.startsWith("Set-Cookie"))).isNotEmpty();
    assertThat(told.lines().filter(l -> l.startsWith("Set-Cookie")))
        .allMatch(l -> l.contains("Secure"));
    Socket other = from("127.0.0.8");
    say(other, head("GET", "/api/session", forwarded));
    assertThat(heard(other)).doesNotContain("Strict-Transport-Security").doesNotContain("Secure;");
  }
}
