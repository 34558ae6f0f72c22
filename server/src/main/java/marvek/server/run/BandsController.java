package marvek.server.run;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import marvek.core.day.RunDays;
import marvek.core.debrief.DrivenBands;
import marvek.core.entry.PointKind;
import marvek.server.access.Driver;
import marvek.server.reference.References;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What was driven in a corner, to be laid behind its plan. */
@RestController
class BandsController {
  private final Bands bands;
  private final References references;

  BandsController(Bands bands, References references) {
    this.bands = bands;
    this.references = references;
  }

  /** Values between a tenth of the laps below and a tenth above. */
  record BandView(double[] low, double[] middle, double[] high) {
    static @Nullable BandView of(DrivenBands.@Nullable Band band) {
      return band == null
          ? null
          : new BandView(
              LapLine.rounded(band.low()),
              LapLine.rounded(band.middle()),
              LapLine.rounded(band.high()));
    }
  }

  /**
   * The quickest laps of the newest run on a day, of those that count, over each other. Without
   * laps the bands are null.
   *
   * @param from station of the first value, m; may lie before the line
   * @param step metres
   */
  record DrivenView(
      int laps,
      String run,
      double from,
      double step,
      @Nullable BandView speed,
      @Nullable BandView brake,
      @Nullable BandView throttle,
      Map<PointKind, List<Double>> points) {}

  @GetMapping("/api/references/{id}/driven/{corner}")
  DrivenView driven(
      @PathVariable UUID id,
      @PathVariable String corner,
      @RequestParam(defaultValue = RunDays.OWN) String day,
      @AuthenticationPrincipal Driver driver) {
    References.Opened opened = references.read(driver.id(), id);
    return bands
        .of(driver.id(), opened, corner, day)
        .map(
            o ->
                new DrivenView(
                    o.bands().laps(),
                    o.run(),
                    o.bands().from(),
                    o.bands().step(),
                    BandView.of(o.bands().speed()),
                    BandView.of(o.bands().brake()),
                    BandView.of(o.bands().throttle()),
                    o.bands().points()))
        .orElseGet(() -> new DrivenView(0, "", 0, 1, null, null, null, Map.of()));
  }
}
