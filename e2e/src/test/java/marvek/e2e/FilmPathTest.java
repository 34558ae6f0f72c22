package marvek.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.WebElement;

/** A film made in the browser, lined up with a simulated lap. */
class FilmPathTest {
  private Browser browser;

  @BeforeEach
  void start() {
    browser = new Browser(Browser.server());
    browser.signInAsDemoDriver();
  }

  @AfterEach
  void stop() {
    browser.close();
  }

  /**
   * Six seconds with the frame's number as blocks in the picture, given as if chosen from the disk.
   */
  private void film() {
    browser.run(
        """
        const canvas = document.createElement('canvas');
        canvas.width = 320; canvas.height = 180;
        const c = canvas.getContext('2d');
        const recorder = new MediaRecorder(canvas.captureStream(25), {mimeType: 'video/webm;codecs=vp8'});
        const parts = [];
        recorder.ondataavailable = e => parts.push(e.data);
        let n = 0;
        const timer = setInterval(() => {
          c.fillStyle = '#000'; c.fillRect(0, 0, 320, 180);
          for (let bit = 0; bit < 8; bit++) {
            c.fillStyle = n >> bit & 1 ? '#fff' : '#333'; c.fillRect(40 * bit, 60, 40, 60);
          }
          n++;
        }, 40);
        recorder.onstop = () => {
          const file = new File(parts, 'lap.webm', {type: 'video/webm'});
          const given = new DataTransfer(); given.items.add(file);
          const input = document.querySelector('[data-film] input[type=file]');
          input.files = given.files;
          input.dispatchEvent(new Event('change', {bubbles: true}));
        };
        recorder.start();
        setTimeout(() => { clearInterval(timer); recorder.stop(); }, 6000);
        """);
    filmIsShown();
  }

  private void filmIsShown() {
    browser.waitFor(
        () ->
            Boolean.TRUE.equals(
                browser.run("return document.querySelector('[data-film] video')?.readyState >= 2")),
        "the film is shown");
  }

  private double time() {
    return ((Number) browser.run("return document.querySelector('[data-film] video').currentTime"))
        .doubleValue();
  }

  @Test
  void aFilmIsLinedUpAndGoesFrameByFrameWithTheTraces() {
    String id =
        String.valueOf(
            browser.run(
                "const r = new XMLHttpRequest(); r.open('GET', '/api/paddock', false);"
                    + " r.send(); return JSON.parse(r.responseText).reference;"));
    browser.open("/runs/" + id);
    browser.find("[data-traces] canvas");
    film();
    browser.run("document.querySelector('[data-film] video').currentTime = 1.02");
    browser.waitFor(() -> Math.abs(time() - 1.02) < 0.01, "the film is there");
    browser.click("//button[.='This is the line']");
    browser.run("document.querySelector('[data-film] video').currentTime = 3.02");
    String place = browser.textWhen("[data-film-place]", t -> t.contains("km/h"));
    assertThat(place).contains("0:0");
    double before = time();
    browser.press(".");
    browser.waitFor(() -> time() > before, "one frame on");
    assertThat(time() - before).isLessThan(0.1);
    browser.textWhen("[data-film]", t -> t.contains("One frame is"));
  }

  private void show(double time) {
    browser.run(
        "document.querySelector('[data-film] video').currentTime = arguments[0]",
        time + 0.5 / MadeFilm.RATE);
    shown(time);
  }

  private void shown(double time) {
    browser.attributeWhen(
        "[data-film]", "data-film", t -> Math.abs(Double.parseDouble(t) - time) < 0.01);
  }

  private void pressAt(double across) {
    WebElement picture = browser.find("[data-still]");
    int wide = picture.getSize().getWidth();
    browser.clickIn(
        "[data-still]",
        (int) Math.round((across + 1) / 2 * wide),
        picture.getSize().getHeight() / 2);
  }

  private static double number(Object one) {
    return ((Number) one).doubleValue();
  }

  /** What the survey has, by id. */
  @SuppressWarnings("unchecked")
  private List<Map<String, Object>> landmarks(String reference) {
    return (List<Map<String, Object>>)
        browser.run(
            "const r = new XMLHttpRequest(); r.open('GET', '/api/references/' + arguments[0], false);"
                + " r.send(); return JSON.parse(r.responseText).things.landmarks",
            reference);
  }

