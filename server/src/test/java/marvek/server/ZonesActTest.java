package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;

/** What zones do to a lap over HTTP, and what the words for how bad they are mean on a circuit. */
@ServerTest
class ZonesActTest {
  @Autowired private People people;
  @Autowired private ObjectMapper json;
  @Autowired private JdbcClient sql;

  private Made mine;

  @BeforeEach
  void draft() {
    mine = Made.reference(people);
  }

  private ObjectNode zone(String kind) {
    JsonNode corner = mine.person().get("/api/layouts/{id}", mine.layout()).body().at("/corners/0");
    return json.createObjectNode()
        .put("id", "z-1")
        .put("kind", kind)
        .put("side", "BOTH")
        .put("from", corner.path("entry").asDouble())
        .put("to", corner.path("exit").asDouble())
        .put("severity", 2)
        .put("note", "")
        .put("photo", "");
  }

  private static Map<String, Object> severity(double slight, double plain, double severe) {
    return Map.of(
        "id", "severity-bump", "kind", "BUMP", "slight", slight, "plain", plain, "severe", severe);
  }

  private People.Answer effect(ObjectNode zone, Object... severities) {
    return mine.person()
        .post(
            "/api/references/{id}/zone-effect",
            Map.of("zone", zone, "severities", List.of(severities)),
            mine.reference());
  }

  private double costs(ObjectNode zone, Object... severities) {
    return effect(zone, severities).body().path(0).path("seconds").asDouble();
  }

  @Test
  void whatAZoneCostsIsToldBeforeItIsStoredAndComesOnceComputedAnew() {
    double before = mine.lap();
    for (String kind : List.of("CREST", "BUMP", "POLISHED")) {
      assertThat(costs(zone(kind))).as(kind).isBetween(0.005, 3.0);
    }
    assertThat(costs(zone("HELPFUL_CAMBER"))).isBetween(-3.0, -0.005);
    assertThat(costs(zone("ADVERSE_CAMBER"))).isBetween(0.005, 3.0);
    JsonNode damp = effect(zone("DAMP")).body().path(0);
    assertThat(damp.path("counts").asBoolean()).isFalse();
    assertThat(damp.path("seconds").asDouble()).isZero();
    assertThat(mine.lap()).as("nothing is stored").isEqualTo(before);

    double told = costs(zone("CREST"));
    assertThat(mine.survey("zones", zone("CREST")).status()).isEqualTo(200);
    assertThat(mine.open().path("vehicleChanged").asBoolean()).as("it says so").isTrue();
    assertThat(costs(zone("CREST"))).as("against the lap without it").isCloseTo(told, within(1e-9));
    mine.person().post("/api/references/{id}/vehicle", Map.of(), mine.reference());
    assertThat(mine.lap() - before).isBetween(0.3 * told, 1.05 * told);
    assertThat(mine.open().path("vehicleChanged").asBoolean()).isFalse();
  }

  @Test
  void aLevelReadingIsTakenByItsSide() {
    ObjectNode level = zone("LEVEL").put("amount", 0.04);
    boolean left =
        mine.person()
            .get("/api/layouts/{id}", mine.layout())
            .body()
            .at("/corners/0/left")
            .asBoolean();
    assertThat(costs(level.deepCopy().put("side", left ? "LEFT" : "RIGHT"))).isNegative();
    assertThat(costs(level.deepCopy().put("side", left ? "RIGHT" : "LEFT"))).isPositive();
    People.Answer both = effect(level);
    assertThat(both.status()).isEqualTo(422);
    assertThat(both.body().path("detail").asText()).contains("falls to one side");
  }

