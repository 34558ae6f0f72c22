package marvek.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Counts late frames while a landmark is dragged on a road of 20 km with 500 landmarks. No test: it
 * says what it measured, for the benchmarks, and fails only when nothing could be measured.
 */
class Frames {
  private static final int LANDMARKS = 500;
  private static final double LENGTH = 20_000;

  @TempDir private Path folder;

  @Test
  void whileDragging() throws IOException {
    try (Browser b = new Browser()) {
      b.signUp("Nova Piloto");
      b.open("/survey/bring");
      b.give("[data-outline]", outline());
      b.find("[data-found]");
      b.click("//button[.='Save as a layout']");
      b.find("[data-strip]");
      b.click("//button[.='Files, versions']");
      b.give("[name=survey-file]", landmarks());
      b.click("//button[.='Put them in']");
      b.textWhen("header p", t -> t.contains(LANDMARKS + " landmarks · stored"));
      b.click("//button[.='Look']");
      System.out.println("dragging the road:     " + counted(b, "[data-strip]", true));
      System.out.println("dragging a landmark:   " + counted(b, "[data-landmark]", false));
      System.out.println("dragging it once more: " + counted(b, "[data-landmark]", false));
    }
  }

  @Test
  void ofTheReferenceDesk() {
    try (Browser b = new Browser()) {
      b.signInAsDemoDriver();
      b.find("//a[contains(., 'Falcoeira')]");
      b.click("//li//a[contains(., 'Falcoeira')]");
      b.find("[data-margin]");
      System.out.println(
          "dragging a flag:          " + counted(b, "[data-flag=BRAKE] [data-grip]"));
      b.click("[data-corner=c7]");
      b.find("[data-pedal='Hold of the brake']");
      System.out.println(
          "dragging a pedal's handle: " + counted(b, "[data-pedal='Hold of the brake']"));
      b.click("[data-tab=days]");
      b.click("[data-variant=WET]");
      b.find("[data-under]");
      System.out.println(
          "dragging on another day:  " + counted(b, "[data-flag=BRAKE] [data-grip]"));
    }
  }

  /** A flag or handle takes the pointer itself. */
  private static String counted(Browser b, String what) {
    b.run(
        "window.frames_ = []; let last = performance.now(); window.counting_ = true;"
            + "const tick = (t) => { frames_.push(t - last); last = t;"
            + " if (window.counting_) requestAnimationFrame(tick); }; requestAnimationFrame(tick);"
            + "const part = document.querySelector(arguments[0]); const el = part.closest('g[role]');"
            + "const box = part.getBoundingClientRect();"
            + "const x = box.left + box.width / 2, y = box.top + box.height / 2;"
            + "const at = (type, dx) => el.dispatchEvent(new PointerEvent(type, {bubbles: true,"
            + " pointerId: 1, button: 0, clientX: x + dx, clientY: y}));"
            + "el.setPointerCapture = () => undefined; at('pointerdown', 0);"
            + "let n = 0; window.moved_ = false;"
            + "const go = () => { n++; at('pointermove', 40 * Math.sin(n / 20));"
            + " if (n < 300) requestAnimationFrame(go);"
            + " else { at('pointermove', 0); at('pointerup', 0); window.moved_ = true; } };"
            + "requestAnimationFrame(go);",
        what);
    b.waitFor(() -> Boolean.TRUE.equals(b.run("return window.moved_")), "the drag ends");
    return late(b);
  }

  private static String counted(Browser b, String what, boolean road) {
    b.run(
        "window.frames_ = []; let last = performance.now(); window.counting_ = true;"
            + "const tick = (t) => { frames_.push(t - last); last = t;"
            + " if (window.counting_) requestAnimationFrame(tick); }; requestAnimationFrame(tick);");
    // Moved by the page's own events at every frame, as a hand would: the driver is too slow for
    // it.
    b.run(
        "const el = document.querySelector(arguments[0]);"
            + "const svg = document.querySelector('[data-strip]');"
            + "const box = el.getBoundingClientRect();"
            + "const x = box.left + box.width / 2, y = arguments[1] ? box.top + 10 : box.top + 8;"
            + "const at = (type, dx, to) => to.dispatchEvent(new PointerEvent(type, {bubbles: true,"
            + " pointerId: 1, button: 0, clientX: x + dx, clientY: y}));"
            + "svg.setPointerCapture = () => undefined;"
            + "at('pointerdown', 0, el); let n = 0; window.moved_ = false;"
            + "const go = () => { n++; at('pointermove', 180 * Math.sin(n / 20), svg);"
            + " if (n < 300) requestAnimationFrame(go);"
            + " else { at('pointerup', 180 * Math.sin(n / 20), svg); window.moved_ = true; } };"
            + "requestAnimationFrame(go);",
        what,
        road);
    b.waitFor(() -> Boolean.TRUE.equals(b.run("return window.moved_")), "the drag ends");
    return late(b);
  }

  private static String late(Browser b) {
    b.run("window.counting_ = false");
    long frames = ((Number) b.run("return frames_.length")).longValue();
    // A frame is late when a whole one was left out.
    long late = ((Number) b.run("return frames_.filter((f) => f > 25).length")).longValue();
    double worst = ((Number) b.run("return Math.max(...frames_)")).doubleValue();
    assertThat(frames).isGreaterThan(200);
    return String.format(
        Locale.ROOT, "%d of %d frames late, the longest %.0f ms", late, frames, worst);
  }

  private Path outline() throws IOException {
    StringBuilder text = new StringBuilder("x_m,y_m\n");
    double radius = LENGTH / (2 * Math.PI) * 0.86;
    for (int i = 0; i < 3000; i++) {
      double t = 2 * Math.PI * i / 3000;
      double r = radius * (1 + 0.03 * Math.sin(31 * t));
      text.append(String.format(Locale.ROOT, "%.2f,%.2f%n", r * Math.cos(t), r * Math.sin(t)));
    }
    return Files.writeString(folder.resolve("twenty-kilometres.csv"), text);
  }

  private Path landmarks() throws IOException {
    String[] kinds = {"board", "tree", "post", "seam", "barrier"};
    StringBuilder text = new StringBuilder("kind,label,station_m,side\n");
    for (int i = 0; i < LANDMARKS; i++) {
      // A tenth of them crowd the first corner, the rest lie all round.
      double at = i % 10 == 0 ? 100 + i : (i * 37.7) % (LENGTH * 0.9);
      text.append(
          String.format(
              Locale.ROOT, "%s,%d,%.1f,%s%n", kinds[i % 5], i, at, i % 2 == 0 ? "left" : "right"));
    }
    return Files.writeString(folder.resolve("landmarks.csv"), text);
  }
}