  /** Takes made things off the survey again and puts the others back as they were. */
  private void asBefore(String reference, List<Map<String, Object>> before) {
    browser.run(
        """
        const get = (u) => { const r = new XMLHttpRequest(); r.open('GET', u, false); r.send();
          return JSON.parse(r.responseText); };
        const now = get('/api/references/' + arguments[0]);
        const was = new Map(arguments[1].map((l) => [l.id, l]));
        const made = now.things.landmarks.filter((l) => !was.has(l.id)).map((l) => l.id);
        const other = now.things.landmarks.filter((l) => l.seen && was.has(l.id));
        const r = new XMLHttpRequest();
        r.open('POST', '/api/layouts/' + now.layoutId + '/survey', false);
        r.setRequestHeader('Content-Type', 'application/json');
        r.setRequestHeader('X-XSRF-TOKEN', document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1]);
        r.send(JSON.stringify({ id: crypto.randomUUID(), remove: made,
          expected: Object.fromEntries([...made, ...other.map((l) => l.id)].map((i) => [i, now.thingVersions[i]])),
          put: { landmarks: other.map((l) => was.get(l.id)), kerbs: [], zones: [], limits: [],
            places: [], severities: [] } }));
        if (r.status >= 300) throw new Error(r.responseText);
        """,
        reference,
        before);
  }

  /** Where a thing leaves the view, as noted; null where it is not. */
  private Object leaves(String reference, Object id) {
    return landmarks(reference).stream()
        .filter(l -> l.get("id").equals(id))
        .map(l -> l.get("seen") instanceof Map<?, ?> seen ? seen.get("leaves") : null)
        .filter(java.util.Objects::nonNull)
        .findFirst()
        .orElse(null);
  }

  /** Ten things and two views of a drawn film, each where the scene has it. */
  @Test
  @SuppressWarnings("unchecked")
  void thingsAreTakenFromStillsAndStandWhereTheSceneHasThem() {
    String reference = MadeFilm.reference(browser);
    List<Map<String, Object>> before = landmarks(reference);
    browser.open("/runs/" + reference);
    browser.find("[data-traces] canvas");
    String film = MadeFilm.of(browser, reference, MadeFilm.lap(browser, reference), 60);
    browser.run(
        """
        const bytes = Uint8Array.from(atob(arguments[0]), (c) => c.charCodeAt(0));
        const given = new DataTransfer();
        given.items.add(new File([bytes], 'made.webm', { type: 'video/webm' }));
        const input = document.querySelector('[data-film] input[type=file]');
        input.files = given.files;
        input.dispatchEvent(new Event('change', { bubbles: true }));
        """,
        film);
    filmIsShown();
    browser.click("//button[.='This is the line']");
    browser.click("//summary[starts-with(normalize-space(.), 'Lens')]");
    browser.set("[aria-label='Degrees that the whole picture is wide']", "80");
    // Each thing as late as it is well inside of the picture, and half a second before.
    List<List<Object>> sights =
        (List<List<Object>>)
            browser.run(
                """
                const found = [];
                for (const l of madeScene.landmarks) {
                  for (let k = 59 * 30; k > 20; k--) {
                    const [one, two] = [madeScene.across(l, (k - 15) / 30), madeScene.across(l, k / 30)];
                    if (one === null || two === null || Math.abs(two) > 0.8) continue;
                    const s = madeScene.station(k / 30);
                    if (l.station - s > 60 || l.station < s || Math.abs(two - one) < 0.12) break;
                    const v = (s - madeScene.station((k - 3) / 30)) * 10;
                    found.push([l.id, (k - 15) / 30, one, k / 30, two, l.station, v, l.left, l.out]);
                    break;
                  }
                }
                return found.slice(0, 10);
                """);
    assertThat(sights).hasSize(10);
    List<String> made = new ArrayList<>();
    try {
      for (List<Object> s : sights) {
        show(number(s.get(1)));
        pressAt(number(s.get(2)));
        browser.click("button[aria-label='Half a second on']");
        shown(number(s.get(3)));
        pressAt(number(s.get(4)));
        browser.find("[data-still-place]");
        int there = landmarks(reference).size();
        browser.click("//*[@data-stills]//button[.='post']");
        browser.waitFor(() -> landmarks(reference).size() > there, "it stands on the survey");
        Map<String, Object> now =
            landmarks(reference).stream()
                .filter(l -> !made.contains(l.get("id")))
                .filter(l -> before.stream().noneMatch(b -> b.get("id").equals(l.get("id"))))
                .findFirst()
                .orElseThrow();
        made.add(String.valueOf(now.get("id")));
        double frame = number(s.get(6)) / MadeFilm.RATE;
        assertThat(number(now.get("station")))
            .as("%s at %s", s.get(0), s.get(5))
            .isCloseTo(number(s.get(5)), within(Math.max(2, frame + 0.5)));
        assertThat(now.get("left")).isEqualTo(s.get(7));
        assertThat(number(now.get("out"))).isCloseTo(number(s.get(8)), within(1.5));
      }
      for (List<Object> s : List.of(sights.get(0), sights.get(5))) {
        double gone = number(s.get(3));
        show(gone);
        browser.click("[data-in-reach='" + s.get(0) + "']");
        browser.click("//button[.='Leaves the view here']");
        browser.waitFor(() -> leaves(reference, s.get(0)) != null, "where it leaves is noted");
        double noted = number(leaves(reference, s.get(0)));
        double there = number(browser.run("return madeScene.station(arguments[0])", gone));
        assertThat(noted).isCloseTo(there, within(number(s.get(6)) / MadeFilm.RATE + 0.5));
      }
    } finally {
      asBefore(reference, before);
    }
  }

