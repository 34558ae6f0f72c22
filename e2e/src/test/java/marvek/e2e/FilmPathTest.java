package marvek.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

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
    browser.waitFor(
        () ->
            Boolean.TRUE.equals(
                browser.run(
                    "const v = document.querySelector('[data-film] video');"
                        + " return !!v && v.readyState >= 2")),
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
}
