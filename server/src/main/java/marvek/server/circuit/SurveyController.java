package marvek.server.circuit;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import marvek.core.circuit.Corner;
import marvek.core.circuit.CornerBook;
import marvek.core.circuit.LocalPlane;
import marvek.core.circuit.Relief;
import marvek.core.circuit.Sight;
import marvek.core.marker.DistanceBoards;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.sun.Shadow;
import marvek.core.sun.SunPosition;
import marvek.core.survey.LandmarkCsv;
import marvek.core.survey.LandmarkGpx;
import marvek.core.survey.SurveyFile;
import marvek.core.survey.Things;
import marvek.core.survey.ThingsCheck;
import marvek.server.access.Driver;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** The survey of a layout: corners, things along the road, pictures, sun, versions, files. */
@RestController
@RequestMapping("/api")
class SurveyController {
  private static final int MOST_BOARDS = 12;

  private final Layouts layouts;
  private final SurveyBook book;
  private final Photos photos;

  SurveyController(Layouts layouts, SurveyBook book, Photos photos) {
    this.layouts = layouts;
    this.book = book;
    this.photos = photos;
  }

  /**
   * Where the road lies.
   *
   * @param eastPerDegree metres east for one degree of longitude, near the road
   * @param northPerDegree metres north for one degree of latitude, near the road
   */
  record PlaceView(
      double latitude,
      double longitude,
      double altitude,
      double eastPerDegree,
      double northPerDegree) {
    static @Nullable PlaceView of(LayoutVersion layout) {
      LocalPlane plane = layout.plane();
      if (plane == null) {
        return null;
      }
      double small = 1e-3;
      return new PlaceView(
          plane.latitude(),
          plane.longitude(),
          layout.altitude(),
          plane.toMetres(plane.longitude() + small, plane.latitude())[0] / small,
          plane.toMetres(plane.longitude(), plane.latitude() + small)[1] / small);
    }
  }

  record LayoutView(
      LayoutSummary summary,
      String zone,
      List<Corner> corners,
      int cornersVersion,
      List<Said> remarks,
      String source,
      Things things,
      Map<String, Integer> versions,
      Relief relief,
      @Nullable PlaceView place,
      List<LayoutVersion.GroundChange> changes,
      String reason,
      @Nullable LayoutSummary newer,
      ReadAnew anew) {}

  /**
   * What the road gives today beside the corners there.
   *
   * @param added corners where there is none
   * @param apexes ids of corners whose apex is found elsewhere
   */
  record ReadAnew(List<Corner> added, List<String> apexes) {
    static ReadAnew of(CornerBook.Anew anew) {
      return new ReadAnew(anew.added(), anew.apexes());
    }
  }

  record PlaceRequest(double latitude, double longitude, double altitude) {}

  /**
   * A version to start.
   *
   * @param anew whether it takes the corners and apexes that are found today beside those there
   */
  record NewVersion(
      @NotNull LocalDate from,
      @NotNull @Size(max = 500) String reason,
      @NotNull @Size(max = 50) List<LayoutVersion.GroundChange> changes,
      boolean anew) {}

  /** A set of boards to propose. */
  record BoardsRequest(
      @NotNull String corner,
      @NotNull List<Integer> distances,
      double countedTo,
      boolean left,
      boolean readable) {}

  /** What a file holds, not stored yet. */
  record ReadView(Things things, @Nullable List<Corner> corners, String report) {}

  record SunMoment(String clock, double azimuth, double elevation) {}

  /** The shadow of a landmark's top, metres east and north of its foot. */
  record ShadowView(String landmark, double east, double north) {}

  /**
   * The sun over a circuit.
   *
   * @param azimuth radians clockwise from north
   * @param elevation radians
   * @param path of the day while the sun is up
   * @param shadows of what is higher than half a metre; none when the sun is down
   */
  record SunView(
      Instant time,
      double azimuth,
      double elevation,
      List<SunMoment> path,
      List<ShadowView> shadows) {}

  @GetMapping("/layouts/{id}")
  LayoutView one(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    return view(layouts.get(driver.id(), id));
  }

  @PostMapping("/layouts/{id}/survey")
  LayoutView change(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody SurveyBook.SurveyChange body) {
    book.apply(driver.id(), id, body);
    return one(driver, id);
  }

