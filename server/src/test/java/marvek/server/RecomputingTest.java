package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import marvek.core.line.MinimumCurvature;
import marvek.core.line.Room;
import marvek.server.reference.OldLines;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.context.annotation.Import;
import org.springframework.test.context.TestPropertySource;

/** A reference drafted before there was a search: told, computed anew beside, taken, undone. */
@ServerTest
@Import(OldLines.class)
@TestPropertySource(properties = "marvek.work.moment=1s")
class RecomputingTest {
  private static final String ANEW = "/api/references/{id}/recomputation";

  @Autowired private People people;
  @Autowired private OldLines old;

  private static double[] line(JsonNode view, String field) {
    return IntStream.range(0, view.path(field).size())
        .mapToDouble(i -> view.path(field).get(i).asDouble())
        .toArray();
  }

  private static JsonNode anew(Made made) {
    JsonNode search =
        made.person().post(ANEW, Map.of("otherSheet", false), made.reference()).body();
    while (!search.path("state").asText().equals("DONE")) {
      assertThat(search.path("state").asText()).isIn("WAITING", "WORKING");
      search = made.person().get("/api/jobs/{id}", search.path("id").asText()).body();
    }
    assertThat(search.path("made").asText()).isEqualTo(made.reference());
    return made.person().get(ANEW, made.reference()).body();
  }

  private static double station(JsonNode content, String corner, String kind) {
    for (JsonNode e : content.path("corners")) {
      for (JsonNode p : e.path("points")) {
        if (e.path("corner").asText().equals(corner) && p.path("kind").asText().equals(kind)) {
          return p.path("station").asDouble();
        }
      }
    }
    return Double.NaN;
  }

  @Test
  void anOldReferenceIsToldComputedAnewBesideTakenAndUndone() {
    Made made = Made.reference(people.newcomer(), "cup-gt");
    old.line(
        made.reference(),
        computed ->
            MinimumCurvature.offsets(
                computed.road(), Room.on(computed.road(), computed.vehicle())));
    // A corner that the lap brakes for, entered as one to be lifted for.
    ObjectNode content = made.open().path("working").path("content").deepCopy();
    String braked = null;
    for (JsonNode e : content.path("corners")) {
      if (braked == null && e.path("slowing").asText().equals("BRAKE")) {
        braked = e.path("corner").asText();
        ((ObjectNode) e).put("slowing", "LIFT");
      }
    }
    made.person()
        .put(
            "/api/references/{id}/working",
            Map.of("version", made.open().path("working").path("version"), "content", content),
            made.reference());

    JsonNode told = made.open();
    assertThat(told.path("oldLine").asBoolean()).isTrue();
    assertThat(told.path("recomputed").asBoolean()).isFalse();
    assertThat(told.path("lost").findValuesAsText("corner")).contains(braked);

    JsonNode beside = anew(made);
    assertThat(beside.path("taken").asBoolean()).isFalse();
    assertThat(beside.at("/lapAfter/seconds").asDouble())
        .isLessThan(beside.at("/lapBefore/seconds").asDouble() - 0.2);
    assertThat(DoubleStream.of(line(beside, "lineBefore")).toArray())
        .isNotEqualTo(line(beside, "lineAfter"));
    boolean said = false;
    for (JsonNode c : beside.path("corners")) {
      said |= c.path("corner").asText().equals(braked) && c.path("lost").asBoolean();
    }
    assertThat(said).isTrue();
    assertThat(station(beside.path("after"), braked, "BRAKE")).isNotNaN();
    // Nothing has changed yet.
    assertThat(made.open().path("working")).isEqualTo(told.path("working"));
    assertThat(made.open().required("planned")).isEqualTo(told.required("planned"));

    assertThat(made.person().post(ANEW + "/taken", Map.of(), made.reference()).status())
        .isEqualTo(200);
    JsonNode taken = made.open();
    assertThat(taken.path("oldLine").asBoolean()).isFalse();
    assertThat(taken.path("lost")).isEmpty();
    assertThat(taken.path("recomputed").asBoolean()).isTrue();
    assertThat(taken.at("/planned/seconds").asDouble())
        .isCloseTo(beside.at("/lapAfter/seconds").asDouble(), within(1e-6));
    assertThat(made.person().post(ANEW + "/taken", Map.of(), made.reference()).status())
        .isEqualTo(422);

    assertThat(made.person().get(ANEW + "?taken=true", made.reference()).body().path("before"))
        .isEqualTo(beside.path("before"));

    Map<String, Object> version = Map.of("version", taken.path("working").path("version"));
    assertThat(
            made.person().post(ANEW + "/undone", Map.of("version", 0), made.reference()).status())
        .isEqualTo(409);
    assertThat(made.person().post(ANEW + "/undone", version, made.reference()).status())
        .isEqualTo(200);
    JsonNode back = made.open();
    assertThat(back.path("working").path("content"))
        .isEqualTo(told.path("working").path("content"));
    assertThat(back.path("lapTime")).isEqualTo(told.path("lapTime"));
    assertThat(back.path("oldLine").asBoolean()).isTrue();
    assertThat(
            line(made.person().get("/api/references/{id}/lap", made.reference()).body(), "offset"))
        .containsExactly(line(beside, "lineBefore"), within(0.0011));
    assertThat(made.person().get(ANEW, made.reference()).status()).isEqualTo(404);
  }

