package marvek.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.Keys;

/** Surveying a circuit, on the strip and on foot, through the real interface. */
class SurveyPathTest {
  private static final Path SAMPLES = Path.of("../server/src/main/resources/samples");
  private static final String STORED = "main[data-waiting='0']";

  @TempDir private Path folder;
  private Cable cable;
  private Browser browser;

  @BeforeEach
  void start() throws IOException {
    cable = new Cable(Browser.server());
    browser = new Browser(cable.address());
  }

  @AfterEach
  void stop() throws IOException {
    browser.close();
    cable.close();
  }

  /** A newcomer with the sample circuit as a layout of their own; on its survey then. */
  private String bringCircuit() {
    browser.open("/");
    browser.click("//button[.='I am new here']");
    browser.fill("input[autocomplete=name]", "Nova Piloto");
    browser.fill("input[type=email]", UUID.randomUUID() + "@example.org");
    browser.fill("input[type=password]", "a long enough word");
    browser.click("//button[.='Make the account']");
    browser.find("//h1[.='Bring a circuit']");
    browser.open("/survey/bring");
    browser.give("[data-outline]", SAMPLES.resolve("outline.geojson"));
    browser.find("[data-found='7']");
    browser.click("//button[.='Save as a layout']");
    browser.find("[data-strip]");
    String here = browser.here();
    return here.substring(here.lastIndexOf('/') + 1);
  }

  private void draft() {
    browser.click("//button[@role='tab'][starts-with(., 'Draft')]");
    browser.choose("select[name=vehicle]", "Cup GT");
    browser.click("//button[.='Draft the reference']");
    browser.find("[data-margin]");
  }

  private void landmarks(int count) {
    browser.textWhen("header p", t -> t.contains(count + " landmarks · stored"));
  }

  @Test
  void tenLandmarksThreeKerbsAndTwoZonesAreRecordedInSeconds() {
    bringCircuit();
    Instant begun = Instant.now();
    String[] kinds = {
      "BOARD", "TREE", "POST", "SEAM", "BARRIER", "BRIDGE", "ROAD", "LINE", "CONE", "OTHER"
    };
    for (int i = 0; i < kinds.length; i++) {
      browser.click("[data-tool=landmark]");
      browser.click("[data-tool=" + kinds[i] + "]");
      browser.clickIn("[data-strip]", 70 + i * 115, i % 2 == 0 ? 50 : 222);
    }
    landmarks(10);
    browser.press(Keys.ESCAPE);
    browser.click("[data-tool=kerb]");
    for (int i = 0; i < 3; i++) {
      int y = i % 2 == 0 ? 70 : 200;
      browser.dragIn("[data-strip]", 150 + i * 300, y, 230 + i * 300);
    }
    browser.find("[data-editor=kerbs]");
    browser.choose("select[name=profile]", "sausage");
    browser.click("[data-tool=zone]");
    for (int i = 0; i < 2; i++) {
      browser.dragIn("[data-strip]", 260 + i * 300, 134, 380 + i * 300);
    }
    browser.find(STORED);
    Duration took = Duration.between(begun, Instant.now());
    assertThat(took).isLessThan(Duration.ofMinutes(3));

    assertThat(browser.all("path[aria-label$=' kerb']")).hasSize(3);
    assertThat(browser.all("path[aria-label='stays damp']")).hasSize(2);
    browser.click("button[aria-label=Undo]");
    browser.waitFor(
        () -> browser.all("path[aria-label='stays damp']").size() == 1, "undo takes one zone");
    browser.find(STORED);
    browser.reload();
    landmarks(10);
    assertThat(browser.all("path[aria-label$=' kerb']")).hasSize(3);
    assertThat(browser.all("path[aria-label='stays damp']")).hasSize(1);

    // Moved by dragging and by key, named, and refused when it cannot be.
    browser.click("//button[.='Look']");
    String board = "//*[name()='g'][@data-landmark][contains(@aria-label, 'board')]";
    String before = browser.find(board).getDomAttribute("aria-valuenow");
    browser.drag(board, 60);
    String after = browser.attributeWhen(board, "aria-valuenow", v -> !v.equals(before));
    assertThat(Integer.parseInt(after)).isGreaterThan(Integer.parseInt(before));
    browser.find("[data-editor=landmarks]");
    browser.fill("input[name=label]", "75" + Keys.ENTER);
    browser.find("//h2[.='75 board']");
    browser.fill("input[name=height]", "900" + Keys.TAB);
    browser.textWhen("main", t -> t.contains("Give 0 to 200"));
    browser.fill("input[name=height]", "2" + Keys.TAB);
    browser.find(STORED);
    browser.waitFor(
        () -> !browser.find("main").getText().contains("Give 0 to 200"), "the refusal goes away");
  }