  @Test
  void howBadAWordIsIsToldByTheTableOfTheCircuit() {
    double usual = costs(zone("BUMP"));
    double worse = costs(zone("BUMP"), severity(0.95, 0.8, 0.6));
    assertThat(worse).isGreaterThan(2 * usual);
    assertThat(mine.survey("zones", zone("BUMP")).status()).isEqualTo(200);
    assertThat(mine.survey("severities", severity(0.95, 0.8, 0.6)).status()).isEqualTo(200);
    JsonNode there =
        mine.person().get("/api/layouts/{id}", mine.layout()).body().at("/things/severities/0");
    assertThat(there.path("plain").asDouble()).isEqualTo(0.8);
    double before = mine.lap();
    mine.person().post("/api/references/{id}/vehicle", Map.of(), mine.reference());
    assertThat(mine.lap() - before).as("of the table, not of what is usual").isGreaterThan(usual);
    assertThat(mine.survey("severities", severity(0.6, 0.8, 0.95)).status()).isEqualTo(422);
    assertThat(mine.survey("severities", severity(0.95, 0.8, 0.1)).body().path("detail").asText())
        .contains("out of range");
  }

  @Test
  void amountsOutOfTheirUnitAreRefusedByName() {
    for (ObjectNode bad :
        List.of(
            zone("CREST").put("amount", 0.03),
            zone("WIND").put("amount", 40),
            zone("WALL").put("amount", -1),
            zone("POLISHED").put("amount", 5),
            zone("ADVERSE_CAMBER").put("amount", 3))) {
      People.Answer answer = effect(bad);
      assertThat(answer.status()).as(bad.toString()).isEqualTo(422);
      assertThat(answer.body().path("where").asText()).contains("amount");
    }
    ObjectNode strip = zone("POLISHED").put("side", "LEFT");
    strip.putObject("across").put("near", 3).put("far", 2);
    assertThat(effect(strip).body().path("detail").asText()).contains("ends before it begins");
    strip.putObject("across").put("near", 0).put("far", 2);
    assertThat(effect(strip).status()).isEqualTo(200);
    assertThat(effect(zone("POLISHED").put("dries", "SOMETIMES")).status()).isEqualTo(400);
  }

  /** Surveys and references stored before call the amount "grip". */
  @Test
  void whatWasStoredBeforeIsReadForward() {
    assertThat(mine.survey("zones", zone("POLISHED").put("amount", 0.8)).status()).isEqualTo(200);
    mine.person().post("/api/references/{id}/vehicle", Map.of(), mine.reference());
    double lap = mine.lap();
    sql.sql(
            """
            update survey_item set body = (body - 'amount' - 'across' - 'dries')
              || jsonb_build_object('grip', body -> 'amount')
            where layout_version_id = cast(? as uuid) and sort = 'ZONE'
            """)
        .param(mine.layout())
        .update();
    int changed =
        sql.sql(
                """
                update reference set ground = (
                  select jsonb_agg((z - 'amount' - 'across' - 'dries')
                    || jsonb_build_object('grip', z -> 'amount'))
                  from jsonb_array_elements(ground) z)
                where id = cast(? as uuid)
                """)
            .param(mine.reference())
            .update();
    assertThat(changed).isEqualTo(1);
    JsonNode zone =
        mine.person().get("/api/layouts/{id}", mine.layout()).body().at("/things/zones/0");
    assertThat(zone.path("amount").asDouble()).isEqualTo(0.8);
    assertThat(mine.lap()).isEqualTo(lap);
    assertThat(mine.open().path("vehicleChanged").asBoolean()).isFalse();
  }

  @Test
  void anEdgeThatPassesThroughTheLineIsTold() {
    JsonNode near = effect(zone("WALL").put("amount", 0.1)).body().path(0);
    JsonNode far = effect(zone("NARROW").put("amount", 3)).body().path(0);
    assertThat(near.path("passed").asDouble() - far.path("passed").asDouble())
        .isCloseTo(2.9, within(1e-9));
    assertThat(far.path("passed").asDouble()).isNegative();
    assertThat(effect(zone("POLISHED")).body().path(0).path("passed").isNull()).isTrue();
  }
}
