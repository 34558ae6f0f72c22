package marvek.server.guard;

import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ValveBase;
import org.apache.coyote.ActionCode;
import org.apache.coyote.InputBuffer;
import org.apache.tomcat.util.net.ApplicationBufferHandler;

/**
 * Bodies must come at a pace, as a thread waits for each. Those on their way are bounded, by
 * address and in all, so that some threads are always left for those who only read.
 */
final class PaceValve extends ValveBase {
  private static final String BUSY =
      "{\"status\":503,\"detail\":\"Too much is being sent at once.\",\"where\":null,"
          + "\"remedy\":\"Nothing is lost. Try again in a few seconds.\"}";

  private static final long MOST_UNREAD = 4 << 20;

  private final GuardSettings settings;
  private final Semaphore all;
  private final ConcurrentHashMap<String, Integer> byAddress = new ConcurrentHashMap<>();

  PaceValve(GuardSettings settings) {
    super(true);
    this.settings = settings;
    this.all = new Semaphore(settings.bodiesInAll());
  }

  @Override
  public void invoke(Request request, Response response) throws IOException, ServletException {
    org.apache.coyote.Request asked = request.getCoyoteRequest();
    long length = asked.getContentLengthLong();
    boolean body = length > 0 || (length < 0 && asked.getHeader("transfer-encoding") != null);
    if (!body) {
      getNext().invoke(request, response);
      return;
    }
    String from = request.getRemoteAddr();
    if (!enter(from)) {
      response.setStatus(HttpServletResponse.SC_SERVICE_UNAVAILABLE);
      response.setHeader("Retry-After", "5");
      notWaitedFor(asked);
      response.setHeader("Connection", "close");
      response.setContentType("application/problem+json");
      response.getOutputStream().write(BUSY.getBytes(StandardCharsets.UTF_8));
      return;
    }
    PacedIn paced = new PacedIn(asked, from, length);
    asked.setInputBuffer(paced);
    try {
      getNext().invoke(request, response);
    } finally {
      paced.rest();
      paced.leave();
      asked.setInputBuffer(paced.in);
    }
  }

  /** What is still to come of a body is not read; the connection ends. */
  private static void notWaitedFor(org.apache.coyote.Request asked) {
    asked.action(ActionCode.DISABLE_SWALLOW_INPUT, null);
  }

  private boolean enter(String from) {
    if (!all.tryAcquire()) {
      return false;
    }
    int there = byAddress.merge(from, 1, Integer::sum);
    if (there > settings.bodies() && !loopback(from)) {
      release(from);
      return false;
    }
    return true;
  }

  private void release(String from) {
    byAddress.compute(from, (a, n) -> n == null || n <= 1 ? null : n - 1);
    all.release();
  }

  private static boolean loopback(String from) {
    return from.equals("127.0.0.1") || from.equals("0:0:0:0:0:0:0:1") || from.equals("::1");
  }

  private final class PacedIn implements InputBuffer {
    private final org.apache.coyote.Request asked;
    private final InputBuffer in;
    private final String from;
    private final long length;
    private final Pace pace = new Pace(settings, "the body comes too slowly");
    private boolean left;

    PacedIn(org.apache.coyote.Request asked, String from, long length) {
      this.asked = asked;
      this.in = asked.getInputBuffer();
      this.from = from;
      this.length = length;
    }

    @Override
    public int doRead(ApplicationBufferHandler handler) throws IOException {
      long began = System.nanoTime();
      int n = in.doRead(handler);
      try {
        pace.took(System.nanoTime() - began, Math.max(0, n));
      } catch (IOException e) {
        notWaitedFor(asked);
        throw e;
      }
      if (n < 0 || (length > 0 && pace.bytes() >= length)) {
        leave();
      }
      return n;
    }

    @Override
    public int available() {
      return in.available();
    }

    /** What a handler has not read is read, so that its answer arrives; but not for long. */
    void rest() {
      ByteBuffer[] some = {ByteBuffer.allocate(0)};
      ApplicationBufferHandler nowhere =
          new ApplicationBufferHandler() {
            @Override
            public void setByteBuffer(ByteBuffer buffer) {
              some[0] = buffer;
            }

            @Override
            public ByteBuffer getByteBuffer() {
              return some[0];
            }

            @Override
            public void expand(int size) {
              // Nothing is kept.
            }
          };
      long until = pace.bytes() + MOST_UNREAD;
      try {
        boolean more = asked.getHeader("expect") == null;
        while (!left && more && pace.bytes() < until) {
          more = doRead(nowhere) >= 0;
        }
        if (!left) {
          notWaitedFor(asked);
        }
      } catch (IOException e) {
        notWaitedFor(asked);
      }
    }

    void leave() {
      if (!left) {
        left = true;
        release(from);
      }
    }
  }
}
