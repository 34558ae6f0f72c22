package marvek.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.Keys;

/** A newcomer's way from a file to a saved and revised reference, through the real interface. */
class MainPathTest {
  private static final Path SAMPLES = Path.of("../server/src/main/resources/samples");
  private static Browser browser;

  @TempDir Path folder;

  @BeforeAll
  static void start() {
    browser = new Browser();
  }

  @AfterAll
  static void stop() {
    browser.close();
  }

  private static void signUp() {
    browser.signUp("Nova Piloto");
  }

  /** Saves one of the samples as a layout, and is on its page then. */
  private static void bringSample(String name) {
    browser.open("/survey/bring");
    browser.give("[data-outline]", SAMPLES.resolve(name));
    browser.find("[data-found='7']");
    browser.click("//button[.='Save as a layout']");
  }

  @Test
  void aNewcomerDraftsInThreeStepsAndRevises() throws IOException {
    signUp();
    // 1: a file.
    browser.click("//main//a[contains(., 'Bring a circuit')]");
    browser.give("[data-outline]", SAMPLES.resolve("outline.geojson"));
    browser.find("[data-found='7']");
    assertThat(browser.find("//p[contains(., '7 corners')]").getText()).contains("m");
    String first = browser.find("[data-found='1']").getText();
    browser.click("//button[contains(., 'Other direction')]");
    browser.textWhen("[data-found='1']", t -> !t.equals(first));
    browser.click("//button[contains(., 'Other direction')]");
    browser.textWhen("[data-found='1']", t -> t.equals(first));
    browser.fill("input[name=circuit]", "Vale do Junco");
    browser.click("//button[.='Save as a layout']");
    // 2: a vehicle, straight from a class.
    browser.choose("select[name=vehicle]", "Cup GT");
    // 3: the draft.
    browser.click("//button[.='Draft the reference']");
    String margin = browser.textWhen("[data-margin]", t -> t.contains("m ·"));
    assertThat(browser.find("[data-sentence]").getText()).startsWith("Brake ");
    assertThat(browser.all("[data-flag]")).hasSizeGreaterThanOrEqualTo(6);

    // Dragging the braking flag answers.
    String before = browser.find("[data-flag=BRAKE]").getDomAttribute("data-station");
    browser.drag("[data-flag=BRAKE] [data-grip]", -40);
    String after =
        browser.attributeWhen("[data-flag=BRAKE]", "data-station", v -> !v.equals(before));
    assertThat(Double.parseDouble(after)).isLessThan(Double.parseDouble(before) - 5);
    String larger = browser.textWhen("[data-margin]", t -> !t.equals(margin));
    assertThat(metres(larger)).isGreaterThan(metres(margin) + 4);
    // One undo takes the whole drag back.
    browser.click("button[aria-label=Undo]");
    browser.attributeWhen("[data-flag=BRAKE]", "data-station", v -> v.equals(before));
    browser.click("button[aria-label=Redo]");
    browser.attributeWhen("[data-flag=BRAKE]", "data-station", v -> v.equals(after));

    // Nudging by keys, and a gear.
    browser.press("b");
    browser.press(Keys.ARROW_RIGHT, Keys.ARROW_RIGHT);
    browser.attributeWhen(
        "[data-flag=BRAKE]",
        "data-station",
        v -> Math.abs(Double.parseDouble(v) - Double.parseDouble(after) - 2) < 0.6);
    browser.press(Keys.ESCAPE);
    browser.fill("#note", "The drain on the left");
    browser.textWhen("[data-sentence]", t -> t.contains("The drain on the left"));

    // Unsaved work survives a reload.
    browser.reload();
    browser.textWhen("[data-sentence]", t -> t.contains("The drain on the left"));
    save("First, before driving");
    browser.textWhen("header p", t -> t.contains("after revision 1"));

    // A second revision, compared in words and on the strip.
    browser.click("[data-corner=c1]");
    String saved = browser.find("[data-flag=BRAKE]").getDomAttribute("data-station");
    browser.press("b");
    for (int i = 0; i < 6; i++) {
      browser.press(Keys.ARROW_RIGHT);
    }
    browser.attributeWhen(
        "[data-flag=BRAKE]",
        "data-station",
        v -> Math.abs(Double.parseDouble(v) - Double.parseDouble(saved) - 6) < 0.1);
    browser.press(Keys.ESCAPE);
    save("Room to spare in 1");
    browser.textWhen("header p", t -> t.contains("after revision 2"));
    browser.click("//nav//a[contains(., 'Revisions')]");
    browser.textWhen("[data-differences]", t -> t.contains("T1 braking 6 m later, from the "));
    assertThat(browser.all("[data-revision]")).hasSize(2);
    browser.click("//li[@data-revision='1']//button[.='Start from this']");
    browser.textWhen("header p", t -> t.contains("after revision 1"));
    browser.attributeWhen("[data-flag=BRAKE]", "data-station", v -> v.equals(saved));
  }

