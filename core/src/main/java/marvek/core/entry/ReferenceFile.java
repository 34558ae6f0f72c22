package marvek.core.entry;

import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.util.List;
import java.util.stream.Collectors;
import marvek.core.circuit.Corner;
import marvek.core.refusal.Refusal;
import marvek.core.refusal.Where;
import marvek.core.said.Value;
import marvek.core.vehicle.Vehicle;
import org.jspecify.annotations.Nullable;

/**
 * A reference as a file of its own, in JSON. The schema is the resource {@code
 * marvek/reference-2.schema.json}; files of format 1 are read too.
 *
 * @param format always {@link #FORMAT}
 * @param name of the reference
 * @param layout the road it is for
 * @param vehicleName of the vehicle
 * @param vehicle its numbers at the time
 * @param revision number, 0 for a working copy
 * @param reason why the revision was saved
 * @param saved instant of saving, ISO 8601, or null for a working copy
 * @param content the corners
 */
public record ReferenceFile(
    String format,
    String name,
    LayoutKey layout,
    String vehicleName,
    Vehicle vehicle,
    int revision,
    String reason,
    @Nullable String saved,
    ReferenceContent content) {

  /** What a file says first. */
  public static final String FORMAT = "marvek-reference/2";

  /** What a file of before there were actions says first; it is read as one without any. */
  static final String BEFORE = "marvek-reference/1";

  private static final JsonMapper JSON =
      JsonMapper.builder()
          .enable(SerializationFeature.INDENT_OUTPUT)
          .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
          .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
          .build();

  /**
   * What tells a layout.
   *
   * @param circuit name
   * @param version of the layout
   * @param length metres
   * @param corners id and number of each
   */
  public record LayoutKey(String circuit, int version, double length, List<CornerKey> corners) {
    public LayoutKey {
      corners = List.copyOf(corners);
    }
  }

  /** Id and number of a corner. */
  public record CornerKey(String id, String number) {}

  /**
   * What a layout is known by in another place.
   *
   * @param length m
   */
  public static LayoutKey key(String circuit, int version, double length, List<Corner> corners) {
    return new LayoutKey(
        circuit,
        version,
        length,
        corners.stream().map(c -> new CornerKey(c.id(), c.number())).toList());
  }

  /** The file's bytes, UTF-8. */
  public byte[] write() {
    try {
      return JSON.writeValueAsBytes(this);
    } catch (JsonProcessingException e) {
      throw new IllegalStateException("a reference can always be written", e);
    }
  }

  /** Reads a file; throws {@link Refusal} with the place of what is wrong. */
  public static ReferenceFile read(byte[] content) {
    try {
      JsonNode tree = JSON.readTree(content);
      String format = tree.path("format").asText();
      if (!FORMAT.equals(format) && !BEFORE.equals(format)) {
        throw Refusal.of("refusal.entry.not_reference_file", Value.own(FORMAT)).at("format");
      }
      return JSON.treeToValue(tree, ReferenceFile.class);
    } catch (JsonMappingException e) {
      String path =
          e.getPath().stream()
              .map(
                  r -> r.getFieldName() == null ? "[" + (r.getIndex() + 1) + "]" : r.getFieldName())
              .collect(Collectors.joining("."));
      throw Refusal.of("refusal.entry.value_file_does_not").at(path.isEmpty() ? null : path);
    } catch (JsonProcessingException e) {
      JsonLocation at = e.getLocation();
      throw Refusal.of("refusal.entry.json_breaks_off_malformed")
          .at(at == null ? null : Where.line(at.getLineNr(), at.getColumnNr()));
    } catch (IOException e) {
      throw new IllegalStateException("reading from memory failed", e);
    }
  }
}
