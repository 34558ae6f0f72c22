package marvek.server.access;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Locale;
import marvek.server.problem.Problem;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Bodies that are read into memory are bounded, by what they say of themselves and by what comes.
 * Files go by parts, with a limit of their own, and recordings are streamed.
 */
@Component
class BodyLimit extends OncePerRequestFilter {
  /** Bytes; the largest reference with its survey is a tenth of it. */
  static final int MOST = 8 << 20;

  @Override
  protected boolean shouldNotFilter(HttpServletRequest request) {
    String type = request.getContentType();
    // "application/json" and all that end in "+json" are read the same way.
    return type == null || !type.toLowerCase(Locale.ROOT).contains("json");
  }

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    if (request.getContentLengthLong() > MOST) {
      response.sendError(HttpStatus.PAYLOAD_TOO_LARGE.value());
      return;
    }
    chain.doFilter(
        new HttpServletRequestWrapper(request) {
          @Override
          public ServletInputStream getInputStream() throws IOException {
            return new Counted(super.getInputStream());
          }
        },
        response);
  }

  private static final class Counted extends ServletInputStream {
    private final ServletInputStream in;
    private long read;

    Counted(ServletInputStream in) {
      this.in = in;
    }

    @Override
    public int read() throws IOException {
      int b = in.read();
      count(b < 0 ? 0 : 1);
      return b;
    }

    @Override
    public int read(byte[] to, int from, int length) throws IOException {
      int n = in.read(to, from, length);
      count(Math.max(0, n));
      return n;
    }

    private void count(int more) {
      read += more;
      if (read > MOST) {
        throw Problem.tooLarge();
      }
    }

    @Override
    public boolean isFinished() {
      return in.isFinished();
    }

    @Override
    public boolean isReady() {
      return in.isReady();
    }

    @Override
    public void setReadListener(ReadListener listener) {
      in.setReadListener(listener);
    }
  }
}
