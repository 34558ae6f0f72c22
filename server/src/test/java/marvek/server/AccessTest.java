package marvek.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** Stranger, viewer, coach and owner see and may do only what is theirs, at every endpoint. */
@ServerTest
class AccessTest {
  @Autowired private People people;

  @Autowired private Endpoints endpoints;

  private Made made;
  private People.Person viewer;
  private People.Person coach;
  private People.Person stranger;
  private JsonNode entry;
  private JsonNode content;

  @BeforeEach
  void openToTwo() {
    made = Made.reference(people);
    viewer = people.newcomer();
    coach = people.newcomer();
    stranger = people.newcomer();
    share(viewer, "VIEWER");
    share(coach, "COACH");
    content = made.open().path("working").path("content");
    entry = content.path("corners").path(0);
  }

  private void share(People.Person person, String role) {
    String email = person.get("/api/session").body().path("person").path("email").asText();
    assertThat(
            made.person()
                .put(
                    "/api/references/{id}/shares",
                    Map.of("email", email, "role", role),
                    made.reference())
                .status())
        .isEqualTo(200);
  }

  /** Who may call: whoever may read, a coach and the owner, or the owner alone. */
  private enum Who {
    READERS,
    COACHES,
    OWNER
  }

  private record Call(String method, String path, Object body, Who who) {}

