package marvek.core.review;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import marvek.core.entry.PointKind;
import marvek.core.said.Said;
import org.junit.jupiter.api.Test;

/** What is said of markers that the light changes. */
class LightTest {
  private static Light.Changed marker(int corner, String why) {
    return new Light.Changed("c" + corner, PointKind.BRAKE, "the 100 board", Said.of(why));
  }

  private static List<Light.Changed> dark(int count) {
    return IntStream.range(0, count).mapToObj(c -> marker(c, "marker.dark")).toList();
  }

  @Test
  void aFewMarkersAreToldOneByOne() {
    assertThat(Light.words(dark(3), "19:00"))
        .extracting(Said::key)
        .containsExactly("variant.light", "variant.light", "variant.light");
  }

  @Test
  void aDarkRoadIsToldOnceAndWhatElseTheLightDoesBesideIt() {
    List<Light.Changed> all = new ArrayList<>(dark(28));
    all.add(9, marker(40, "marker.sun"));
    List<Said> said = Light.words(all, "19:00");
    assertThat(said).extracting(Said::key).containsExactly("variant.dark", "variant.light");
    assertThat(said.get(0).values().get(1).toString()).contains("28");
  }
}
