package marvek.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;

/** Runs, debrief and revision through the real interface. */
class RunsPathTest {
  private static final Path SAMPLE =
      Path.of("../server/src/main/resources/samples/outline.geojson");
  private static Browser browser;

  @BeforeAll
  static void start() {
    browser = new Browser();
  }

  @AfterAll
  static void stop() {
    browser.close();
  }

  private static String draft(String name) {
    browser.signUp(name);
    browser.open("/survey/bring");
    browser.give("[data-outline]", SAMPLE);
    browser.find("[data-found='7']");
    browser.click("//button[.='Save as a layout']");
    browser.choose("select[name=vehicle]", "Cup GT");
    browser.click("//button[.='Draft the reference']");
    browser.textWhen("[data-margin]", t -> t.contains("m ·"));
    String id = browser.here().replaceFirst(".*/reference/", "");
    browser.click("//button[.='Save revision…']");
    browser.fill("dialog[open] textarea", "The draft, before driving");
    browser.click("//dialog[@open]//button[.='Save']");
    browser.find("//p[contains(., 'after revision 1')] | //span[contains(., 'after revision 1')]");
    return id;
  }

  private static void drive(String corner, String mistake) {
    browser.click("//button[.='Simulated logger…']");
    browser.find("dialog[open]");
    if (!mistake.isEmpty()) {
      browser.click("//button[.='Add a mistake']");
      browser.choose("[aria-label='Mistake']", mistake);
      browser.choose("[aria-label='At corner']", corner);
    }
    browser.choose("//label[contains(., 'How evenly')]//select", "unevenly");
    // By chance, eight laps may speak for nothing.
    browser.fill("//label[contains(., 'Same again')]//input", "11");
    browser.click("//dialog[@open]//button[.='Drive']");
    browser.find("[data-recording=DONE]");
  }

  /** A wet run is judged by no dry day; the day that its laps speak for is added and judged by. */
  @Test
  void aWetRunIsHeldAgainstAWetDay() {
    String id = draft("Chuva Mansa");
    browser.open("/runs/" + id);
    browser.find("//h1[.='No run yet']");
    browser.click("//button[.='Simulated logger…']");
    browser.choose("select[name='drive-day']", "wet");
    browser.click("//dialog[@open]//button[.='Drive']");
    browser.find("[data-recording=DONE]");
    browser.find("[data-day-part=none]");
    browser.click("//a[.='Debrief' and contains(@class, 'btn')]");
    browser.textWhen("[data-day=none]", t -> t.contains("not judged"));
    assertThat(browser.all("[data-focus]")).isEmpty();
    browser.click("//button[contains(., 'Add a day like this')]");
    browser.textWhen("[data-day]", t -> t.contains("Held against wet, as you said"));
    browser.open("/reference/" + id);
    browser.find("[data-sentence]");
    browser.click("[data-tab=days]");
    browser.find("[data-variant=WET]");
  }

  /** Draft, simulated run, import, debrief, accept, revision, run with it, promise. */
  @Test
  void theWholeLoop() {
    String id = draft("Corre Voltas");
    browser.open("/runs/" + id);
    browser.find("//h1[.='No run yet']");
    drive("1", "rolls between brake and throttle");
    browser.find("[data-traces] canvas");
    browser.textWhen("[data-best]", t -> t.contains("best "));
    assertThat(browser.all("[data-lap]")).hasSizeGreaterThanOrEqualTo(8);

    // The lap strip zooms the traces, the keys move one cursor.
    browser.click("[data-corner=c1]");
    browser.find("//button[.='Whole lap']");
    String before = browser.find("[data-traces]").getDomAttribute("aria-valuetext");
    browser.run("document.querySelector('[data-traces]').focus()");
    browser.press(Keys.ARROW_RIGHT);
    browser.attributeWhen(
        "[data-traces]", "aria-valuetext", t -> !t.equals(before) && t.contains("against"));

    browser.find("[data-at]");
    browser.find("[data-dot='1']");

    // Laps driven unevenly use too little of the grip to tell the day: the driver says it.
    browser.choose("select[name='run-day']", "it was dry, warm");
    browser.find("[data-recording=DONE]");
    browser.click("//a[.='Debrief' and contains(@class, 'btn')]");
    browser.textWhen("[data-summary]", t -> t.contains("laps count"));
    browser.textWhen("[data-day]", t -> t.contains("dry, warm, as you said"));
    browser.find("[data-cause=COASTING]");
    browser.find("[data-focus=c1]");
    browser.click("//article[@data-focus='c1']//button[.='What it rests on']");
    browser.find("[data-spread=FIRST_THROTTLE]");
    browser.find("[data-habit=COASTING]");
    browser.click("[data-habit=COASTING] button");
    browser.textWhen("[data-lap-picked]", t -> t.contains("lap"));

    browser.click("[data-tab=proposals]");
    browser.find("[data-proposal]");
    browser.click("//article[@data-proposal]//button[.='Accept']");
    browser.find("//article[@data-proposal]//button[.='Accept' and @aria-pressed='true']");
    browser.fill("aside textarea", "What the first run spoke for");
    browser.click("//button[.='Save as a revision']");
    browser.textWhen("[data-revision='2']", t -> t.contains("What the first run spoke for"));
    browser.textWhen("[data-promise]", t -> t.contains("Not driven yet"));

    // What was driven lies behind the plan, where the next one is made; it can be put away.
    browser.open("/reference/" + id);
    browser.find("[data-driven] path");
    browser.find("[data-driven-at=BRAKE]");
    browser.click("[data-laps-behind]");
    browser.waitFor(() -> browser.all("[data-driven]").isEmpty(), "the laps are put away");

    browser.open("/runs/" + id);
    browser.find("[data-traces] canvas");
    drive("1", "");
    browser.find("[data-run-on='2']");
    browser.find("[data-recording=DONE]");
    browser.find("[data-lap='8']");
    browser.open("/revisions/" + id);
    browser.textWhen("[data-driven='2']", t -> t.contains("laps, best"));
    browser.textWhen(
        "[data-revision='2'] [data-promise]",
        t ->
            Stream.of(
                    "Kept",
                    "Not kept",
                    "Not driven as planned",
                    "More than",
                    "Some of it",
                    "Cannot")
                .anyMatch(t::contains));
  }

