package marvek.core.telemetry;

import java.io.BufferedInputStream;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import marvek.core.refusal.Refusal;

/**
 * Reads recordings: tables of text (RFC 4180 and its many relatives), GPX 1.1 and NMEA 0183. Memory
 * does not grow with the file: samples are handed on in blocks.
 */
public final class RecordingFile {
  /** Bytes of a file that are looked at to find out how it is read. */
  public static final int HEAD = 256 * 1024;

  private RecordingFile() {}

  /**
   * Finds out how a file is read.
   *
   * @param head its first bytes, {@link #HEAD} at most
   * @throws Refusal when it is no recording
   */
  public static Mapping sniff(byte[] head) {
    if (head.length == 0) {
      throw Refusal.of("refusal.telemetry.file_empty");
    }
    String text = new String(head, charset(head));
    if (text.startsWith("\uFEFF")) {
      text = text.substring(1);
    }
    int nulls = 0;
    for (int i = 0; i < Math.min(text.length(), 4000); i++) {
      nulls += text.charAt(i) == 0 ? 1 : 0;
    }
    if (nulls > 4) {
      throw Refusal.of("refusal.telemetry.not_text_file");
    }
    String start = text.stripLeading();
    if (start.startsWith("<")) {
      if (!start.toLowerCase(Locale.ROOT).contains("<gpx")) {
        throw Refusal.of("refusal.telemetry.xml_file_no_gpx");
      }
      return GpxTrack.mapping();
    }
    if (start.startsWith("$") || start.contains("\n$GP") || start.contains("\n$GN")) {
      return NmeaLines.mapping();
    }
    return TableSniffer.sniff(text);
  }

  /**
   * Reads a file.
   *
   * @param in its bytes from the start; left open
   * @param mapping how
   * @param blocks takes the samples
   * @param report takes what was met
   * @throws Refusal when it cannot be read
   */
  public static void read(InputStream in, Mapping mapping, Blocks blocks, ReadReport report)
      throws IOException {
    mapping
        .problem()
        .ifPresent(
            p -> {
              throw p;
            });
    switch (mapping.format()) {
      case GPX -> GpxTrack.read(in, blocks, report);
      case NMEA -> NmeaLines.read(text(in), blocks, report);
      case TABLE -> TableRows.read(text(in), mapping, blocks, report);
    }
    blocks.end();
  }

  private static BufferedReader text(InputStream raw) throws IOException {
    InputStream in = new BufferedInputStream(raw, HEAD);
    in.mark(HEAD);
    byte[] head = in.readNBytes(HEAD / 4);
    in.reset();
    BufferedReader reader = new BufferedReader(new InputStreamReader(in, charset(head)), 1 << 16);
    reader.mark(1);
    if (reader.read() != '\uFEFF') {
      reader.reset();
    }
    return reader;
  }

  private static Charset charset(byte[] head) {
    if (head.length >= 2 && (head[0] & 0xff) == 0xff && (head[1] & 0xff) == 0xfe) {
      return StandardCharsets.UTF_16LE;
    }
    if (head.length >= 2 && (head[0] & 0xff) == 0xfe && (head[1] & 0xff) == 0xff) {
      return StandardCharsets.UTF_16BE;
    }
    // The look may end inside a character.
    int whole = Math.max(0, head.length - 4);
    try {
      StandardCharsets.UTF_8
          .newDecoder()
          .onMalformedInput(CodingErrorAction.REPORT)
          .decode(ByteBuffer.wrap(head, 0, whole == 0 ? head.length : lastWhole(head, whole)));
      return StandardCharsets.UTF_8;
    } catch (CharacterCodingException e) {
      return StandardCharsets.ISO_8859_1;
    }
  }

  private static int lastWhole(byte[] head, int from) {
    int end = from;
    while (end > 0 && (head[end - 1] & 0x80) != 0) {
      end--;
    }
    return end;
  }
}