  @Test
  void theDriversOwnPointsMoveByWhatMovesInTheDraft() {
    Made made = Made.reference(people.newcomer(), "cup-gt");
    ObjectNode content = made.open().path("working").path("content").deepCopy();
    String corner = null;
    for (JsonNode e : content.path("corners")) {
      for (JsonNode p : e.path("points")) {
        if (corner == null && p.path("kind").asText().equals("BRAKE")) {
          corner = e.path("corner").asText();
          ((ObjectNode) p).put("station", p.path("station").asDouble() - 7);
        }
      }
    }
    made.person()
        .put(
            "/api/references/{id}/working",
            Map.of("version", made.open().path("working").path("version"), "content", content),
            made.reference());
    double own = station(content, corner, "BRAKE");
    double drafted = station(made.open().path("draft"), corner, "BRAKE");

    JsonNode vehicle = made.person().get("/api/vehicles/{id}", made.vehicle()).body();
    ObjectNode numbers = vehicle.path("numbers").deepCopy();
    ((ObjectNode) numbers.path("tyres"))
        .put("muX", numbers.path("tyres").path("muX").asDouble() * 0.8);
    made.person()
        .put(
            "/api/vehicles/{id}",
            Map.of("version", vehicle.path("version"), "name", "Worn", "numbers", numbers),
            made.vehicle());
    JsonNode beside = anew(made);
    made.person().post(ANEW + "/taken", Map.of(), made.reference());
    double moved = station(made.open().path("draft"), corner, "BRAKE") - drafted;
    assertThat(moved).isLessThan(-2);
    assertThat(station(beside.path("after"), corner, "BRAKE") - own).isCloseTo(moved, within(1.0));

    // What was changed since it was computed is not written over.
    anew(made);
    JsonNode working = made.open().path("working");
    made.person()
        .put(
            "/api/references/{id}/working",
            Map.of("version", working.path("version"), "content", working.path("content")),
            made.reference());
    assertThat(made.person().get(ANEW, made.reference()).body().path("stale").asBoolean()).isTrue();
    assertThat(made.person().post(ANEW + "/taken", Map.of(), made.reference()).status())
        .isEqualTo(409);
    assertThat(made.person().delete(ANEW, made.reference()).status()).isEqualTo(204);
    assertThat(made.person().get(ANEW, made.reference()).status()).isEqualTo(404);
  }

