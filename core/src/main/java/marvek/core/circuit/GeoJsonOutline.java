package marvek.core.circuit;

import static marvek.core.circuit.OutlineProblem.Kind.NOT_A_NUMBER;
import static marvek.core.circuit.OutlineProblem.Kind.TOO_LARGE;
import static marvek.core.circuit.OutlineProblem.Kind.UNREADABLE;

import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.core.json.JsonReadFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import marvek.core.refusal.Where;
import marvek.core.said.Value;

/** GeoJSON (RFC 7946): the longest LineString or Polygon ring in the document. */
final class GeoJsonOutline {
  private static final JsonMapper JSON =
      JsonMapper.builder(
              com.fasterxml.jackson.core.JsonFactory.builder()
                  .streamReadConstraints(
                      StreamReadConstraints.builder().maxNestingDepth(40).build())
                  .build())
          .enable(JsonReadFeature.ALLOW_NON_NUMERIC_NUMBERS)
          .build();

  private GeoJsonOutline() {}

  static Outline read(byte[] content) {
    JsonNode root;
    try {
      root = JSON.readTree(content);
    } catch (JsonProcessingException e) {
      JsonLocation at = e.getLocation();
      throw OutlineProblem.of(UNREADABLE, "refusal.circuit.json_breaks_off_malformed")
          .at(at == null ? null : Where.line(at.getLineNr(), at.getColumnNr()));
    } catch (IOException e) {
      throw new IllegalStateException("reading from memory failed", e);
    }
    List<JsonNode> lines = new ArrayList<>();
    collect(root, lines);
    JsonNode longest = null;
    for (JsonNode line : lines) {
      if (longest == null || line.size() > longest.size()) {
        longest = line;
      }
    }
    if (longest == null) {
      throw OutlineProblem.of(
          UNREADABLE,
          "refusal.circuit.no_line_json",
          Value.choice(root.hasNonNull("type")),
          Value.own(root.path("type").asText()));
    }
    return points(longest);
  }

  private static void collect(JsonNode node, List<JsonNode> lines) {
    switch (node.path("type").asText()) {
      case "FeatureCollection" -> node.path("features").forEach(f -> collect(f, lines));
      case "Feature" -> collect(node.path("geometry"), lines);
      case "GeometryCollection" -> node.path("geometries").forEach(g -> collect(g, lines));
      case "LineString" -> lines.add(node.path("coordinates"));
      case "Polygon" -> lines.add(node.path("coordinates").path(0));
      case "MultiLineString" -> node.path("coordinates").forEach(lines::add);
      case "MultiPolygon" -> node.path("coordinates").forEach(p -> lines.add(p.path(0)));
      default -> {
        // Points and unknown members carry no outline.
      }
    }
  }

  private static Outline points(JsonNode line) {
    int n = line.size();
    if (n > OutlineFile.MOST_POINTS) {
      throw OutlineProblem.of(
          TOO_LARGE,
          "refusal.circuit.points_most",
          Value.figure(n, 0),
          Value.figure(OutlineFile.MOST_POINTS, 0));
    }
    double[] x = new double[n];
    double[] y = new double[n];
    double[] z = new double[n];
    boolean heights = n > 0;
    for (int i = 0; i < n; i++) {
      JsonNode point = line.get(i);
      if (!point.path(0).isNumber() || !point.path(1).isNumber()) {
        throw OutlineProblem.of(NOT_A_NUMBER, "refusal.circuit.position_needs_two_numbers")
            .at(Where.point(i + 1));
      }
      x[i] = point.get(0).asDouble();
      y[i] = point.get(1).asDouble();
      heights &= point.path(2).isNumber();
      z[i] = point.path(2).asDouble();
    }
    return new Outline(
        true,
        x,
        y,
        heights ? z : null,
        null,
        null,
        null,
        "point",
        IntStream.rangeClosed(1, n).toArray());
  }
}