  @Test
  void filesOfOnesOwnComeInAndBadOnesSayWhatToDo() throws IOException {
    String id = draft("Traz Ficheiros");
    browser.open("/runs/" + id);
    Path words = Files.createTempFile("words", ".csv");
    Files.writeString(words, "hello\nworld\n");
    browser.give("[data-bring-laps]", words);
    browser.textWhen("[data-recording=FAILED]", t -> t.contains("No rows of numbers"));
    Path own = Files.createTempFile("own", ".csv");
    Files.writeString(own, odd(id), StandardCharsets.UTF_8);
    browser.give("[data-bring-laps]", own);
    browser.find("[data-recording=ASKS]");
    browser.choose("[aria-label='uhr holds']", "time");
    browser.choose("[aria-label='nord holds']", "latitude");
    browser.choose("[aria-label='ost holds']", "longitude");
    browser.click("//button[.='Read it so, and remember']");
    browser.find("[data-recording=DONE]");
    browser.find("[data-traces] canvas");
    browser.give("[data-bring-laps]", own);
    browser.textWhen("[data-known]", t -> t.contains("had come before"));
    browser.fill("[aria-label='Lap timed by hand']", "1:43.52");
    browser.click("//button[.='Add lap']");
    browser.textWhen("[data-by-hand]", t -> t.contains("1:43.52"));
  }

  /** Three laps of the simulated driver with columns that no device calls so, decimal commas. */
  private static String odd(String reference) {
    String csv =
        String.valueOf(
            browser.run(
                """
                const token = decodeURIComponent(document.cookie.split('XSRF-TOKEN=')[1].split(';')[0]);
                const ask = (method, path, body) => {
                  const r = new XMLHttpRequest();
                  r.open(method, path, false);
                  r.setRequestHeader('X-XSRF-TOKEN', token);
                  r.setRequestHeader('Content-Type', 'application/json');
                  r.send(body ? JSON.stringify(body) : null);
                  return r.responseText;
                };
                let taken = JSON.parse(ask('POST', '/api/references/' + arguments[0] + '/logger',
                  {laps: 2, habits: [], live: false, seed: 4}));
                while (taken.made === null && taken.problem === null)
                  taken = JSON.parse(ask('GET', '/api/jobs/' + taken.id));
                return ask('GET', '/api/recordings/' + taken.made + '/file');
                """,
                reference));
    StringBuilder out = new StringBuilder("uhr;nord;ost\n");
    int row = 0;
    for (String line : csv.split("\r?\n")) {
      if (row++ > 0) {
        String[] c = line.split(",");
        out.append(String.join(";", c[0], c[1], c[2]).replace('.', ',')).append('\n');
      }
    }
    return out.toString();
  }

  @Test
  void lapsAppearWhileTheSimulatedDeviceSends() {
    String id = draft("Ao Vivo");
    browser.open("/runs/" + id);
    browser.click("//button[.='Simulated logger…']");
    browser.click("//label[contains(., 'send it live')]/input");
    browser.click("//dialog[@open]//button[.='Drive']");
    browser.find("[data-recording=LIVE]");
    browser.find("[data-lap='1']");
    browser.find("[data-recording=DONE]");
    browser.find("[data-lap='8']");
  }

  @Test
  void aTrialIsPlannedMarkedAndDecided() {
    browser.signInAsDemoDriver();
    String id =
        String.valueOf(
            browser.run(
                "const r = new XMLHttpRequest(); r.open('GET', '/api/paddock', false);"
                    + " r.send(); return JSON.parse(r.responseText).reference;"));
    String session =
        String.valueOf(
            browser.run(
                "const r = new XMLHttpRequest(); r.open('GET', '/api/events', false); r.send();"
                    + " return JSON.parse(r.responseText).events.flatMap(e => e.sessions)"
                    + ".filter(s => s.reference === arguments[0] && !s.made).pop().id;",
                id));
    browser.open("/session/" + session);
    browser.click("//button[starts-with(., 'Try two ways at')]");
    browser.click("[data-try] li button");
    browser.find("[data-trial] [data-curve=B]");
    browser.textWhen("[data-takes]", t -> t.contains("of each"));
    browser.open("/runs/" + id);
    browser.find("[data-traces] canvas");
    browser.click("//a[.='Debrief' and contains(@class, 'btn')]");
    browser.click("[data-tab=trials]");
    browser.click("//button[.='A and B alternately']");
    browser.textWhen("[data-verdict]", t -> t.contains("B less A"));
    browser.click("[data-tab=vehicle]");
    browser.textWhen("[data-fit]", t -> t.contains("computed with what the laps show"));
  }
}
