package marvek.core.survey;

import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.datatype.jsr310.JavaTimeModule;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import marvek.core.circuit.Centreline;
import marvek.core.circuit.Corner;
import marvek.core.circuit.LocalPlane;
import marvek.core.marker.Landmark;
import marvek.core.refusal.Refusal;
import marvek.core.refusal.Where;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * A whole survey as a GeoJSON FeatureCollection (RFC 7946). Each feature's properties hold the
 * thing itself under {@code thing} and {@code marvek}; its geometry is where it lies, or null on a
 * road whose place on the earth is unknown.
 *
 * @param corners in driving order
 * @param things along the road
 */
public record SurveyFile(List<Corner> corners, Things things) {
  /** What a file says of itself. */
  public static final String FORMAT = "marvek-survey/1";

  private static final int MOST = 20_000;
  private static final double LINE_STEP = 5;
  private static final JsonMapper JSON =
      JsonMapper.builder()
          .addModule(new JavaTimeModule())
          .enable(SerializationFeature.INDENT_OUTPUT)
          .disable(SerializationFeature.WRITE_DATES_AS_TIMESTAMPS)
          .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
          .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
          .build();

  public SurveyFile {
    corners = List.copyOf(corners);
  }

  /** Writes the file, UTF-8. */
  public byte[] write(String circuit, Centreline road, @Nullable LocalPlane plane) {
    SurveyPlace place = new SurveyPlace(road, plane);
    ObjectNode root = JSON.createObjectNode();
    root.put("type", "FeatureCollection");
    root.put("marvek", FORMAT);
    root.put("circuit", circuit);
    root.put("length_m", road.length());
    ArrayNode features = root.putArray("features");
    corners.forEach(
        c -> {
          boolean side = c.left();
          feature(
              features, "corner", c, line(place, road, c.entry(), c.exit(), side, -inside(road)));
        });
    things
        .landmarks()
        .forEach(
            l -> feature(features, "landmark", l, point(place, l.station(), l.left(), l.out())));
    things
        .kerbs()
        .forEach(
            k -> feature(features, "kerb", k, line(place, road, k.from(), k.to(), k.left(), 0)));
    things
        .zones()
        .forEach(
            z ->
                feature(
                    features,
                    "zone",
                    z,
                    line(place, road, z.from(), z.to(), z.side() != Zone.Side.RIGHT, 0)));
    things.limits().forEach(l -> feature(features, "limit", l, JSON.nullNode()));
    things
        .places()
        .forEach(p -> feature(features, "place", p, point(place, p.from(), p.left(), 0)));
    things.severities().forEach(s -> feature(features, "severity", s, JSON.nullNode()));
    try {
      return JSON.writeValueAsBytes(root);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("a survey can always be written", e);
    }
  }

  private static double inside(Centreline road) {
    return (road.left()[0] + road.right()[0]) / 2;
  }

  private static void feature(ArrayNode features, String sort, Object thing, JsonNode geometry) {
    ObjectNode f = features.addObject();
    f.put("type", "Feature");
    f.set("geometry", geometry);
    ObjectNode properties = f.putObject("properties");
    properties.put("marvek", sort);
    properties.set("thing", JSON.valueToTree(thing));
  }

  private static JsonNode point(SurveyPlace place, double station, boolean left, double out) {
    Optional<double[]> degrees = place.degrees(station, left, out);
    if (degrees.isEmpty()) {
      return JSON.nullNode();
    }
    ObjectNode geometry = JSON.createObjectNode();
    geometry.put("type", "Point");
    position(geometry.putArray("coordinates"), degrees.get());
    return geometry;
  }

  private static JsonNode line(
      SurveyPlace place, Centreline road, double from, double to, boolean left, double out) {
    ObjectNode geometry = JSON.createObjectNode();
    geometry.put("type", "LineString");
    ArrayNode coordinates = geometry.putArray("coordinates");
    double span = Math.max(road.ahead(from, to), 0.5);
    int steps = Math.max(1, (int) Math.ceil(span / LINE_STEP));
    for (int i = 0; i <= steps; i++) {
      Optional<double[]> degrees = place.degrees(road.wrap(from + span * i / steps), left, out);
      if (degrees.isEmpty()) {
        return JSON.nullNode();
      }
      position(coordinates.addArray(), degrees.get());
    }
    return geometry;
  }

  private static void position(ArrayNode to, double[] degrees) {
    to.add(Math.round(degrees[0] * 1e8) / 1e8);
    to.add(Math.round(degrees[1] * 1e8) / 1e8);
  }

  /** Reads a file; throws {@link Refusal} with the place of what is wrong. */
  public static SurveyFile read(byte[] content) {
    JsonNode root;
    try {
      root = JSON.readTree(content);
    } catch (JsonProcessingException e) {
      JsonLocation at = e.getLocation();
      throw Refusal.of("refusal.survey.json_breaks_off_malformed")
          .at(at == null ? null : Where.line(at.getLineNr(), at.getColumnNr()));
    } catch (IOException e) {
      throw new IllegalStateException("reading from memory failed", e);
    }
    if (!FORMAT.equals(root.path("marvek").asText()) || !root.path("features").isArray()) {
      throw Refusal.of("refusal.survey.not_survey_file", Value.own(FORMAT)).at("marvek");
    }
    if (root.path("features").size() > MOST) {
      throw Refusal.of("refusal.survey.file_holds_more_features", Value.figure(MOST, 0))
          .at("features");
    }
    List<Corner> corners = new ArrayList<>();
    List<Landmark> landmarks = new ArrayList<>();
    List<Kerb> kerbs = new ArrayList<>();
    List<Zone> zones = new ArrayList<>();
    List<TrackLimit> limits = new ArrayList<>();
    List<Place> places = new ArrayList<>();
    List<Severity> severities = new ArrayList<>();
    int number = 0;
    for (JsonNode f : root.path("features")) {
      number++;
      JsonNode thing = f.path("properties").path("thing");
      String sort = f.path("properties").path("marvek").asText();
      switch (sort) {
        case "corner" -> corners.add(thing(thing, Corner.class, number));
        case "landmark" -> landmarks.add(thing(thing, Landmark.class, number));
        case "kerb" -> kerbs.add(thing(thing, Kerb.class, number));
        case "zone" -> zones.add(thing(thing, Zone.class, number));
        case "limit" -> limits.add(thing(thing, TrackLimit.class, number));
        case "severity" -> severities.add(thing(thing, Severity.class, number));
        case "place" -> places.add(thing(thing, Place.class, number));
        default ->
            throw Refusal.of(
                    "refusal.survey.feature_no_known_sort",
                    Value.figure(number, 0),
                    Value.own(sort))
                .at(Where.feature(number, ", properties.marvek"));
      }
    }
    return new SurveyFile(corners, new Things(landmarks, kerbs, zones, limits, places, severities));
  }

  private static <T> T thing(JsonNode node, Class<T> type, int number) {
    try {
      T thing = JSON.treeToValue(node, type);
      if (thing == null) {
        throw Refusal.of("refusal.survey.feature_holds_no_thing", Value.figure(number, 0))
            .at(Where.feature(number, ", properties.thing"));
      }
      return thing;
    } catch (JsonProcessingException e) {
      String path =
          e instanceof JsonMappingException m && !m.getPath().isEmpty()
              ? ", " + m.getPath().get(0).getFieldName()
              : "";
      throw Refusal.of("refusal.survey.value_feature_does_not", Value.figure(number, 0))
          .at(Where.feature(number, path));
    }
  }
}
