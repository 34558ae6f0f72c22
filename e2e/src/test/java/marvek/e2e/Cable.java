package marvek.e2e;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;

/** A cable between browser and server that can be pulled out and put in again. */
final class Cable implements AutoCloseable {
  private final URI server;
  private final List<Socket> ends = new CopyOnWriteArrayList<>();
  private final int port;
  private volatile ServerSocket socket;

  Cable(String server) throws IOException {
    this.server = URI.create(server);
    socket = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
    port = socket.getLocalPort();
    listen(socket);
  }

  String address() {
    return "http://127.0.0.1:" + port;
  }

  void pull() throws IOException {
    socket.close();
    for (Socket s : ends) {
      s.close();
    }
    ends.clear();
  }

  void putIn() throws IOException {
    ServerSocket again = new ServerSocket();
    again.setReuseAddress(true);
    again.bind(new java.net.InetSocketAddress(InetAddress.getLoopbackAddress(), port));
    socket = again;
    listen(again);
  }

  private void listen(ServerSocket at) {
    thread(
        () -> {
          while (!at.isClosed()) {
            Socket near = at.accept();
            Socket far = new Socket(server.getHost(), server.getPort());
            ends.add(near);
            ends.add(far);
            if (at.isClosed()) {
              // It was pulled while this one came.
              near.close();
              far.close();
              break;
            }
            thread(() -> pump(near, far));
            thread(() -> pump(far, near));
          }
        });
  }

  private static void pump(Socket from, Socket to) throws IOException {
    try (from;
        to;
        InputStream in = from.getInputStream();
        OutputStream out = to.getOutputStream()) {
      in.transferTo(out);
    }
  }

  private interface Work {
    void run() throws IOException;
  }

  private static void thread(Work work) {
    Thread thread =
        new Thread(
            () -> {
              try {
                work.run();
              } catch (IOException e) {
                // The cable was pulled, or one end hung up.
              }
            });
    thread.setDaemon(true);
    thread.start();
  }

  @Override
  public void close() throws IOException {
    pull();
  }
}