  private List<Call> calls() {
    String corner = entry.path("corner").asText();
    Map<String, Object> day =
        Map.of(
            "grip",
            0.8,
            "extraMass",
            0,
            "windSpeed",
            0,
            "windFrom",
            0,
            "drag",
            1,
            "downforce",
            1,
            "hour",
            "");
    Map<String, Object> variant =
        Map.of("id", "v", "kind", "DAMP", "name", "", "day", day, "entries", List.of());
    Map<String, Object> gate =
        Map.of("id", "g", "station", 100, "left", true, "metres", 2, "tolerance", 0.5);
    List<Call> calls = new ArrayList<>();
    calls.add(new Call("GET", "", null, Who.READERS));
    calls.add(new Call("GET", "/road", null, Who.READERS));
    calls.add(new Call("GET", "/lap", null, Who.READERS));
    calls.add(new Call("GET", "/overview", null, Who.READERS));
    calls.add(new Call("GET", "/markers", null, Who.READERS));
    calls.add(new Call("GET", "/kerbs", null, Who.READERS));
    calls.add(new Call("GET", "/glances", null, Who.READERS));
    calls.add(new Call("GET", "/remarks", null, Who.READERS));
    // Nothing in it for who was let in to none: tried below.
    calls.add(new Call("GET", "/sessions-seen", null, Who.READERS));
    calls.add(new Call("POST", "/answer", entry, Who.READERS));
    calls.add(new Call("POST", "/balance", Map.of("entry", entry), Who.READERS));
    calls.add(
        new Call(
            "POST",
            "/sheet-lap",
            Map.of("name", "dry", "purpose", "DRY", "settings", List.of(), "note", ""),
            Who.READERS));
    calls.add(
        new Call(
            "POST",
            "/zone-effect",
            Map.of(
                "zone",
                Map.of(
                    "id",
                    "z",
                    "kind",
                    "BUMP",
                    "side",
                    "BOTH",
                    "from",
                    100,
                    "to",
                    150,
                    "severity",
                    2,
                    "note",
                    "",
                    "photo",
                    ""),
                "severities",
                List.of()),
            Who.READERS));
    calls.add(
        new Call(
            "POST",
            "/score/costs",
            Map.of("entry", entry, "action", "turn-in", "driven", List.of()),
            Who.READERS));
    calls.add(
        new Call("POST", "/score/cues", Map.of("entry", entry, "action", "turn-in"), Who.READERS));
    calls.add(new Call("GET", "/use", null, Who.READERS));
    calls.add(new Call("POST", "/use/worth", Map.of("edge", "none"), Who.READERS));
    calls.add(
        new Call("POST", "/laid-anew", Map.of("use", Map.of("gates", List.of(gate))), Who.READERS));
    calls.add(
        new Call(
            "POST",
            "/laid-anew/taken",
            Map.of("version", -1, "wish", Map.of("use", Map.of("opened", List.of()))),
            Who.OWNER));
    calls.add(new Call("GET", "/pace", null, Who.READERS));
    calls.add(new Call("POST", "/pace/tried", Map.of(), Who.READERS));
    calls.add(
        new Call(
            "POST",
            "/pace/tier",
            Map.of("off", 0.05, "margin", 0.2, "careful", true),
            Who.READERS));
    calls.add(new Call("POST", "/choices/arising", Map.of("entry", entry), Who.READERS));
    calls.add(
        new Call("POST", "/choices", Map.of("entry", entry, "question", "APEX"), Who.READERS));
    calls.add(
        new Call(
            "POST",
            "/choices/taken",
            Map.of("entries", content.path("corners"), "corner", corner, "school", "LATE_APEX"),
            Who.READERS));
    calls.add(
        new Call(
            "POST", "/variants/answer", Map.of("variant", variant, "entry", entry), Who.READERS));
    calls.add(
        new Call(
            "POST",
            "/variants/lap",
            Map.of("variant", variant, "entries", content.path("corners")),
            Who.READERS));
    calls.add(new Call("GET", "/revisions", null, Who.READERS));
    calls.add(new Call("GET", "/comparison?from=0&to=0", null, Who.READERS));
    calls.add(new Call("GET", "/export.json", null, Who.READERS));
    calls.add(new Call("GET", "/export.csv", null, Who.READERS));
    calls.add(
        new Call("POST", "/remarks", Map.of("corner", corner, "text", "Look here"), Who.COACHES));
    calls.add(new Call("GET", "/shares", null, Who.OWNER));
    // A coach only when let in: tried below.
    calls.add(new Call("GET", "/rehearsed", null, Who.OWNER));
    calls.add(
        new Call(
            "PUT", "/shares", Map.of("email", "nobody@example.org", "role", "VIEWER"), Who.OWNER));
    calls.add(new Call("POST", "/vehicle", Map.of(), Who.OWNER));
    calls.add(new Call("PUT", "/sheet", Map.of(), Who.OWNER));
    calls.add(new Call("POST", "/recomputation", Map.of("otherSheet", false), Who.OWNER));
    calls.add(new Call("GET", "/recomputation", null, Who.OWNER));
    calls.add(new Call("POST", "/recomputation/taken", Map.of(), Who.OWNER));
    calls.add(new Call("POST", "/recomputation/undone", Map.of("version", 0), Who.OWNER));
    calls.add(new Call("POST", "/newest-layout", Map.of(), Who.OWNER));
    calls.add(new Call("POST", "/confirmed", Map.of("corner", corner, "kind", "APEX"), Who.OWNER));
    calls.add(
        new Call(
            "POST",
            "/copies",
            Map.of("layoutId", made.layout(), "vehicleId", made.vehicle()),
            Who.OWNER));
    calls.add(new Call("PUT", "/working", Map.of("version", 0, "content", content), Who.OWNER));
    calls.add(new Call("POST", "/revisions", Map.of("version", 0, "reason", "x"), Who.OWNER));
    calls.add(new Call("POST", "/revisions/1/start", Map.of("version", 0), Who.OWNER));
    calls.add(new Call("GET", "/revisions/1", null, Who.READERS));
    calls.add(new Call("GET", "/runs", null, Who.READERS));
    calls.add(new Call("GET", "/driven/" + corner, null, Who.READERS));
    calls.add(new Call("GET", "/history", null, Who.READERS));
    calls.add(new Call("GET", "/trials", null, Who.READERS));
    calls.add(new Call("POST", "/runs", Map.of(), Who.OWNER));
    calls.add(new Call("POST", "/live", Map.of(), Who.OWNER));
    calls.add(
        new Call(
            "POST", "/logger", Map.of("laps", 1, "habits", List.of(), "live", false), Who.OWNER));
    return calls;
  }

