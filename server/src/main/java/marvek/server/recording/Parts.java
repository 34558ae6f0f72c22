package marvek.server.recording;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.List;
import java.util.UUID;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** Files as they came, kept in the database in compressed parts; read and written as streams. */
@Component
class Parts {
  private static final int SIZE = 1 << 20;
  private final JdbcTemplate jdbc;

  Parts(JdbcTemplate jdbc) {
    this.jdbc = jdbc;
  }

  /** Where a file's bytes go; each full part is stored at once. */
  OutputStream to(UUID recording, UUID owner) {
    return new Writer(recording, owner);
  }

  private final class Writer extends OutputStream {
    private final UUID recording;
    private final UUID owner;
    private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    private int number;

    Writer(UUID recording, UUID owner) {
      this.recording = recording;
      this.owner = owner;
    }

    @Override
    public void write(int b) throws IOException {
      write(new byte[] {(byte) b}, 0, 1);
    }

    @Override
    public void write(byte[] b, int off, int len) throws IOException {
      bytes.write(b, off, len);
      if (bytes.size() >= SIZE) {
        flush();
      }
    }

    @Override
    public void flush() throws IOException {
      if (bytes.size() == 0) {
        return;
      }
      ByteArrayOutputStream small = new ByteArrayOutputStream(bytes.size() / 3);
      try (GZIPOutputStream zip = new Quick(small)) {
        bytes.writeTo(zip);
      }
      bytes.reset();
      jdbc.update(
          "insert into recording_part (recording_id, number, owner_id, body) values (?, ?, ?, ?)",
          recording,
          number++,
          owner,
          small.toByteArray());
    }

    @Override
    public void close() throws IOException {
      flush();
    }
  }

  private static final class Quick extends GZIPOutputStream {
    Quick(OutputStream out) throws IOException {
      super(out, 1 << 15);
      def.setLevel(java.util.zip.Deflater.BEST_SPEED);
    }
  }

  /** The bytes of a file from its start, part by part. */
  InputStream from(UUID recording) {
    return new Reader(recording);
  }

  private final class Reader extends InputStream {
    private final UUID recording;
    private InputStream part = InputStream.nullInputStream();
    private int number;
    private boolean over;

    Reader(UUID recording) {
      this.recording = recording;
    }

    private boolean next() throws IOException {
      List<byte[]> found =
          jdbc.queryForList(
              "select body from recording_part where recording_id = ? and number = ?",
              byte[].class,
              recording,
              number++);
      over = found.isEmpty();
      part =
          over
              ? InputStream.nullInputStream()
              : new GZIPInputStream(new ByteArrayInputStream(found.get(0)), 1 << 15);
      return !over;
    }

    @Override
    public int read() throws IOException {
      byte[] one = new byte[1];
      return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] b, int off, int len) throws IOException {
      while (!over) {
        int n = part.read(b, off, len);
        if (n > 0 || len == 0) {
          return n;
        }
        if (!next()) {
          break;
        }
      }
      return -1;
    }
  }
}
