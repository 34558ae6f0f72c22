package marvek.server.words;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.databind.SerializerProvider;
import com.fasterxml.jackson.databind.ser.std.StdSerializer;
import java.io.IOException;
import marvek.core.said.Said;
import org.springframework.boot.jackson.JsonComponent;

/** Writes what is said in the words of whoever asked. */
@JsonComponent
class SaidJson extends StdSerializer<Said> {
  private static final long serialVersionUID = 1L;

  private final transient Speakers speakers;

  SaidJson(Speakers speakers) {
    super(Said.class);
    this.speakers = speakers;
  }

  @Override
  public void serialize(Said said, JsonGenerator out, SerializerProvider provider)
      throws IOException {
    out.writeString(speakers.now().say(said));
  }
}
