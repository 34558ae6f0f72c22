package marvek.server.guard;

import java.io.IOException;
import java.net.InetAddress;
import java.nio.channels.SocketChannel;
import java.time.Duration;
import java.util.Set;
import org.apache.coyote.Processor;
import org.apache.coyote.http11.AbstractHttp11Protocol;
import org.apache.coyote.http11.Http11NioProtocol;
import org.apache.coyote.http11.Http11Processor;
import org.apache.tomcat.util.net.AbstractEndpoint.Handler.SocketState;
import org.apache.tomcat.util.net.NioEndpoint;
import org.apache.tomcat.util.net.SocketWrapperBase;
import org.jspecify.annotations.Nullable;

/**
 * HTTP as Tomcat speaks it, with a deadline for the whole head of a request, and with as many
 * connections from one address as are allowed. Public, as the server makes it by its name.
 */
public final class GuardedProtocol extends Http11NioProtocol {
  private static final int MORE_FOR_MANY = 8;

  private long headNanos = Duration.ofSeconds(10).toNanos();

  public GuardedProtocol() {
    super(new Counting());
  }

  /**
   * Sets the bounds.
   *
   * @param many addresses that stand for many people, as a proxy does
   */
  void guard(Duration head, int connections, Set<String> many) {
    headNanos = head.toNanos();
    Counting endpoint = (Counting) getEndpoint();
    endpoint.most = connections;
    endpoint.many = Set.copyOf(many);
  }

  @Override
  protected Processor createProcessor() {
    return new Timed(this);
  }

  private static final class Counting extends NioEndpoint {
    private volatile int most = Integer.MAX_VALUE / MORE_FOR_MANY;
    private volatile Set<String> many = Set.of();

    @Override
    protected boolean setSocketOptions(SocketChannel socket) {
      InetAddress from = socket.socket().getInetAddress();
      if (from != null) {
        String address = from.getHostAddress();
        boolean forMany = from.isLoopbackAddress() || many.contains(address);
        int allowed = forMany ? most * MORE_FOR_MANY : most;
        int there = 0;
        for (SocketWrapperBase<?> w : getConnections()) {
          if (address.equals(w.getRemoteAddr()) && ++there >= allowed) {
            destroySocket(socket);
            return false;
          }
        }
      }
      return super.setSocketOptions(socket);
    }
  }

  private final class Timed extends Http11Processor {
    private @Nullable SocketWrapperBase<?> of;
    private long began;

    Timed(AbstractHttp11Protocol<?> protocol) {
      super(protocol, protocol.getAdapter());
    }

    @Override
    public SocketState service(SocketWrapperBase<?> connection) throws IOException {
      // One processor serves many connections, one after the other.
      if (of != connection) {
        of = connection;
        began = 0;
      }
      long now = System.nanoTime();
      if (began == 0) {
        began = now;
      } else if (now - began > headNanos) {
        began = 0;
        return SocketState.CLOSED;
      }
      SocketState state = super.service(connection);
      if (state != SocketState.LONG || isAsync()) {
        began = 0;
      }
      return state;
    }
  }
}
