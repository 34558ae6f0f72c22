package marvek.server.circuit;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Clock;
import java.util.Iterator;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.Semaphore;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.ImageTypeSpecifier;
import javax.imageio.stream.ImageInputStream;
import marvek.core.said.Value;
import marvek.server.keeping.Allowance;
import marvek.server.problem.Problem;
import net.coobird.thumbnailator.Thumbnails;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Pictures of one owner. What is kept is drawn anew: turned upright, made small, told nothing. */
@Service
class Photos {
  private static final int LONGER_SIDE = 1600;
  private static final long MOST_PIXELS = 60_000_000L;
  private static final long MOST_BYTES = 3 * MOST_PIXELS;
  private static final int USUAL_BITS = 24;
  private static final Semaphore ONE = new Semaphore(1);

  private final PhotoRows rows;
  private final Layouts layouts;
  private final Allowance allowance;
  private final Clock clock;

  Photos(PhotoRows rows, Layouts layouts, Allowance allowance, Clock clock) {
    this.allowance = allowance;
    this.rows = rows;
    this.layouts = layouts;
    this.clock = clock;
  }

  /** Keeps a picture; sent again under the same id, nothing happens. */
  @Transactional
  void keep(UUID owner, UUID layout, UUID id, byte[] file) {
    LayoutVersion version = layouts.get(owner, layout);
    Optional<Photo> there = rows.findById(id);
    if (there.isPresent()) {
      if (!there.get().ownerId().equals(owner)) {
        throw Problem.bad("refusal.circuit.id_taken").at("id");
      }
      return;
    }
    byte[] small = redrawn(file);
    allowance.room(owner, small.length);
    rows.save(new Photo(id, version, small, clock.instant()));
  }

  @Transactional(readOnly = true)
  byte[] jpeg(UUID owner, UUID id) {
    return rows.findByIdAndOwnerId(id, owner)
        .orElseThrow(() -> Problem.none("refusal.none.no_picture_among_yours"))
        .jpeg();
  }

  private static byte[] redrawn(byte[] file) {
    // One at a time: a small file may hold a picture that fills the memory.
    ONE.acquireUninterruptibly();
    try {
      int[] size = size(file);
      long pixels = (long) size[0] * size[1];
      if (pixels > MOST_PIXELS || pixels * size[2] / 8 > MOST_BYTES) {
        throw Problem.bad(
                "refusal.circuit.picture_pixels_bits",
                Value.figure(size[0], 0),
                Value.figure(size[1], 0),
                Value.figure(size[2], 0))
            .at("file");
      }
      ByteArrayOutputStream out = new ByteArrayOutputStream();
      int longer = Math.min(LONGER_SIDE, Math.max(size[0], size[1]));
      // Reading through the library turns the picture as its metadata say; writing drops them.
      Thumbnails.of(new ByteArrayInputStream(file))
          .size(longer, longer)
          .imageType(BufferedImage.TYPE_INT_RGB)
          .outputFormat("jpg")
          .outputQuality(0.85)
          .toOutputStream(out);
      return out.toByteArray();
    } catch (IOException | RuntimeException e) {
      if (e instanceof Problem p) {
        throw p;
      }
      throw Problem.bad("refusal.circuit.file_not_picture_can").at("file");
    } finally {
      ONE.release();
    }
  }

  /** Width, height, bits of a pixel. */
  private static int[] size(byte[] file) throws IOException {
    try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(file))) {
      Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
      if (!readers.hasNext()) {
        throw new IOException("no picture");
      }
      ImageReader reader = readers.next();
      try {
        reader.setInput(in);
        ImageTypeSpecifier raw = reader.getRawImageType(0);
        int bits = raw == null ? USUAL_BITS : raw.getColorModel().getPixelSize();
        return new int[] {reader.getWidth(0), reader.getHeight(0), bits};
      } finally {
        reader.dispose();
      }
    }
  }
}
