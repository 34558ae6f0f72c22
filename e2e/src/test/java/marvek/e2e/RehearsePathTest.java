package marvek.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The next session rehearsed through the real interface. */
class RehearsePathTest {
  private Cable cable;
  private Browser browser;

  @BeforeEach
  void start() throws IOException {
    cable = new Cable(Browser.server());
    browser = new Browser(cable.address());
    browser.signInAsDemoDriver();
  }

  @AfterEach
  void stop() throws IOException {
    browser.close();
    cable.close();
  }

  /** Answers what is asked, by keys and presses, as somebody who has no idea of most. */
  private void answer() {
    if (!browser.all("[data-road]").isEmpty()) {
      browser.run(
          """
          const road = document.querySelector('[data-road]'), box = road.getBoundingClientRect();
          road.dispatchEvent(new MouseEvent('click', {bubbles: true,
            clientX: box.left + 0.5 * box.width, clientY: box.top + 90}));
          """);
      browser.click("//button[.='Here']");
    } else {
      browser.click("//button[.='No idea']");
    }
    browser.find("[data-told-off]");
    browser.click("//button[.='Next']");
  }

  @Test
  void theLapIsAskedDrivenAndCalledAndWhatIsKnownStandsOnIt() {
    browser.click("//nav//a[contains(., 'Rehearse')]");
    browser.find("[data-asked]");
    for (int i = 0; i < 6; i++) {
      answer();
    }
    browser.reload();
    browser.find("[data-asked]");
    browser.waitFor(() -> !browser.all("[data-known]").isEmpty(), "what was told is shown");
    browser.click("[data-way=drive]");
    browser.click("//button[.='true speed']");
    browser.choose("select[aria-label='What is driven']", "1");
    browser.click("//button[starts-with(., 'Drive ') and not(@data-way)]");
    browser.find("//button[.='Stop']");
    browser.run("window.scrollTo(0, 0)");
    browser.press("b");
    browser.textWhen("[data-performance]", t -> t.contains("met") || t.contains("missed"));
    // Work of a frame stays far under what a screen leaves for it.
    double work =
        Double.parseDouble(
            String.valueOf(
                browser.run("return document.querySelector('[data-drive]').dataset.work")));
    assertThat(work).isLessThan(30);
    double usual =
        Double.parseDouble(
            String.valueOf(
                browser.run("return document.querySelector('[data-drive]').dataset.usual")));
    System.out.println("work of a frame, 95 of 100: " + usual + " ms");
    assertThat(usual).isLessThan(6);
    browser.click("[data-way=listen]");
    browser.textWhen("[aria-label='Calls of the lap']", t -> t.contains("brake"));
    browser.open("/");
    browser.textWhen("[data-readiness]", t -> t.contains("of 14 corners"));
  }

  /** How many answers the server has. */
  private long told() {
    return (Long)
        browser.run(
            """
            const r = new XMLHttpRequest();
            r.open('GET', '/api/sessions/' + location.hash.split('/').pop() + '/rehearsal', false);
            r.send();
            return JSON.parse(r.responseText).known.reduce((sum, k) => sum + k.times, 0);
            """);
  }

  @Test
  void onAPhoneWithoutAConnectionNoAnswerIsLostOrDoubled() throws IOException {
    browser.resize(390, 844);
    browser.open("/rehearse");
    browser.find("[data-asked]");
    browser.waitFor(
        () -> Boolean.TRUE.equals(browser.run("return window.marvekKept === true")),
        "the pages are kept on the phone");
    browser.reload();
    browser.find("[data-asked]");
    assertThat(browser.run("return document.documentElement.scrollWidth")).isEqualTo(390L);
    long before = told();
    cable.pull();
    browser.reload();
    browser.find("[data-asked]");
    answer();
    answer();
    browser.textWhen("[data-ready]", t -> t.contains("2 kept on this device"));
    browser.reload();
    browser.textWhen("[data-ready]", t -> t.contains("2 kept on this device"));
    cable.putIn();
    browser.textWhen("[data-ready]", t -> !t.contains("kept on this device"));
    browser.reload();
    browser.find("[data-asked]");
    assertThat(told()).isEqualTo(before + 2);
  }

