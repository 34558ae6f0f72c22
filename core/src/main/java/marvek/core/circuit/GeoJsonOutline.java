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
      throw new OutlineProblem(
          UNREADABLE,
          "The JSON breaks off or is malformed.",
          at == null ? null : "line " + at.getLineNr() + ", column " + at.getColumnNr(),
          "Export the file again; it must be one whole GeoJSON document.");
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
      throw new OutlineProblem(
          UNREADABLE,
          "There is no LineString or Polygon in this JSON"
              + (root.hasNonNull("type")
                  ? "; its type is \"" + root.get("type").asText() + "\"."
                  : "."),
          null,
          "Draw the circuit as one line in driving order and export it as GeoJSON.");
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
      throw new OutlineProblem(
          TOO_LARGE,
          "There are " + n + " points; " + OutlineFile.MOST_POINTS + " is the most.",
          null,
          "Bring one lap only, or thin the points to one a metre.");
    }
    double[] x = new double[n];
    double[] y = new double[n];
    double[] z = new double[n];
    boolean heights = n > 0;
    for (int i = 0; i < n; i++) {
      JsonNode point = line.get(i);
      if (!point.path(0).isNumber() || !point.path(1).isNumber()) {
        throw new OutlineProblem(
            NOT_A_NUMBER,
            "A position needs two numbers, longitude and latitude.",
            "point " + (i + 1),
            "Correct or remove that point.");
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
