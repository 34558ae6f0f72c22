package marvek.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/**
 * Whatever the server tells of the demo comes from the catalogue: it is asked in marked words, and
 * nothing but people's own words, names and identities stands outside the marks.
 */
class WordsTest {
  private static final Pattern INNERMOST = Pattern.compile("‹[^‹›]*›");
  private static final Pattern WORD = Pattern.compile("\\p{Ll}{3,}");
  private static final Pattern ID = Pattern.compile("[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}");
  private static final Pattern IN_PATH = Pattern.compile("\\{(\\w+)}");

  /** Ids asked for of each kind: two references, and what belongs to them. */
  private static final int OF_A_KIND = 3;

  /** What people call things and say of them, wherever it stands. */
  private static final Set<String> PEOPLES =
      Set.of(
          "aim",
          "author",
          "belongs",
          "circuit",
          "cost",
          "driver",
          "email",
          "event",
          "label",
          "layout",
          "must",
          "name",
          "note",
          "reason",
          "reference",
          "run",
          "set",
          "sessionName",
          "sheet",
          "source",
          "spoken",
          "otherSpoken",
          "text",
          "vehicle",
          "vehicleName",
          "why");

  /** Identities, and places on a disk. */
  private static final Set<String> IDENTITIES =
      Set.of(
          "id",
          "action",
          "basedOn",
          "corner",
          "device",
          "fact",
          "format",
          "header",
          "inbox",
          "landmark",
          "like",
          "other",
          "parameter",
          "photo",
          "thing",
          "word",
          "zone");

  /** Answers in forms that others laid down, or that say themselves what they hold. */
  private static final Pattern FORMS =
      Pattern.compile(
          "/api/(schemas|outlines|demo)/.*|.*\\.(geojson|zip|webm|wav)|.*/file|.*/sound");

  /** Single fields: a sentence as it was stored, a choice as it is stored, a unit's symbol. */
  private static final Pattern SINGLE =
      Pattern.compile(
          ".*words\\.plain|.*words\\[]\\.plain|.*\\.about|.*\\.choices\\[]\\.value|.*\\.details\\.\\w+"
              + "|.*\\.symbol|.*/runs\\.title|.*(sessions\\[]|line)\\.title");

  private static final Map<String, String> QUERIES =
      Map.of(
          "/api/layouts/{id}/sun", "?at=2026-05-16T16:00:00Z",
          "/api/references/{id}/comparison", "?from=1&to=3");

  private final ObjectMapper json = new ObjectMapper();
  private final CookieManager cookies = new CookieManager();
  private final HttpClient http = HttpClient.newBuilder().cookieHandler(cookies).build();
  private final Map<String, Set<String>> ids = new TreeMap<>();
  private final Set<String> left = new TreeSet<>();

  /** People's words and names, as the server gave them. */
  private final Set<String> theirs = new TreeSet<>();

  @BeforeEach
  void signIn() throws Exception {
    get("/api/session");
    HttpResponse<String> in = send("POST", "/api/session/demo", "{\"person\":\"DRIVER\"}");
    assertThat(in.statusCode()).isLessThan(300);
    get("/api/session");
  }

  private HttpResponse<String> send(String method, String path, String body) throws Exception {
    String token =
        cookies.getCookieStore().getCookies().stream()
            .filter(c -> c.getName().equals("XSRF-TOKEN"))
            .map(HttpCookie::getValue)
            .findFirst()
            .orElse("");
    return http.send(
        HttpRequest.newBuilder(URI.create(Browser.server() + path))
            .header("Accept-Language", "en-XA")
            .header("Content-Type", "application/json")
            .header("X-XSRF-TOKEN", token)
            .method(
                method,
                body == null
                    ? HttpRequest.BodyPublishers.noBody()
                    : HttpRequest.BodyPublishers.ofString(body))
            .build(),
        HttpResponse.BodyHandlers.ofString());
  }

  private HttpResponse<String> get(String path) throws Exception {
    return send("GET", path, null);
  }

  private JsonNode read(String path) throws Exception {
    HttpResponse<String> answer = get(path);
    assertThat(answer.statusCode()).as(path).isEqualTo(200);
    return json.readTree(answer.body());
  }

  private void known(String kind, JsonNode one) {
    ids.computeIfAbsent(kind, k -> new LinkedHashSet<>()).add(one.path("id").asText());
  }

  /** What there is to ask for. */
  private void found() throws Exception {
    read("/api/layouts").forEach(l -> known("layouts", l));
    for (JsonNode v : read("/api/vehicles")) {
      known("vehicles", v);
    }
    for (JsonNode r : read("/api/references")) {
      known("references", r);
      for (JsonNode run : read("/api/references/" + r.path("id").asText() + "/runs").path("runs")) {
        known("runs", run);
        run.path("laps").forEach(l -> known("laps", l));
        run.path("recordings").forEach(f -> known("recordings", f));
      }
    }
    for (JsonNode e : read("/api/events").path("events")) {
      e.path("sessions").forEach(s -> known("sessions", s));
    }
  }

