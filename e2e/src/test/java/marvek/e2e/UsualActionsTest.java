package marvek.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.function.DoublePredicate;
import java.util.function.Predicate;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;

/** What drivers usually write of a corner, counted: at most four presses, or eight keys, each. */
class UsualActionsTest {
  private static final int MOST_PRESSES = 4;
  private static final int MOST_KEYS = 8;
  private static Browser browser;
  private int presses;
  private int keys;

  @BeforeAll
  static void start() {
    browser = new Browser();
  }

  @AfterAll
  static void stop() {
    browser.close();
  }

  @BeforeEach
  void draft() {
    browser.newcomersDraft();
    begin();
  }

  @AfterEach
  void counted() {
    assertThat(presses).isLessThanOrEqualTo(MOST_PRESSES);
    assertThat(keys).isLessThanOrEqualTo(MOST_KEYS);
  }

  private void begin() {
    assertThat(presses).isLessThanOrEqualTo(MOST_PRESSES);
    assertThat(keys).isLessThanOrEqualTo(MOST_KEYS);
    presses = 0;
    keys = 0;
  }

  private void key(CharSequence... each) {
    for (CharSequence k : each) {
      browser.press(k);
      keys++;
    }
  }

  private void click(String where) {
    browser.click(where);
    presses++;
  }

  private void clickIn(String lane, int x, int y) {
    browser.clickIn("[data-lane=" + lane + "]", x, y);
    presses++;
  }

  private void drag(String flag, int by) {
    browser.drag("[data-flag=" + flag + "] [data-grip]", by);
    presses++;
  }

  private static double flag(String kind) {
    return Double.parseDouble(
        browser.attributeWhen("[data-flag=" + kind + "]", "data-station", v -> !v.isEmpty()));
  }

  private static void flagWhen(String kind, DoublePredicate there) {
    browser.attributeWhen(
        "[data-flag=" + kind + "]",
        "data-station",
        v -> !v.isEmpty() && there.test(Double.parseDouble(v)));
  }

  private static String line(Predicate<String> says) {
    return browser.textWhen("[data-in-hand] [data-line]", says);
  }

  private static void atRest() {
    browser.textWhen("span[role=status]", t -> t.equals("kept"));
  }

  /** Lets go of what is in hand; between two actions, and so counted for neither. */
  private static void rest() {
    browser.press(Keys.ESCAPE);
    browser.press(Keys.ESCAPE);
    browser.run("document.activeElement.blur()");
    browser.press(Keys.ESCAPE);
  }

  /**
   * The line that is laid anew after some points is left as it was; the page has its height again
   * before anything else is pressed.
   */
  private static void left() {
    atRest();
    if (!browser.all("[data-laid-anew-note]").isEmpty()) {
      browser.click("//button[.='Leave it']");
      browser.waitFor(() -> browser.all("[data-laid-anew-note]").isEmpty(), "it is left");
      atRest();
    }
  }

  /** A point found by its letter and moved by the arrows. */
  private void pointByKeys(String letter, String kind, CharSequence arrow, double by) {
    double before = flag(kind);
    key(letter, arrow, arrow);
    flagWhen(kind, s -> Math.abs(s - before - by) < 0.6);
    begin();
    rest();
  }

