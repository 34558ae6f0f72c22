package marvek.server.reference;

import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import marvek.core.circuit.Corner;
import marvek.core.day.Paced;
import marvek.core.entry.ContentCheck;
import marvek.core.entry.CornerEntry;
import marvek.core.entry.OwnPace;
import marvek.core.lap.Driving;
import marvek.core.lap.Ground;
import marvek.core.lap.LapTrace;
import marvek.core.lap.Limits;
import marvek.core.lap.Surface;
import marvek.core.plan.ComputedLap;
import marvek.core.review.Hazards;
import marvek.core.said.Said;
import marvek.core.units.Units;
import marvek.server.access.Driver;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The driver's own pace: what a pace makes of the lap, tried before it is taken. */
@RestController
@RequestMapping("/api/references/{id}/pace")
class PaceController {
  /** By how much a corner with something hard or hidden in it is kept slower (common practice). */
  private static final double CAREFUL = 0.97;

  private final References references;

  PaceController(References references) {
    this.references = references;
  }

  /** A pace to look at; null for all of the grip. */
  record PaceRequest(@Nullable @Valid OwnPace pace) {}

  /**
   * A pace so much off the best.
   *
   * @param off share of the lap time, 0.045 for 4.5 %
   * @param margin seconds
   * @param careful whether corners with walls or that cannot be seen through stay slower
   */
  record TierRequest(
      @DecimalMin("0") @DecimalMax("0.5") double off,
      @DecimalMin("0.02") @DecimalMax("1.5") double margin,
      boolean careful) {}

  /**
   * What a pace makes of a corner, on the line at hand.
   *
   * @param seconds lost to the best from the exit of the corner before to its own
   * @param slowest m/s
   * @param best slowest at all of the grip, m/s
   * @param factor of the corner alone
   * @param next seconds to be had from the exit of the corner before to its own by the next tier
   * @param hard whether something hard is near on the outside, or the corner cannot be seen through
   * @param warnings why care is asked for
   */
  record PacedCorner(
      @NotNull String corner,
      double seconds,
      double slowest,
      double best,
      double factor,
      double next,
      boolean hard,
      List<Said> warnings) {}

  /**
   * What the vehicle can do on the level at one speed, for the drawing.
   *
   * @param speed m/s
   * @param across g
   * @param braking g
   * @param traction g
   */
  record Reach(double speed, double across, double braking, double traction) {}

  /**
   * A pace looked at.
   *
   * @param pace null for all of the grip
   * @param lapTime on the line at hand, seconds
   * @param best lap with all of the grip on it, seconds
   * @param nextTier how far off the best the next quicker tier is
   * @param computedWith the pace that the numbers of the reference were computed with
   */
  record PaceView(
      @Nullable OwnPace pace,
      double lapTime,
      double best,
      double nextTier,
      List<PacedCorner> corners,
      Reach reach,
      @Nullable OwnPace computedWith) {}

  /** The pace that the reference was computed at. */
  @GetMapping
  PaceView now(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    References.Opened opened = references.read(driver.id(), id);
    return view(opened, opened.row().pace());
  }

  @PostMapping("/tried")
  PaceView tried(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody PaceRequest body) {
    References.Opened opened = references.read(driver.id(), id);
    OwnPace pace = body.pace();
    if (pace != null) {
      ContentCheck.pace(opened.layout().counted(), pace);
    }
    return view(opened, pace);
  }

  @PostMapping("/tier")
  PaceView tier(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody TierRequest body) {
    References.Opened opened = references.read(driver.id(), id);
    if (body.off() == 0 && body.margin() == Driving.FULL.margin() && !body.careful()) {
      return view(opened, null);
    }
    List<OwnPace.InCorner> slower = new ArrayList<>();
    if (body.careful()) {
      for (Hazards h : hazards(opened)) {
        if (h.shortRunOff() || h.blind()) {
          OwnPace.Why why = h.shortRunOff() ? OwnPace.Why.WALL : OwnPace.Why.BLIND;
          slower.add(new OwnPace.InCorner(h.corner(), CAREFUL, why));
        }
      }
    }
    return view(
        opened, Paced.off(opened.computed(), plain(opened), body.off(), body.margin(), slower));
  }

  private static List<Hazards> hazards(References.Opened opened) {
    List<Hazards> out = new ArrayList<>();
    for (CornerEntry e : opened.working().corners()) {
      out.add(Hazards.of(opened.computed(), opened.things(), e));
    }
    return out;
  }

  private static Ground plain(References.Opened opened) {
    ComputedLap computed = opened.computed();
    return opened
        .row()
        .footing()
        .withPace(null)
        .ground(computed.road(), computed.corners(), computed.vehicle(), Surface.DRY);
  }

  private static PaceView view(References.Opened opened, @Nullable OwnPace pace) {
    ComputedLap computed = opened.computed();
    Ground plain = plain(opened);
    LapTrace own = Paced.lap(computed, plain, pace);
    LapTrace best = Paced.lap(computed, plain, null);
    double next = Paced.nextTier(own.lapTime() / best.lapTime() - 1);
    double margin = OwnPace.of(pace).margin();
    LapTrace quicker =
        next == 0
            ? best
            : Paced.lap(computed, plain, Paced.off(computed, plain, next, margin, List.of()));
    List<Hazards> hazards = hazards(opened);
    List<PacedCorner> corners = new ArrayList<>();
    int count = computed.corners().size();
    for (int c = 0; c < count; c++) {
      Corner corner = computed.corners().get(c);
      int from = computed.road().index(computed.corners().get((c + count - 1) % count).exit());
      int to = computed.road().index(corner.exit());
      Hazards h = hazards.get(c);
      corners.add(
          new PacedCorner(
              corner.id(),
              own.between(from, to) - best.between(from, to),
              own.slowest(from, to),
              best.slowest(from, to),
              pace == null ? 1 : pace.in(corner.id()),
              own.between(from, to) - quicker.between(from, to),
              h.shortRunOff() || h.blind(),
              h.warnings()));
    }
    return new PaceView(
        pace,
        own.lapTime(),
        best.lapTime(),
        next,
        corners,
        envelope(computed),
        opened.row().pace());
  }

  private static Reach envelope(ComputedLap computed) {
    double v = 30;
    Limits limits = new Limits(computed.vehicle(), computed.conditions().withDriving(Driving.FULL));
    double load = limits.levelLoad(v);
    return new Reach(
        v,
        limits.sidewaysMost(load, 1) / Units.G,
        limits.brakingMost(load, 1, 1) / Units.G,
        Math.min(limits.traction(load, 1, 1), limits.engineDrive(v)) / Units.G);
  }
}
