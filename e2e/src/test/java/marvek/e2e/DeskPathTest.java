package marvek.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;

/** The reference computed through the real interface: ways, pedals, gears, days, notes, coach. */
class DeskPathTest {
  private static Browser browser;
  private String reference = "";

  @BeforeAll
  static void start() {
    browser = new Browser();
  }

  @AfterAll
  static void stop() {
    browser.close();
  }

  /** A newcomer with a draft, on its first corner that is braked for. */
  @BeforeEach
  void draft() {
    reference = browser.newcomersDraft();
  }

  private static double station(String flag) {
    return Double.parseDouble(
        browser.attributeWhen("[data-flag=" + flag + "]", "data-station", v -> !v.isEmpty()));
  }

  private static void tab(String name) {
    browser.click("[data-tab=" + name + "]");
    browser.find("[data-tab=" + name + "][aria-selected=true]");
  }

  private static void kept() {
    browser.textWhen("span[role=status]", t -> t.equals("kept"));
  }

  @Test
  void aBrakingThatTheReferenceLacksIsSaidWhenItIsOpenedAndTakenFromTheDraft() {
    double before = station("BRAKE");
    browser.click("//div[@aria-label='Slow by']/button[.='flat']");
    kept();
    browser.reload();
    browser.find("[data-lost], [data-lost-elsewhere]");
    if (browser.all("[data-lost]").isEmpty()) {
      browser.click("[data-lost-elsewhere] button");
    }
    assertThat(browser.find("[data-lost]").getText())
        .contains("The computed lap brakes here")
        .contains("this reference does not");
    browser.click("[data-lost] button.btn-primary");
    assertThat(station("BRAKE")).isCloseTo(before, org.assertj.core.api.Assertions.within(1.0));
    kept();
    browser.reload();
    browser.find("[data-flag=BRAKE]");
    assertThat(browser.all("[data-lost]")).isEmpty();
  }

  @Test
  void anApexMovedByTheKeysHasTheLineLaidAnewTakenAndUndone() {
    double apex = station("APEX");
    double brake = station("BRAKE");
    browser.press("a");
    for (int k = 0; k < 6; k++) {
      browser.press(Keys.ARROW_RIGHT);
    }
    browser.press(Keys.ENTER);
    browser.textWhen("[data-laid-anew-note]", t -> t.contains("s a lap against the line at hand"));
    browser.find("[data-laid-anew]");
    browser.click("//button[.='Take it']");
    browser.find("[data-laid-in-part]");
    assertThat(browser.all("[data-laid-anew-note]")).isEmpty();
    assertThat(station("APEX")).as("stays where it was put").isEqualTo(apex + 6);
    tab("edges");
    browser.textWhen("[data-gate]", t -> t.contains("from the"));
    browser.click("[data-gate] button");
    browser.textWhen("[data-laid-anew-note]", t -> t.contains("s a lap"));
    browser.click("//button[.='Leave it']");
    browser.click("button[aria-label=Undo]");
    tab("marker");
    browser.waitFor(() -> browser.all("[data-laid-in-part]").isEmpty(), "the line back");
    for (int k = 0; k < 6 && station("APEX") != apex; k++) {
      browser.click("button[aria-label=Undo]");
    }
    assertThat(station("APEX")).isEqualTo(apex);
    assertThat(station("BRAKE")).isCloseTo(brake, org.assertj.core.api.Assertions.within(1.0));
    kept();
  }

  @Test
  void aLiftIsPressedForTypedFoundByACueKeptSaidAndTakenOut() {
    browser.clickIn("[data-lane=throttle]", 60, 20);
    browser.textWhen("[data-in-hand] [data-line]", t -> t.startsWith("lift to"));
    browser.press("40", Keys.ENTER);
    browser.textWhen("[data-in-hand] [data-line]", t -> t.startsWith("lift to 40 %"));
    browser.textWhen("[data-costs]", t -> t.contains("without it") && t.contains("s"));
    String lift = browser.find("[data-in-hand]").getDomAttribute("data-in-hand");
    String handle = "[data-action=" + lift + "]";
    double placed = Double.parseDouble(browser.find(handle).getDomAttribute("data-station"));
    browser.press(Keys.ARROW_LEFT);
    browser.attributeWhen(
        handle, "data-station", v -> Math.abs(Double.parseDouble(v) - placed + 1) < 0.01);
    // Past 95 % nothing is kept from it: the limit is said and nothing changes.
    browser.press("99", Keys.ENTER);
    browser.textWhen("[role=alert]", t -> t.contains("At most 95 %"));
    browser.click("[data-cue]");
    browser.find("[data-cue][aria-pressed=true]");
    kept();
    browser.reload();
    browser.find(handle);
    browser.click("button[aria-label='Next corner']");
    browser.click("button[aria-label='Corner before']");
    browser.textWhen("[data-sentence]", t -> t.toLowerCase().contains("lift to 40 %"));
    browser.run("document.querySelector(arguments[0]).focus()", handle);
    browser.press(Keys.DELETE);
    browser.waitFor(() -> browser.all(handle).isEmpty(), "the lift is gone");
    browser.click("button[aria-label=Undo]");
    browser.find(handle);
    kept();
  }

