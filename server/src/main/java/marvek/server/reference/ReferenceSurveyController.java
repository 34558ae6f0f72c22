package marvek.server.reference;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import marvek.core.day.Footing;
import marvek.core.day.ZoneEffect;
import marvek.core.entry.Day;
import marvek.core.entry.PointKind;
import marvek.core.entry.Variant;
import marvek.core.review.Glances;
import marvek.core.review.MarkerReview;
import marvek.core.said.Said;
import marvek.core.survey.KerbClearance;
import marvek.core.survey.Place;
import marvek.core.survey.Severity;
import marvek.core.survey.Things;
import marvek.core.survey.ThingsCheck;
import marvek.core.survey.Zone;
import marvek.core.vehicle.Vehicle;
import marvek.server.access.Driver;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What a survey means for a reference: its markers, kerbs, set-up and layout version. */
@RestController
@RequestMapping("/api/references/{id}")
class ReferenceSurveyController {
  private final References references;
  private final NewerLayouts newerLayouts;
  private final Recomputing recomputing;

  ReferenceSurveyController(
      References references, NewerLayouts newerLayouts, Recomputing recomputing) {
    this.references = references;
    this.newerLayouts = newerLayouts;
    this.recomputing = recomputing;
  }

  /** A kerb's clearance for the vehicle of the reference. */
  record KerbView(String kerb, KerbClearance clearance) {}

  record SheetRequest(@Nullable UUID sheet) {}

  record PointRequest(@NotNull String corner, @NotNull PointKind kind) {}

  /**
   * Every marker judged.
   *
   * @param at hour on the circuit's clock, like 2026-05-16T10:30; without it the light is left out
   * @param traffic whether another car is close ahead
   */
  @GetMapping("/markers")
  MarkerReview markers(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestParam(required = false) @Nullable LocalDateTime at,
      @RequestParam(defaultValue = "false") boolean traffic) {
    References.Opened opened = references.read(driver.id(), id);
    return MarkerReview.of(
        opened.computed(), opened.working(), opened.things(), opened.view(at, traffic));
  }

  @GetMapping("/kerbs")
  List<KerbView> kerbs(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    References.Opened opened = references.read(driver.id(), id);
    Vehicle vehicle = opened.computed().vehicle();
    return opened.things().kerbs().stream()
        .map(k -> new KerbView(k.id(), KerbClearance.of(k, vehicle)))
        .toList();
  }

  /** A zone as it is being edited, with what the severities mean. */
  record ZoneRequest(@NotNull @Valid Zone zone, @NotNull List<Severity> severities) {
    ZoneRequest {
      severities = List.copyOf(severities);
    }
  }

  /**
   * What a zone does on a day.
   *
   * @param day id of the variant; null for the base
   * @param name of the day; empty for the base
   */
  record ZoneOnDay(
      @Nullable String day,
      Said name,
      boolean counts,
      double seconds,
      double speed,
      double station,
      @Nullable Double passed) {
    static ZoneOnDay of(@Nullable Variant variant, ZoneEffect e) {
      return new ZoneOnDay(
          variant == null ? null : variant.id(),
          variant == null ? Said.NOTHING : variant.called(),
          e.counts(),
          e.seconds(),
          e.speed(),
          e.station(),
          Double.isNaN(e.passed()) ? null : e.passed());
    }
  }

  /** What a zone does to the lap, on the base's day and each of the others; nothing is stored. */
  @PostMapping("/zone-effect")
  List<ZoneOnDay> effect(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody ZoneRequest body) {
    References.Opened opened = references.read(driver.id(), id);
    Things asked =
        new Things(
            List.of(), List.of(), List.of(body.zone()), List.of(), List.of(), body.severities());
    ThingsCheck.check(asked, Set.of(), opened.layout().length());
    Zone zone = body.zone().told(body.severities());
    List<Zone> others =
        opened.things().ground().stream().filter(z -> !z.id().equals(zone.id())).toList();
    Footing footing = opened.row().footing().withZones(others);
    List<ZoneOnDay> out = new ArrayList<>();
    out.add(ZoneOnDay.of(null, ZoneEffect.of(opened.computed(), footing, zone, Day.ofBase())));
    for (Variant v : opened.working().variants()) {
      out.add(ZoneOnDay.of(v, ZoneEffect.of(opened.computed(), footing, zone, v.day())));
    }
    return out;
  }

  /** Places where a straight lasts long enough to look at the instruments. */
  @GetMapping("/glances")
  List<Place> glances(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    return Glances.on(references.read(driver.id(), id).computed());
  }

  @PutMapping("/sheet")
  void proveOn(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestBody SheetRequest body) {
    recomputing.proveOn(driver.id(), id, body.sheet());
  }

  @PostMapping("/newest-layout")
  void moveToNewest(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    newerLayouts.moveToNewest(driver.id(), id);
  }

  @PostMapping("/confirmed")
  void confirm(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody PointRequest body) {
    newerLayouts.confirm(driver.id(), id, body.corner(), body.kind());
  }
}
