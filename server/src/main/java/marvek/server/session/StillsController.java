package marvek.server.session;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import marvek.core.circuit.Centreline;
import marvek.core.film.Lens;
import marvek.core.film.Stills;
import marvek.core.marker.Landmark;
import marvek.core.telemetry.LapGrid;
import marvek.server.access.Driver;
import marvek.server.problem.Problem;
import marvek.server.run.Runs;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Where things stand that stills of a lap's film show. Pictures never come here. */
@RestController
@RequestMapping("/api/laps/{id}")
class StillsController {
  private static final double FASTEST = 120;

  private final Runs runs;

  StillsController(Runs runs) {
    this.runs = runs;
  }

  /**
   * A lens as a driver knows it.
   *
   * @param degrees that the whole picture is wide
   * @param turned degrees that the camera looks to the right
   */
  record LensView(@NotNull Lens.Projection projection, double degrees, double turned) {
    Lens lens() {
      return new Lens(projection, Math.toRadians(degrees / 2), Math.toRadians(turned));
    }

    static LensView of(Lens l) {
      return new LensView(
          l.projection(), Math.toDegrees(2 * l.halfAngle()), Math.toDegrees(l.turned()));
    }
  }

  /** A thing at a place of the picture, -1 to 1 from left to right, and where the vehicle was. */
  record StillSighting(double station, double across) {
    Stills.Sighting sighting(Centreline road) {
      if (!(Math.abs(across) <= 1 && station >= 0 && station <= road.length())) {
        throw Problem.bad("refusal.session.outside_picture_lap").at("across");
      }
      return new Stills.Sighting(station, across);
    }
  }

  record StillsRequest(
      @Valid @NotNull LensView lens,
      @Valid @NotNull StillSighting first,
      @Valid @NotNull StillSighting second,
      double rate) {}

  record KnownSighting(@NotNull String landmark, double station, double across) {}

  record LensRequest(
      @NotNull Lens.Projection projection,
      @NotNull @Size(min = 2, max = 2) List<@Valid @NotNull KnownSighting> known) {}

  /** Where a thing stands that two stills show, and by how much that may be off. */
  @PostMapping("/stills")
  Stills.Placed place(
      @PathVariable UUID id,
      @Valid @RequestBody StillsRequest body,
      @AuthenticationPrincipal Driver driver) {
    Runs.OpenedLap lap = runs.lap(driver.id(), id);
    LapGrid grid = runs.channels(lap.lap()).grid();
    Centreline road = lap.opened().reference().computed().road();
    if (!(body.rate() >= 5 && body.rate() <= 1000)) {
      throw Problem.bad("refusal.session.film_pictures_second").at("rate");
    }
    Stills.Sighting second = body.second().sighting(road);
    int i = (int) Math.min(grid.speed().length - 1, Math.round(second.station() / grid.step()));
    double frame = Math.min(FASTEST, grid.speed()[i]) / body.rate();
    return stills(lap, grid).place(body.lens().lens(), body.first().sighting(road), second, frame);
  }

  /** The lens by two things of the survey. */
  @PostMapping("/lens")
  LensView lens(
      @PathVariable UUID id,
      @Valid @RequestBody LensRequest body,
      @AuthenticationPrincipal Driver driver) {
    Runs.OpenedLap lap = runs.lap(driver.id(), id);
    Centreline road = lap.opened().reference().computed().road();
    Stills stills = stills(lap, runs.channels(lap.lap()).grid());
    double[] across = new double[2];
    double[] bearing = new double[2];
    for (int k = 0; k < 2; k++) {
      KnownSighting known = body.known().get(k);
      Stills.Sighting at = new StillSighting(known.station(), known.across()).sighting(road);
      Landmark l =
          lap.opened().reference().landmarks().stream()
              .filter(one -> one.id().equals(known.landmark()))
              .findFirst()
              .orElseThrow(
                  () -> Problem.bad("refusal.session.thing_not_survey_any").at("landmark"));
      int i = road.index(l.station());
      double offset = l.left() ? road.left()[i] + l.out() : -road.right()[i] - l.out();
      across[k] = at.across();
      bearing[k] = stills.bearing(at.station(), l.station(), offset);
    }
    return LensView.of(Lens.told(body.projection(), across, bearing));
  }

  private static Stills stills(Runs.OpenedLap lap, LapGrid grid) {
    Centreline road = lap.opened().reference().computed().road();
    double[] offset = grid.offset();
    boolean placed = offset.length > 0 && !Double.isNaN(offset[offset.length / 2]);
    double[] line = lap.opened().reference().computed().path().offset();
    return placed
        ? new Stills(road, s -> between(offset, s / grid.step()), true)
        : new Stills(road, s -> between(line, s / road.step()), false);
  }

  private static double between(double[] values, double at) {
    int i = Math.floorMod((int) Math.floor(at), values.length);
    double part = at - Math.floor(at);
    return values[i] * (1 - part) + values[(i + 1) % values.length] * part;
  }
}
