package marvek.core.rehearse;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import marvek.core.refusal.Refusal;

/** Calls as one sound: each spoken text ends when its call does; a short tone marks the line. */
public final class CallSound {
  private static final int HEAD = 44;
  private static final double TONE = 0.12;
  private static final double PITCH = 880;
  private static final double LOUD = 0.4;
  // Softer than this is silence, of 32767.
  private static final int SILENT = 150;

  private CallSound() {}

  /**
   * Something spoken: one channel of 16 bit.
   *
   * @param rate samples a second
   */
  public record Spoken(int rate, short[] samples) {
    /** How long it lasts, s. */
    public double seconds() {
      return samples.length / (double) rate;
    }
  }

  /**
   * Reads WAV (RIFF, linear PCM, 16 bit, one channel), without the silence at both ends. A writer
   * to a pipe does not know how long it will be; what is there counts.
   *
   * @throws Refusal where it is none
   */
  public static Spoken read(byte[] wav) {
    if (wav.length < HEAD || !tag(wav, 0).equals("RIFF") || !tag(wav, 8).equals("WAVE")) {
      throw none();
    }
    ByteBuffer in = ByteBuffer.wrap(wav).order(ByteOrder.LITTLE_ENDIAN);
    int rate = 0;
    for (int at = 12; at + 8 <= wav.length; ) {
      long size = in.getInt(at + 4) & 0xFFFFFFFFL;
      int body = at + 8;
      if (tag(wav, at).equals("fmt ") && body + 16 <= wav.length) {
        boolean known =
            in.getShort(body) == 1 && in.getShort(body + 2) == 1 && in.getShort(body + 14) == 16;
        rate = known ? in.getInt(body + 4) : 0;
      }
      if (tag(wav, at).equals("data")) {
        int bytes = (int) Math.min(size, wav.length - body);
        short[] all = new short[bytes / 2];
        for (int i = 0; i < all.length; i++) {
          all[i] = in.getShort(body + 2 * i);
        }
        if (rate < 4000) {
          throw none();
        }
        return new Spoken(rate, trimmed(all));
      }
      at = (int) Math.min(wav.length, body + size + size % 2);
    }
    throw none();
  }

  private static short[] trimmed(short[] all) {
    int from = 0;
    int to = all.length;
    while (from < to && Math.abs(all[from]) < SILENT) {
      from++;
    }
    while (to > from && Math.abs(all[to - 1]) < SILENT) {
      to--;
    }
    return java.util.Arrays.copyOfRange(all, from, to);
  }

  private static String tag(byte[] wav, int at) {
    return new String(wav, at, 4, StandardCharsets.US_ASCII);
  }

  private static Refusal none() {
    return Refusal.of("refusal.rehearse.voice_gave_no_sound");
  }

  /**
   * The calls of a lap as a WAV file.
   *
   * @param spoken the texts of all calls, at one rate
   * @param from seconds of the lap at which the file begins, negative for before the line
   * @param to seconds at which it ends
   */
  public static byte[] wav(
      List<Calls.Call> calls, Map<String, Spoken> spoken, double from, double to) {
    int rate = spoken.values().stream().mapToInt(Spoken::rate).findFirst().orElse(22_050);
    short[] out = new short[(int) Math.ceil((to - from) * rate)];
    int line = (int) Math.round(-from * rate);
    for (int i = 0; i < TONE * rate; i++) {
      double fade = Math.min(1, Math.min(i, TONE * rate - i) / (0.01 * rate));
      add(out, line + i, LOUD * fade * Short.MAX_VALUE * Math.sin(2 * Math.PI * PITCH * i / rate));
    }
    for (Calls.Call c : calls) {
      Spoken said = spoken.get(c.text());
      if (said == null || said.rate() != rate) {
        throw none();
      }
      int at = (int) Math.round((c.end() - from) * rate) - said.samples().length;
      for (int i = 0; i < said.samples().length; i++) {
        add(out, at + i, said.samples()[i]);
      }
    }
    ByteBuffer file = ByteBuffer.allocate(HEAD + 2 * out.length).order(ByteOrder.LITTLE_ENDIAN);
    file.put("RIFF".getBytes(StandardCharsets.US_ASCII)).putInt(HEAD - 8 + 2 * out.length);
    file.put("WAVEfmt ".getBytes(StandardCharsets.US_ASCII)).putInt(16);
    file.putShort((short) 1).putShort((short) 1).putInt(rate).putInt(2 * rate);
    file.putShort((short) 2).putShort((short) 16);
    file.put("data".getBytes(StandardCharsets.US_ASCII)).putInt(2 * out.length);
    for (short s : out) {
      file.putShort(s);
    }
    return file.array();
  }

  private static void add(short[] out, int at, double value) {
    if (at >= 0 && at < out.length) {
      double sum = out[at] + value;
      out[at] = (short) Math.max(Short.MIN_VALUE, Math.min(Short.MAX_VALUE, sum));
    }
  }
}
