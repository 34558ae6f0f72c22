package marvek.core.telemetry;

import java.util.Set;

/**
 * Gathers samples and hands them on block by block, so that a file of any length takes the same
 * memory. Whoever takes a block says how much of it is still needed; that much comes again at the
 * start of the next.
 */
public final class Blocks {
  /** Samples in a block. */
  public static final int SIZE = 120_000;

  /** Takes blocks. */
  public interface Taker {
    /**
     * Takes a block.
     *
     * @param block samples in the order of time
     * @param last whether the stretch of recording ends with it
     * @return index from which samples are needed again; ignored for the last
     */
    int take(Samples block, boolean last);
  }

  private final Taker taker;
  private Samples open = new Samples(Set.of(), 0);

  public Blocks(Taker taker) {
    this.taker = taker;
  }

  /** Starts a stretch of samples with these channels. */
  void start(Set<Channel> channels) {
    end();
    open = new Samples(channels, 4096);
  }

  /** The samples gathered, with room for one more at the returned index. */
  int grow() {
    if (open.size() >= SIZE) {
      int keep = taker.take(open, false);
      // Nobody may keep everything: a block that never ends a lap is let go by half.
      open.forgetBefore(keep <= 0 ? SIZE / 2 : Math.min(keep, open.size()));
    }
    return open.grow();
  }

  Samples open() {
    return open;
  }

  /** Ends the stretch: what follows does not hang together with what was before. */
  void cut() {
    Set<Channel> channels = open.channels();
    end();
    open = new Samples(channels, 4096);
  }

  void end() {
    if (open.size() > 0) {
      taker.take(open, true);
      open = new Samples(Set.of(), 0);
    }
  }
}