  @Test
  void byTheKeysAlone() {
    double brake = flag("BRAKE");
    pointByKeys("b", "BRAKE", Keys.ARROW_LEFT, -2);

    // Its effort, with the pencil that takes the braking itself in hand.
    key(",", "b", "6", "5", Keys.ENTER);
    line(t -> t.contains("65 %"));
    begin();

    // Easing on the way down, then the release: the next of its kind.
    key(".", ".", ".", "r", "4", "0", Keys.ENTER);
    line(t -> t.contains("40 %"));
    begin();
    String easing = browser.find("[data-in-hand]").getDomAttribute("data-in-hand");
    key("r", Keys.ARROW_RIGHT);
    browser.attributeWhen("[data-in-hand]", "data-in-hand", v -> !v.equals(easing));
    begin();
    rest();

    key("l", "4", "0", Keys.ENTER);
    line(t -> t.startsWith("lift to 40 %"));
    begin();
    rest();

    key("j", "4", Keys.ENTER);
    line(t -> t.contains("gear 4"));
    begin();
    rest();

    key("k");
    browser.find("[data-kerb-in-hand]");
    begin();
    rest();

    pointByKeys("t", "TURN_IN", Keys.ARROW_RIGHT, 2);
    pointByKeys("f", "FIRST_THROTTLE", Keys.ARROW_RIGHT, 2);
    pointByKeys("g", "FULL_THROTTLE", Keys.ARROW_RIGHT, 2);

    // The apex, and where the exit runs to: the line is laid anew and taken.
    double apex = flag("APEX");
    key("a", Keys.ARROW_RIGHT, Keys.ARROW_RIGHT, Keys.ENTER);
    browser.find("[data-laid-anew-note]");
    key(Keys.ENTER);
    browser.waitFor(() -> browser.all("[data-laid-anew-note]").isEmpty(), "it is taken");
    assertThat(flag("APEX")).isCloseTo(apex + 2, within(0.6));
    begin();
    rest();

    key("v");
    browser.find("[data-laid-anew-note]");
    key(Keys.ENTER);
    browser.waitFor(() -> browser.all("[data-laid-anew-note]").isEmpty(), "it is taken");
    browser.find("[data-place-across]");
    atRest();
    flagWhen("BRAKE", s -> s != brake);
  }

  @Test
  void byTheMouseAlone() {
    for (String kind : new String[] {"BRAKE", "TURN_IN", "FIRST_THROTTLE", "FULL_THROTTLE"}) {
      double before = flag(kind);
      drag(kind, kind.equals("BRAKE") ? -20 : 12);
      flagWhen(kind, s -> Math.abs(s - before) > 1);
      begin();
      left();
    }
    clickIn("throttle", 60, 20);
    line(t -> t.startsWith("lift to"));
    begin();
    rest();

    clickIn("gears", 200, 8);
    line(t -> t.contains("gear"));
    begin();
    rest();

    click("[data-tab=facts]");
    click("[data-add-kerb=EXIT]");
    click("//section[@aria-label='Kerb in hand']//button[.='ride']");
    browser.find("[data-kerb-in-hand=EXIT] [aria-pressed=true]");
    begin();
    rest();

    clickIn("left-edge", 50, 8);
    browser.find("[data-laid-anew-note]");
    click("//button[.='Take it']");
    browser.waitFor(() -> browser.all("[data-laid-anew-note]").isEmpty(), "it is taken");
    browser.find("[data-place-across]");
    begin();
    rest();
    atRest();

    double apex = flag("APEX");
    drag("APEX", 14);
    flagWhen("APEX", s -> s > apex + 1);
    browser.find("[data-laid-anew-note]");
    click("//button[.='Take it']");
    browser.waitFor(() -> browser.all("[data-laid-anew-note]").isEmpty(), "it is taken");
    assertThat(flag("APEX")).isGreaterThan(apex + 1);
    atRest();
  }

  private void tap(String where) {
    browser.tap(where);
    presses++;
  }

  /** Draws the ruler along by so many metres. */
  private void ruler(int metres) {
    browser.swipe("[data-ruler] svg", 0, 0, 10 * metres);
    presses++;
  }

  private void pad(String amount) {
    browser.fill("[data-amount-pad]", amount + Keys.ENTER);
    presses++;
  }

  @Test
  void byAFingerOnAPhone() {
    browser.resize(390, 844);
    try {
      browser.find("[data-open-up]");
      for (String kind : new String[] {"BRAKE", "TURN_IN", "FULL_THROTTLE"}) {
        double before = flag(kind);
        tap("[data-flag=" + kind + "] [data-grip]");
        browser.find("[data-flag=" + kind + "]:focus");
        assertThat(flag(kind)).as("a tap moves nothing").isEqualTo(before);
        ruler(-3);
        flagWhen(kind, s -> Math.abs(s - before + 3) < 0.6);
        begin();
        left();
      }
      // A finger that goes on to scroll writes nothing; a tap does.
      browser.swipe("[data-lane=throttle]", -60, 0, 40);
      assertThat(browser.all("[data-in-hand]")).isEmpty();
      browser.swipe("[data-lane=throttle]", -60, 0, 0);
      presses++;
      line(t -> t.startsWith("lift to"));
      pad("40");
      line(t -> t.startsWith("lift to 40 %"));
      begin();
      assertThat(browser.run("return document.documentElement.scrollWidth")).isEqualTo(390L);
      atRest();
    } finally {
      browser.resize(1280, 900);
    }
  }
}
