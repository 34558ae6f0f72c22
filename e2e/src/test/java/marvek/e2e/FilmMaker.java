package marvek.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import org.junit.jupiter.api.Test;

/** Remakes the film that ships with the demo; run by {@code ./marvek film}. */
class FilmMaker {
  private static final int MOST = 1_500_000;
  private static final double SECONDS = 45;

  @Test
  void make() throws IOException {
    try (Browser b = new Browser()) {
      b.signInAsDemoDriver();
      String reference = MadeFilm.reference(b);
      String film = MadeFilm.of(b, reference, MadeFilm.lap(b, reference), SECONDS);
      byte[] bytes = Base64.getDecoder().decode(film);
      assertThat(bytes.length).isLessThan(MOST);
      Files.write(Path.of(System.getProperty("marvek.film")), bytes);
    }
  }
}