  private static void save(String reason) {
    browser.click("//button[.='Save revision…']");
    browser.waitFor(
        () -> browser.find("dialog[open] textarea").isDisplayed(), "the dialog has opened");
    browser.fill("dialog[open] textarea", reason);
    browser.click("//dialog[@open]//button[.='Save']");
    browser.waitFor(() -> browser.all("dialog[open]").isEmpty(), "the dialog stays open");
  }

  private static double metres(String text) {
    return Double.parseDouble(text.split(" ")[0].replace('−', '-'));
  }

  @Test
  void badFilesAreExplainedAndTheNextOneStillWorks() throws IOException {
    signUp();
    browser.open("/survey/bring");
    Path open = folder.resolve("half.csv");
    StringBuilder half = new StringBuilder("x_m,y_m\n");
    for (int i = 0; i < 60; i++) {
      half.append(String.format(Locale.ROOT, "%d,%d%n", i * 10, i * i / 10));
    }
    Files.writeString(open, half);
    browser.give("[data-outline]", open);
    browser.textWhen("[role=alert]", t -> t.contains("not closed") && t.contains("row 61"));
    Path words = folder.resolve("words.csv");
    Files.writeString(words, "x_m,y_m\n1,2\n3,here\n");
    browser.give("[data-outline]", words);
    browser.textWhen("[role=alert]", t -> t.contains("row 3, column 2"));
    Path bomb = folder.resolve("bomb.gpx");
    Files.writeString(
        bomb,
        "<?xml version=\"1.0\"?><!DOCTYPE gpx [<!ENTITY a \"b\">]><gpx>&a;</gpx>",
        StandardCharsets.UTF_8);
    browser.give("[data-outline]", bomb);
    browser.textWhen("[role=alert]", t -> t.contains("DOCTYPE"));
    Path eight = folder.resolve("eight.csv");
    StringBuilder text = new StringBuilder("x_m,y_m\n");
    for (int i = 0; i < 200; i++) {
      double t = (i + 25) * Math.PI / 100;
      double d = 1 + Math.sin(t) * Math.sin(t);
      text.append(
          String.format(
              Locale.ROOT,
              "%.2f,%.2f%n",
              300 * Math.cos(t) / d,
              300 * Math.sin(t) * Math.cos(t) / d));
    }
    Files.writeString(eight, text);
    browser.give("[data-outline]", eight);
    browser.textWhen("[role=alert]", t -> t.contains("crosses itself"));
    browser.click("//button[.='A bridge: take it']");
    browser.find("[data-found='2']");
    assertThat(browser.all("[role=alert]")).isEmpty();
    // The start/finish line moves along the road: by keys, then dragged; entries change with it.
    String entry = browser.find("[data-found='1']").getText();
    browser.run("document.querySelector('[data-start]').focus()");
    browser.pressWith(Keys.SHIFT, Keys.ARROW_RIGHT);
    browser.press(Keys.TAB);
    browser.drag("[data-start]", 160);
    browser.textWhen("[data-found='1']", t -> !t.equals(entry));
  }