  @Test
  void actionsThatTouchAreOneKnotThatOpensAsAColumn() {
    String one = lift(60);
    String other = lift(80);
    assertThat(other).isNotEqualTo(one);
    String moved = "[data-action=" + other + "]";
    double there = at(one);
    boolean later = at(other) < there;
    Keys towards = later ? Keys.ARROW_RIGHT : Keys.ARROW_LEFT;
    browser.run("document.querySelector(arguments[0]).focus()", moved);
    // Past the other and back: the keys stay with what is in hand.
    step(other, towards, () -> later ? at(other) > there + 1 : at(other) < there - 1);
    browser.find(moved + ":focus");
    step(
        other, later ? Keys.ARROW_LEFT : Keys.ARROW_RIGHT, () -> Math.abs(at(other) - there) < 0.6);
    browser.click("[data-knot='2']");
    browser.find("[data-knot-open]");
    browser.click("[data-knot-row=" + one + "]");
    browser.find("[data-in-hand=" + one + "]");
    assertThat(browser.all("[data-knot-open]")).isEmpty();
    // By the keys as well, and let go with nothing taken.
    browser.run("document.querySelector(\"[data-knot='2']\").focus()");
    browser.press(Keys.ENTER);
    browser.find("[data-knot-row=" + other + "]");
    browser.press(Keys.ESCAPE);
    browser.waitFor(() -> browser.all("[data-knot-open]").isEmpty(), "the column is shut");
    browser.find("[data-in-hand=" + one + "]");
    browser.run("document.querySelector(arguments[0]).focus()", "[data-action=" + one + "]");
    browser.press(Keys.DELETE);
    browser.waitFor(() -> browser.all("[data-knot='2']").isEmpty(), "one alone is no knot");
    kept();
  }

  private double at(String action) {
    return Double.parseDouble(
        browser.find("[data-action=" + action + "]").getDomAttribute("data-station"));
  }

  /** Moves an action metre by metre until it is where it shall be. */
  private void step(String action, Keys key, java.util.function.BooleanSupplier there) {
    for (int k = 0; k < 120 && !there.getAsBoolean(); k++) {
      double before = at(action);
      browser.press(key);
      browser.waitFor(() -> at(action) != before, "it moves a metre");
    }
    assertThat(there.getAsBoolean()).isTrue();
  }

  /** The lift that a press on the throttle's lane makes, at 40 %. */
  private String lift(int x) {
    browser.press(Keys.ESCAPE);
    browser.clickIn("[data-lane=throttle]", x, 20);
    browser.textWhen("[data-in-hand] [data-line]", t -> t.startsWith("lift to"));
    browser.press("40", Keys.ENTER);
    browser.textWhen("[data-in-hand] [data-line]", t -> t.startsWith("lift to 40 %"));
    return browser.find("[data-in-hand]").getDomAttribute("data-in-hand");
  }

  @Test
  void aPlaceAcrossIsPressedForAtTheEdgeAndTheLineLaidThroughIt() {
    browser.clickIn("[data-lane=left-edge]", 50, 8);
    browser.textWhen("[data-laid-anew-note]", t -> t.contains("s a lap"));
    browser.find("[data-place-across]");
    browser.click("//button[.='Take it']");
    browser.find("[data-laid-in-part]");
    browser.find("[data-place-across]");
    browser.click("button[aria-label=Undo]");
    browser.waitFor(() -> browser.all("[data-place-across]").isEmpty(), "no place across");
    kept();
  }

