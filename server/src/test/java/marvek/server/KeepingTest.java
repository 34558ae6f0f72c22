package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import marvek.server.keeping.Basket;
import marvek.server.keeping.Leaving;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.MediaType;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.test.context.TestPropertySource;
import org.springframework.transaction.support.TransactionTemplate;

/** What an account keeps: the basket, taking all along, how much it may, and leaving. */
@ServerTest
@TestPropertySource(properties = {"marvek.keeping.runs-a-day=12", "marvek.keeping.space=20MB"})
class KeepingTest {
  @Autowired private People people;
  @Autowired private Basket basket;
  @Autowired private Leaving leaving;
  @Autowired private JdbcClient sql;
  @Autowired private TransactionTemplate transaction;

  private static Map<String, Object> thing(String sort, String id) {
    return Map.of("sort", sort, "id", id);
  }

  private static String id(People.Person person) {
    return person.get("/api/session").body().path("person").path("id").asText();
  }

  private long rows(String table, String owner) {
    return sql.sql("select count(*) from " + table + " where owner_id = :o::uuid")
        .param("o", owner)
        .query(Long.class)
        .single();
  }

  @Test
  void whatIsPutAwayIsOutOfSightAndComesBackWithWhatItStandsOn() {
    Made made = Made.reference(people);
    People.Person me = made.person();
    String run =
        me.post("/api/references/{id}/runs", Map.of("name", "Morning"), made.reference())
            .body()
            .path("id")
            .asText();
    // What a reference stands on stays while it is there.
    var refused = me.post("/api/account/basket", thing("LAYOUT", made.layout()));
    assertThat(refused.status()).isEqualTo(409);
    assertThat(refused.text()).contains("A reference stands on this layout");
    assertThat(me.post("/api/account/basket", thing("VEHICLE", made.vehicle())).status())
        .isEqualTo(409);

    assertThat(me.post("/api/account/basket", thing("REFERENCE", made.reference())).status())
        .isEqualTo(200);
    assertThat(me.get("/api/references/{id}", made.reference()).status()).isEqualTo(404);
    assertThat(me.get("/api/references").body()).isEmpty();
    assertThat(me.get("/api/runs/{id}/laps.csv", run).status()).isEqualTo(404);
    assertThat(me.post("/api/account/basket", thing("LAYOUT", made.layout())).status())
        .isEqualTo(200);
    assertThat(me.post("/api/account/basket", thing("VEHICLE", made.vehicle())).status())
        .isEqualTo(200);
    assertThat(me.get("/api/layouts").body()).isEmpty();
    assertThat(me.get("/api/layouts/{id}", made.layout()).status()).isEqualTo(404);
    assertThat(me.get("/api/vehicles/{id}", made.vehicle()).status()).isEqualTo(404);
    assertThat(me.get("/api/account/basket").body()).hasSize(3);

    // Nobody else can touch it.
    People.Person other = people.newcomer();
    assertThat(other.get("/api/account/basket").body()).isEmpty();
    assertThat(
            other.post("/api/account/basket/back", thing("REFERENCE", made.reference())).status())
        .isEqualTo(404);

    assertThat(me.post("/api/account/basket/back", thing("REFERENCE", made.reference())).body())
        .isEmpty();
    assertThat(me.get("/api/references/{id}", made.reference()).status()).isEqualTo(200);
    assertThat(me.get("/api/runs/{id}/laps.csv", run).status()).isEqualTo(200);

    assertThat(me.delete("/api/runs/" + run).status()).isEqualTo(204);
    assertThat(me.get("/api/runs/{id}/laps.csv", run).status()).isEqualTo(404);
    assertThat(me.post("/api/account/basket/back", thing("RUN", run)).status()).isEqualTo(200);
    assertThat(me.get("/api/runs/{id}/laps.csv", run).status()).isEqualTo(200);
  }

