package marvek.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

/** Remakes docs/screenshots from the demo; run by {@code ./marvek screenshots}. */
class Screenshots {

  @Test
  void take() throws IOException {
    Path folder = Path.of(System.getProperty("marvek.screenshots"));
    Files.createDirectories(folder);
    try (Browser b = new Browser()) {
      b.open("/");
      b.find("//button[.='Demo driver']");
      b.signInAsDemoDriver();
      b.find("[data-corner=c14]");
      keep(b, folder, "paddock");
      String id =
          String.valueOf(
              b.run(
                  "const r = new XMLHttpRequest(); r.open('GET', '/api/paddock', false);"
                      + " r.send(); return JSON.parse(r.responseText).reference;"));
      b.open("/reference/" + id);
      b.find("[data-margin]");
      b.click("[data-corner=c4]");
      b.textWhen("section h1", t -> t.contains("Poço"));
      b.textWhen("[data-sentence]", t -> t.contains("100 board"));
      b.find("[data-laps-behind]");
      keep(b, folder, "reference");
      b.click("[data-tab=ways]");
      b.click("[data-question=BRAKE_SHAPE] button");
      b.textWhen("[data-school=PROGRESSIVE]", t -> t.contains("sooner"));
      keep(b, folder, "ways");
      b.click("[data-tab=days]");
      b.click("[data-variant=WET]");
      b.textWhen("[data-changes]", t -> t.contains("grip 70 %"));
      b.click("//button[.='dry, warm']");
      b.click("[data-corner=c7]");
      b.textWhen("section h1", t -> t.contains("Duas Voltas"));
      b.find("[data-pedal='Hold of the brake']");
      b.click("[data-tab=facts]");
      keep(b, folder, "desk-full");
      b.open("/whole/" + id);
      b.find("tbody tr:nth-child(14)");
      keep(b, folder, "whole-lap");
      b.open("/runs/" + id);
      b.find("[data-traces] canvas");
      b.choose("[aria-label=Run]", firstSession(b));
      b.click("[data-corner=c4]");
      b.find("//button[.='Whole lap']");
      b.run("document.querySelector('[data-traces]').focus()");
      b.press(org.openqa.selenium.Keys.ARROW_RIGHT);
      b.attributeWhen("[data-traces]", "aria-valuetext", t -> t.contains("against"));
      keep(b, folder, "runs");
      b.click("//a[.='Debrief' and contains(@class, 'btn')]");
      b.textWhen("[data-summary]", t -> t.contains("laps count"));
      b.find("[data-focus]");
      keep(b, folder, "debrief");
      b.click("[data-tab=corners]");
      b.find("[data-spread=BRAKE]");
      b.click("[data-tab=proposals]");
      b.find("[data-proposal]");
      b.click("//article[@data-proposal]//button[.='Accept']");
      keep(b, folder, "proposals");
      b.open("/reference/" + id);
      b.find("[data-margin]");
      b.click("button[aria-label='Dusk look']");
      b.find("button[aria-label='Paper look']");
      b.click("[data-corner=c14]");
      b.textWhen("section h1", t -> t.contains("Adega"));
      b.textWhen("[data-sentence]", t -> t.contains("Patience"));
      keep(b, folder, "reference-dusk");
      b.click("button[aria-label='Paper look']");
      b.find("button[aria-label='Dusk look']");
      b.open("/revisions/" + id);
      b.find("[data-differences] li");
      b.choose("[aria-label='Compare from']", "revision 2");
      b.choose("[aria-label='Compare to']", "revision 3");
      b.click("//button[contains(., 'T12 braking')]");
      b.find("[data-flag=BRAKE]");
      keep(b, folder, "compare");
      b.open("/survey");
      b.find("//a[contains(., 'Falcoeira')]");
      b.click("//li//a[contains(., 'Falcoeira')]");
      b.find("[data-marker]");
      b.set("input[type=date]", "2026-05-16");
      b.set("input[name=hour]", "1080");
      b.click("[data-corner=c14]");
      b.click("//button[.='Markers judged']");
      b.textWhen("[data-sun]", t -> t.contains("° up"));
      b.find("[data-landmark]");
      keep(b, folder, "survey");
      b.click("[data-corner=c4]");
      b.clickIn("[data-strip]", 850, 190);
      b.find("[data-clearance]");
      String layout = b.here().replaceFirst(".*/", "");
      b.open("/survey");
      b.click("//li//a[contains(., 'Serra')]");
      b.find("[data-marker]");
      b.set("input[type=date]", "2026-05-16");
      b.click("[data-corner=c7]");
      b.click("//button[.='Markers judged']");
      b.textWhen("[data-sun]", t -> t.contains("° up"));
      b.open("/session");
      b.find("//h2[.='Summer meeting']");
      keep(b, folder, "weekend");
      b.click("//li[@data-session='Qualifying']//a[.='Qualifying']");
      b.find("[data-targets]");
      b.click("//*[@data-today='1']");
      b.textWhen("[data-differences]", t -> t.contains("braking"));
      keep(b, folder, "session");
      String session = b.here().replaceFirst(".*/", "");
      b.open("/rehearse/" + session);
      b.find("[data-asked]");
      for (int i = 0; i < 7; i++) {
        tell(b, i);
      }
      b.open("/");
      b.open("/rehearse/" + session);
      b.find("[data-known]");
      b.find("[data-asked]");
      tell(b, 1);
      b.find("[data-told-off]");
      keep(b, folder, "rehearse");
      b.resize(390, 844);
      b.open("/brief/" + session);
      b.find("//footer//button[.='Next']");
      keep(b, folder, "brief-phone");
      b.resize(1280, 800);
      b.open("/vehicle");
      b.find("//li[contains(., 'Cup GT')]");
      b.click("//li//a[contains(., 'Codorniz')]");
      b.find("[data-top]");
      keep(b, folder, "vehicle");
      b.open("/vehicle");
      b.click("//li//a[contains(., 'Garça')]");
      b.find("[data-lift]");
      keep(b, folder, "vehicle-motorcycle");
      b.resize(390, 844);
      b.open("/walk/" + layout);
      b.find("[data-walk] svg");
      for (int i = 0; i < 43; i++) {
        b.click("//button[.='+10']");
      }
      b.attributeWhen("[data-walk]", "data-station", v -> v.equals("430"));
      keep(b, folder, "walk-phone");
      b.resize(1280, 800);
      b.open("/card/" + id + "/3");
      b.textWhen("article", t -> t.contains("Falcoeira"));
      b.resize(1000, 1180);
      keep(b, folder, "print-card");
    }
  }

  /** What the older of the demo's two runs is called in the list. */
  private static String firstSession(Browser b) {
    return String.valueOf(
        b.run(
            "return [...document.querySelectorAll('[aria-label=Run] option')]"
                + ".find(o => o.textContent.includes('First session')).textContent"));
  }

  /** Tells a place somewhere about the middle of the stretch, or that one has no idea. */
  private static void tell(Browser b, int i) {
    if (!b.all("[data-told-off]").isEmpty()) {
      b.click("//button[.='Next']");
    }
    if (b.all("[data-road]").isEmpty()) {
      b.click("//button[.='No idea']");
    } else {
      b.clickIn("[data-road]", 420 + 40 * i, 90);
      b.click("//button[.='Here']");
    }
    b.find("[data-told-off]");
  }

  private static void keep(Browser b, Path folder, String name) throws IOException {
    b.run("return document.fonts.ready.then(() => true)");
    b.run("document.activeElement && document.activeElement.blur()");
    Files.write(folder.resolve(name + ".png"), b.picture());
  }
}
