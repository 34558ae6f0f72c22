package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.post;

import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.MediaType;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;

@ServerTest
class AccountTest {
  @Autowired private People people;
  @Autowired private MockMvc web;

  private static MockHttpServletRequestBuilder json(String path, String body) {
    return post(path).contentType(MediaType.APPLICATION_JSON).content(body);
  }

  private static String signUp(String email, String password) {
    return "{\"email\":\"%s\",\"name\":\"N\",\"password\":\"%s\"}".formatted(email, password);
  }

  @Test
  void aNewcomerSignsUpSignsOutAndInAgain() {
    String email = UUID.randomUUID() + "@example.org";
    assertThat(people.anonymously(json("/api/accounts", signUp(email, People.PASSWORD))).status())
        .isEqualTo(201);
    var wrong =
        people.anonymously(
            json("/api/session", "{\"email\":\"" + email + "\",\"password\":\"other\"}"));
    assertThat(wrong.status()).isEqualTo(401);
    assertThat(wrong.body().path("remedy").asText()).isNotBlank();
    var right =
        people.anonymously(
            json(
                "/api/session",
                "{\"email\":\" "
                    + email.toUpperCase(java.util.Locale.ROOT)
                    + "\",\"password\":\""
                    + People.PASSWORD
                    + "\"}"));
    assertThat(right.status()).isEqualTo(200);
    var cookie = right.result().getResponse().getCookie("marvek");
    assertThat(cookie).isNotNull();
    assertThat(cookie.isHttpOnly()).isTrue();
    assertThat(cookie.getAttribute("SameSite")).isEqualToIgnoringCase("lax");
    assertThat(right.text()).doesNotContain("password");
  }

  @Test
  void signingOutEndsTheSession() {
    People.Person person = people.newcomer();
    assertThat(person.get("/api/paddock").status()).isEqualTo(200);
    assertThat(person.delete("/api/session").status()).isEqualTo(204);
    assertThat(person.get("/api/paddock").status()).isEqualTo(401);
  }

  @Test
  void anAddressIsTakenOnlyOnceAndWeakPasswordsAreRefused() {
    String email = UUID.randomUUID() + "@example.org";
    people.anonymously(json("/api/accounts", signUp(email, People.PASSWORD)));
    assertThat(people.anonymously(json("/api/accounts", signUp(email, People.PASSWORD))).status())
        .isEqualTo(422);
    var weak = people.anonymously(json("/api/accounts", signUp("x" + email, "short")));
    assertThat(weak.status()).isEqualTo(422);
    assertThat(weak.body().path("where").asText()).isEqualTo("password");
  }

  @Test
  void tooManyTriesAreHeldOff() {
    String email = UUID.randomUUID() + "@example.org";
    int last = 0;
    for (int i = 0; i < 10; i++) {
      last =
          people
              .anonymously(
                  json("/api/session", "{\"email\":\"" + email + "\",\"password\":\"guess\"}"))
              .status();
    }
    assertThat(last).isEqualTo(429);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "/api/paddock",
        "/api/layouts",
        "/api/vehicles",
        "/api/references",
        "/api/vehicle-classes",
        "/api/outlines/samples/outline.csv"
      })
  void nothingIsShownWithoutASession(String path) {
    assertThat(people.anonymously(get(path)).status()).isEqualTo(401);
  }

  @Test
  void changesNeedTheTokenAgainstForgery() throws Exception {
    int status =
        web.perform(json("/api/session/demo", "{\"person\":\"DRIVER\"}"))
            .andReturn()
            .getResponse()
            .getStatus();
    assertThat(status).isEqualTo(403);
  }

  @Test
  void thePagesForbidOutsideOrigins() {
    var answer = people.anonymously(get("/api/session"));
    assertThat(answer.result().getResponse().getHeader("Content-Security-Policy"))
        .contains("default-src 'self'")
        .doesNotContain("http");
    assertThat(answer.body().path("demo").asBoolean()).isTrue();
  }

  @Test
  void unitsAndLookAreKept() {
    People.Person person = people.newcomer();
    var kept =
        person.put(
            "/api/session/preferences",
            Map.of("speed", "MPH", "length", "FT", "theme", "DUSK", "corners", "NAMES"));
    assertThat(kept.status()).isEqualTo(200);
    assertThat(person.get("/api/session").body().path("person").path("speed").asText())
        .isEqualTo("MPH");
    assertThat(
            person
                .put(
                    "/api/session/preferences",
                    Map.of("speed", "KNOTS", "length", "FT", "theme", "DUSK", "corners", "NAMES"))
                .status())
        .isEqualTo(400);
  }
}