  @Test
  void whatWasPutAwayIsDeletedAfterThirtyDaysOrWhenTheBasketIsEmptied() {
    Made made = Made.reference(people);
    String owner = id(made.person());
    made.person().post("/api/references/{id}/runs", Map.of("name", "Morning"), made.reference());
    for (String sort : List.of("REFERENCE", "LAYOUT", "VEHICLE")) {
      String id =
          switch (sort) {
            case "REFERENCE" -> made.reference();
            case "LAYOUT" -> made.layout();
            default -> made.vehicle();
          };
      assertThat(made.person().post("/api/account/basket", thing(sort, id)).status())
          .isEqualTo(200);
    }
    sql.sql("update layout_version set removed_at = now() - interval '40 days' where id = :i::uuid")
        .param("i", made.layout())
        .update();
    basket.clear();
    // The reference is not due yet and stands on the layout.
    assertThat(rows("layout_version", owner)).isOne();
    sql.sql("update reference set removed_at = now() - interval '31 days' where id = :i::uuid")
        .param("i", made.reference())
        .update();
    sql.sql("update circuit set created_at = now() - interval '60 days' where owner_id = :o::uuid")
        .param("o", owner)
        .update();
    basket.clear();
    assertThat(rows("reference", owner)).isZero();
    assertThat(rows("run", owner)).isZero();
    assertThat(rows("layout_version", owner)).isZero();
    assertThat(rows("circuit", owner)).isZero();
    assertThat(rows("vehicle", owner)).isOne();
    assertThat(made.person().delete("/api/account/basket").body()).isEmpty();
    assertThat(rows("vehicle", owner)).isZero();
  }

  @Test
  void aPictureThatNoThingHasGoesIntoTheBasket() throws Exception {
    Made made = Made.reference(people);
    java.io.ByteArrayOutputStream png = new java.io.ByteArrayOutputStream();
    javax.imageio.ImageIO.write(
        new java.awt.image.BufferedImage(40, 30, java.awt.image.BufferedImage.TYPE_INT_RGB),
        "png",
        png);
    String id = UUID.randomUUID().toString();
    assertThat(
            made.person()
                .replace("/api/layouts/" + made.layout() + "/photos/" + id, png.toByteArray())
                .status())
        .isLessThan(300);
    basket.clear();
    assertThat(made.person().get("/api/photos/{id}", id).status()).isEqualTo(200);
    sql.sql("update photo set created_at = now() - interval '2 days' where id = :i::uuid")
        .param("i", id)
        .update();
    basket.clear();
    assertThat(made.person().get("/api/photos/{id}", id).status()).isEqualTo(404);
    assertThat(made.person().get("/api/account/basket").body().path(0).path("sort").asText())
        .isEqualTo("PHOTO");
    made.person().post("/api/account/basket/back", thing("PHOTO", id));
    assertThat(made.person().get("/api/photos/{id}", id).status()).isEqualTo(200);
  }

  @Test
  void aLayoutMadeAfterOneWasPutAwayHasANumberOfItsOwn() {
    Made made = Made.reference(people);
    People.Person me = made.person();
    me.post("/api/account/basket", thing("REFERENCE", made.reference()));
    me.post("/api/account/basket", thing("LAYOUT", made.layout()));
    assertThat(Made.layout(me)).isNotEqualTo(made.layout());
    assertThat(me.post("/api/account/basket/back", thing("LAYOUT", made.layout())).status())
        .isEqualTo(200);
    assertThat(me.get("/api/layouts").body()).hasSize(2);
  }

