package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;

import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.test.context.TestPropertySource;

/** A server where accounts are made by invitation. */
@ServerTest
@TestPropertySource(properties = "marvek.people.sign-up=INVITED")
class InvitedTest {
  @Autowired private People people;

  @Test
  void aLinkMakesOneAccount() {
    assertThat(people.anonymously(get("/api/session")).body().path("open").asBoolean()).isFalse();
    String first = UUID.randomUUID() + "@example.org";
    assertThat(people.signUp(first, People.PASSWORD, null).status()).isEqualTo(403);
    assertThat(people.signUp(first, People.PASSWORD, "made-up").status()).isEqualTo(422);
    String token =
        people.demo("DRIVER").post("/api/account/invitations", "").body().path("token").asText();
    // A password that is refused does not use the link up.
    assertThat(people.signUp(first, "aaaaaaaaaa", token).status()).isEqualTo(422);
    assertThat(people.signUp(first, People.PASSWORD, token).status()).isEqualTo(201);
    String second = UUID.randomUUID() + "@example.org";
    assertThat(people.signUp(second, People.PASSWORD, token).status()).isEqualTo(422);
  }
}
