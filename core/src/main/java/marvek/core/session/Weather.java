package marvek.core.session;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import marvek.core.entry.Day;
import marvek.core.entry.DayBuilder;
import marvek.core.entry.DayKind;
import marvek.core.lap.Surface;
import marvek.core.refusal.Refusal;
import marvek.core.said.Value;
import org.jspecify.annotations.Nullable;

/**
 * Weather as a station tells it: what it read, and what is forecast, as a band.
 *
 * <p>JSON: {@code {"readings": [{"at", "air", "road", "pressure", "wind", "from", "rain", "wet"}],
 * "forecast": [the same with "rainLow" and "rainHigh"]}}. CSV: a row of these names, then a row for
 * each instant; rows of the forecast have {@code rainLow} and {@code rainHigh}. Instants are ISO
 * 8601 with a zone; temperatures in °C, pressure in hPa, wind in m/s from compass degrees, rain in
 * mm/h, wet as a share of the road.
 *
 * @param readings in the order of time
 * @param forecast in the order of time
 */
public record Weather(List<Moment> readings, List<Moment> forecast) {
  /** After this long without a reading the last one says little. */
  public static final Duration STALE = Duration.ofMinutes(10);

  private static final int MOST = 5000;
  private static final double RAINS = 0.2;
  private static final double DRY = 0.08;
  private static final double SOAKED = 0.6;

  public Weather {
    readings = sorted(readings);
    forecast = sorted(forecast);
  }

  private static List<Moment> sorted(List<Moment> list) {
    return list.stream().sorted(Comparator.comparing(Moment::at)).toList();
  }

  /**
   * Weather at one time.
   *
   * @param rainLow mm/h at least, and {@code rainHigh} at most; alike for what was read
   */
  public record Moment(
      Instant at,
      @Nullable Double air,
      @Nullable Double road,
      @Nullable Double pressure,
      @Nullable Double wind,
      @Nullable Double from,
      double rainLow,
      double rainHigh,
      @Nullable Double wet) {}

  /** Reads what a station sent, JSON or CSV. */
  public static Weather read(byte[] sent) {
    String text = new String(sent, StandardCharsets.UTF_8).strip();
    return text.startsWith("{") ? json(text) : csv(text);
  }

  private static Weather json(String text) {
    JsonNode all;
    try {
      all = new ObjectMapper().readTree(text);
    } catch (IOException e) {
      throw bad("refusal.session.weather_no_json");
    }
    return new Weather(moments(all.path("readings")), moments(all.path("forecast")));
  }

  private static List<Moment> moments(JsonNode list) {
    List<Moment> out = new ArrayList<>();
    for (JsonNode n : list) {
      if (out.size() >= MOST) {
        throw bad("refusal.session.weather_more_moments", Value.figure(MOST, 0));
      }
      Double rain = number(n, "rain");
      Double low = number(n, "rainLow");
      Double high = number(n, "rainHigh");
      double certain = rain == null ? 0 : rain;
      out.add(
          new Moment(
              instant(n.path("at").asText()),
              number(n, "air"),
              number(n, "road"),
              number(n, "pressure"),
              number(n, "wind"),
              number(n, "from"),
              low == null ? certain : low,
              high == null ? certain : high,
              number(n, "wet")));
    }
    return out;
  }

  private static @Nullable Double number(JsonNode n, String name) {
    JsonNode value = n.path(name);
    if (value.isMissingNode() || value.isNull()) {
      return null;
    }
    double d = value.isNumber() ? value.asDouble() : Double.NaN;
    if (!Double.isFinite(d) || Math.abs(d) > 1e5) {
      throw bad("refusal.session.weather_no_number", Value.own(name), Value.own(value.toString()));
    }
    return d;
  }

  private static Instant instant(String text) {
    try {
      return java.time.OffsetDateTime.parse(text).toInstant();
    } catch (DateTimeException e) {
      throw bad("refusal.session.weather_no_instant_like", Value.own(text));
    }
  }

