package marvek.core.telemetry;

import java.util.EnumSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import marvek.core.refusal.Refusal;
import marvek.core.refusal.Where;
import org.jspecify.annotations.Nullable;

/**
 * How a file is read: its form, and which column holds what in which unit.
 *
 * @param format of the file
 * @param delimiter between columns of a table
 * @param decimalComma whether a comma stands for the decimal point
 * @param headerRow row of the names, from 1; 0 for none
 * @param firstRow row of the first values, from 1
 * @param columns in the order of the file
 */
public record Mapping(
    Format format,
    char delimiter,
    boolean decimalComma,
    int headerRow,
    int firstRow,
    List<Column> columns) {
  /** Forms of files. */
  public enum Format {
    TABLE,
    NMEA,
    GPX
  }

  /**
   * A column.
   *
   * @param index from 0
   * @param header as it stands in the file
   * @param channel what it holds, or null when it is not used
   * @param unit of its values; null where it has to be asked for
   * @param guessed whether the unit was told from the values and not from the header
   */
  public record Column(
      int index, String header, @Nullable Channel channel, @Nullable Unit unit, boolean guessed) {
    public Column {
      Objects.requireNonNull(header, "header");
    }
  }

  public Mapping {
    Objects.requireNonNull(format, "format");
    columns = List.copyOf(columns);
  }

  /** The column that a channel is read from. */
  public Optional<Column> of(Channel channel) {
    return columns.stream().filter(c -> c.channel() == channel).findFirst();
  }

  boolean has(Channel channel) {
    return of(channel).isPresent();
  }

  /** What stands in the way of reading with this mapping, in words; empty when nothing does. */
  public Optional<Refusal> problem() {
    if (format != Format.TABLE) {
      return Optional.empty();
    }
    Set<Channel> seen = EnumSet.noneOf(Channel.class);
    for (Column c : columns) {
      Channel channel = c.channel();
      if (channel == null) {
        continue;
      }
      if (!seen.add(channel)) {
        return Optional.of(
            Refusal.of("refusal.telemetry.two_columns_taken", channel.said().in())
                .at(Where.column(c.index() + 1, c.header())));
      }
      Unit unit = c.unit();
      if (unit == null || !channel.takes(unit)) {
        return Optional.of(
            Refusal.of("refusal.telemetry.unit_not_known", channel.said().in())
                .at(Where.column(c.index() + 1, c.header())));
      }
    }
    boolean place =
        (has(Channel.LATITUDE) && has(Channel.LONGITUDE))
            || (has(Channel.EAST) && has(Channel.NORTH));
    if (!has(Channel.TIME) && !(has(Channel.DISTANCE) && has(Channel.SPEED))) {
      return Optional.of(Refusal.of("refusal.telemetry.no_column_gives_time"));
    }
    if (!place && !has(Channel.DISTANCE) && !has(Channel.SPEED)) {
      return Optional.of(Refusal.of("refusal.telemetry.no_column_says_where"));
    }
    return Optional.empty();
  }

  /** The same with what the driver said of the columns. */
  public Mapping with(List<Column> said) {
    return new Mapping(format, delimiter, decimalComma, headerRow, firstRow, said);
  }
}
