package marvek.server.circuit;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
import marvek.core.circuit.CircuitReader;
import marvek.core.circuit.CircuitReading;
import marvek.core.circuit.Corner;
import marvek.core.circuit.Outline;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.telemetry.RecordedOutline;
import marvek.server.access.Driver;
import marvek.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** Bring a circuit, look at it, keep it. */
@RestController
@RequestMapping("/api")
class CircuitController {
  private final Layouts layouts;

  CircuitController(Layouts layouts) {
    this.layouts = layouts;
  }

  /** What an outline file gives. Place is "41.2° N, 8.6° W" for geographic files. */
  record PreviewView(
      RoadView road,
      List<Corner> corners,
      List<Said> remarks,
      double noise,
      int points,
      @Nullable String place) {}

  @PostMapping(value = "/outlines/preview", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
  PreviewView preview(
      @RequestPart MultipartFile file,
      @RequestParam(defaultValue = "false") boolean reverse,
      @RequestParam(defaultValue = "0") double start,
      @RequestParam(defaultValue = "10") double width,
      @RequestParam(defaultValue = "false") boolean bridges)
      throws IOException {
    Outline outline = RecordedOutline.read(file.getBytes());
    CircuitReading reading = CircuitReader.read(outline, choices(reverse, start, width, bridges));
    return new PreviewView(
        RoadView.of(reading.centreline(), Math.max(2, reading.centreline().length() / 3000)),
        reading.corners(),
        reading.remarks(),
        reading.noise(),
        outline.size(),
        place(outline));
  }

  @GetMapping("/outlines/samples/{name}")
  ResponseEntity<ClassPathResource> sample(@PathVariable String name) {
    String type =
        switch (name) {
          case "outline.geojson" -> "application/geo+json";
          case "outline.gpx" -> "application/gpx+xml";
          case "outline.csv" -> "text/csv";
          default -> throw Problem.none("refusal.none.no_sample");
        };
    return ResponseEntity.ok()
        .header(
            HttpHeaders.CONTENT_DISPOSITION,
            ContentDisposition.attachment().filename(name).build().toString())
        .contentType(MediaType.parseMediaType(type))
        .body(new ClassPathResource("samples/" + name));
  }

  @PostMapping(value = "/layouts", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
  @ResponseStatus(HttpStatus.CREATED)
  LayoutSummary save(
      @AuthenticationPrincipal Driver driver,
      @RequestPart MultipartFile file,
      @RequestParam @NotBlank @Size(max = 100) String circuit,
      @RequestParam(defaultValue = "Full") @Size(max = 100) String layout,
      @RequestParam(defaultValue = "UTC") String zone,
      @RequestParam(defaultValue = "false") boolean reverse,
      @RequestParam(defaultValue = "0") double start,
      @RequestParam(defaultValue = "10") double width,
      @RequestParam(defaultValue = "false") boolean bridges)
      throws IOException {
    byte[] bytes = file.getBytes();
    CircuitReading reading =
        CircuitReader.read(RecordedOutline.read(bytes), choices(reverse, start, width, bridges));
    String name = Objects.requireNonNullElse(file.getOriginalFilename(), "outline");
    return LayoutSummary.of(
        layouts.save(
            driver.id(),
            named(circuit, "circuit"),
            named(layout, "layout"),
            zone(zone),
            reading,
            name.length() > 200 ? name.substring(0, 200) : name,
            bytes));
  }

  @GetMapping("/layouts")
  List<LayoutSummary> all(@AuthenticationPrincipal Driver driver) {
    return layouts.of(driver.id());
  }

  @GetMapping("/layouts/{id}/road")
  ResponseEntity<RoadView> road(
      @AuthenticationPrincipal Driver driver,
      @PathVariable UUID id,
      @RequestParam(defaultValue = "2") double step) {
    LayoutVersion layout = layouts.get(driver.id(), id);
    return ResponseEntity.ok()
        .eTag("\"" + id + "-" + step + "\"")
        .header(HttpHeaders.CACHE_CONTROL, "private, max-age=86400")
        .body(RoadView.of(layouts.road(layout), Math.max(1, step)));
  }

  private static CircuitReader.Choices choices(
      boolean reverse, double start, double width, boolean bridges) {
    if (!(width >= 3 && width <= 40)) {
      throw Problem.bad("refusal.circuit.road_width_cannot_right", Value.number(width)).at("width");
    }
    if (!Double.isFinite(start)) {
      throw Problem.bad("refusal.circuit.start_finish_line_nowhere").at("start");
    }
    return new CircuitReader.Choices(reverse, start, width, bridges);
  }

  private static String named(String name, String field) {
    if (name.isBlank()) {
      throw Problem.bad("refusal.circuit.no_name", Value.own(field)).at(field);
    }
    return name.strip();
  }

  private static ZoneId zone(String zone) {
    try {
      return ZoneId.of(zone);
    } catch (DateTimeException e) {
      throw Problem.bad("refusal.circuit.no_time_zone", Value.own(zone)).at("zone");
    }
  }

  private static @Nullable String place(Outline outline) {
    if (!outline.geographic()) {
      return null;
    }
    double lat = outline.y()[0];
    double lon = outline.x()[0];
    return String.format(
        java.util.Locale.ROOT,
        "%.3f° %s, %.3f° %s",
        Math.abs(lat),
        lat < 0 ? "S" : "N",
        Math.abs(lon),
        lon < 0 ? "W" : "E");
  }
}
