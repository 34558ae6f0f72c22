package marvek.e2e;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;

/** A film of a lap as a camera on the vehicle would take it, drawn and encoded in the browser. */
final class MadeFilm {
  static final int RATE = 30;
  static final double DEGREES = 80;

  private static final Path MUXER = Path.of("../web/node_modules/webm-muxer/build/webm-muxer.js");

  private MadeFilm() {}

  /**
   * Makes it, from the line on; the scene stays in the page as {@code madeScene}.
   *
   * @return the WebM file in Base64
   */
  static String of(Browser browser, String reference, String lap, double seconds) {
    try (InputStream drawn = MadeFilm.class.getResourceAsStream("/made-film.js")) {
      String script =
          Files.readString(MUXER) + "\n" + new String(drawn.readAllBytes(), StandardCharsets.UTF_8);
      Map<String, Object> wish = new HashMap<>();
      wish.put("reference", reference);
      wish.put("lap", lap);
      wish.put("from", 0);
      wish.put("seconds", seconds);
      wish.put("rate", RATE);
      wish.put("wide", 640);
      wish.put("high", 360);
      wish.put("degrees", DEGREES);
      wish.put("bits", 220_000);
      String film = String.valueOf(browser.runLater(script, wish));
      if (film.startsWith("failed")) {
        throw new AssertionError("no film: " + film);
      }
      return film;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** The reference that the demo's paddock leads to. */
  static String reference(Browser browser) {
    return got(browser, "/api/paddock", "reference");
  }

  /** The quickest measured lap of the run that the page of runs begins with. */
  static String lap(Browser browser, String reference) {
    return got(
        browser,
        "/api/references/" + reference + "/runs",
        "runs[0].laps.filter(l => l.counts && l.measured)"
            + ".reduce((best, l) => (l.lapTime < best.lapTime ? l : best)).id");
  }

  private static String got(Browser browser, String url, String of) {
    return String.valueOf(
        browser.run(
            "const r = new XMLHttpRequest(); r.open('GET', arguments[0], false); r.send();"
                + " return JSON.parse(r.responseText)."
                + of,
            url));
  }
}
