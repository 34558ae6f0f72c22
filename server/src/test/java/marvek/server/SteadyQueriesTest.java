package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.util.Map;
import org.hibernate.resource.jdbc.spi.StatementInspector;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.core.io.ClassPathResource;
import org.springframework.test.context.TestPropertySource;

/** What a request asks of the database does not grow with the rows it shows. */
@ServerTest
@TestPropertySource(
    properties =
        "spring.jpa.properties.hibernate.session_factory.statement_inspector="
            + "marvek.server.SteadyQueriesTest$Counted")
class SteadyQueriesTest {
  @Autowired private People people;

  private static final ThreadLocal<long[]> COUNT = ThreadLocal.withInitial(() -> new long[1]);

  /** Counts by thread: a job that reads a recording meanwhile is not the request's. */
  public static final class Counted implements StatementInspector {
    private static final long serialVersionUID = 1L;

    @Override
    public String inspect(String sql) {
      COUNT.get()[0]++;
      return sql;
    }
  }

  private static long queriesFor(Runnable request) {
    COUNT.get()[0] = 0;
    request.run();
    return COUNT.get()[0];
  }

  /** Runs, laps and files of a reference: as many questions for one as for three. */
  @Test
  void theRunsAskTheSameForOneAsForThree() {
    Made made = Made.reference(people);
    String url = "/api/references/" + made.reference();
    made.person().post(url + "/runs", Map.of());
    long one = queriesFor(() -> made.person().get(url + "/runs"));
    long history = queriesFor(() -> made.person().get(url + "/history"));
    for (int i = 0; i < 2; i++) {
      String run = made.person().post(url + "/runs", Map.of()).body().path("id").asText();
      made.person()
          .post("/api/runs/{id}/laps", Map.of("lapTime", 90 + i, "kind", "PUSH", "note", ""), run);
    }
    assertThat(queriesFor(() -> made.person().get(url + "/runs"))).isEqualTo(one);
    assertThat(queriesFor(() -> made.person().get(url + "/history"))).isEqualTo(history);
    assertThat(one).isBetween(1L, 14L);
  }

  @Test
  void thePaddockAsksTheSameForOneReferenceAsForFive() throws IOException {
    People.Person person = people.newcomer();
    byte[] file;
    try (var in = new ClassPathResource("samples/outline.csv").getInputStream()) {
      file = in.readAllBytes();
    }
    String layout =
        person.upload("/api/layouts", "o.csv", file, "circuit", "Vale").body().path("id").asText();
    JsonNode classes = person.get("/api/vehicle-classes").body();
    draft(person, layout, classes.path(0));
    long one = queriesFor(() -> person.get("/api/paddock"));
    for (int i = 1; i < 5; i++) {
      draft(person, layout, classes.path(i));
    }
    assertThat(person.get("/api/paddock").body().path("references")).hasSize(5);
    assertThat(queriesFor(() -> person.get("/api/paddock"))).isEqualTo(one);
    assertThat(one).isBetween(1L, 6L);
  }

  private static void draft(People.Person person, String layout, JsonNode vehicleClass) {
    String vehicle =
        person
            .post(
                "/api/vehicles",
                Map.of(
                    "name",
                    vehicleClass.path("name"),
                    "basedOn",
                    vehicleClass.path("id"),
                    "numbers",
                    vehicleClass.path("vehicle")))
            .body()
            .path("id")
            .asText();
    assertThat(
            person
                .post("/api/references", Map.of("layoutId", layout, "vehicleId", vehicle))
                .status())
        .isEqualTo(200);
  }

  @Test
  void openingAReferenceAsksTheSameHoweverManyRevisionsItHas() {
    People.Person driver = people.demo("DRIVER");
    String id = driver.get("/api/paddock").body().path("reference").asText();
    driver.get("/api/references/{id}", id);
    long before = queriesFor(() -> driver.get("/api/references/{id}", id));
    JsonNode working = driver.get("/api/references/{id}", id).body().path("working");
    driver.post(
        "/api/references/{id}/revisions",
        Map.of("version", working.path("version"), "reason", "one more"),
        id);
    assertThat(queriesFor(() -> driver.get("/api/references/{id}", id))).isEqualTo(before);
    assertThat(before).isBetween(1L, 9L);
    long drag =
        queriesFor(
            () ->
                driver.post(
                    "/api/references/{id}/answer",
                    working.path("content").path("corners").path(0),
                    id));
    assertThat(drag).isLessThanOrEqualTo(4);
  }

  @Test
  void variantsAndRemarksCostNoFurtherQueries() {
    Made made = Made.reference(people);
    People.Person coach = people.newcomer();
    String email = coach.get("/api/session").body().path("person").path("email").asText();
    String url = "/api/references/" + made.reference();
    made.person().put(url + "/shares", Map.of("email", email, "role", "COACH"));
    made.open();
    long opening = queriesFor(made::open);
    long reading = queriesFor(() -> coach.get(url));
    coach.post(url + "/remarks", Map.of("corner", "c1", "text", "one"));
    long remarks = queriesFor(() -> coach.get(url + "/remarks"));
    com.fasterxml.jackson.databind.node.ObjectNode content =
        made.open().path("working").path("content").deepCopy();
    for (int i = 0; i < 3; i++) {
      content
          .withArray("variants")
          .addObject()
          .put("id", "v" + i)
          .put("kind", "WET")
          .put("name", "")
          .<com.fasterxml.jackson.databind.node.ObjectNode>set("entries", content.arrayNode())
          .putObject("day")
          .put("grip", 0.7 + 0.05 * i)
          .put("extraMass", 0)
          .put("windSpeed", 0)
          .put("windFrom", 0)
          .put("drag", 1)
          .put("downforce", 1)
          .put("hour", "");
      coach.post(url + "/remarks", Map.of("corner", "c2", "text", "more"));
    }
    int version = made.open().path("working").path("version").asInt();
    assertThat(
            made.person()
                .put(url + "/working", Map.of("version", version, "content", content))
                .status())
        .isEqualTo(200);
    assertThat(queriesFor(made::open)).isEqualTo(opening).isBetween(1L, 9L);
    assertThat(queriesFor(() -> coach.get(url))).isEqualTo(reading).isBetween(1L, 13L);
    assertThat(queriesFor(() -> coach.get(url + "/remarks"))).isEqualTo(remarks).isBetween(1L, 13L);
  }
}
