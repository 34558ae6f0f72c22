package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.function.IntFunction;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** The same asked for by several requests at once. */
@ServerTest
class RacesTest {
  private static final int AT_ONCE = 12;

  @Autowired private People people;

  private static List<People.Answer> atOnce(IntFunction<People.Answer> ask) throws Exception {
    ExecutorService threads = Executors.newFixedThreadPool(AT_ONCE);
    CountDownLatch go = new CountDownLatch(1);
    List<Future<People.Answer>> asked = new ArrayList<>();
    for (int i = 0; i < AT_ONCE; i++) {
      int n = i;
      asked.add(
          threads.submit(
              () -> {
                go.await();
                return ask.apply(n);
              }));
    }
    go.countDown();
    List<People.Answer> answers = new ArrayList<>();
    for (Future<People.Answer> f : asked) {
      answers.add(f.get());
    }
    threads.shutdown();
    assertThat(answers).extracting(People.Answer::status).allMatch(s -> s < 500);
    return answers;
  }

  private static long with(List<People.Answer> answers, int status) {
    return answers.stream().filter(a -> a.status() == status).count();
  }

  /** On a busy machine one is told to try again in a few seconds, and does. */
  private static People.Person sooner(Callable<People.Person> in) throws Exception {
    for (int tries = 0; ; tries++) {
      try {
        return in.call();
      } catch (AssertionError e) {
        if (tries == 5 || !String.valueOf(e.getMessage()).contains("503")) {
          throw e;
        }
        Thread.sleep(2000);
      }
    }
  }

  /** More than may guess wrongly from one address; all of them know their passwords. */
  @Test
  void manyPeopleSignInAtOnceBehindOneAddress() throws Exception {
    List<String> emails = new ArrayList<>();
    for (int i = 0; i < 60; i++) {
      String email = UUID.randomUUID() + "@example.org";
      emails.add(email);
      assertThat(people.signUp(email, People.PASSWORD, null).status()).isEqualTo(201);
    }
    ExecutorService threads = Executors.newFixedThreadPool(emails.size());
    List<Future<People.Person>> all = new ArrayList<>();
    for (String email : emails) {
      all.add(threads.submit(() -> sooner(() -> people.again(email, People.PASSWORD))));
    }
    for (Future<People.Person> one : all) {
      assertThat(one.get().get("/api/session").body().path("person").isObject()).isTrue();
    }
    threads.shutdown();
  }

  @Test
  void theSameFileReadTheOtherWayIsAnotherLayout() {
    People.Person me = people.newcomer();
    byte[] file = Made.sample("outline.geojson");
    String one =
        me.upload("/api/layouts", "outline.geojson", file, "circuit", "Both")
            .body()
            .path("id")
            .asText();
    String other =
        me.upload("/api/layouts", "outline.geojson", file, "circuit", "Both", "reverse", "true")
            .body()
            .path("id")
            .asText();
    assertThat(other).isNotBlank().isNotEqualTo(one);
    assertThat(me.get("/api/layouts").body()).hasSize(2);
  }

  @Test
  void equalCircuitsMakeOneLayout() throws Exception {
    People.Person me = people.newcomer();
    List<People.Answer> answers =
        atOnce(
            i ->
                me.upload(
                    "/api/layouts",
                    "outline.geojson",
                    Made.sample("outline.geojson"),
                    "circuit",
                    "Twice"));
    assertThat(answers)
        .extracting(a -> a.body().path("id").asText())
        .containsOnly(answers.get(0).body().path("id").asText());
    assertThat(me.get("/api/layouts").body()).hasSize(1);
  }

  @Test
  void equalRecordingsAreStoredOnce() throws Exception {
    Made made = Made.reference(people);
    String run =
        made.person()
            .post("/api/references/{id}/runs", Map.of("name", ""), made.reference())
            .body()
            .path("id")
            .asText();
    byte[] table = "time,speed\n0,1\n1,2\n2,3\n".getBytes(StandardCharsets.UTF_8);
    List<People.Answer> answers =
        atOnce(i -> made.person().send("/api/runs/{id}/recordings", "same.csv", table, run));
    assertThat(with(answers, 201)).isEqualTo(AT_ONCE);
    assertThat(answers.stream().filter(a -> !a.body().path("known").asBoolean())).hasSize(1);
    assertThat(
            made.person()
                .get("/api/references/{id}/runs", made.reference())
                .body()
                .path("runs")
                .path(0)
                .path("recordings"))
        .hasSize(1);
  }

  @Test
  void oneOfManySavesIsTheRevision() throws Exception {
    Made made = Made.reference(people);
    int version = made.open().path("working").path("version").asInt();
    List<People.Answer> answers =
        atOnce(
            i ->
                made.person()
                    .post(
                        "/api/references/{id}/revisions",
                        Map.of("version", version, "reason", "by " + i),
                        made.reference()));
    assertThat(with(answers, 201)).isOne();
    assertThat(with(answers, 409)).isEqualTo(AT_ONCE - 1);
    assertThat(made.person().get("/api/references/{id}/revisions", made.reference()).body())
        .hasSize(1);
  }

  @Test
  void anAddressIsTakenOnceAndASharedOneIsSharedOnce() throws Exception {
    String email = UUID.randomUUID() + "@example.org";
    List<People.Answer> made = atOnce(i -> people.signUp(email, People.PASSWORD, null));
    assertThat(with(made, 201)).isOne();

    Made mine = Made.reference(people);
    String shares = "/api/references/" + mine.reference() + "/shares";
    atOnce(i -> mine.person().put(shares, Map.of("email", email, "role", "VIEWER")));
    assertThat(mine.person().get(shares).body()).hasSize(1);
  }

  @Test
  void aPictureSentTwiceIsKeptOnceAndAVersionStartedOnce() throws Exception {
    Made made = Made.reference(people);
    ByteArrayOutputStream png = new ByteArrayOutputStream();
    ImageIO.write(new BufferedImage(40, 30, BufferedImage.TYPE_INT_RGB), "png", png);
    String photo = "/api/layouts/" + made.layout() + "/photos/" + UUID.randomUUID();
    List<People.Answer> sent = atOnce(i -> made.person().replace(photo, png.toByteArray()));
    assertThat(sent).extracting(People.Answer::status).allMatch(s -> s < 300 || s == 409);

    List<People.Answer> started =
        atOnce(
            i ->
                made.person()
                    .post(
                        "/api/layouts/{id}/versions",
                        Map.of(
                            "from",
                            "2030-01-01",
                            "reason",
                            "resurfaced",
                            "changes",
                            List.of(),
                            "anew",
                            false),
                        made.layout()));
    assertThat(started.stream().filter(a -> a.status() < 300)).hasSize(1);
    assertThat(made.person().get("/api/layouts").body()).hasSize(2);
  }
}
