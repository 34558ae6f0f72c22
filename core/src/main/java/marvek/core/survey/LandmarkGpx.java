package marvek.core.survey;

import io.jenetics.jpx.GPX;
import io.jenetics.jpx.WayPoint;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.LocalPlane;
import marvek.core.marker.Landmark;
import marvek.core.marker.LandmarkKind;
import marvek.core.refusal.Refusal;
import marvek.core.refusal.Where;
import marvek.core.said.Said;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * Landmarks as waypoints of GPX 1.1: {@code name} is the label, {@code type} the kind, {@code desc}
 * the note, and {@code cmt} holds what GPX has no element for as {@code key=value} pairs. A file
 * from elsewhere needs no more than latitude, longitude and a name.
 */
public final class LandmarkGpx {
  private static final int MOST = 5000;
  private static final double FARTHEST = 500;

  private LandmarkGpx() {}

  /**
   * The file.
   *
   * @param plane where on the earth the road lies; GPX has no other way to say it
   */
  public static byte[] write(List<Landmark> landmarks, Centreline road, LocalPlane plane) {
    SurveyPlace place = new SurveyPlace(road, plane);
    GPX.Builder gpx = GPX.builder("Marvek");
    for (Landmark l : landmarks) {
      double[] at = place.degrees(l.station(), l.left(), l.out()).orElseThrow();
      Instant noted = l.noted();
      String more =
          "id="
              + l.id()
              + "; station="
              + l.station()
              + "; side="
              + (l.left() ? "left" : "right")
              + "; out="
              + l.out()
              + "; height="
              + l.height()
              + "; permanence="
              + l.permanence()
              + "; readable="
              + (l.readable() ? "yes" : "no")
              + (noted == null ? "" : "; noted=" + noted)
              + "; corner="
              + l.corner()
              + "; length="
              + l.length()
              + seen(l.seen());
      gpx.addWayPoint(
          WayPoint.builder()
              .lat(at[1])
              .lon(at[0])
              .name(l.label())
              .type(l.kind().name().toLowerCase(Locale.ROOT))
              .desc(l.note())
              .cmt(more)
              .build());
    }
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try {
      GPX.Writer.DEFAULT.write(gpx.build(), out);
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
    return out.toByteArray();
  }

  /**
   * Reads a file. XML with a document type is refused by the caller's reader of outlines and here.
   *
   * @throws Refusal with the number of the waypoint
   */
  public static List<Landmark> read(
      byte[] content, Centreline road, @Nullable LocalPlane plane, String prefix) {
    if (plane == null) {
      throw Refusal.of("refusal.survey.circuits_place_earth_not");
    }
    String head =
        new String(
            content, 0, Math.min(content.length, 4096), java.nio.charset.StandardCharsets.UTF_8);
    if (head.contains("<!DOCTYPE") || head.contains("<!ENTITY")) {
      throw Refusal.of("refusal.survey.file_declares_document_type").at(Where.line(1));
    }
    List<WayPoint> points;
    try {
      points =
          GPX.Reader.of(GPX.Reader.Mode.LENIENT)
              .read(new ByteArrayInputStream(content))
              .getWayPoints();
    } catch (IOException | RuntimeException e) {
      throw Refusal.of("refusal.survey.file_not_gpx_breaks");
    }
    if (points.isEmpty()) {
      throw Refusal.of("refusal.survey.file_holds_no_waypoints");
    }
    if (points.size() > MOST) {
      throw Refusal.of("refusal.survey.file_holds_more_waypoints", Value.figure(MOST, 0));
    }
    SurveyPlace place = new SurveyPlace(road, plane);
    List<Landmark> landmarks = new ArrayList<>();
    for (int i = 0; i < points.size(); i++) {
      landmarks.add(landmark(points.get(i), i + 1, place, prefix));
    }
    return List.copyOf(landmarks);
  }

  private static Landmark landmark(WayPoint w, int number, SurveyPlace place, String prefix) {
    Said where = Where.waypoint(number);
    SurveyPlace.Beside beside =
        place.beside(w.getLongitude().doubleValue(), w.getLatitude().doubleValue()).orElseThrow();
    if (Math.abs(beside.out()) > FARTHEST) {
      throw Refusal.of(
              "refusal.survey.waypoint_lies_from_road",
              Value.figure(number, 0),
              Value.length(beside.out()))
          .at(where);
    }
    Map<String, String> more = pairs(w.getComment().orElse(""));
    LandmarkKind kind = LandmarkKind.OTHER;
    for (LandmarkKind k : LandmarkKind.values()) {
      if (k.name().equalsIgnoreCase(w.getType().orElse(""))) {
        kind = k;
      }
    }
    String label = w.getName().orElse("");
    boolean own = more.containsKey("station");
    try {
      return new Landmark(
          more.getOrDefault("id", prefix + number),
          kind,
          label.isBlank() && kind == LandmarkKind.OTHER ? "mark " + number : label,
          own ? Double.parseDouble(more.get("station")) : beside.station(),
          own ? !"right".equals(more.get("side")) : beside.left(),
          more.getOrDefault("corner", ""),
          own ? Double.parseDouble(more.getOrDefault("out", "0")) : beside.out(),
          Double.parseDouble(more.getOrDefault("height", Double.toString(kind.usualHeight()))),
          Landmark.Permanence.valueOf(
              more.getOrDefault("permanence", kind.usualPermanence().name())),
          !"no".equals(more.get("readable")),
          more.containsKey("noted") ? Instant.parse(more.get("noted")) : null,
          w.getDescription().orElse(""),
          "",
          Double.parseDouble(more.getOrDefault("length", "0")),
          seen(more));
    } catch (IllegalArgumentException | DateTimeParseException e) {
      throw Refusal.of("refusal.survey.waypoint_comment_cannot_read", Value.figure(number, 0))
          .at(Where.in(where, "cmt"));
    }
  }

  private static String seen(Landmark.@Nullable Seen seen) {
    if (seen == null) {
      return "";
    }
    return (seen.comes() == null ? "" : "; comes=" + seen.comes())
        + (seen.leaves() == null ? "" : "; leaves=" + seen.leaves());
  }

  private static Landmark.@Nullable Seen seen(Map<String, String> more) {
    String comes = more.get("comes");
    String leaves = more.get("leaves");
    return comes == null && leaves == null
        ? null
        : new Landmark.Seen(
            comes == null ? null : Double.valueOf(comes),
            leaves == null ? null : Double.valueOf(leaves));
  }

  private static Map<String, String> pairs(String comment) {
    Map<String, String> pairs = new LinkedHashMap<>();
    for (String part : comment.split(";")) {
      int at = part.indexOf('=');
      if (at > 0) {
        pairs.put(part.substring(0, at).strip(), part.substring(at + 1).strip());
      }
    }
    return pairs;
  }
}
