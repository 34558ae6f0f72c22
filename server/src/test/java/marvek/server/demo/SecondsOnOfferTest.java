package marvek.server.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import marvek.core.debrief.Debrief;
import marvek.core.debrief.Debriefer;
import marvek.core.debrief.LapData;
import marvek.core.debrief.Robust;
import marvek.core.debrief.Sections;
import marvek.core.logger.Mistake;
import marvek.core.logger.Planted;
import org.hipparchus.stat.correlation.SpearmansCorrelation;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * What the debrief says is on offer, against what the mistake costs: the same driver with and
 * without it, which only the simulated driver can show.
 */
@Tag("slow")
class SecondsOnOfferTest {
  private static final Path REPORT = Path.of("target", "offers.md");

  private static double section(DemoDesk demo, List<LapData> laps, String corner) {
    Sections sections = new Sections(demo.computed(), demo.draft());
    int c = demo.computed().indexOf(corner);
    return laps.stream().mapToDouble(l -> sections.time(l, c)).average().orElseThrow();
  }

  private static double[] array(List<Double> values) {
    return values.stream().mapToDouble(Double::doubleValue).toArray();
  }

  @Test
  void whatIsOnOfferFollowsWhatIsLost() throws IOException {
    DemoDesk ring = DemoDesk.of("falcoeira-ring", "cup-gt");
    StringBuilder out =
        new StringBuilder(
            "\n| corner | offered less lost, median (s) | spread (s) | rank correlation |\n|---|---|---|---|\n");
    List<String> corners = List.of("c4", "c14");
    Map<String, List<Double>> lost = new LinkedHashMap<>();
    Map<String, List<Double>> offered = new LinkedHashMap<>();
    for (Mistake m : Mistake.values()) {
      long seed = 300 + m.ordinal();
      List<LapData> clean =
          PlantedMistakesTest.data(ring, Recorded.table(ring, List.of(), 5, seed));
      for (String corner : corners) {
        List<LapData> with =
            PlantedMistakesTest.data(
                ring, Recorded.table(ring, List.of(new Planted(m, corner, 1, 1)), 5, seed));
        lost.computeIfAbsent(corner, c -> new ArrayList<>())
            .add(section(ring, with, corner) - section(ring, clean, corner));
        offered
            .computeIfAbsent(corner, c -> new ArrayList<>())
            .add(
                Debriefer.read(ring.computed(), ring.draft(), with).corners().stream()
                    .filter(f -> f.corner().equals(corner))
                    .mapToDouble(Debrief.CornerFinding::offer)
                    .findFirst()
                    .orElseThrow());
      }
    }
    for (String corner : corners) {
      double[] a = array(lost.getOrDefault(corner, List.of()));
      double[] b = array(offered.getOrDefault(corner, List.of()));
      double[] miss = new double[a.length];
      for (int i = 0; i < a.length; i++) {
        miss[i] = b[i] - a[i];
      }
      double rank = new SpearmansCorrelation().correlation(a, b);
      out.append(
          String.format(
              Locale.ROOT,
              "| %s | %+.3f | %.3f | %.2f |%n",
              corner,
              Robust.median(miss),
              Robust.spread(miss),
              rank));
      assertThat(rank).as(corner).isGreaterThan(0.75);
      assertThat(Robust.spread(miss)).as(corner).isLessThan(0.1);
    }
    Files.writeString(REPORT, out.toString());
    System.out.println(out);
  }
}