  /**
   * The film that ships: every picture that is shown says its own number, and the time of it is
   * right.
   */
  @Test
  @SuppressWarnings("unchecked")
  void theFilmOfTheDemoShowsTheFrameThatItsTimeSays() {
    String reference = MadeFilm.reference(browser);
    browser.open("/runs/" + reference);
    browser.find("[data-traces] canvas");
    browser.click("//button[contains(., 'demo’s film')]");
    filmIsShown();
    browser.click("//button[.='This is the line']");
    for (double time : new double[] {3, 11.1, 24.5, 40}) {
      show(time);
      long number =
          ((Number)
                  browser.run(
                      """
                      const v = document.querySelector('[data-film] video');
                      const canvas = document.createElement('canvas');
                      canvas.width = 640; canvas.height = 360;
                      const c = canvas.getContext('2d');
                      c.drawImage(v, 0, 0);
                      let n = 0;
                      for (let bit = 0; bit < 16; bit++)
                        if (c.getImageData(bit * 20 + 10, 7, 1, 1).data[0] > 127) n |= 1 << bit;
                      return n;
                      """))
              .longValue();
      assertThat(number).isEqualTo(Math.round(time * MadeFilm.RATE));
    }
    browser.textWhen("[data-film-next]", t -> t.startsWith("Next: "));
    everyFrameIsWhereItsNumberSays();
    // It is still the film of that lap: a board stands in the picture where the lap would show it.
    MadeFilm.of(browser, reference, MadeFilm.lap(browser, reference), 0.1);
    show(4);
    @SuppressWarnings("unchecked")
    List<Object> board =
        (List<Object>)
            browser.run(
                """
                const canvas = document.createElement('canvas');
                canvas.width = 640; canvas.height = 360;
                const c = canvas.getContext('2d');
                c.drawImage(document.querySelector('[data-film] video'), 0, 0);
                const l = madeScene.landmarks.find((o) => o.kind === 'BOARD'
                  && o.station > madeScene.station(4) + 15);
                let sum = 0, n = 0;
                const row = c.getImageData(0, 176, 640, 12).data;
                for (let i = 0; i < 640 * 12; i++) {
                  const x = i % 640;
                  const white = row[4 * i] > 215 && row[4 * i + 1] > 215 && row[4 * i + 2] > 190;
                  const near = Math.abs(x - (madeScene.across(l, 4) + 1) * 320) < 12;
                  if (white && near) { sum += x; n++; }
                }
                return [n, sum / n, (madeScene.across(l, 4) + 1) * 320];
                """);
    assertThat(number(board.get(0))).isGreaterThan(10);
    assertThat(number(board.get(1))).isCloseTo(number(board.get(2)), within(3.0));
  }

  /** The demo's film, as if chosen from the disk. */
  private void give(String input) {
    browser.run(
        """
        const where = arguments[0];
        fetch('/api/demo/film.webm').then(r => r.blob()).then(b => {
          const given = new DataTransfer();
          given.items.add(new File([b], 'demo.webm', {type: 'video/webm'}));
          const input = document.querySelector(where);
          input.files = given.files;
          input.dispatchEvent(new Event('change', {bubbles: true}));
        });
        """,
        input);
  }