  @Test
  void aPaceIsChosenComputedAnewAndUndone() {
    double before = station("BRAKE");
    tab("pace");
    browser.textWhen("[data-pace-lap]", t -> t.contains("all that the vehicle can do"));
    browser.click("[data-tier='0.045']");
    browser.textWhen("[data-pace-lap]", t -> t.contains("4.5 % off the best"));
    assertThat(station("BRAKE")).as("nothing moves by itself").isEqualTo(before);
    browser.textWhen("[data-pace-corner]", t -> t.contains("next tier"));
    String share = browser.find("[data-share=braking]").getDomAttribute("aria-valuenow");
    assertThat(Integer.parseInt(share)).isBetween(80, 97);
    kept();
    browser.click("[data-pace-behind] a");
    browser.textWhen("[data-recomputed-lap]", t -> t.contains("Nothing has changed yet"));
    browser.click("[data-take-recomputed]");
    browser.waitFor(() -> station("BRAKE") < before - 2, "it brakes sooner");
    browser.click("//a[contains(., 'what was can be brought back')]");
    browser.click("[data-undo-recomputed]");
    browser.waitFor(() -> station("BRAKE") == before, "what was is back");
  }

  @Test
  void theAxlesAreToldAndWhatIsFeltIsKeptAndHeldAgainstThem() {
    tab("axles");
    String told = browser.textWhen("[data-part=middle]", t -> !t.isBlank());
    browser.find("[data-move=TRAIL], [data-move=BRAKES]");
    browser.textWhen("[data-move=BAR]", t -> t.contains("s a lap"));
    String felt = told.startsWith("pushes") ? "turns" : "pushes";
    browser.click("[data-feel=middle-" + felt + "]");
    browser.textWhen("[data-disagrees]", t -> t.contains(told));
    kept();
    browser.reload();
    tab("axles");
    browser.find("[data-feel=middle-" + felt + "][aria-pressed=true]");
    browser.click("[data-feel=middle-" + felt + "]");
    browser.waitFor(() -> browser.all("[data-disagrees]").isEmpty(), "nothing is felt any more");
  }

  @Test
  void aWayIsComparedTakenShapedAndUndone() {
    double before = station("BRAKE");
    tab("ways");
    browser.click("[data-question=BRAKE_SHAPE] button");
    browser.textWhen("[data-school=FRONT_LOADED]", t -> t.contains(" s") && t.contains("sooner"));
    browser.textWhen("[data-school=PROGRESSIVE]", t -> t.contains("peak"));
    browser.click("[data-school=PROGRESSIVE] button");
    browser.find("[data-school=PROGRESSIVE] button[aria-pressed=true]");
    browser.find("[data-pedal='Peak of the brake']");
    assertThat(station("BRAKE")).isLessThan(before - 5);

    // A handle answers: pressing harder than there is grip is said on the drawing.
    tab("marker");
    browser.textWhen("[data-shape]", t -> t.contains("just makes it"));
    browser.run("document.querySelector(\"[data-pedal='Peak of the brake']\").focus()");
    for (int i = 0; i < 12; i++) {
      browser.press(Keys.ARROW_DOWN);
    }
    browser.textWhen("[data-shape]", t -> t.contains("peak set to"));
    browser.find("[data-over-asked]");
    browser.textWhen("section[aria-label='What it leads to']", t -> t.contains("% of the grip"));
    browser.click("//button[.='let the peak follow']");
    browser.textWhen("[data-shape]", t -> t.contains("just makes it"));
    browser.waitFor(() -> browser.all("[data-over-asked]").isEmpty(), "nothing is over-asked");
    browser.press(Keys.ESCAPE);
    kept();
    browser.reload();
    browser.find("[data-pedal='Hold of the brake']");
    tab("ways");
    browser.textWhen("[data-question=BRAKE_SHAPE]", t -> t.contains("lighter and longer"));
  }

  @Test
  void takingAWayIsOneStepOfUndo() {
    double before = station("BRAKE");
    tab("ways");
    browser.click("[data-question=RELEASE] button");
    browser.textWhen("[data-school=EARLY_ROLL]", t -> t.contains("sooner"));
    browser.click("[data-school=EARLY_ROLL] button");
    browser.find("[data-school=EARLY_ROLL] button[aria-pressed=true]");
    browser.pressWith(Keys.CONTROL, "z");
    browser.waitFor(() -> Math.abs(station("BRAKE") - before) < 0.6, "the marker is back");
    browser.waitFor(() -> browser.all("[data-pedal]").isEmpty(), "no shape is left");
  }