  @Test
  void cornersAreNamedSplitMergedAndTakenBack() {
    bringCircuit();
    browser.find("[data-strip]");
    browser.click("[data-corner=c2]");
    browser.fill("[data-editor=corners] input[name=name]", "Moinho" + Keys.TAB);
    browser.find(STORED);
    browser.click("//button[.='Split in two']");
    browser.waitFor(() -> browser.all("[data-corner]").size() == 8, "eight corners");
    browser.textWhen("header p", t -> t.contains("8 corners"));
    browser.find("//*[name()='g'][@data-corner][contains(@aria-label, '2B')]");
    browser.click("button[aria-label=Undo]");
    browser.waitFor(() -> browser.all("[data-corner]").size() == 7, "seven corners again");
    browser.find("//*[name()='g'][@data-corner][contains(@aria-label, 'Moinho')]");
    browser.choose("header [name=corners]", "names");
    browser.find("//*[name()='text'][contains(., 'Moinho')]");
    browser.choose("header [name=corners]", "numbers");
    browser.click("//button[starts-with(., 'Merge with')]");
    browser.textWhen("header p", t -> t.contains("6 corners"));
    browser.fill("[data-editor=corners] input[name=number]", "4" + Keys.TAB);
    browser.textWhen("main", t -> t.contains("Two corners are numbered 4"));
  }

  @Test
  void anotherHourGradesAnewAndANewVersionMarksTheReference() {
    String layout = bringCircuit();
    draft();
    browser.open("/survey/" + layout);
    browser.click("//button[.='Markers judged']");
    browser.set("input[name=hour]", "765");
    String marker = "[data-marker$=' BRAKE']";
    browser.textWhen("[data-sun]", t -> t.contains("° up"));
    int noon = Integer.parseInt(browser.attributeWhen(marker, "data-marks", v -> true));
    browser.set("input[name=hour]", "60");
    browser.textWhen("[data-sun]", t -> t.contains("down"));
    browser.attributeWhen(marker, "data-marks", v -> Integer.parseInt(v) < noon - 20);
    browser.textWhen("[data-markers]", t -> t.contains("it is dark at that hour"));

    browser.click("//button[.='Files, versions']");
    browser.fill("input[name=reason]", "new tarmac at 1");
    browser.click("//button[.='Start version 2']");
    browser.textWhen("header p", t -> t.contains("v2"));
    browser.click("//nav//a[contains(., 'Reference')]");
    browser.textWhen("[data-ahead]", t -> t.contains("new tarmac at 1"));
    browser.click("//button[.='Go over to it']");
    String doubts = browser.attributeWhen("[data-doubts]", "data-doubts", v -> true);
    assertThat(browser.find("[data-flag=BRAKE]").getText()).contains("?");
    browser.click("//button[contains(., 'it still holds')]");
    browser.attributeWhen(
        "[data-doubts]", "data-doubts", v -> Integer.parseInt(v) == Integer.parseInt(doubts) - 1);
    browser.textWhen("header p", t -> t.contains("v2"));
  }

  @Test
  void filesAreReadShownAndPutInOrRefusedByRow() throws IOException {
    bringCircuit();
    browser.click("//button[.='Files, versions']");
    Path bad = folder.resolve("bad.csv");
    Files.writeString(bad, "kind,label,station_m\nboard,100,120\nboard,50,far\n");
    browser.give("[name=survey-file]", bad);
    browser.textWhen("[role=alert], main", t -> t.contains("row 3, column station_m"));
    Path good = folder.resolve("good.csv");
    Files.writeString(good, "kind,label,station_m,side\nboard,100,120,left\ntree,oak,160,right\n");
    browser.give("[name=survey-file]", good);
    browser.click("//button[.='Put them in']");
    landmarks(2);
    browser.click("button[aria-label=Undo]");
    landmarks(0);
  }