  @Test
  void whatIsAllowedIsShownAndKept() {
    Made made = Made.reference(people);
    People.Person me = made.person();
    JsonNode used = me.get("/api/account/used").body();
    assertThat(used.path("bytesAllowed").asLong()).isEqualTo(20L << 20);
    long before = used.path("bytes").asLong();
    assertThat(before).isPositive();
    for (int i = 0; i < 12; i++) {
      assertThat(
              me.post("/api/references/{id}/runs", Map.of("name", ""), made.reference()).status())
          .isEqualTo(201);
    }
    var another = me.post("/api/references/{id}/runs", Map.of("name", ""), made.reference());
    assertThat(another.status()).isEqualTo(507);
    assertThat(another.body().path("remedy").asText()).isNotBlank();
    String run =
        me.get("/api/references/{id}/runs", made.reference())
            .body()
            .path("runs")
            .path(0)
            .path("id")
            .asText();
    var big = me.send("/api/runs/{id}/recordings", "a.csv", new byte[20 << 20], run);
    assertThat(big.status()).isEqualTo(507);
    assertThat(big.text()).contains("MB");
    assertThat(me.get("/api/account/used").body().path("bytes").asLong()).isEqualTo(before);
    assertThat(me.get("/api/account/used").body().path("runs").asInt()).isEqualTo(12);
  }