  /** Paths of one that is described, with the ids that are known. */
  private List<String> paths(String described) {
    Matcher kind = Pattern.compile("/api/([a-z-]+)/\\{id}.*").matcher(described);
    if (!kind.matches()) {
      return IN_PATH.matcher(described).find() ? List.of() : List.of(described);
    }
    List<String> out = new ArrayList<>();
    for (String id : ids.getOrDefault(kind.group(1), Set.of()).stream().limit(OF_A_KIND).toList()) {
      String path =
          described.replace("{id}", id).replace("{corner}", "c4").replace("{number}", "1");
      if (!IN_PATH.matcher(path).find()) {
        out.add(path);
      }
    }
    return out;
  }

  private static String outside(String text) {
    String out = ID.matcher(text).replaceAll("");
    for (String before = ""; !out.equals(before); ) {
      before = out;
      out = INNERMOST.matcher(out).replaceAll("");
    }
    return out;
  }

  /** Notes what stands outside the marks. */
  private int look(String path, String at, String field, JsonNode value) {
    int marked = 0;
    if (value.isTextual()) {
      String text = value.asText();
      if (PEOPLES.contains(field) || IDENTITIES.contains(field) || SINGLE.matcher(at).matches()) {
        theirs.add(text.strip());
      }
      if (text.contains("‹")) {
        marked++;
      }
      // Names of one of a few (RIGHT, FIRST_APEX) and of fields (minimumSpeed) are no words.
      if (WORD.matcher(outside(text)).find()
          && !PEOPLES.contains(field)
          && !IDENTITIES.contains(field)
          && !SINGLE.matcher(at).matches()
          && !told(field, text)) {
        left.add(at.replaceAll("[0-9a-f-]{36}", "…") + ": " + text);
      }
    }
    for (int i = 0; i < value.size() && value.isArray(); i++) {
      marked += look(path, at + "[]", field, value.get(i));
    }
    for (Map.Entry<String, JsonNode> e : value.properties()) {
      marked += look(path, at + "." + e.getKey(), e.getKey(), e.getValue());
    }
    return marked;
  }

  /**
   * A sentence of a corner holds what the driver wrote of it and what things are called, and is
   * otherwise marked.
   */
  private static boolean told(String field, String text) {
    return Set.of("full", "line", "pocket", "spoken", "summary").contains(field)
        && text.contains("‹");
  }

  /** Looks at all that the server answers; how much of it was told, and how much was asked. */
  private int[] walk() throws Exception {
    found();
    assertThat(ids.keySet())
        .containsExactlyInAnyOrder(
            "laps", "layouts", "recordings", "references", "runs", "sessions", "vehicles");
    int marked = 0;
    int asked = 0;
    for (Map.Entry<String, JsonNode> e : read("/v3/api-docs").path("paths").properties()) {
      if (!e.getValue().has("get") || FORMS.matcher(e.getKey()).matches()) {
        continue;
      }
      for (String path : paths(e.getKey())) {
        HttpResponse<String> answer = get(path + QUERIES.getOrDefault(e.getKey(), ""));
        if (answer.statusCode() == 200
            && answer.headers().firstValue("Content-Type").orElse("").contains("json")) {
          marked += look(path, e.getKey(), "", json.readTree(answer.body()));
          asked++;
        }
      }
    }
    return new int[] {marked, asked};
  }

  @Test
  void whatTheServerTellsComesFromTheCatalogue() throws Exception {
    int[] looked = walk();
    assertThat(left).isEmpty();
    assertThat(looked[1]).as("answers looked at").isGreaterThan(100);
    assertThat(looked[0]).as("texts that came from the catalogue").isGreaterThan(2000);
  }

  private static final String SHOWN =
      """
      const out = new Set();
      const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
      for (let n; (n = texts.nextNode());)
        if (!['SCRIPT', 'STYLE'].includes(n.parentElement.tagName)) out.add(n.data.trim());
      for (const e of document.querySelectorAll('*'))
        for (const a of ['aria-label', 'title', 'placeholder', 'alt'])
          if (e.hasAttribute(a)) out.add(e.getAttribute(a).trim());
      out.delete('');
      return [...out];
      """;

  /** Symbols, formats and names that are the same in every language, and days of a calendar. */
  private static final Pattern SAME =
      Pattern.compile(
          "Marvek|km/h|mph|kPa|hPa|GeoJSON|/var/lib/\\S+|simulated"
              + "|\\b(Mon|Tue|Wed|Thu|Fri|Sat|Sun|Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sept?|Oct|Nov|Dec)\\b"
              + "|\\b(Mon|Tues|Wednes|Thurs|Fri|Satur|Sun)day\\b|\\b(Novem|Decem|Septem|Octo)ber\\b"
              + "|\\b(January|February|March|April|June|July|August)\\b"
              + "|(?i)\\b(one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|hundred"
              + "|(thir|four|fif|six|seven|eigh|nine)teen|(twen|thir|for|fif|six|seven|eigh|nine)ty)\\b");