  @Test
  void aKerbsClearanceAnswersWhileItIsEdited() {
    String layout = bringCircuit();
    draft();
    browser.open("/survey/" + layout);
    browser.click("[data-tool=kerb]");
    browser.dragIn("[data-strip]", 420, 80, 520);
    browser.choose("select[name=profile]", "sausage");
    browser.textWhen("[data-clearance]", t -> t.contains("clears it"));
    browser.fill("input[name=height]", "22" + Keys.TAB);
    browser.textWhen("[data-clearance]", t -> t.contains("then the floor touches"));
  }

  @Test
  void onFootWithoutAConnectionNothingIsLostOrDoubled() throws IOException {
    String layout = bringCircuit();
    browser.resize(390, 844);
    browser.open("/walk/" + layout);
    browser.click("//button[.='Simulated']");
    browser.attributeWhen("[data-walk]", "data-station", v -> Integer.parseInt(v) > 10);
    walkedLandmark("TREE");
    browser.textWhen("[data-sent]", t -> t.equals("all sent"));
    // Everything that the page needs has been kept once the worker has it.
    browser.waitFor(
        () ->
            Boolean.TRUE.equals(
                browser.run(
                    "return !!navigator.serviceWorker.controller && window.marvekKept === true")),
        "the walk is kept");

    cable.pull();
    walkedLandmark("POST");
    walkedLandmark("SEAM");
    browser.click("//button[.='Kerb']");
    browser.click("[data-walk-profile=RAMP]");
    browser.click("//button[.='+10']");
    browser.click("//button[contains(., 'It ends here')]");
    browser.textWhen("[data-sent]", t -> t.contains("kept here"));
    browser.reload();
    browser.textWhen("[data-sent]", t -> t.contains("kept here"));
    walkedLandmark("CONE");

    cable.putIn();
    browser.textWhen("[data-sent]", t -> t.equals("all sent"));
    browser.resize(1280, 800);
    browser.open("/survey/" + layout);
    landmarks(4);
    browser.reload();
    landmarks(4);
  }

  @Test
  void theSameIsRecordedOnFootInThreeMinutes() {
    String layout = bringCircuit();
    browser.resize(390, 844);
    browser.open("/walk/" + layout);
    browser.find("[data-walk] svg");
    Instant begun = Instant.now();
    String[] kinds = {
      "BOARD", "TREE", "POST", "SEAM", "BARRIER", "BRIDGE", "ROAD", "LINE", "CONE", "OTHER"
    };
    for (String kind : kinds) {
      browser.click("//button[.='+10']");
      walkedLandmark(kind);
    }
    for (int i = 0; i < 3; i++) {
      browser.click("//button[.='Kerb']");
      browser.click("[data-walk-profile=SERRATED]");
      browser.click("//button[.='+10']");
      browser.click("//button[contains(., 'It ends here')]");
    }
    for (int i = 0; i < 2; i++) {
      browser.click("//button[.='Zone']");
      browser.click("[data-walk-side=BOTH]");
      browser.click("//button[.='+10']");
      browser.click("//button[contains(., 'It ends here')]");
    }
    browser.textWhen("[data-sent]", t -> t.equals("all sent"));
    assertThat(Duration.between(begun, Instant.now())).isLessThan(Duration.ofMinutes(3));
    browser.resize(1280, 800);
    browser.open("/survey/" + layout);
    landmarks(10);
    assertThat(
            browser.run(
                "const r = new XMLHttpRequest(); r.open('GET', '/api/layouts/' + arguments[0], false);"
                    + " r.send(); const t = JSON.parse(r.responseText).things;"
                    + " return [t.kerbs, t.zones].map((l) => l.map((k) => k.to - k.from).join());",
                layout))
        .as("each ends ten metres on from where it began")
        .isEqualTo(java.util.List.of("10,10,10", "10,10"));
  }

