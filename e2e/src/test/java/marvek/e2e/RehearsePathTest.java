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
}