  /** Boards as they would stand; they are stored by a change like everything else. */
  @PostMapping("/layouts/{id}/boards")
  List<Landmark> boards(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody BoardsRequest body) {
    LayoutVersion layout = layouts.get(driver.id(), id);
    Corner corner =
        layout.corners().stream()
            .filter(c -> c.id().equals(body.corner()))
            .findFirst()
            .orElseThrow(() -> Problem.bad("refusal.circuit.no_corner").at("corner"));
    boolean sensible =
        !body.distances().isEmpty()
            && body.distances().size() <= MOST_BOARDS
            && body.distances().stream().allMatch(d -> d != null && d > 0 && d <= 1000);
    if (!sensible) {
      throw Problem.bad("refusal.circuit.these_distances_make_no", Value.figure(MOST_BOARDS, 0))
          .at("distances");
    }
    List<Landmark> set =
        DistanceBoards.set(
            layouts.road(layout),
            corner,
            body.distances(),
            body.countedTo(),
            body.left(),
            UUID.randomUUID().toString().substring(0, 8) + "-");
    return body.readable() ? set : set.stream().map(SurveyController::unreadable).toList();
  }

  private static Landmark unreadable(Landmark l) {
    return new Landmark(
        l.id(),
        l.kind(),
        l.label(),
        l.station(),
        l.left(),
        l.corner(),
        l.out(),
        l.height(),
        l.permanence(),
        false,
        null,
        "",
        "",
        0);
  }

  @PutMapping("/layouts/{id}/place")
  LayoutView place(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestBody PlaceRequest body) {
    boolean onEarth =
        Math.abs(body.latitude()) <= 89
            && Math.abs(body.longitude()) <= 180
            && body.altitude() >= -500
            && body.altitude() <= 6000;
    if (!onEarth) {
      throw Problem.bad("refusal.circuit.place_not_earth").at("latitude");
    }
    layouts.place(driver.id(), id, body.latitude(), body.longitude(), body.altitude());
    return one(driver, id);
  }

  @PostMapping("/layouts/{id}/versions")
  @ResponseStatus(HttpStatus.CREATED)
  LayoutSummary startVersion(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @Valid @RequestBody NewVersion body) {
    return LayoutSummary.of(
        book.startVersion(
            driver.id(), id, body.from(), body.reason().strip(), body.changes(), body.anew()));
  }