  private int status(People.Person person, Call call) {
    String path = "/api/references/" + made.reference() + call.path();
    return switch (call.method()) {
      case "GET" -> person.get(path).status();
      case "PUT" -> person.put(path, call.body()).status();
      default -> person.post(path, call.body()).status();
    };
  }

  @Test
  void eachMayDoWhatIsTheirsAndNothingElse() {
    for (Call call : calls()) {
      String what = call.method() + " " + call.path();
      assertThat(status(stranger, call)).as("stranger " + what).isEqualTo(404);
      boolean missing = call.path().matches("/revisions/1|/use/worth");
      boolean reads = call.who() == Who.READERS;
      int shown = missing ? 404 : 200;
      assertThat(status(viewer, call)).as("viewer " + what).isEqualTo(reads ? shown : 403);
      assertThat(status(coach, call))
          .as("coach " + what)
          .isEqualTo(reads ? shown : call.who() == Who.COACHES ? 201 : 403);
      assertThat(status(made.person(), call))
          .as("owner " + what)
          .isNotEqualTo(403)
          .matches(s -> s < 500);
    }
  }

  @Test
  void everyEndpointOfAReferenceIsInTheTable() {
    Set<String> listed = new TreeSet<>();
    calls()
        .forEach(
            c ->
                listed.add(
                    c.method()
                        + " /api/references/{id}"
                        + c.path()
                            .replaceAll("\\?.*", "")
                            .replace("/1", "/{number}")
                            .replace(
                                "/driven/" + entry.path("corner").asText(), "/driven/{corner}")));
    // Tried in tests of their own, below and in the whole path: they take a file, or another id.
    listed.add("POST /api/references/{id}/read");
    listed.add("DELETE /api/references/{id}/recomputation");
    listed.add("POST /api/references/{id}/compromise");
    listed.add("DELETE /api/references/{id}/shares/{share}");
    listed.add("PUT /api/references/{id}/shares/{share}/rehearsed");
    listed.add("DELETE /api/references/{id}/remarks/{remark}");
    listed.add("POST /api/references/{id}/remarks/{remark}/decision");
    Set<String> mapped = endpoints.where(p -> p.startsWith("/api/references/{id}"));
    assertThat(mapped).isNotEmpty();
    assertThat(listed).containsAll(mapped);
  }

  @Test
  void whatTakesAFileOrAnotherIdIsTheOwnersToo() {
    String base = "/api/references/" + made.reference();
    Map<String, Object> linked =
        Map.of("corner", entry.path("corner").asText(), "school", "GIVE_FIRST", "most", 1);
    Map<String, Object> decision = Map.of("accepted", true, "version", 0);
    for (People.Person other : List.of(viewer, coach, stranger)) {
      int refused = other == stranger ? 404 : 403;
      assertThat(other.upload(base + "/read", "x.csv", new byte[] {1}).status()).isEqualTo(refused);
      assertThat(other.delete(base + "/shares/" + java.util.UUID.randomUUID()).status())
          .isEqualTo(refused);
      assertThat(
              other
                  .post(base + "/remarks/" + java.util.UUID.randomUUID() + "/decision", decision)
                  .status())
          .isEqualTo(refused);
      assertThat(
              other
                  .put(
                      base + "/shares/" + java.util.UUID.randomUUID() + "/rehearsed",
                      Map.of("sees", true))
                  .status())
          .isEqualTo(refused);
      assertThat(other.delete(base + "/remarks/" + java.util.UUID.randomUUID()).status())
          .isEqualTo(404);
      assertThat(other.delete(base + "/recomputation").status()).isEqualTo(refused);
      assertThat(other.post(base + "/compromise", linked).status())
          .isEqualTo(other == stranger ? 404 : 422);
    }
  }