  /**
   * The engine's tone, rendered without a sound device: its strongest part near where it should be
   * is the firing frequency to a hundredth, at two places of the lap.
   */
  @Test
  void theEngineIsHeardAtItsRevs() {
    browser.click("//nav//a[contains(., 'Rehearse')]");
    browser.find("[data-asked]");
    browser.run(
        """
        window.AudioContext = class extends OfflineAudioContext {
          constructor() { super(1, 44100, 44100); window.sounding = this; }
          resume() { return Promise.resolve(); }
          close() { return Promise.resolve(); }
        };
        """);
    for (String corner : new String[] {"", "c7"}) {
      browser.click("[data-way=recall]");
      browser.click("[data-way=drive]");
      if (!corner.isEmpty()) {
        browser.run(
            """
            const s = document.querySelector("select[aria-label='What is driven']");
            s.value = arguments[0];
            s.dispatchEvent(new Event('change', {bubbles: true}));
            """,
            corner);
      }
      browser.click("//button[starts-with(., 'Drive ') and not(@data-way)]");
      browser.attributeWhen("[data-drive]", "data-revs", r -> r != null && !r.isEmpty());
      browser.run(
          """
          // No frame more: the tone stays as it is. One that was asked for before still comes,
          // and is drawn before what is asked for after it.
          const next = window.requestAnimationFrame.bind(window);
          window.requestAnimationFrame = () => 0;
          window.heard = null;
          next(() => {
          const revs = Number(document.querySelector('[data-drive]').dataset.revs);
          window.sounding.startRendering().then(buffer => {
            const x = buffer.getChannelData(0).subarray(11025, 44100);
            const strength = f => {
              let re = 0, im = 0;
              for (let i = 0; i < x.length; i++) {
                const w = 0.5 - 0.5 * Math.cos(2 * Math.PI * i / x.length);
                re += w * x[i] * Math.cos(2 * Math.PI * f * i / 44100);
                im += w * x[i] * Math.sin(2 * Math.PI * f * i / 44100);
              }
              return re * re + im * im;
            };
            const r = new XMLHttpRequest();
            r.open('GET', '/api/sessions/' + location.hash.split('/').pop() + '/rehearsal', false);
            r.send();
            const clock = JSON.parse(r.responseText).clock;
            const due = revs / 60 * clock.cylinders / (clock.strokes / 2);
            let best = 0, most = 0, all = 0, n = 0;
            for (let f = 0.75 * due; f < 1.35 * due; f += due / 400) {
              const s = strength(f);
              all += s; n++;
              if (s > most) { most = s; best = f; }
            }
            window.heard = [best / due, most / (all / n), due];
            window.requestAnimationFrame = next;
          });
          });
          """);
      browser.waitFor(
          () -> Boolean.TRUE.equals(browser.run("return window.heard !== null")), "the tone");
      double off = ((Number) browser.run("return window.heard[0]")).doubleValue();
      double clear = ((Number) browser.run("return window.heard[1]")).doubleValue();
      assertThat(off).isBetween(0.99, 1.01);
      assertThat(clear).isGreaterThan(10);
      browser.press(org.openqa.selenium.Keys.ESCAPE.toString());
    }
  }

  /** Share of frames that come late in three seconds. */
  private double late() {
    browser.run(
        """
        window.gaps = []; let last = 0; const until = performance.now() + 3000;
        const tick = t => {
          if (last) window.gaps.push(t - last);
          last = t;
          if (t < until) requestAnimationFrame(tick); else window.counted = true;
        };
        window.counted = false; requestAnimationFrame(tick);
        """);
    browser.waitFor(
        () -> Boolean.TRUE.equals(browser.run("return window.counted")), "frames are counted");
    return ((Number)
            browser.run(
                "return gaps.filter(g => g > 1.5 * 1000 / 60).length / Math.max(1, gaps.length)"))
        .doubleValue();
  }

  /** At most three frames of a hundred more come late than on an empty page; one try of three. */
  @Test
  void theRoadRunsAsSmoothlyAsAnEmptyPage() {
    StringBuilder told = new StringBuilder();
    boolean smooth = false;
    for (int i = 0; i < 3 && !smooth; i++) {
      browser.open("/nothing-here");
      double empty = late();
      browser.open("/rehearse");
      browser.find("[data-asked]");
      browser.click("[data-way=drive]");
      browser.click("//button[.='true speed']");
      browser.click("//button[starts-with(., 'Drive ') and not(@data-way)]");
      double driving = late();
      told.append(empty).append(" empty, ").append(driving).append(" driving; ");
      smooth = driving <= empty + 0.03;
    }
    System.out.println("late frames: " + told);
    assertThat(smooth).as(told.toString()).isTrue();
  }

  /** A mistake of a corner is driven beside the plan, and what was typed is told. */
  @Test
  void aMistakeIsDrivenOnPurposeAndTheLapIsSaidInTenSeconds() {
    browser.open("/rehearse");
    browser.find("[data-asked]");
    browser.click("[data-way=wrong]");
    browser.choose("select[aria-label='Corner']", "4");
    String words = browser.textWhen("[data-mistake]", t -> t.contains("brake"));
    assertThat(words).contains("From the seat");
    browser.run(
        """
        const time = document.querySelector("input[aria-label='Seconds']");
        time.value = time.max;
        time.dispatchEvent(new Event('input', {bubbles: true}));
        """);
    String apart = browser.textWhen("[data-apart]", t -> !t.contains(": 0 m"));
    assertThat(apart).matches("(?s).*[1-9]\\d* m (ahead|behind).*");
    browser.click("[data-way=listen]");
    browser.click("//button[.='Read it']");
    String summary = browser.textWhen("[data-ten]", t -> t.contains("brake"));
    assertThat(summary.split("\\s+")).hasSizeLessThan(45);
  }
}
