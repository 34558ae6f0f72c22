package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** A corner that is turned into on the brakes for another is said to be so wherever it is read. */
@ServerTest
class BrakedWordsTest {
  private static final String SAID = "on the brakes for corner 2";

  @Autowired private People people;

  @Test
  void theDeskTheWholeLapAndARevisionSayThatTheBrakesAreStillOn() {
    Made made = Made.snake(people);
    JsonNode open = made.open();
    JsonNode corners = open.path("working").path("content").path("corners");
    List<String> ids = new ArrayList<>();
    corners.forEach(c -> ids.add(c.path("corner").asText()));
    int third = ids.indexOf("c3");
    assertThat(corners.get(third).path("slowing").asText()).isEqualTo("LIFT");
    assertThat(open.path("words").get(third).path("line").asText()).contains(SAID);
    assertThat(open.path("words").get(third - 1).path("line").asText()).startsWith("Brake");

    JsonNode whole =
        made.person().get("/api/references/{id}/overview", made.reference()).body().path("corners");
    assertThat(whole.get(third).path("words").path("full").asText()).contains(SAID);

    JsonNode answer =
        made.person()
            .post("/api/references/{id}/answer", corners.get(third), made.reference())
            .body();
    assertThat(answer.path("words").path("line").asText()).contains(SAID);

    int version = open.path("working").path("version").asInt();
    Map<String, Object> saved = Map.of("version", version, "reason", "to be read again");
    made.person().post("/api/references/{id}/revisions", saved, made.reference());
    JsonNode revision =
        made.person().get("/api/references/{id}/revisions/1", made.reference()).body();
    assertThat(revision.path("words").get(third).path("spoken").asText())
        .contains("on the brakes for corner two");
  }
}
