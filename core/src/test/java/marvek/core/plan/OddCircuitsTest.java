package marvek.core.plan;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.OutlineFile;
import marvek.core.entry.ContentCheck;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.PointKind;
import marvek.core.entry.ReferenceContent;
import marvek.core.entry.Slowing;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.Tracks;
import marvek.core.marker.Landmark;
import marvek.core.units.Units;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Circuits that nobody had in mind get a sensible draft all the same. */
@Tag("slow")
class OddCircuitsTest {

  static Stream<Arguments> circuits() {
    Tracks road = Tracks.every(10);
    for (int i = 0; i < 4; i++) {
      road.straight(900);
      for (int k = 0; k < 6; k++) {
        road.bend(90, 60, 30).straight(250).bend(90, -60, 30).straight(250);
      }
      road.bend(120, 90, 40);
    }
    return Stream.of(
        Arguments.of("anticlockwise", Tracks.square(300, 60, 5).csv(), false, "cup-gt"),
        Arguments.of("clockwise", Tracks.square(300, 60, 5).csv(), true, "single-seater"),
        Arguments.of("kart", polar(300, 95, 30, 3, 14, 7, 0), false, "small-hatch"),
        Arguments.of("20 km", road.csv(), false, "motorcycle-1000"),
        Arguments.of(
            "positions once a second",
            Tracks.square(400, 60, 20).noisy(1.5, 4).geoJson(),
            false,
            "small-hatch"),
        Arguments.of("bridge", eight(), false, "downforce-prototype"),
        Arguments.of("one long bend", Tracks.stadium(500, 150, 8).csv(), false, "motorcycle-600"),
        Arguments.of("wobbly", polar(300, 350, 70, 5, 25, 9, 0.2), false, "cup-gt"));
  }

  private static byte[] eight() {
    StringBuilder text = new StringBuilder("x_m,y_m\n");
    for (int i = 0; i < 240; i++) {
      double t = (i + 30) * 2 * Math.PI / 240;
      double d = 1 + Math.sin(t) * Math.sin(t);
      text.append(500 * Math.cos(t) / d).append(',');
      text.append(500 * Math.sin(t) * Math.cos(t) / d).append('\n');
    }
    return text.toString().getBytes(java.nio.charset.StandardCharsets.UTF_8);
  }

  /** A closed line whose distance from the middle swings twice over, with scatter. */
  private static byte[] polar(
      int points, double radius, double a, int na, double b, int nb, double scatter) {
    Random random = new Random(11);
    StringBuilder text = new StringBuilder("x_m,y_m\n");
    for (int i = 0; i < points; i++) {
      double t = 2 * Math.PI * i / points;
      double r =
          radius
              + a * Math.sin(na * t)
              + b * Math.sin(nb * t + 2)
              + scatter * random.nextGaussian();
      text.append(r * Math.cos(t)).append(',').append(r * Math.sin(t)).append('\n');
    }
    return text.toString().getBytes(java.nio.charset.StandardCharsets.UTF_8);
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("circuits")
  void getsASensibleDraft(String name, byte[] file, boolean reverse, String vehicle) {
    CircuitReading survey =
        CircuitReader.read(OutlineFile.read(file), new CircuitReader.Choices(reverse, 30, 9, true));
    assertThat(survey.corners()).as(name).isNotEmpty();
    ComputedLap computed = Drives.computed(survey, vehicle);
    List<Landmark> boards = Drafter.boards(computed);
    ReferenceContent draft = Drafter.draft(computed, boards);
    Centreline road = computed.road();
    assertThat(draft.corners()).hasSameSizeAs(survey.corners());
    assertThat(road.length() / computed.lap().lapTime()).as("mean speed").isBetween(10.0, 85.0);
    ContentCheck.content(survey.corners(), road.length(), computed.vehicle().gears(), draft);
    for (CornerEntry e : draft.corners()) {
      CornerAnswer answer = Answers.answer(computed, e);
      String where = name + " " + e.corner() + " " + e;
      assertThat(Units.kmh(e.minimumSpeed())).as(where).isBetween(15.0, 320.0);
      assertThat(answer.lapEffect()).as(where).isNotNull().isBetween(-0.35, 0.6);
      if (e.slowing() == Slowing.BRAKE) {
        double brake = e.station(PointKind.BRAKE).orElseThrow();
        // Where bends run into one another, braking may start past the first one's apex.
        double release = e.station(PointKind.RELEASE).orElseThrow();
        assertThat(road.apart(brake, release)).as(where).isBetween(2.0, 450.0);
        assertThat(answer.braking()).as(where).isNotNull();
        assertThat(answer.braking().makesIt()).as(where).isTrue();
        assertThat(answer.braking().marginSeconds()).as(where).isBetween(0.0, 1.0);
      }
    }
  }
}