  private String shareOf(String role) {
    for (JsonNode p : made.person().get("/api/references/{id}/shares", made.reference()).body()) {
      assertThat(p.path("seesRehearsed").asBoolean()).isFalse();
      if (p.path("role").asText().equals(role)) {
        return p.path("id").asText();
      }
    }
    throw new AssertionError("no " + role);
  }

  private int letIn(String share, boolean sees) {
    return made.person()
        .put(
            "/api/references/{id}/shares/{s}/rehearsed",
            Map.of("sees", sees),
            made.reference(),
            share)
        .status();
  }

  private void say(String session, String line, Map<String, Object> told, boolean removed) {
    Map<String, Object> all = new java.util.LinkedHashMap<>(told);
    all.put("hot", List.of());
    all.put("bled", false);
    all.putIfAbsent("words", "");
    Map<String, Object> body =
        Map.of(
            "id",
            line,
            "device",
            "phone",
            "at",
            java.time.Instant.now().toString(),
            "told",
            all,
            "removed",
            removed);
    assertThat(
            made.person()
                .post("/api/sessions/{id}/log", Map.of("lines", List.of(body)), session)
                .status())
        .isEqualTo(200);
  }

  private int letInto(String session, String share, boolean sees) {
    return made.person()
        .put("/api/sessions/{id}/coaches/{share}", Map.of("sees", sees), session, share)
        .status();
  }

  /**
   * What was felt and said is shown session by session to a coach who was let in, and to nobody
   * else.
   */
  @Test
  void aCoachSeesWhatWasFeltOfASessionOnlyWhenLetIn() {
    String url = "/api/references/" + made.reference() + "/sessions-seen";
    String session = made.session();
    String other = made.session();
    String corner = made.open().path("corners").path(0).path("id").asText();
    String felt = java.util.UUID.randomUUID().toString();
    String spoken = java.util.UUID.randomUUID().toString();
    String gone = java.util.UUID.randomUUID().toString();
    say(session, felt, Map.of("about", "CORNER", "corner", corner, "felt", "DEEP"), false);
    say(session, spoken, Map.of("about", "NOTE", "seconds", 2.5), false);
    say(session, gone, Map.of("about", "NOTE", "words", "not this"), false);
    say(session, gone, Map.of("about", "NOTE", "words", "not this"), true);
    String sound = "/api/sessions/" + session + "/log/" + spoken + "/sound";
    byte[] webm = {0x1A, 0x45, (byte) 0xDF, (byte) 0xA3, 1, 2, 3};
    assertThat(made.person().upload(sound, "note.webm", webm).status()).isEqualTo(204);

    String share = shareOf("COACH");
    // Who has not opened the reference is nobody yet.
    assertThat(made.person().get("/api/sessions/{id}/coaches", session).body()).isEmpty();
    assertThat(letInto(session, share, true)).isEqualTo(422);
    assertThat(coach.get("/api/references/{id}", made.reference()).status()).isEqualTo(200);
    JsonNode coaches = made.person().get("/api/sessions/{id}/coaches", session).body();
    assertThat(coaches.findValuesAsText("share")).containsExactly(share);
    assertThat(coaches.path(0).path("sees").asBoolean()).isFalse();
    assertThat(coach.get(url).body()).isEmpty();
    assertThat(coach.get(sound).status()).isEqualTo(404);
    assertThat(letInto(session, shareOf("VIEWER"), true)).isEqualTo(422);
    assertThat(letInto(session, java.util.UUID.randomUUID().toString(), true)).isEqualTo(404);
    assertThat(letInto(session, share, true)).isEqualTo(200);
    assertThat(letInto(session, share, true)).isEqualTo(200);

    JsonNode seen = coach.get(url).body();
    assertThat(seen.findValuesAsText("name")).containsExactly("Hour");
    assertThat(seen.path(0).path("lines").findValuesAsText("id"))
        .containsExactlyInAnyOrder(felt, spoken);
    assertThat(coach.get(sound).status()).isEqualTo(200);
    assertThat(viewer.get(url).body()).isEmpty();
    assertThat(viewer.get(sound).status()).isEqualTo(404);
    assertThat(stranger.get(url).status()).isEqualTo(404);
    assertThat(stranger.get(sound).status()).isEqualTo(404);
    // Nothing more of the session, and no other one.
    for (String path : List.of("", "/log", "/felt", "/brief.json", "/coaches")) {
      assertThat(coach.get("/api/sessions/" + session + path).status()).as(path).isEqualTo(404);
    }
    assertThat(coach.upload(sound, "note.webm", webm).status()).isEqualTo(404);
    assertThat(seen.findValuesAsText("id")).doesNotContain(other);
    // Nobody lets themselves in.
    assertThat(
            coach
                .put("/api/sessions/{id}/coaches/{s}", Map.of("sees", true), other, share)
                .status())
        .isEqualTo(404);

    assertThat(letInto(session, share, false)).isEqualTo(200);
    assertThat(coach.get(url).body()).isEmpty();
    assertThat(coach.get(sound).status()).isEqualTo(404);
    // Who becomes a viewer, and a coach again, is let in anew.
    letInto(session, share, true);
    share(coach, "VIEWER");
    assertThat(coach.get(url).body()).isEmpty();
    assertThat(coach.get(sound).status()).isEqualTo(404);
    share(coach, "COACH");
    assertThat(coach.get(url).body()).isEmpty();
    // A session thrown away is seen no longer.
    letInto(session, share, true);
    assertThat(made.person().delete("/api/sessions/{id}", session).status()).isEqualTo(204);
    assertThat(coach.get(url).body()).isEmpty();
    assertThat(coach.get(sound).status()).isEqualTo(404);
  }

