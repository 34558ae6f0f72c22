package marvek.core.survey;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.words.Speaker;
import org.junit.jupiter.api.Test;

/** The interface calls things by the words of core, and begins with what is usual there. */
class KindsTest {
  private static final Path KEPT = Path.of("../web/src/road/kinds.json");
  private static final Path MADE = Path.of("target/kinds.json");

  private record Usual(String word, double out, double height, Landmark.Permanence permanence) {}

  private record Kinds(
      Map<LandmarkKind, Usual> landmarks,
      Map<Landmark.Permanence, String> permanence,
      Map<ZoneKind, Ground> zones) {}

  /** Whether it is the road itself that is otherwise there. */
  private record Ground(String word, boolean ground) {}

  @Test
  void theInterfaceHasTheSame() throws IOException {
    Kinds kinds = new Kinds(new LinkedHashMap<>(), new LinkedHashMap<>(), new LinkedHashMap<>());
    for (LandmarkKind k : LandmarkKind.values()) {
      kinds.landmarks.put(
          k,
          new Usual(
              Speaker.PLAIN.say(k.said()), k.usualOut(), k.usualHeight(), k.usualPermanence()));
    }
    for (Landmark.Permanence p : Landmark.Permanence.values()) {
      kinds.permanence.put(p, Speaker.PLAIN.say(p.said()));
    }
    for (ZoneKind z : ZoneKind.values()) {
      kinds.zones.put(z, new Ground(Speaker.PLAIN.say(z.said()), z.effect() == Zone.Effect.GRIP));
    }
    ObjectMapper json = new ObjectMapper().enable(SerializationFeature.INDENT_OUTPUT);
    json.writeValue(MADE.toFile(), kinds);
    assertThat(json.readValue(KEPT.toFile(), Kinds.class))
        .as("copy core/target/kinds.json to web/src/road/kinds.json")
        .isEqualTo(kinds);
  }
}
