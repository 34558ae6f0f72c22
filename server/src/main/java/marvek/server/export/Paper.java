package marvek.server.export;

import com.lowagie.text.Font;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.librepdf.openpdf.fonts.Liberation;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;

/** What files that are taken out have in common. */
public final class Paper {
  private Paper() {}

  /** A font that goes along with the file and knows the letters of people's names. */
  public static Font font(float size, int style) throws IOException {
    Font font = (style == Font.BOLD ? Liberation.SANS_BOLD : Liberation.SANS).create();
    font.setSize(size);
    return font;
  }

  /** A file to be kept under a name. */
  public static ResponseEntity<byte[]> file(String name, String type, byte[] body) {
    return ResponseEntity.ok()
        .contentType(MediaType.parseMediaType(type))
        .header(
            HttpHeaders.CONTENT_DISPOSITION,
            ContentDisposition.attachment()
                .filename(name, StandardCharsets.UTF_8)
                .build()
                .toString())
        .body(body);
  }
}