  @Test
  void aVehicleIsCopiedEditedAndAnswersAtOnce() {
    signUp();
    browser.open("/vehicle");
    browser.click("//li[contains(., 'Single-seater')]//button[.='Copy as mine']");
    String top = browser.textWhen("[data-top]", t -> t.contains("km/h"));
    String stop = browser.find("[data-stop]").getText();
    String third = browser.find("[data-gear-speed='3']").getText();
    browser.fill("input[name='aero.cdA']", "1.3");
    browser.textWhen("[data-top]", t -> !t.equals(top));
    browser.fill("input[name='tyres.muX']", "1.2");
    browser.textWhen("[data-stop]", t -> !t.equals(stop));
    browser.fill("input[name='gear-3']", "1.6");
    browser.textWhen("[data-gear-speed='3']", t -> !t.equals(third));
    browser.fill("input[name='mass']", "12");
    browser.find("//p[contains(., 'out of range')]");
    assertThat(browser.find("//button[.='Save']").isEnabled()).isFalse();
    browser.fill("input[name='mass']", "700");
    browser.waitFor(() -> browser.all("//p[contains(., 'out of range')]").isEmpty(), "error stays");
    browser.click("//button[.='Save']");
    browser.find("//button[.='Saved']");
    browser.reload();
    browser.find("[data-top]");
    assertThat(browser.find("input[name='gear-3']").getDomProperty("value")).isEqualTo("1.6");
  }

  @Test
  void twoWindowsGetAConflictThatShowsBoth() {
    browser.signInAsDemoDriver();
    String id = reference();
    browser.open("/reference/" + id);
    browser.find("[data-margin]");
    String here = browser.newWindow();
    browser.open("/reference/" + id);
    browser.find("[data-margin]");
    browser.fill("#note", "From the second window");
    browser.textWhen("section [role=status]", t -> t.equals("kept"));
    String there = browser.window();
    browser.goTo(here);
    browser.fill("#note", "From the first window");
    browser.find("//h2[.='Two windows changed this reference']");
    browser.textWhen(
        "dialog[open] table",
        t -> t.contains("From the second window") && t.contains("From the first window"));
    browser.click("dialog[open] [data-side=theirs]");
    browser.click("//button[.='Keep these']");
    browser.textWhen("[data-sentence]", t -> t.contains("From the second window"));
    browser.click("button[aria-label=Undo]");
    browser.textWhen("[data-sentence]", t -> t.contains("From the first window"));
    browser.textWhen("section [role=status]", t -> t.equals("kept"));
    browser.goTo(there);
    browser.run("window.close()");
    browser.goTo(here);
  }

  private static String reference() {
    Object id =
        browser.run(
            "const r = new XMLHttpRequest(); r.open('GET', '/api/paddock', false); r.send();"
                + " return JSON.parse(r.responseText).reference;");
    return String.valueOf(id);
  }

  @Test
  void theCardFitsOnOnePageAndTheUnitsAreTheDrivers() throws IOException {
    browser.signInAsDemoDriver();
    String id = reference();
    browser.open("/card/" + id + "/3");
    browser.textWhen("article", t -> t.contains("Falcoeira Ring") && t.contains("150 board + "));
    byte[] pdf = browser.print();
    String text = new String(pdf, StandardCharsets.ISO_8859_1);
    assertThat(text.split("/Type\\s*/Page[^s]", -1)).as("pages").hasSize(2);
    browser.choose("header [name=speed]", "mph");
    browser.textWhen("article th.n + th, article thead", t -> t.contains("mph"));
    browser.choose("header [name=speed]", "km/h");
    browser.textWhen("article thead", t -> t.contains("km/h"));
  }

  @Test
  void aFileOfTheReferenceComesBackAsOneStepOfUndo() throws IOException {
    signUp();
    bringSample("outline.csv");
    browser.choose("select[name=vehicle]", "600 cc motorcycle");
    browser.click("//button[.='Draft the reference']");
    browser.find("[data-margin]");
    String id = browser.here().replaceFirst(".*/reference/", "");
    String csv =
        String.valueOf(
            browser.run(
                "const r = new XMLHttpRequest();"
                    + " r.open('GET', '/api/references/"
                    + id
                    + "/export.csv', false);"
                    + " r.send(); return r.responseText;"));
    String before = browser.find("[data-sentence]").getText();
    Path edited = folder.resolve("edited.csv");
    Files.writeString(edited, csv.replaceFirst("(?m)^(1,.*),\\s*$", "$1,From the spreadsheet"));
    browser.give("[data-bring]", edited);
    browser.textWhen("[data-sentence]", t -> t.contains("From the spreadsheet"));
    browser.pressWith(Keys.CONTROL, "z");
    browser.textWhen("[data-sentence]", t -> t.equals(before));
    Path broken = folder.resolve("broken.csv");
    Files.writeString(broken, csv.replaceFirst("(?m)^2,", "99,"));
    browser.give("[data-bring]", broken);
    browser.textWhen("[role=alert]", t -> t.contains("row 3, column corner"));
    browser.textWhen("[data-sentence]", t -> t.equals(before));
  }