  @Test
  void whatIsUsedStandsOnTheDrawingAndTheRestIsOutOfSight() {
    tab("facts");
    assertThat(browser.all("[data-detail]")).isEmpty();
    browser.click("[data-add-fact=HAZARD]");
    browser.find("[data-note-words]");
    browser.press("oil by the white post");
    browser.textWhen("[data-note=HAZARD]", t -> t.contains("oil by the white post"));
    browser.press(Keys.ENTER);
    browser.click("[data-step=BACK_UP]");
    browser.find("[data-flag=BACK_UP]");
    browser.click("[data-add-kerb=EXIT]");
    browser.click("//section[@aria-label='Kerb in hand']//button[.='ride']");
    browser.find("[data-kerb-use=EXIT][data-how=RIDE]");
    browser.click("//summary[.='How sure of each point']");
    browser.choose("[data-sure=APEX] select", "unsure");
    browser.find("[data-flag=APEX] [data-unsure]");
    // With a kerb in hand the sentence stands aside.
    browser.click("[data-corner=c2]");
    browser.click("[data-corner=c1]");
    browser.click("//button[.='full']");
    browser.textWhen(
        "[data-sentence]",
        t ->
            t.startsWith("1: ")
                && t.contains("oil by the white post")
                && t.contains("if it is hidden")
                && t.contains("Not sure of: apex."));
    // Own words stand in for the line until the points under them change.
    browser.click("//button[.='line']");
    browser.click("[data-reword]");
    browser.fill("[data-own-words]", "Late and patient");
    browser.press(Keys.TAB);
    browser.textWhen("[data-sentence]", t -> t.equals("Late and patient"));
    browser.press(Keys.ESCAPE);
    browser.run("document.activeElement.blur()");
    browser.press("b");
    browser.press(Keys.ARROW_LEFT, Keys.ARROW_LEFT, Keys.ARROW_LEFT);
    browser.textWhen("[data-sentence]", t -> t.contains("The points have changed"));
    browser.find("[data-wording-due]");
    kept();
    browser.reload();
    browser.click("[data-note=HAZARD]");
    browser.click("button[aria-label='Remove hazard']");
    browser.waitFor(() -> browser.all("[data-note=HAZARD]").isEmpty(), "the note is gone");
  }

  @Test
  void anotherDayIsProposedShownBesideAndSetByHand() {
    double dry = station("BRAKE");
    tab("days");
    browser.choose("[data-add-day]", "wet");
    browser.textWhen("[data-changes]", t -> t.contains("grip 70 %") && t.contains("sooner"));
    browser.find("[data-under]");
    double wet = station("BRAKE");
    assertThat(wet).isLessThan(dry - 8);
    browser.run("document.querySelector('[data-flag=BRAKE]').focus()");
    browser.pressWith(Keys.SHIFT, Keys.ARROW_LEFT);
    browser.textWhen("[data-changes]", t -> t.contains("by hand: braking"));
    assertThat(station("BRAKE")).isLessThan(wet - 4);
    browser.set("input[name=grip]", "85");
    browser.textWhen("[data-changes]", t -> t.contains("grip 85 %"));
    browser.click("//button[.='dry, warm']");
    browser.waitFor(() -> Math.abs(station("BRAKE") - dry) < 0.6, "the reference is as it was");
    assertThat(browser.all("[data-under]")).isEmpty();
    kept();
    browser.reload();
    tab("days");
    browser.click("[data-variant=WET]");
    browser.textWhen("[data-changes]", t -> t.contains("by hand: braking"));
    browser.click("//button[.='Take what is proposed here']");
    browser.textWhen("[data-changes]", t -> !t.contains("by hand"));
  }

  @Test
  void gearsStandOnTheirRevsAndTheExitHasAPrice() {
    tab("gears");
    browser.textWhen("[data-exit-worth]", t -> t.contains("1 km/h more") && t.contains("gives"));
    browser.textWhen("[data-downshifts]", t -> t.contains(" at "));
    browser.click("[data-gear-row='3']");
    browser.find("[data-gear-row='3'][aria-pressed=true]");
    browser.textWhen("[data-sentence]", t -> t.contains("third"));
  }

