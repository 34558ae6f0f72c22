package marvek.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import marvek.core.fixtures.Drives;
import marvek.core.fixtures.RandomRoads;
import marvek.core.plan.Brakings;
import marvek.core.plan.ComputedLap;
import marvek.core.review.Glances;
import org.junit.jupiter.api.Test;

/** Presses that warm the brakes, by energy. */
class BrakeWarmingTest {
  @Test
  void asMuchGoesInAsOnALap() {
    int straights = 0;
    for (long seed : List.of(931L, 932L, 933L, 934L)) {
      for (String vehicle : List.of("cup-gt", "small-hatch")) {
        ComputedLap lap = Drives.computed(RandomRoads.of(seed, 380), vehicle);
        // What the brakings take off, of which air and engine have their share.
        double kinetic = 0;
        for (int c = 0; c < lap.corners().size(); c++) {
          for (Brakings.Braking b : lap.brakings().of(c)) {
            kinetic += (b.from() * b.from() - b.to() * b.to()) / 2;
          }
        }
        double work = BrakeWarming.work(lap);
        assertThat(work).isBetween(0.35 * kinetic, 0.98 * kinetic);
        BrakeWarming warming = BrakeWarming.of(lap).orElse(null);
        if (warming == null) {
          assertThat(Glances.on(lap)).isEmpty();
          continue;
        }
        straights++;
        double press = (warming.from() * warming.from() - warming.to() * warming.to()) / 2;
        assertThat(warming.presses() * press).isCloseTo(work, within(press));
        assertThat(warming.presses() * press).isGreaterThanOrEqualTo(work);
        assertThat(warming.to()).isLessThan(warming.from());
        // As fast as one comes along on the way out, and not so often that nobody would do it.
        double fastest = Arrays.stream(lap.lap().speed()).max().orElseThrow();
        assertThat(warming.from()).isBetween(0.35 * fastest, 0.71 * fastest);
        assertThat(warming.presses()).isLessThan(25);
        assertThat(warming.into()).isNotEmpty().hasSizeLessThanOrEqualTo(3);
      }
    }
    assertThat(straights).isPositive();
  }
}
