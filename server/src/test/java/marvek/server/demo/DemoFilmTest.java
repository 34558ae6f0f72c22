package marvek.server.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.Objects;
import marvek.server.Refused;
import marvek.server.access.DemoSettings;
import org.junit.jupiter.api.Test;

/** The film that ships with the demo. */
class DemoFilmTest {
  @Test
  void itIsThereWhereTheDemoIs() throws IOException {
    var answer = new DemoFilm(new DemoSettings(true)).film();
    assertThat(String.valueOf(answer.getHeaders().getContentType())).isEqualTo("video/webm");
    byte[] film = Objects.requireNonNull(answer.getBody()).getContentAsByteArray();
    // EBML, as every WebM begins (RFC 8794).
    assertThat(film).startsWith(0x1A, 0x45, 0xDF, 0xA3);
    assertThatThrownBy(() -> new DemoFilm(new DemoSettings(false)).film())
        .satisfies(e -> assertThat(Refused.what(e)).contains("no demo"));
  }
}
