package marvek.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** What an account keeps, puts away, hands on and gives up, through the real interface. */
class AccountPathTest {
  private static final Path SAMPLES = Path.of("../server/src/main/resources/samples");
  private static Browser browser;

  @BeforeAll
  static void start() {
    browser = new Browser();
  }

  @AfterAll
  static void stop() {
    browser.close();
  }

  @Test
  void whatIsPutAwayComesBackAndAnAccountIsKeptAfterAll() {
    String email = browser.signUp("Rui Arquivo");
    browser.open("/survey/bring");
    browser.give("[data-outline]", SAMPLES.resolve("outline.geojson"));
    browser.find("[data-found='7']");
    browser.fill("input[name=circuit]", "Vale Guardado");
    browser.click("//button[.='Save as a layout']");
    browser.find("//*[contains(., 'Vale Guardado')]");

    browser.open("/survey");
    browser.click("button[aria-label^='Put Vale Guardado']");
    browser.find("//p[contains(., 'None yet')]");
    browser.click("//button[.='Bring it back']");
    browser.find("button[aria-label^='Put Vale Guardado']");
    browser.click("button[aria-label^='Put Vale Guardado']");
    browser.find("//p[contains(., 'None yet')]");

    browser.click("a[aria-label^='Account of']");
    assertThat(browser.find("[data-used='Space']").getText()).contains("of 5.0 GB");
    assertThat(browser.find("[data-away='LAYOUT']").getText()).contains("Vale Guardado");
    browser.click("//button[.='Bring back']");
    browser.find("//p[.='Nothing was put away.']");

    // A link that makes one account.
    browser.click("//button[.='Make a link']");
    String link = browser.find("input[readonly]").getDomProperty("value");
    assertThat(link).contains("/#/join/");

    // Another password, and the account deleted a day later, or kept.
    browser.fill("//label[contains(., 'The one you have')]//input", "a long enough word");
    browser.fill("//label[contains(., 'The new one')]//input", "password1");
    browser.click("//button[.='Change it']");
    browser.find("//*[contains(., 'guessed quickly')]");
    browser.fill("//label[contains(., 'The new one')]//input", "tyre wall lemonade");
    browser.click("//button[.='Change it']");
    browser.find("//p[contains(., 'The password is changed')]");
    browser.fill("//label[contains(., 'Your password')]//input", "tyre wall lemonade");
    browser.click("//button[.='Delete my account']");
    browser.find("//p[contains(., 'are deleted on')]");
    browser.click("//button[.='Keep my account']");
    browser.find("//button[.='Delete my account']");

    // The link makes an account; used once, it makes no other.
    join(link, "Rita Convidada", "rita." + email);
    browser.find("//h1[.='Bring a circuit']");
    join(link, "Rita Nochmals", "rita2." + email);
    browser.find("//*[contains(., 'has been used')]");
  }

  /** Signs out, opens a link for one account and fills in who wants it. */
  private static void join(String link, String name, String email) {
    browser.click("button[aria-label^='Sign out']");
    // Before that is answered the page would lead away from the link again.
    browser.find("//button[.='I am new here']");
    browser.open(link.substring(link.indexOf('#') + 1));
    browser.fill("input[autocomplete=name]", name);
    browser.fill("input[type=email]", email);
    browser.fill("input[type=password]", "a long enough word");
    browser.click("//button[.='Make the account']");
  }
}
