package marvek.server.reference;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.OutlineFile;
import marvek.core.day.Footing;
import marvek.core.entry.OwnPace;
import marvek.core.lap.Driving;
import marvek.core.line.SearchStopped;
import marvek.core.plan.ComputedLap;
import marvek.core.vehicle.Vehicle;
import marvek.core.vehicle.VehicleClasses;
import marvek.server.circuit.LayoutVersion;
import marvek.server.vehicle.VehicleRow;
import org.junit.jupiter.api.Test;

/** A lap that was found is given again for the same question only. */
class LapsFoundTest {
  private static final Vehicle HATCH = VehicleClasses.byId("small-hatch").vehicle();

  private final LapsFound found = new LapsFound();
  private int asked;

  /** An oval, read from its file each time as another person's would be. */
  private static CircuitReading oval(double width) {
    StringBuilder text = new StringBuilder("x_m,y_m,w_right_m,w_left_m\n");
    for (int i = 0; i < 200; i++) {
      double turn = 2 * Math.PI * i / 200;
      double x = 260 * Math.cos(turn);
      double y = 140 * Math.sin(turn);
      text.append(String.format(Locale.ROOT, "%.3f,%.3f,%.2f,5%n", x, y, width));
    }
    return CircuitReader.read(
        OutlineFile.read(text.toString().getBytes(StandardCharsets.UTF_8)),
        CircuitReader.Choices.asItComes());
  }

  private static Wanted wanted(CircuitReading read, Vehicle vehicle, Footing footing) {
    LayoutVersion layout = mock();
    when(layout.counted()).thenReturn(read.corners());
    VehicleRow row = mock();
    when(row.numbers()).thenReturn(vehicle);
    return new Wanted(layout, read.centreline(), new AsSetUp(row, null), footing);
  }

  private ComputedLap search(Wanted wanted) {
    asked = 0;
    return found.search(
        wanted,
        done -> {
          asked++;
          return true;
        });
  }

  @Test
  void theSameQuestionIsNotSearchedForTwice() {
    Footing plain = Footing.plain(List.of());
    ComputedLap first = search(wanted(oval(5), HATCH, plain));
    assertThat(asked).as("rounds of the first search").isPositive();
    ComputedLap again = search(wanted(oval(5), HATCH, Footing.plain(List.of())));
    assertThat(asked).as("rounds of the second").isZero();
    assertThat(again).isSameAs(first);
  }

  @Test
  void anotherRoadVehicleOrFootingIsAnotherQuestion() {
    Footing plain = Footing.plain(List.of());
    CircuitReading read = oval(5);
    Centreline road = read.centreline();
    ComputedLap first = search(wanted(read, HATCH, plain));

    ComputedLap wider = search(wanted(oval(6), HATCH, plain));
    assertThat(asked).as("a wider road").isPositive();
    assertThat(wider.lap().lapTime()).isLessThan(first.lap().lapTime());

    ComputedLap slower = search(wanted(read, VehicleClasses.byId("cup-gt").vehicle(), plain));
    assertThat(asked).as("another vehicle").isPositive();
    assertThat(slower.lap().lapTime()).isNotEqualTo(first.lap().lapTime());

    search(
        wanted(
            read,
            HATCH,
            new Footing(
                List.of(),
                Footing.Used.NONE,
                new OwnPace(new Driving(0.9, 0.9, 0.9, 0.15), List.of()))));
    assertThat(asked).as("another pace").isPositive();

    LayoutVersion fewer = mock();
    when(fewer.counted()).thenReturn(List.of());
    VehicleRow row = mock();
    when(row.numbers()).thenReturn(HATCH);
    search(new Wanted(fewer, road, new AsSetUp(row, null), plain));
    assertThat(asked).as("other corners").isPositive();
  }

  @Test
  void aSearchThatIsStoppedLeavesNothing() {
    Wanted wanted = wanted(oval(5), HATCH, Footing.plain(List.of()));
    assertThatThrownBy(() -> found.search(wanted, done -> false)).isInstanceOf(SearchStopped.class);
    search(wanted);
    assertThat(asked).isPositive();
  }
}