  private static Weather csv(String text) {
    String[] rows = text.split("\\R");
    List<String> names = List.of(rows[0].strip().split("\\s*,\\s*"));
    if (!names.contains("at")) {
      throw bad("refusal.session.weather_first_row_no");
    }
    if (rows.length > MOST) {
      throw bad("refusal.session.weather_more_rows", Value.figure(MOST, 0));
    }
    ObjectMapper mapper = new ObjectMapper();
    var readings = mapper.createArrayNode();
    var forecast = mapper.createArrayNode();
    for (int r = 1; r < rows.length; r++) {
      String[] cells = rows[r].split(",", -1);
      var row = mapper.createObjectNode();
      for (int c = 0; c < Math.min(cells.length, names.size()); c++) {
        String cell = cells[c].strip();
        if (names.get(c).equals("at")) {
          row.put("at", cell);
        } else if (!cell.isEmpty()) {
          try {
            row.put(names.get(c), Double.parseDouble(cell));
          } catch (NumberFormatException e) {
            throw bad(
                "refusal.session.weather_row_no_number", Value.figure(r + 1, 0), Value.own(cell));
          }
        }
      }
      (row.has("rainHigh") ? forecast : readings).add(row);
    }
    return new Weather(moments(readings), moments(forecast));
  }

  private static Refusal bad(String key, Value... values) {
    return Refusal.of(key, values).at("weather");
  }

  /** Whether the last reading is too old to go by. */
  public boolean stale(Instant now) {
    return readings.isEmpty() || readings.get(readings.size() - 1).at().plus(STALE).isBefore(now);
  }

  /** What is known of a time: the nearest of what was read and what is forecast, within an hour. */
  public Optional<Moment> at(Instant when) {
    List<Moment> all = new ArrayList<>(readings);
    all.addAll(forecast);
    return all.stream()
        .min(Comparator.comparing(m -> Duration.between(m.at(), when).abs()))
        .filter(m -> Duration.between(m.at(), when).abs().compareTo(Duration.ofHours(1)) <= 0);
  }

  /**
   * The conditions of a session that starts then, as proposed; nothing where nothing is known of
   * that time. What the driver set besides stands.
   *
   * @param now conditions as they are planned
   */
  public Optional<SessionDay> proposed(SessionDay now, Instant when) {
    return at(when).map(m -> proposed(now, m));
  }

  private static SessionDay proposed(SessionDay now, Moment m) {
    Surface surface = surface(m);
    DayKind kind =
        switch (surface.state()) {
          case DRY -> null;
          case DAMP -> DayKind.DAMP;
          case WET -> DayKind.WET;
          case DRYING -> DayKind.DRYING;
        };
    boolean same = now.day().road().state() == surface.state();
    Double air = m.air();
    Double wind = m.wind();
    Double from = m.from();
    Day day =
        DayBuilder.builder(now.day())
            .grip(same ? now.day().grip() : kind == null ? 1 : kind.usual().grip())
            .surface(surface)
            .airTemperature(air == null ? now.day().airTemperature() : air)
            .windSpeed(wind == null ? now.day().windSpeed() : Math.min(40, Math.max(0, wind)))
            .windFrom(from == null ? now.day().windFrom() : Math.min(360, Math.max(0, from)))
            .build();
    Double road = m.road();
    Double pressure = m.pressure();
    return new SessionDay(
        same ? now.like() : "",
        day,
        now.rubber(),
        road == null ? now.road() : road,
        pressure == null ? now.pressure() : pressure);
  }

  /** The road: by its wet share where the station tells one, else by the rain. */
  static Surface surface(Moment m) {
    boolean rains = m.rainLow() > RAINS || m.rainLow() + m.rainHigh() > 4 * RAINS;
    Double wet = m.wet();
    if (wet == null) {
      return rains ? Surface.wet() : Surface.DRY;
    }
    if (wet < DRY) {
      return Surface.DRY;
    }
    if (rains) {
      return wet > SOAKED ? Surface.wet() : Surface.damp();
    }
    return Surface.drying(Math.min(1, Math.max(0, 1 - wet)));
  }
}