  /** What is known by heart is shown to a coach who was let in, and to nobody else. */
  @Test
  void aCoachSeesWhatIsKnownByHeartOnlyWhenLetIn() {
    String url = "/api/references/" + made.reference() + "/rehearsed";
    // Without a session there is nothing to be ready for.
    assertThat(made.person().get(url).body().path("ready").isNull()).isTrue();
    String session = made.session();
    JsonNode fact =
        made.person()
            .get("/api/sessions/{id}/rehearsal", session)
            .body()
            .path("asked")
            .path(0)
            .path("fact");
    Map<String, Object> answered = new java.util.LinkedHashMap<>();
    answered.put("fact", fact.path("id").asText());
    answered.put("told", fact.path("answer").asDouble());
    answered.put("right", fact.path("answer").asDouble());
    answered.put("precision", fact.path("precision").asDouble());
    answered.put("rate", 0);
    answered.put("lag", 0);
    answered.put("dark", false);
    made.person()
        .post(
            "/api/sessions/{id}/rehearsed",
            Map.of(
                "answers",
                List.of(
                    Map.of(
                        "id", java.util.UUID.randomUUID().toString(),
                        "at", java.time.Instant.now().toString(),
                        "answered", answered))),
            session);
    String share = shareOf("COACH");
    assertThat(letIn(shareOf("VIEWER"), true)).isEqualTo(422);
    assertThat(letIn(share, true)).isEqualTo(200);
    JsonNode seen = coach.get(url).body();
    assertThat(seen.path("known")).hasSize(1);
    assertThat(seen.path("known").path(0).path("fact").asText())
        .isEqualTo(fact.path("id").asText());
    assertThat(seen.path("ready").path("corners").asInt()).isPositive();
    assertThat(viewer.get(url).status()).isEqualTo(403);
    assertThat(stranger.get(url).status()).isEqualTo(404);
    // The session itself stays the driver's.
    assertThat(coach.get("/api/sessions/{id}/rehearsal", session).status()).isEqualTo(404);
    assertThat(letIn(share, false)).isEqualTo(200);
    assertThat(coach.get(url).status()).isEqualTo(403);
    // Who becomes a viewer, and a coach again, is let in anew.
    letIn(share, true);
    share(coach, "VIEWER");
    share(coach, "COACH");
    assertThat(coach.get(url).status()).isEqualTo(403);
  }

