package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import marvek.core.entry.PointKind;
import marvek.core.entry.Step;
import marvek.core.score.ActionKind;
import marvek.core.session.Evidence;
import marvek.server.reference.WorkingCopies;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;

/** Revisions that change an action which is written beyond the points, and how they are told. */
@ServerTest
class StepsOfRevisionsTest {
  private static final String RUN = "00000000-0000-0000-0000-000000000001";

  @Autowired private People people;
  @Autowired private WorkingCopies workingCopies;
  @Autowired private JdbcTemplate jdbc;
  private Made made;
  private UUID id;
  private UUID owner;
  private String corner = "";
  private double lift;

  @BeforeEach
  void written() {
    made = Made.reference(people);
    id = UUID.fromString(made.reference());
    owner = jdbc.queryForObject("select owner_id from reference where id = ?", UUID.class, id);
    ObjectNode content = made.open().path("working").path("content").deepCopy();
    for (JsonNode e : content.path("corners")) {
      double brake = 0;
      for (JsonNode p : e.path("points")) {
        brake = p.path("kind").asText().equals("BRAKE") ? p.path("station").asDouble() : brake;
      }
      if (brake > 150 && corner.isEmpty()) {
        corner = e.path("corner").asText();
        lift = brake - 60;
        ((ArrayNode) e.path("actions"))
            .addObject()
            .put("id", "own-lift")
            .put("kind", "LIFT")
            .put("station", lift)
            .put("until", brake - 25)
            .put("amount", 0.4)
            .put("left", false)
            .put("note", "");
      }
    }
    Map<String, Object> saved = Map.of("version", version(), "content", content);
    assertThat(made.person().put("/api/references/{id}/working", saved, made.reference()).status())
        .isEqualTo(200);
  }

  private int version() {
    return made.open().path("working").path("version").asInt();
  }

  private JsonNode own() {
    for (JsonNode a : made.entry(corner).path("actions")) {
      if (a.path("id").asText().equals("own-lift")) {
        return a;
      }
    }
    throw new AssertionError("no lift");
  }

  private JsonNode promise() {
    return made.person()
        .get("/api/references/{id}/history", made.reference())
        .body()
        .path(0)
        .path("promises")
        .path(0);
  }

  private Evidence evidence(PointKind kind, double from, double to, String action, Boolean share) {
    ActionKind does = action == null ? null : ActionKind.LIFT;
    return new Evidence(
        corner, kind, from, to, 0.05, 0.02, 0.08, 9, "FAIR", RUN, List.of(), "", action, does,
        share);
  }

  @Test
  void aShareIsChangedAndToldAsAShare() {
    workingCopies.revise(
        owner,
        id,
        "",
        version(),
        List.of(new WorkingCopies.Move(corner, new Step("own-lift", true, 0.48))),
        "less of it",
        List.of(evidence(null, 0.4, 0.48, "own-lift", true)));
    assertThat(own().path("amount").asDouble()).isCloseTo(0.48, within(1e-9));
    assertThat(own().path("station").asDouble()).isCloseTo(lift, within(0.01));
    JsonNode told = promise();
    assertThat(told.path("what").asText()).isEqualTo("lift");
    assertThat(told.path("share").asBoolean()).isTrue();
    assertThat(told.path("evidence").path("action").asText()).isEqualTo("own-lift");
    assertThat(told.path("promise").path("verdict").asText()).isEqualTo("OPEN");
  }

  @Test
  void aLiftIsMovedWithItsEnd() {
    double end = own().path("until").asDouble();
    workingCopies.revise(
        owner,
        id,
        null,
        version(),
        List.of(new WorkingCopies.Move(corner, new Step("own-lift", false, lift + 3))),
        "later",
        List.of(evidence(null, lift, lift + 3, "own-lift", false)));
    assertThat(own().path("station").asDouble()).isCloseTo(lift + 3, within(0.01));
    assertThat(own().path("until").asDouble()).isCloseTo(end + 3, within(0.01));
    assertThat(promise().path("share").asBoolean()).isFalse();
  }

  @Test
  void evidenceOfBeforeThereWereActionsIsOfItsPoint() {
    workingCopies.revise(
        owner,
        id,
        "",
        version(),
        List.of(),
        "long ago",
        List.of(evidence(PointKind.BRAKE, lift + 60, lift + 62, null, null)));
    JsonNode told = promise();
    assertThat(told.path("what").asText()).isEqualTo("braking");
    assertThat(told.path("share").asBoolean()).isFalse();
  }
}
