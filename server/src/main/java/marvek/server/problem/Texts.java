package marvek.server.problem;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.deser.std.StringDeserializer;
import com.fasterxml.jackson.databind.exc.InvalidFormatException;
import com.fasterxml.jackson.databind.module.SimpleModule;
import java.io.IOException;
import org.springframework.stereotype.Component;

/** Texts as they come: the character NUL, which no database keeps, is refused at the door. */
@Component
class Texts extends SimpleModule {
  private static final long serialVersionUID = 1;

  Texts() {
    super("texts");
    addDeserializer(String.class, new Clean());
  }

  private static final class Clean extends com.fasterxml.jackson.databind.JsonDeserializer<String> {
    @Override
    public String deserialize(JsonParser in, DeserializationContext context) throws IOException {
      String text = StringDeserializer.instance.deserialize(in, context);
      if (text != null && text.indexOf('\0') >= 0) {
        throw new InvalidFormatException(in, "a text holds the character NUL", text, String.class);
      }
      return text;
    }
  }
}