  /** What of a text on the screen is neither told nor people's. */
  private String unexplained(String text) {
    // What is cut has lost its mark at that end.
    String rest = outside(text).replaceFirst("^.*›", "").replaceFirst("‹.*$", "");
    String cut = rest.replaceFirst("(…|·+)$", "").strip();
    if (cut.length() > 2 && theirs.stream().anyMatch(t -> t.startsWith(cut))) {
      return "";
    }
    List<String> longest =
        theirs.stream()
            // A unit's symbol taken out of a word would leave no word.
            .filter(t -> t.length() > 2)
            .sorted(Comparator.comparingInt(String::length).reversed())
            .toList();
    for (String own : longest) {
      rest = rest.replace(own, "").replace(own.replaceFirst("^the ", ""), "");
    }
    String left = SAME.matcher(rest).replaceAll("");
    return WORD.matcher(left).find() ? left : "";
  }

  @Test
  void whatTheInterfaceShowsComesFromACatalogue() throws Exception {
    walk();
    String reference = first("references");
    String layout = first("layouts");
    Map<String, List<String>> pages = new LinkedHashMap<>();
    pages.put("/paddock", List.of());
    pages.put("/reference/" + reference, List.of("m", "w", "q", "h", "k", "o", "d", "p", "n", "?"));
    for (String of : List.of("/whole/", "/revisions/", "/runs/", "/recompute/")) {
      pages.put(of + reference, List.of());
    }
    pages.put("/card/" + reference + "/0", List.of());
    pages.put("/survey/" + layout, List.of());
    pages.put("/survey/bring", List.of());
    pages.put("/walk/" + layout, List.of());
    pages.put("/vehicle", List.of());
    pages.put("/vehicle/" + first("vehicles"), List.of());
    pages.put("/sheets/" + first("vehicles"), List.of());
    pages.put("/debrief/" + first("runs"), List.of());
    pages.put("/session", List.of());
    for (String of : List.of("/session/", "/brief/", "/log/", "/rehearse/")) {
      pages.put(of + first("sessions"), List.of());
    }
    pages.put("/account", List.of());
    Set<String> unmarked = new TreeSet<>();
    int told = 0;
    try (Browser browser = new Browser(Browser.server(), "en-XA")) {
      browser.open("/");
      browser.click("//button[contains(., 'Demo driver')]");
      browser.find("//nav");
      for (Map.Entry<String, List<String>> page : pages.entrySet()) {
        browser.open(page.getKey());
        told += seen(browser, page.getKey(), unmarked);
        for (String key : page.getValue()) {
          browser.press(key);
          told += seen(browser, page.getKey() + " " + key, unmarked);
        }
      }
    }
    assertThat(unmarked).isEmpty();
    assertThat(told).as("texts that were told").isGreaterThan(2000);
  }

  private String first(String kind) {
    return ids.get(kind).iterator().next();
  }

  /** Looks at a page once it stands still; how many of its texts were told. */
  private int seen(Browser browser, String page, Set<String> unmarked) throws InterruptedException {
    List<?> texts = List.of();
    for (int still = 0, tries = 0; still < 5 && tries < 70; tries++) {
      Thread.sleep(150);
      List<?> now = (List<?>) browser.run(SHOWN);
      still = now.equals(texts) ? still + 1 : 0;
      texts = now;
    }
    int told = 0;
    for (Object t : texts) {
      String text = String.valueOf(t);
      told += text.contains("‹") ? 1 : 0;
      String rest = unexplained(text);
      if (!rest.isEmpty()) {
        unmarked.add(page.replaceAll("[0-9a-f-]{36}", "…") + ": " + text);
      }
    }
    return told;
  }

  @Test
  void refusalsComeFromTheCatalogue() throws Exception {
    String none = UUID.randomUUID().toString();
    List<HttpResponse<String>> refused =
        List.of(
            get("/api/references/" + none),
            get("/api/runs/" + none + "/debrief"),
            get("/api/nothing/there"),
            get("/api/laps/no-number/trace"),
            send("POST", "/api/events", "{"),
            send("POST", "/api/events", "{}"),
            send("DELETE", "/api/paddock", null),
            send(
                "POST",
                "/api/accounts",
                "{\"email\":\"no address\",\"name\":\"\",\"password\":\"x\"}"));
    for (HttpResponse<String> r : refused) {
      assertThat(r.statusCode()).as(r.uri().getPath()).isBetween(400, 499);
      JsonNode told = json.readTree(r.body());
      for (String field : List.of("detail", "remedy")) {
        String text = told.path(field).asText();
        assertThat(text).as(r.uri().getPath()).contains("‹");
        assertThat(WORD.matcher(outside(text)).find()).as(text).isFalse();
      }
    }
  }
}
