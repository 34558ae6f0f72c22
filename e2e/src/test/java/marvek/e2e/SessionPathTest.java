package marvek.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;

/** A session planned, briefed, driven and said of, through the real interface. */
class SessionPathTest {
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

  /** A wet session made by pressing an hour on the demo's weekend; its id. */
  private String planned() {
    browser.open("/session");
    browser.find("//h2[.='Summer meeting']");
    // The last day's line, between qualifying and race.
    browser.run(
        """
        const lines = [...document.querySelectorAll('[data-event] svg')];
        const line = lines[lines.length - 1], box = line.getBoundingClientRect();
        line.dispatchEvent(new MouseEvent('click', {bubbles: true,
          clientX: box.left + 0.62 * box.width, clientY: box.top + 60}));
        """);
    browser.find("[data-targets]");
    browser.click("//button[.='wet']");
    browser.textWhen("[data-differences]", t -> t.contains("wet, grip"));
    String here = browser.here();
    return here.substring(here.lastIndexOf('/') + 1);
  }

  @Test
  void aWetQualifyingIsPlannedInUnderThreeMinutesAndADelayTakenInAtOnce() {
    Instant begun = Instant.now();
    planned();
    browser.choose("//label[contains(., 'kind')]//select", "qualifying");
    browser.fill("input[aria-label='Name of the session']", "Wet qualifying" + Keys.TAB);
    browser.textWhen("header", t -> t.contains("Wet qualifying"));
    browser.click("[data-today='14']");
    assertThat(Duration.between(begun, Instant.now())).isLessThan(Duration.ofMinutes(3));
    String before = browser.textWhen("[aria-label='What is due']", t -> t.contains("out"));
    browser.click("//button[.='+20 min']");
    String after =
        browser.textWhen("[aria-label='What is due']", t -> !t.equals(before) && t.contains("out"));
    assertThat(later(before, after, "out")).isEqualTo(20);
    assertThat(later(before, after, "rehearse")).isEqualTo(20);
  }

  private static int later(String before, String after, String errand) {
    return Math.floorMod(minutes(after, errand) - minutes(before, errand), 24 * 60);
  }

  /** Minutes of the day at which something is due, as the list says it. */
  private static int minutes(String list, String errand) {
    var found = java.util.regex.Pattern.compile("(\\d\\d):(\\d\\d) " + errand).matcher(list);
    assertThat(found.find()).as(list).isTrue();
    return 60 * Integer.parseInt(found.group(1)) + Integer.parseInt(found.group(2));
  }

  @Test
  void theBriefIsReadAndTheLogSaidOnAPhoneWithoutAConnection() throws IOException {
    String id = planned();
    browser.resize(390, 844);
    browser.open("/brief/" + id);
    browser.find("//footer//button[.='Next']");
    browser.open("/log/" + id);
    browser.find("[data-rest]");
    browser.waitFor(
        () -> Boolean.TRUE.equals(browser.run("return window.marvekKept === true")),
        "the pages are kept on the phone");
    // Opened once under the worker, so that all that they are made of is kept.
    browser.open("/brief/" + id);
    browser.reload();
    browser.find("//footer//button[.='Next']");
    browser.open("/log/" + id);
    browser.reload();
    browser.find("[data-rest]");
    cable.pull();
    browser.open("/brief/" + id);
    browser.reload();
    browser.click("//footer//button[.='Next']");
    browser.textWhen("footer", t -> t.contains("2 / 14"));
    assertThat(browser.run("return document.documentElement.scrollWidth")).isEqualTo(390L);
    browser.open("/log/" + id);
    browser.find("[data-rest]");
    // Fourteen corners, five of them otherwise: eleven presses.
    int presses = 0;
    String[][] said = {
      {"1", "EARLY"}, {"4", "DEEP"}, {"7", "WIDE"}, {"10", "UNSURE"}, {"14", "GREAT"}
    };
    for (String[] s : said) {
      browser.click("[data-log-corner='" + s[0] + "']");
      browser.click("[data-feel=" + s[1] + "]");
      presses += 2;
      browser.find("[data-rest]");
    }
    browser.click("[data-rest]");
    presses++;
    assertThat(presses).isLessThanOrEqualTo(12);
    browser.textWhen("header", t -> t.contains("6 kept on this device"));
    browser.reload();
    browser.textWhen("header", t -> t.contains("6 kept on this device"));
    cable.putIn();
    browser.textWhen("header", t -> t.contains("All sent."));
    browser.reload();
    browser.textWhen("[data-log]", t -> t.contains("the rest as planned") && t.contains("4: deep"));
  }

  @Test
  void whatWasFeltStandsBesideWhatWasDriven() {
    browser.open("/session");
    browser.click("//li[@data-session='Practice 2']//a[.='Practice 2']");
    browser.textWhen(
        "[data-felt]", t -> t.contains("you said great") && t.contains("you said deep"));
  }
}
