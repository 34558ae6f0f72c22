package marvek.core.telemetry;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.Reader;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import marvek.core.refusal.Refusal;
import marvek.core.refusal.Where;
import marvek.core.said.Said;
import marvek.core.said.Value;
import marvek.core.telemetry.ReadReport.Sort;

/** Rows of a table as samples. */
final class TableRows {
  private static final double FASTEST_RATE = 100;
  private static final int LOOK = 200;
  private static final double DAY = 86_400;
  private static final double HOUR = 3600;

  private record Source(int index, Channel channel, double factor, boolean clock) {}

  private TableRows() {}

  static void read(Reader in, Mapping mapping, Blocks blocks, ReadReport report) {
    List<Source> sources = new ArrayList<>();
    Set<Channel> channels = EnumSet.of(Channel.TIME);
    for (Mapping.Column c : mapping.columns()) {
      Channel channel = c.channel();
      Unit unit = c.unit();
      if (channel != null && unit != null) {
        // Places on the earth stay in degrees.
        boolean place = channel == Channel.LATITUDE || channel == Channel.LONGITUDE;
        sources.add(new Source(c.index(), channel, place ? 1 : unit.factor(), unit == Unit.CLOCK));
        channels.add(channel);
      }
    }
    boolean timed = mapping.of(Channel.TIME).isPresent();
    if (!timed) {
      report.add(Sort.DERIVED, Said.of("report.recording.time_from_distance_speed"));
    }
    Rows rows = new Rows(mapping, sources, channels, timed, blocks, report);
    try (CsvReader<CsvRecord> csv =
        CsvReader.builder()
            .fieldSeparator(mapping.delimiter())
            .allowExtraFields(true)
            .allowMissingFields(true)
            .ofCsvRecord(in)) {
      for (CsvRecord row : csv) {
        rows.row(row);
      }
    } catch (CsvParseException | java.io.UncheckedIOException e) {
      ReadingStopped.ifSo(e);
      rows.brokenOff();
    } catch (java.io.IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
    rows.done();
  }

  private static final class Rows {
    private final Mapping mapping;
    private final List<Source> sources;
    private final Set<Channel> channels;
    private final boolean timed;
    private final Blocks blocks;
    private final ReadReport report;
    private final Map<Channel, Integer> bad = new EnumMap<>(Channel.class);
    private final Map<Channel, Long> firstBad = new EnumMap<>(Channel.class);
    private final double[] value = new double[Channel.values().length];
    private final double[] sum = new double[Channel.values().length];
    private final int[] summed = new int[Channel.values().length];
    private final List<double[]> held = new ArrayList<>();
    private double last = Double.NaN;
    private double lastDistance = Double.NaN;
    private double days;
    private double binStart = Double.NaN;
    private int group = 1;
    private long rows;
    private int repeated;
    private int inBin;
    private boolean rateKnown;

    Rows(
        Mapping mapping,
        List<Source> sources,
        Set<Channel> channels,
        boolean timed,
        Blocks blocks,
        ReadReport report) {
      this.mapping = mapping;
      this.sources = sources;
      this.channels = channels;
      this.timed = timed;
      this.blocks = blocks;
      this.report = report;
      blocks.start(channels);
    }

    void row(CsvRecord record) {
      long number = record.getStartingLineNumber();
      if (number < mapping.firstRow()) {
        return;
      }
      int fields = record.getFieldCount();
      if (fields > 4 * TableSniffer.MOST_COLUMNS) {
        throw Refusal.of("refusal.telemetry.row_columns", Value.figure(fields, 0))
            .at(Where.row(number));
      }
      java.util.Arrays.fill(value, Double.NaN);
      boolean any = false;
      for (Source s : sources) {
        if (s.index() >= fields) {
          continue;
        }
        String text = record.getField(s.index());
        double v =
            s.clock()
                ? Numbers.time(text, mapping.decimalComma())
                : Numbers.parse(text, mapping.decimalComma());
        if (Double.isNaN(v) && !text.isBlank()) {
          bad.merge(s.channel(), 1, Integer::sum);
          firstBad.putIfAbsent(s.channel(), number);
        }
        value[s.channel().ordinal()] = v * s.factor();
        any |= !Double.isNaN(v);
      }
      if (!any) {
        return;
      }
      rows++;
      double t = timed ? value[Channel.TIME.ordinal()] : fromDistance(number);
      if (Double.isNaN(t)) {
        return;
      }
      // A clock without a date begins anew at midnight.
      double sinceMidnight = last - days;
      if (t < HOUR && sinceMidnight > DAY - HOUR && sinceMidnight < DAY + 1) {
        days += DAY;
      }
      t += days;
      value[Channel.TIME.ordinal()] = t;
      if (!Double.isNaN(last)) {
        if (t == last) {
          repeated++;
          return;
        }
        if (t < last - 1e-9 || t > last + 30) {
          flush();
          blocks.cut();
          binStart = Double.NaN;
          report.add(
              Sort.CLEANED,
              t < last
                  ? Said.of(
                      "report.recording.clock_back",
                      Value.figure(last - t, 1),
                      Value.figure(number, 0))
                  : Said.of(
                      "report.recording.nothing_for",
                      Value.figure(t - last, 0),
                      Value.figure(number, 0)));
        }
      }
      last = t;
      if (!rateKnown) {
        held.add(value.clone());
        if (held.size() >= LOOK) {
          settleRate();
        }
        return;
      }
      take(value);
    }

    private double fromDistance(long number) {
      double d = value[Channel.DISTANCE.ordinal()];
      double v = value[Channel.SPEED.ordinal()];
      if (Double.isNaN(d) || Double.isNaN(v)) {
        return Double.NaN;
      }
      if (Double.isNaN(lastDistance)) {
        lastDistance = d;
        return 0;
      }
      double step = d - lastDistance;
      lastDistance = d;
      if (step < -1) {
        // The distance starts anew with every lap; a step of road is lost there.
        step = Math.max(d, 0);
      }
      return last + Math.max(0, step) / Math.max(v, 0.5);
    }

    private void settleRate() {
      rateKnown = true;
      if (held.size() > 2) {
        double span =
            held.get(held.size() - 1)[Channel.TIME.ordinal()] - held.get(0)[Channel.TIME.ordinal()];
        double rate = (held.size() - 1) / Math.max(span, 1e-9);
        group = rate > FASTEST_RATE * 1.2 ? (int) Math.round(rate / FASTEST_RATE) : 1;
        if (group > 1) {
          report.add(
              Sort.READ,
              Said.of(
                  "report.recording.about_samples_second_means",
                  Value.figure(rate, 0),
                  Value.figure(group, 0)));
        }
      }
      held.forEach(this::take);
      held.clear();
    }

    /** A sample, or a share of one where there are more than are needed. */
    private void take(double[] sample) {
      if (group == 1) {
        store(sample);
        return;
      }
      if (inBin == 0) {
        java.util.Arrays.fill(sum, 0);
        java.util.Arrays.fill(summed, 0);
      }
      for (Channel c : channels) {
        int i = c.ordinal();
        if (!Double.isNaN(sample[i])) {
          // Gears and laps have no mean.
          sum[i] = c == Channel.GEAR || c == Channel.LAP ? sample[i] : sum[i] + sample[i];
          summed[i] = c == Channel.GEAR || c == Channel.LAP ? 1 : summed[i] + 1;
        }
      }
      if (++inBin >= group) {
        flush();
      }
    }

    private void flush() {
      if (!rateKnown) {
        settleRate();
      }
      if (inBin == 0) {
        return;
      }
      double[] mean = new double[sum.length];
      for (int i = 0; i < mean.length; i++) {
        mean[i] = summed[i] == 0 ? Double.NaN : sum[i] / summed[i];
      }
      inBin = 0;
      store(mean);
    }

    private void store(double[] sample) {
      int i = blocks.grow();
      Samples open = blocks.open();
      for (Channel c : channels) {
        open.of(c)[i] = sample[c.ordinal()];
      }
    }

    void brokenOff() {
      report.add(
          Sort.DROPPED,
          Said.of(
              "report.recording.file_breaks_off_row", Value.figure(rows + mapping.firstRow(), 0)));
    }

    void done() {
      flush();
      report.add(Sort.READ, Said.of("report.recording.rows", Value.count(rows)));
      if (repeated > 0) {
        report.add(
            Sort.CLEANED, Said.of("report.recording.rows_with_time_row", Value.count(repeated)));
      }
      bad.forEach(
          (channel, count) ->
              report.add(
                  Sort.CLEANED,
                  Said.of(
                      "report.recording.no_numbers",
                      Value.count(count),
                      channel.said().in(),
                      Value.figure(firstBad.getOrDefault(channel, 0L), 0))));
    }
  }
}