  /** Says of shares, gears and kinds that one has no idea, until a place is asked for. */
  private void aPlaceIsAsked() {
    for (int i = 0; i < 20; i++) {
      browser.find("[data-asked]");
      if (!browser.all("[data-film-choice]").isEmpty()) {
        return;
      }
      browser.click("//button[.='No idea']");
      browser.click("//button[.='Next']");
    }
    throw new AssertionError("no place is asked for");
  }

  private double seconds(String video) {
    return number(browser.run("return document.querySelector(arguments[0]).currentTime", video));
  }

  /** Two films stand at one place and keep to it; a film's picture asks for a place by heart. */
  @Test
  void aFilmStandsBesideAnotherAndAsksByItsPictures() {
    String reference = MadeFilm.reference(browser);
    browser.open("/runs/" + reference);
    browser.find("[data-traces] canvas");
    browser.click("//button[contains(., 'demo’s film')]");
    filmIsShown();
    browser.click("//button[.='This is the line']");
    browser.click("//button[.='Another film beside it']");
    give("[data-beside] input[type=file]");
    browser.find("[data-beside] video");
    show(7);
    browser.waitFor(
        () -> Math.abs(seconds("[data-beside] video") - 7) < 1.0 / MadeFilm.RATE,
        "the other film is at the same place");
    browser.click("//button[.='Play']");
    browser.waitFor(() -> seconds("[data-film] video") > 10, "it plays");
    double apart = seconds("[data-film] video") - seconds("[data-beside] video");
    browser.click("//button[.='Stop']");
    System.out.println(
        "two films: late "
            + browser.run("return document.querySelector('[data-beside]').dataset.late")
            + ", apart "
            + apart
            + " s");
    assertThat(Math.abs(apart)).isLessThan(0.3);
    browser.open("/rehearse");
    aPlaceIsAsked();
    give("[data-film-choice] input[type=file]");
    browser.find("[data-film-still]");
    assertThat(browser.all("[data-road]")).isEmpty();
    browser.run(
        """
        const far = document.querySelector("input[aria-label='Metres from this picture']");
        far.value = 60;
        far.dispatchEvent(new Event('input', {bubbles: true}));
        """);
    browser.textWhen("[data-from-here]", t -> t.contains("60"));
    browser.click("//button[.='Here']");
    browser.textWhen("[data-told-off]", t -> t.contains("early") || t.contains("late"));
    assertThat(browser.all("[data-road]")).hasSize(1);
  }

  /** Two seconds played: the number in each presented frame, its own time and the cursor agree. */
  @SuppressWarnings("unchecked")
  private void everyFrameIsWhereItsNumberSays() {
    browser.run(
        """
        const v = document.querySelector('[data-film] video');
        const canvas = document.createElement('canvas');
        canvas.width = 640; canvas.height = 360;
        const c = canvas.getContext('2d', {willReadFrequently: true});
        window.presented = [];
        const take = (_, frame) => {
          if (presented.length < 50) v.requestVideoFrameCallback(take);
          // What is drawn may be newer than what the call is about: the picture brings its own time.
          const picture = new VideoFrame(v);
          const own = picture.timestamp / 1e6;
          c.drawImage(picture, 0, 0);
          picture.close();
          let n = 0;
          const row = c.getImageData(0, 7, 320, 1).data;
          for (let bit = 0; bit < 16; bit++) if (row[4 * (bit * 20 + 10)] > 127) n |= 1 << bit;
          // The screen's own callback may come after this one, and both before anything is painted.
          requestAnimationFrame(() => {
            const cursor = Number(document.querySelector('section[data-film]').dataset.film);
            presented.push([n, own, cursor, frame.mediaTime]);
          });
        };
        v.requestVideoFrameCallback(take);
        """);
    browser.click("//button[.='Play']");
    browser.waitFor(
        () -> Boolean.TRUE.equals(browser.run("return presented.length >= 50")), "it is played");
    browser.click("//button[.='Stop']");
    for (List<Object> frame : (List<List<Object>>) browser.run("return presented")) {
      double number = number(frame.get(0));
      // Times of this film are cut to the millisecond.
      assertThat(number(frame.get(1)) * MadeFilm.RATE).isCloseTo(number, within(0.05));
      assertThat(number(frame.get(2)) * MadeFilm.RATE)
          .isCloseTo(number(frame.get(3)) * MadeFilm.RATE, within(0.05));
    }
  }
}
