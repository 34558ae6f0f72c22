package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.request;

import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.HttpMethod;
import org.springframework.http.MediaType;
import org.springframework.test.web.servlet.MockMvc;

/** What is answered to whom is not signed in, and to requests that make no sense. */
@ServerTest
class NobodyTest {
  /** Signing up and in, and asking whether one is. */
  private static final Set<String> OPEN =
      Set.of(
          "GET /api/session",
          "POST /api/session",
          "POST /api/session/demo",
          "POST /api/session/password",
          "POST /api/accounts");

  @Autowired private People people;
  @Autowired private Endpoints endpoints;
  @Autowired private MockMvc web;

  private static String with(String path, String id) {
    return path.replaceAll("\\{[^}]+}", id);
  }

  @Test
  void nullsInListsAreRefusedWithTheirPlace() {
    Made made = Made.reference(people);
    People.Answer clearances =
        made.person().post("/api/vehicles/{id}/clearances", "[null]", made.vehicle());
    assertThat(clearances.status()).isEqualTo(400);
    assertThat(clearances.body().path("where").asText()).isEqualTo("[0]");
    People.Answer versions =
        made.person()
            .post(
                "/api/layouts/{id}/versions",
                "{\"from\":\"2030-01-01\",\"reason\":\"r\",\"changes\":[null],\"anew\":false}",
                made.layout());
    assertThat(versions.status()).isEqualTo(400);
    assertThat(versions.body().path("where").asText()).contains("changes[0]");
    assertThat(
            made.person()
                .post(
                    "/api/layouts/{id}/versions",
                    "{\"from\":\"2030-01-01\",\"reason\":\"r\",\"changes\":[{}],\"anew\":false}",
                    made.layout())
                .status())
        .isEqualTo(400);
    People.Answer preferences =
        made.person()
            .put(
                "/api/session/preferences",
                "{\"length\":\"M\",\"speed\":\"KMH\",\"theme\":\"PAPER\"}");
    assertThat(preferences.status()).isEqualTo(422);
    assertThat(preferences.body().path("where").asText()).isEqualTo("corners");
  }

  @Test
  void nothingIsAnsweredWithoutASignIn() {
    Set<String> all = endpoints.where(p -> p.startsWith("/api/"));
    assertThat(all).hasSizeGreaterThan(80).containsAll(OPEN);
    for (String one : all) {
      if (!OPEN.contains(one)) {
        String[] parts = one.split(" ");
        People.Answer answer =
            people.anonymously(
                request(HttpMethod.valueOf(parts[0]), with(parts[1], UUID.randomUUID().toString()))
                    .contentType(MediaType.APPLICATION_JSON)
                    .content("{}"));
        assertThat(answer.status()).as(one).isEqualTo(401);
        assertThat(answer.text()).as(one).doesNotContain("Exception");
      }
    }
  }

  @Test
  void everyChangeWantsTheTokenOfItsPage() throws Exception {
    People.Person somebody = people.newcomer();
    assertThat(somebody.post("/api/vehicle-classes", "{}").status()).isEqualTo(405);
    for (String one : endpoints.where(p -> p.startsWith("/api/"))) {
      String[] parts = one.split(" ");
      if (!parts[0].equals("GET")) {
        int status =
            web.perform(
                    request(HttpMethod.valueOf(parts[0]), with(parts[1], "1"))
                        .contentType(MediaType.APPLICATION_JSON)
                        .content("{}"))
                .andReturn()
                .getResponse()
                .getStatus();
        assertThat(status).as(one).isIn(401, 403);
      }
    }
  }

  @Test
  void anIdThatIsNoneIsRefusedAndNeverATrace() {
    People.Person somebody = people.newcomer();
    for (String one : endpoints.where(p -> p.startsWith("/api/") && p.contains("{id}"))) {
      String[] parts = one.split(" ");
      if (parts[0].equals("GET")) {
        People.Answer answer = somebody.get(with(parts[1], "not-an-id"));
        assertThat(answer.status()).as(one).isBetween(400, 422);
        assertThat(answer.text())
            .as(one)
            .contains("detail")
            .doesNotContain("java.")
            .doesNotContain("Exception");
      }
    }
  }

  @Test
  void hostileBodiesAreRefusedPlainly() {
    People.Person somebody = people.newcomer();
    String deep = "[".repeat(2000) + "]".repeat(2000);
    for (String body : new String[] {"", "{", "null", "[]", "\"x\"", "{\"a\":1e999}", deep}) {
      for (String path :
          new String[] {"/api/references", "/api/vehicles", "/api/vehicles/figures"}) {
        int status = somebody.post(path, body).status();
        assertThat(status)
            .as(path + " " + body.substring(0, Math.min(20, body.length())))
            .isBetween(400, 422);
      }
    }
  }

  @Test
  void aCharacterThatNoDatabaseKeepsIsRefusedAndNothingIsBroken() {
    People.Person somebody = people.newcomer();
    String nul = "\\u0000";
    for (String body :
        new String[] {
          "{\"name\":\"a" + nul + "b\"}",
          "{\"vehicleClass\":\"cup-gt\",\"name\":\"" + nul + "\"}",
          "{\"email\":\"a" + nul + "@example.org\",\"password\":\"long enough words\"}"
        }) {
      for (String path :
          new String[] {"/api/references", "/api/vehicles", "/api/accounts", "/api/session"}) {
        assertThat(somebody.post(path, body).status()).as(path + " " + body).isBetween(400, 422);
      }
    }
  }

  @Test
  void aBodyThatWouldFillTheMemoryIsRefused() {
    People.Person somebody = people.newcomer();
    String body = "{\"name\":\"" + "x".repeat(9 << 20) + "\"}";
    assertThat(somebody.post("/api/vehicles", body).status()).isEqualTo(413);
  }

  @Test
  void theAddressOfErrorsIsNoneItself() {
    People.Answer answer = people.anonymously(get("/error"));
    assertThat(answer.status()).isEqualTo(404);
    assertThat(answer.text()).contains("There is nothing at this address.");
  }

  @Test
  void pagesMayNotBeFramedAndLoadNothingFromElsewhere() {
    People.Answer answer = people.anonymously(get("/api/session"));
    var response = answer.result().getResponse();
    assertThat(response.getHeader("Content-Security-Policy"))
        .contains("default-src 'self'")
        .contains("frame-ancestors 'none'")
        .doesNotContain("http");
    assertThat(response.getHeader("X-Content-Type-Options")).isEqualTo("nosniff");
    assertThat(
            people
                .anonymously(
                    post("/api/session")
                        .contentType(MediaType.APPLICATION_JSON)
                        .content(
                            "{\"email\":\"nobody@example.org\",\"password\":\"whatever it is\"}"))
                .text())
        .as("says no more than that the two do not belong together")
        .doesNotContain("no account")
        .doesNotContain("unknown");
  }
}