  @Test
  void theWholeLapIsOneTableToSortAndPrint() {
    browser.open("/whole/" + reference);
    browser.find("tbody tr:nth-child(7)");
    String first = browser.find("tbody tr:first-child").getDomAttribute("data-row");
    assertThat(first).isEqualTo("c1");
    browser.click("[data-sort=low]");
    browser.waitFor(
        () -> {
          int last = 0;
          for (var cell : browser.all("tbody td:nth-child(11)")) {
            int speed = Integer.parseInt(cell.getText());
            if (speed < last) {
              return false;
            }
            last = speed;
          }
          return last > 0;
        },
        "sorted by the lowest speed");
    byte[] pdf = browser.print();
    assertThat(new String(pdf, 0, 5, StandardCharsets.US_ASCII)).isEqualTo("%PDF-");
    browser.open("/card/" + reference + "/0");
    browser.click("//button[.='pocket']");
    assertThat(browser.find("ol.pocket").findElements(org.openqa.selenium.By.tagName("li")))
        .hasSize(7);
    browser.click("//button[.='full']");
    browser.textWhen("article", t -> t.contains("Arrive at"));
  }

  @Test
  void aCopyForAnotherVehicleIsMarkedAsNotProved() {
    browser.open("/vehicle");
    browser.click("//li[contains(., '600 cc')]//button");
    browser.waitFor(() -> browser.here().contains("/vehicle/"), "the copy of the class is open");
    browser.open("/reference/" + reference);
    browser.textWhen("[data-margin]", t -> t.contains("m ·"));
    browser.click("//summary[.='File']");
    browser.click("//button[.='Copy to another vehicle…']");
    browser.find("//h2[.='Copy the reference']");
    browser.click("//form//button[.='Copy']");
    browser.waitFor(() -> !browser.here().endsWith(reference), "another reference is open");
    browser.find("[data-unsure]");
    browser.open("/reference/" + reference);
    browser.textWhen("[data-margin]", t -> t.contains("m ·"));
    assertThat(browser.all("[data-unsure]")).isEmpty();
  }

  @Test
  void aCoachProposesTheDriverTakesItOverAndAViewerOnlyLooks() {
    double before = station("BRAKE");
    try (Browser other = new Browser()) {
      String email = other.signUp("Mestre");
      tab("remarks");
      browser.fill("input[aria-label=Address]", email);
      browser.click("//form[@aria-label='Open it to']//button[.='Open']");
      browser.find("[data-shared='" + email + "']");

      other.open("/");
      other.reload();
      other.click("[data-shared-reference] a");
      other.textWhen("[data-margin]", t -> t.contains("m ·"));
      other.textWhen("span[role=status]", t -> t.equals("to read"));
      other.press("b");
      other.pressWith(Keys.SHIFT, Keys.ARROW_LEFT);
      other.textWhen("span[role=status]", t -> t.equals("tried, not kept"));
      other.click("[data-tab=remarks]");
      other.fill("textarea[aria-label=Remark]", "Sooner, then off it sooner");
      other.click("//button[.='Propose']");
      other.textWhen("[data-remark=OPEN]", t -> t.contains("m sooner"));
      assertThat(other.all("//button[.='Save revision…']")).isEmpty();

      assertThat(station("BRAKE")).as("nothing changes by itself").isEqualTo(before);
      tab("marker");
      tab("remarks");
      browser.textWhen("[data-remark=OPEN]", t -> t.contains("Mestre") && t.contains("sooner"));
      browser.click("//button[.='Take it over']");
      browser.find("[data-remark=ACCEPTED]");
      browser.waitFor(() -> station("BRAKE") < before - 4, "the marker moved");
      browser.pressWith(Keys.CONTROL, "z");
      browser.waitFor(() -> Math.abs(station("BRAKE") - before) < 0.6, "and can be undone");

      browser.choose("select[aria-label=As]", "viewer");
      browser.fill("input[aria-label=Address]", email);
      browser.click("//form[@aria-label='Open it to']//button[.='Open']");
      browser.textWhen("[data-shared='" + email + "']", t -> t.contains("viewer"));
      other.reload();
      other.textWhen("[data-margin]", t -> t.contains("m ·"));
      other.find("[data-flag=BRAKE][aria-disabled=true]");
      other.click("[data-tab=remarks]");
      other.find("[data-remark=ACCEPTED]");
      assertThat(other.all("textarea[aria-label=Remark]")).isEmpty();
      browser.click("[data-shared='" + email + "'] button");
      browser.waitFor(() -> browser.all("[data-shared]").isEmpty(), "closed again");
      other.reload();
      other.textWhen("[role=alert]", t -> t.contains("no such reference"));
    }
  }
}