  @Test
  void everythingCanBeTakenAlong() throws Exception {
    Made made = Made.reference(people);
    byte[] answer =
        made.person()
            .get("/api/account/everything.zip")
            .result()
            .getResponse()
            .getContentAsByteArray();
    Map<String, byte[]> files = new LinkedHashMap<>();
    try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(answer))) {
      for (ZipEntry e = zip.getNextEntry(); e != null; e = zip.getNextEntry()) {
        files.put(e.getName(), zip.readAllBytes());
      }
    }
    String references = new String(files.get("tables/reference.jsonl"), StandardCharsets.UTF_8);
    assertThat(references).contains(made.reference()).contains("\"corners\"");
    assertThat(new String(files.get("tables/account.jsonl"), StandardCharsets.UTF_8))
        .doesNotContain("password")
        .contains("@example.org");
    assertThat(files.keySet()).anyMatch(n -> n.startsWith("outlines/" + made.layout()));
    assertThat(new String(files.get("tables/vehicle.jsonl"), StandardCharsets.UTF_8))
        .contains(made.vehicle());
  }

  @Test
  void aSecondFileOfAllIsNotBegunWhileTheFirstIsWritten() throws Exception {
    People.Person me = people.newcomer();
    String all = "/api/account/everything.zip";
    CompletableFuture<Integer> first = new CompletableFuture<>();
    transaction.executeWithoutResult(
        t -> {
          sql.sql("lock table mapping_memory in access exclusive mode").update();
          first.completeAsync(() -> me.get(all).status());
          await().until(() -> waiting() > 0);
          var second = me.get(all);
          assertThat(second.status()).isEqualTo(429);
          assertThat(second.text()).contains("Wait until that one has come");
        });
    assertThat(first.get()).isEqualTo(200);
    assertThat(me.get(all).status()).isEqualTo(200);
  }

  private long waiting() {
    return sql.sql(
            "select count(*) from pg_locks where not granted"
                + " and relation = 'mapping_memory'::regclass")
        .query(Long.class)
        .single();
  }

  @Test
  void anAccountGoesADayAfterItsOwnerAskedAndLeavesOthersTheirs() {
    Made made = Made.reference(people);
    People.Person me = made.person();
    String owner = id(me);
    People.Person coach = people.newcomer();
    String email = coach.get("/api/session").body().path("person").path("email").asText();
    me.put(
        "/api/references/" + made.reference() + "/shares", Map.of("email", email, "role", "COACH"));
    String corner =
        me.get("/api/references/{id}", made.reference())
            .body()
            .path("corners")
            .path(0)
            .path("id")
            .asText();
    assertThat(
            coach
                .post(
                    "/api/references/{id}/remarks",
                    Map.of("corner", corner, "text", "later"),
                    made.reference())
                .status())
        .isEqualTo(201);

    // The coach leaves: the remark stays with the reference, without a name.
    assertThat(coach.post("/api/account/leave", Map.of("password", "wrong")).status())
        .isEqualTo(422);
    assertThat(coach.post("/api/account/leave", Map.of("password", People.PASSWORD)).status())
        .isEqualTo(200);
    leaving.until(Instant.now().plusSeconds(3600));
    assertThat(coach.get("/api/paddock").status()).isEqualTo(200);
    leaving.until(Instant.now().plusSeconds(25 * 3600));
    assertThat(coach.get("/api/paddock").status()).isEqualTo(401);
    JsonNode remarks = me.get("/api/references/{id}/remarks", made.reference()).body();
    assertThat(remarks).hasSize(1);
    assertThat(remarks.path(0).path("author").asText()).isEqualTo("somebody who left");

    // The owner asks, keeps it after all, and asks again.
    me.post("/api/account/leave", Map.of("password", People.PASSWORD));
    assertThat(me.get("/api/session").body().path("person").path("leavesAt").asText()).isNotBlank();
    assertThat(me.delete("/api/account/leave").status()).isEqualTo(204);
    leaving.until(Instant.now().plusSeconds(25 * 3600));
    assertThat(me.get("/api/references/{id}", made.reference()).status()).isEqualTo(200);
    me.post("/api/account/leave", Map.of("password", People.PASSWORD));
    leaving.until(Instant.now().plusSeconds(25 * 3600));
    assertThat(me.get("/api/paddock").status()).isEqualTo(401);
    for (String table : List.of("reference", "layout_version", "vehicle", "circuit", "share")) {
      assertThat(rows(table, owner)).as(table).isZero();
    }
    assertThat(
            sql.sql("select count(*) from account where id = :o::uuid")
                .param("o", owner)
                .query(Long.class)
                .single())
        .isZero();
  }

  @Test
  void aPasswordIsChangedAndEndsTheOtherSessions() {
    String email = UUID.randomUUID() + "@example.org";
    People.Person here = people.newcomer(email);
    People.Person there = people.again(email, People.PASSWORD);
    assertThat(
            here.put(
                    "/api/account/password",
                    Map.of("before", "wrong", "password", "tyre wall lemonade"))
                .status())
        .isEqualTo(422);
    assertThat(there.get("/api/paddock").status()).isEqualTo(200);
    assertThat(
            here.put(
                    "/api/account/password",
                    Map.of("before", People.PASSWORD, "password", "tyre wall lemonade"))
                .status())
        .isEqualTo(204);
    assertThat(here.get("/api/paddock").status()).isEqualTo(200);
    assertThat(there.get("/api/paddock").status()).isEqualTo(401);
    People.Person anew = people.again(email, "tyre wall lemonade");
    assertThat(here.delete("/api/account/sessions").status()).isEqualTo(204);
    assertThat(anew.get("/api/paddock").status()).isEqualTo(401);
    assertThat(here.get("/api/paddock").status()).isEqualTo(200);
  }

  @Test
  void aLinkOfTheOperatorSetsAPasswordOnce() {
    String email = UUID.randomUUID() + "@example.org";
    People.Person me = people.newcomer(email);
    String token = UUID.randomUUID().toString();
    // As the launcher writes it.
    sql.sql(
            """
            insert into one_time_link (id, purpose, digest, owner_id, expires_at)
            select gen_random_uuid(), 'PASSWORD', encode(sha256(convert_to(:t, 'UTF8')), 'hex'),
              id, now() + interval '1 day' from account where email = :e
            """)
        .param("t", token)
        .param("e", email)
        .update();
    String body = "{\"link\":\"%s\",\"password\":\"%s\"}".formatted(token, "tyre wall lemonade");
    var set =
        people.anonymously(
            post("/api/session/password").contentType(MediaType.APPLICATION_JSON).content(body));
    assertThat(set.status()).isEqualTo(200);
    assertThat(me.get("/api/paddock").status()).isEqualTo(401);
    people.again(email, "tyre wall lemonade");
    assertThat(
            people
                .anonymously(
                    post("/api/session/password")
                        .contentType(MediaType.APPLICATION_JSON)
                        .content(body))
                .status())
        .isEqualTo(422);
  }
}