  private void walkedLandmark(String kind) {
    browser.click("//button[.='Landmark']");
    browser.click("[data-walk-kind=" + kind + "]");
  }

  @Test
  void aZoneSaysWhatItCostsAndOnWhichDaysItActs() {
    bringCircuit();
    String survey = browser.here();
    draft();
    browser.open(survey.substring(survey.indexOf('#') + 1));
    browser.click("[data-tool=zone]");
    browser.dragIn("[data-strip]", 500, 134, 700);
    browser.find("[data-felt=false]");
    browser.textWhen("[data-zone-effect]", t -> t.contains("Dry day: nothing"));
    browser.textWhen("[data-day-effect=base]", t -> t.contains("not felt"));
    browser.click("//fieldset//button[.='Wet']");
    browser.find("[data-felt=true]");
    browser.choose("select[name=kind]", "crest");
    String cost = browser.textWhen("[data-day-effect=base]", t -> t.contains(" s,"));
    browser.click("//button[starts-with(., 'severe')]");
    String worse =
        browser.textWhen("[data-day-effect=base]", t -> t.contains(" s,") && !t.equals(cost));
    assertThat(worse).contains("the reference");
    browser.fill("input[name=amount]", "5" + Keys.TAB);
    browser.textWhen("main", t -> t.contains("Give 20 to 20000"));
    browser.find(STORED);
  }

  @Test
  void aSheetIsMadeComparedPutOnAndTheReferenceWarns() {
    bringCircuit();
    draft();
    String reference = browser.here();
    browser.open("/vehicle");
    browser.click("//main//li//a[contains(., 'My Cup GT')]");
    browser.find("[data-top]");
    browser.click("//a[.='Set-up sheets of this vehicle']");
    browser.click("//button[.='New sheet']");
    browser.fill("input[name=sheet-name]", "Rain" + Keys.TAB);
    browser.choose("select[name=add-setting]", "Grip against the base ◆");
    browser.fill("[data-setting='tyres.grip'] input[type=number]", "70" + Keys.TAB);
    browser.textWhen("[data-effect]", t -> t.contains("(+"));
    browser.fill("[data-setting='tyres.grip'] input[type=number]", "700" + Keys.TAB);
    browser.textWhen("main", t -> t.contains("give 30 to 130 %"));
    browser.click("//button[.='Undo']");
    browser.click("//button[.='Save']");
    browser.click("//button[.='Copy this one']");
    browser.find("//button[contains(., 'Rain, copy')]");
    browser.fill("[data-setting='tyres.grip'] input[type=number]", "80" + Keys.TAB);
    browser.click("//button[.='Save']");
    browser.find("//button[.='Saved']");
    browser.choose("select[name=compare]", "Rain");
    browser.textWhen("table[aria-label='What differs']", t -> t.contains("80 %"));
    browser.click("//button[.='Put on for the next session']");
    browser.find("//button[contains(., 'on it next')]");
    browser.open(reference.substring(reference.indexOf('#') + 1));
    browser.textWhen("[data-other-sheet]", t -> t.contains("Rain, copy"));

    // Proved on it, the reference is another one: looked at first, then taken, then undone.
    String before = browser.textWhen("[data-sentence]", t -> t.contains("km/h"));
    browser.click("//button[.='Proved on no set-up sheet']");
    browser.choose("select[name=sheet]", "Rain, copy");
    browser.textWhen("[data-recomputed-lap]", t -> t.contains("Nothing has changed yet"));
    browser.textWhen("[data-recomputed-corners]", t -> t.contains("slowest"));
    browser.find("[aria-label^='Line before and after']");
    browser.click("[data-take-recomputed]");
    browser.textWhen("[data-sentence]", t -> t.contains("km/h") && !t.equals(before));
    browser.click("//a[contains(., 'what was can be brought back')]");
    browser.textWhen("[data-recomputed-lap]", t -> t.contains("Your points were moved"));
    browser.click("[data-undo-recomputed]");
    browser.textWhen("[data-sentence]", t -> t.equals(before));
    browser.find("//button[.='Proved on no set-up sheet']");
  }
}