  @Test
  void aBoardIsMovedAndTheKeysAreListed() {
    browser.signInAsDemoDriver();
    browser.open("/reference/" + reference());
    browser.find("[data-margin]");
    browser.click("[data-corner=c14]");
    browser.textWhen("section h1", t -> t.contains("Adega"));
    String words = browser.textWhen("[data-sentence]", t -> t.contains("100 board"));
    browser.drag("[data-landmark='100']", 30);
    browser.textWhen("[data-sentence]", t -> !t.equals(words));
    browser.press("]");
    browser.textWhen("section h1", t -> t.contains("Portão"));
    browser.press("?");
    browser.find("//dialog[@open]//h2[.='Keys']");
    browser.press("[");
    browser.click("//dialog[@open]//button[.='Close']");
    assertThat(browser.find("section h1").getText()).contains("Portão");
  }

  @Test
  void everythingOnACornerCanBeDoneByKeysAlone() {
    signUp();
    bringSample("outline.gpx");
    browser.choose("select[name=vehicle]", "Downforce prototype");
    browser.click("//button[.='Draft the reference']");
    browser.find("[data-margin]");
    String apex = browser.find("[data-flag=APEX]").getDomAttribute("data-station");
    browser.press("a");
    browser.pressWith(Keys.SHIFT, Keys.ARROW_RIGHT);
    browser.attributeWhen(
        "[data-flag=APEX]",
        "data-station",
        v -> Math.abs(Double.parseDouble(v) - Double.parseDouble(apex) - 5) < 0.1);
    assertThat(browser.find("[data-flag=APEX]").getDomAttribute("aria-valuetext"))
        .startsWith("Apex");
    browser.press(Keys.ESCAPE);
    browser.click("[data-gear='4']");
    browser.attributeWhen("[data-gear='4']", "aria-pressed", v -> v.equals("true"));
    browser.press("s");
    browser.find("//dialog[@open]//h2[.='Save a revision']");
    browser.press("By keys", Keys.TAB);
    browser.press(Keys.ESCAPE);
    browser.waitFor(() -> browser.all("dialog[open]").isEmpty(), "the dialog stays open");
    browser.pressWith(Keys.CONTROL, "z");
    browser.attributeWhen(
        "[data-flag=APEX]",
        "data-station",
        v -> Math.abs(Double.parseDouble(v) - Double.parseDouble(apex) - 5) < 0.1);
    browser.pressWith(Keys.CONTROL, "z");
    browser.attributeWhen("[data-flag=APEX]", "data-station", v -> v.equals(apex));
  }

  @Test
  void aCornerIsNamedTheLookIsKeptAndSigningOutClosesTheDoor() {
    signUp();
    bringSample("outline.csv");
    String name = "[data-editor=corners] input[name=name]";
    browser.click("[data-corner=c2]");
    browser.fill(name, "The old mill" + Keys.TAB);
    browser.find("main[data-waiting='0']");
    browser.click("button[aria-label='Dusk look']");
    browser.find("html[data-theme=dusk]");
    browser.choose("header [name=length]", "ft");
    browser.textWhen("[data-editor=corners] h2", t -> t.contains("ft radius"));
    browser.reload();
    browser.find("html[data-theme=dusk]");
    browser.click("[data-corner=c2]");
    browser.textWhen("[data-editor=corners] h2", t -> t.contains("ft radius"));
    assertThat(browser.find(name).getDomProperty("value")).isEqualTo("The old mill");
    String here = browser.here();
    browser.click("button[aria-label^='Sign out']");
    browser.find("//h2[.='Sign in']");
    browser.open(here.replaceFirst(".*#", ""));
    browser.find("//h2[.='Sign in']");
  }
}
