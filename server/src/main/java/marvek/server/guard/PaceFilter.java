package marvek.server.guard;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletOutputStream;
import jakarta.servlet.WriteListener;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpServletResponseWrapper;
import java.io.IOException;
import org.jspecify.annotations.Nullable;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Answers must be read at a pace, as a thread waits for each. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class PaceFilter extends OncePerRequestFilter {
  private final GuardSettings settings;

  PaceFilter(GuardSettings settings) {
    this.settings = settings;
  }

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    chain.doFilter(
        request,
        new HttpServletResponseWrapper(response) {
          private @Nullable ServletOutputStream out;

          @Override
          public ServletOutputStream getOutputStream() throws IOException {
            if (out == null) {
              out = new Paced(super.getOutputStream());
            }
            return out;
          }
        });
  }

  private final class Paced extends ServletOutputStream {
    private final ServletOutputStream out;
    private final Pace pace = new Pace(settings, "the answer is read too slowly");

    Paced(ServletOutputStream out) {
      this.out = out;
    }

    @Override
    public void write(int b) throws IOException {
      out.write(b);
    }

    @Override
    public void write(byte[] b, int from, int length) throws IOException {
      long began = System.nanoTime();
      out.write(b, from, length);
      pace.took(System.nanoTime() - began, length);
    }

    @Override
    public void flush() throws IOException {
      long began = System.nanoTime();
      out.flush();
      pace.took(System.nanoTime() - began, 0);
    }

    @Override
    public void close() throws IOException {
      out.close();
    }

    @Override
    public boolean isReady() {
      return out.isReady();
    }

    @Override
    public void setWriteListener(WriteListener listener) {
      out.setWriteListener(listener);
    }
  }
}