  @Test
  void aSearchIsFollowedAndCancelledAndLeavesNothing() throws InterruptedException {
    People.Person person = people.newcomer();
    Made made = Made.reference(person, "small-hatch");
    int references = person.get("/api/references").body().size();
    JsonNode done =
        person
            .post("/api/references", Map.of("layoutId", made.layout(), "vehicleId", made.vehicle()))
            .body();
    while (!done.path("state").asText().equals("DONE")) {
      done = person.get("/api/jobs/{id}", done.path("id").asText()).body();
    }
    assertThat(done.path("share").asDouble()).isEqualTo(1);
    assertThat(person.get("/api/references/{id}", done.path("made").asText()).status())
        .isEqualTo(200);
    assertThat(person.get("/api/references").body()).hasSize(references + 1);

    // The only searcher is held by another one, so that this one waits for sure.
    CountDownLatch held = new CountDownLatch(1);
    old.holdSearching(held);
    JsonNode waiting =
        person
            .post("/api/references", Map.of("layoutId", made.layout(), "vehicleId", made.vehicle()))
            .body();
    assertThat(waiting.path("state").asText()).isEqualTo("WAITING");
    String id = waiting.path("id").asText();
    assertThat(
            person
                .post(
                    "/api/references",
                    Map.of("layoutId", made.layout(), "vehicleId", made.vehicle()))
                .status())
        .as("one at a time")
        .isEqualTo(409);
    People.Person stranger = people.newcomer();
    assertThat(stranger.get("/api/jobs/{id}", id).status()).isEqualTo(404);
    assertThat(stranger.delete("/api/jobs/{id}", id).status()).isEqualTo(404);
    person.delete("/api/jobs/{id}", id);
    held.countDown();
    JsonNode ended = person.get("/api/jobs/{id}", id).body();
    while (ended.path("state").asText().equals("WAITING")) {
      Thread.sleep(20);
      ended = person.get("/api/jobs/{id}", id).body();
    }
    assertThat(ended.path("state").asText()).isEqualTo("CANCELLED");
    assertThat(person.get("/api/references").body()).hasSize(references + 1);
  }

  @Test
  void whatCannotBeDraftedIsRefusedInWordsAndStrangersGetNothing() {
    Made made = Made.reference(people);
    var wrong =
        made.person()
            .post(
                "/api/references",
                Map.of(
                    "layoutId",
                    "00000000-0000-0000-0000-000000000000",
                    "vehicleId",
                    made.vehicle()));
    assertThat(wrong.status()).isEqualTo(404);
    assertThat(wrong.body().path("detail").asText()).isNotBlank();
    People.Person stranger = people.newcomer();
    assertThat(
            new int[] {
              stranger.post(ANEW, Map.of("otherSheet", false), made.reference()).status(),
              stranger.get(ANEW, made.reference()).status(),
              stranger.post(ANEW + "/taken", Map.of(), made.reference()).status(),
              stranger.post(ANEW + "/undone", Map.of("version", 0), made.reference()).status(),
              stranger.delete(ANEW, made.reference()).status(),
            })
        .containsOnly(404);
  }

  /** What is said of the vehicle counts at once; nothing has to be computed anew for it. */
  @Test
  void aSetupThatIsFixedIsDrivenRoundAtOnce() {
    Made made = Made.reference(people.newcomer(), "cup-gt");
    JsonNode opened = made.open();
    JsonNode entry = opened.path("working").path("content").path("corners").get(0);
    JsonNode before = balance(made, entry);
    assertThat(before.path("moves").findValuesAsText("what")).contains("BAR", "SPRINGS", "TRAIL");
    assertThat(before.path("around")).isEmpty();
    String vehicle = opened.path("vehicleId").asText();
    JsonNode kept = made.person().get("/api/vehicles/{id}", vehicle).body();
    ObjectNode numbers = kept.path("numbers").deepCopy();
    numbers.put("fixedSetup", true);
    assertThat(
            made.person()
                .put(
                    "/api/vehicles/{id}",
                    Map.of(
                        "version",
                        kept.path("version").asInt(),
                        "name",
                        kept.path("name").asText(),
                        "numbers",
                        numbers),
                    vehicle)
                .status())
        .isEqualTo(200);
    JsonNode after = balance(made, entry);
    assertThat(after.path("moves").findValuesAsText("what"))
        .contains("TRAIL")
        .doesNotContain("BAR", "SPRINGS", "CAMBER", "WING", "BRAKES", "DAMPERS");
    assertThat(after.path("around")).isNotEmpty();
    assertThat(after.path("entry")).isEqualTo(before.path("entry"));
  }

  private static JsonNode balance(Made made, JsonNode entry) {
    return made.person()
        .post("/api/references/{id}/balance", Map.of("entry", entry), made.reference())
        .body();
  }
}