  @Test
  void sharingOpensNothingBesideTheReference() {
    assertThat(coach.get("/api/layouts/{id}", made.layout()).status()).isEqualTo(404);
    assertThat(coach.get("/api/layouts/{id}/road", made.layout()).status()).isEqualTo(404);
    assertThat(coach.get("/api/vehicles/{id}", made.vehicle()).status()).isEqualTo(404);
    assertThat(coach.get("/api/references").body()).isEmpty();
    assertThat(coach.get("/api/paddock").body().path("shared")).hasSize(1);
    assertThat(stranger.get("/api/paddock").body().path("shared")).isEmpty();
  }

  @Test
  void closedAgainItIsClosed() {
    JsonNode people = made.person().get("/api/references/{id}/shares", made.reference()).body();
    assertThat(people).hasSize(2);
    for (JsonNode p : people) {
      assertThat(
              made.person()
                  .delete(
                      "/api/references/{id}/shares/{p}", made.reference(), p.path("id").asText())
                  .status())
          .isEqualTo(200);
    }
    assertThat(coach.get("/api/references/{id}", made.reference()).status()).isEqualTo(404);
    assertThat(viewer.get("/api/references/{id}", made.reference()).status()).isEqualTo(404);
  }

  @Test
  void aShareMustBeToSomebodyElse() {
    String url = "/api/references/" + made.reference() + "/shares";
    String own = made.person().get("/api/session").body().path("person").path("email").asText();
    assertThat(made.person().put(url, Map.of("email", own, "role", "COACH")).status())
        .isEqualTo(422);
    assertThat(made.person().put(url, Map.of("email", own, "role", "OWNER")).status())
        .isEqualTo(422);
  }

  @Test
  void aShareTellsNobodyWhoIsHereAndWaitsForTheOwnersWord() {
    Made mine = Made.reference(people);
    String url = "/api/references/" + mine.reference();
    String there = java.util.UUID.randomUUID() + "@example.org";
    String notThere = java.util.UUID.randomUUID() + "@example.org";
    People.Person known = people.newcomer(there);
    mine.person().put(url + "/shares", Map.of("email", there, "role", "VIEWER"));
    JsonNode shares =
        mine.person().put(url + "/shares", Map.of("email", notThere, "role", "VIEWER")).body();
    assertThat(shares).hasSize(2);
    for (JsonNode s : shares) {
      assertThat(s.path("name").asText()).isEqualTo(s.path("email").asText());
      assertThat(s.path("seen").asBoolean()).isFalse();
      assertThat(s.path("asks").asBoolean()).isFalse();
    }
    assertThat(known.get(url).status()).isEqualTo(200);
    // Whoever takes the address afterwards is let in by the owner only.
    People.Person later = people.newcomer(notThere);
    assertThat(later.get(url).status()).isEqualTo(404);
    assertThat(later.get("/api/paddock").body().path("shared")).isEmpty();
    JsonNode then = mine.person().get(url + "/shares").body();
    for (JsonNode s : then) {
      boolean isLater = s.path("email").asText().equals(notThere);
      assertThat(s.path("asks").asBoolean()).isEqualTo(isLater);
      assertThat(s.path("seen").asBoolean()).isEqualTo(!isLater);
    }
    mine.person().put(url + "/shares", Map.of("email", notThere, "role", "VIEWER"));
    assertThat(later.get(url).status()).isEqualTo(200);
  }
}