  /** Reads landmarks (GPX, CSV) or a whole survey (GeoJSON) without storing it. */
  @PostMapping(value = "/layouts/{id}/survey/read", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
  ReadView read(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestPart MultipartFile file)
      throws IOException {
    LayoutVersion layout = layouts.get(driver.id(), id);
    byte[] bytes = file.getBytes();
    String head = new String(bytes, 0, Math.min(bytes.length, 200), StandardCharsets.UTF_8);
    String start = head.replace("\uFEFF", "").strip();
    String prefix = UUID.randomUUID().toString().substring(0, 8) + "-";
    if (start.startsWith("{")) {
      SurveyFile survey = SurveyFile.read(bytes);
      check(layout, survey.things(), survey.corners());
      return new ReadView(
          survey.things(),
          survey.corners().isEmpty() ? null : survey.corners(),
          survey.things().size() + " things and " + survey.corners().size() + " corners");
    }
    List<Landmark> landmarks =
        start.startsWith("<")
            ? LandmarkGpx.read(bytes, layouts.road(layout), layout.plane(), prefix)
            : LandmarkCsv.read(bytes, layouts.road(layout), layout.plane(), prefix);
    Things things = new Things(landmarks, List.of(), List.of(), List.of(), List.of());
    check(layout, things, layout.corners());
    return new ReadView(things, null, landmarks.size() + " landmarks");
  }

  private static void check(LayoutVersion layout, Things things, List<Corner> corners) {
    List<Corner> all = new ArrayList<>(corners);
    all.addAll(layout.corners());
    ThingsCheck.check(
        things,
        all.stream().map(Corner::id).collect(java.util.stream.Collectors.toSet()),
        layout.length());
  }

  @GetMapping(value = "/layouts/{id}/survey.geojson", produces = "application/geo+json")
  ResponseEntity<byte[]> geoJson(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    LayoutVersion layout = layouts.get(driver.id(), id);
    byte[] file =
        new SurveyFile(layout.corners(), book.found(id).things())
            .write(layout.circuit().name(), layouts.road(layout), layout.plane());
    return download(file, layout, "survey.geojson", "application/geo+json");
  }

  @GetMapping(value = "/layouts/{id}/landmarks.csv", produces = "text/csv")
  ResponseEntity<byte[]> csv(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    LayoutVersion layout = layouts.get(driver.id(), id);
    byte[] file =
        LandmarkCsv.write(
            book.found(id).things().landmarks(), layouts.road(layout), layout.plane());
    return download(file, layout, "landmarks.csv", "text/csv;charset=UTF-8");
  }

  @GetMapping(value = "/layouts/{id}/landmarks.gpx", produces = "application/gpx+xml")
  ResponseEntity<byte[]> gpx(@AuthenticationPrincipal Driver driver, @PathVariable UUID id) {
    LayoutVersion layout = layouts.get(driver.id(), id);
    LocalPlane plane = layout.plane();
    if (plane == null) {
      throw Problem.bad("refusal.circuit.nobody_said_where_earth").at("place");
    }
    byte[] file =
        LandmarkGpx.write(book.found(id).things().landmarks(), layouts.road(layout), plane);
    return download(file, layout, "landmarks.gpx", "application/gpx+xml");
  }

  /**
   * The sun at an hour of the circuit's clock.
   *
   * @param at like 2026-05-16T10:30
   */
  @GetMapping("/layouts/{id}/sun")
  SunView sun(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestParam LocalDateTime at) {
    LayoutVersion layout = layouts.get(driver.id(), id);
    LocalPlane plane = layout.plane();
    if (plane == null) {
      throw Problem.bad("refusal.circuit.nobody_said_where_earth_b").at("place");
    }
    var zone = layout.circuit().zone();
    Instant time = layout.instant(at);
    SunPosition sun = SunPosition.at(time, plane.latitude(), plane.longitude(), layout.altitude());
    List<SunMoment> path =
        SunPosition.path(
                at.toLocalDate(), zone, plane.latitude(), plane.longitude(), layout.altitude())
            .stream()
            .map(
                m ->
                    new SunMoment(
                        m.time().atZone(zone).toLocalTime().toString(),
                        m.sun().azimuth(),
                        m.sun().elevation()))
            .toList();
    List<ShadowView> shadows = new ArrayList<>();
    for (Landmark l : book.found(id).things().landmarks()) {
      if (l.height() > 0.5 && l.kind() != LandmarkKind.SHADOW) {
        Shadow.of(l.height(), sun)
            .ifPresent(s -> shadows.add(new ShadowView(l.id(), s.east(), s.north())));
      }
    }
    return new SunView(time, sun.azimuth(), sun.elevation(), path, shadows);
  }

  @PutMapping(
      value = "/layouts/{id}/photos/{photo}",
      consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void keep(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @PathVariable UUID photo,
      @RequestPart MultipartFile file)
      throws IOException {
    photos.keep(driver.id(), id, photo, file.getBytes());
  }

  @GetMapping(value = "/photos/{photo}", produces = MediaType.IMAGE_JPEG_VALUE)
  ResponseEntity<byte[]> photo(@AuthenticationPrincipal Driver driver, @PathVariable UUID photo) {
    return ResponseEntity.ok()
        .cacheControl(CacheControl.maxAge(java.time.Duration.ofDays(30)).cachePrivate())
        .contentType(MediaType.IMAGE_JPEG)
        .body(photos.jpeg(driver.id(), photo));
  }

  private LayoutView view(LayoutVersion layout) {
    SurveyBook.Found found = book.found(layout.id());
    return new LayoutView(
        LayoutSummary.of(layout),
        layout.circuit().zone().getId(),
        layout.corners(),
        layout.cornersVersion(),
        layout.remarks(),
        layout.sourceName(),
        found.things(),
        found.versions(),
        Relief.of(layouts.road(layout), layout.counted(), Sight.EYE_CAR),
        PlaceView.of(layout),
        layout.changes(),
        layout.reason(),
        layouts.newer(layout).map(LayoutSummary::of).orElse(null),
        ReadAnew.of(CornerBook.anew(layouts.road(layout), layout.corners())));
  }

  private static ResponseEntity<byte[]> download(
      byte[] bytes, LayoutVersion layout, String name, String type) {
    String plain = layout.circuit().name().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-");
    return ResponseEntity.ok()
        .header(
            HttpHeaders.CONTENT_DISPOSITION,
            ContentDisposition.attachment().filename(plain + "-" + name).build().toString())
        .contentType(MediaType.parseMediaType(type))
        .body(bytes);
  }
}
