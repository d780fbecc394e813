package sandpiper.store;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * A line to a database that breaks on the way: of the connections that write, at the n-th message,
 * before it gets there or before its answer gets back.
 */
final class CutLine implements AutoCloseable {
    private static final int NEVER = -1;

    private final ServerSocket door;
    private final int port;
    private final AtomicInteger left = new AtomicInteger(NEVER);
    private volatile boolean arrives;

    /** Leads to a port of this machine. */
    CutLine(int port) throws IOException {
        this.port = port;
        this.door = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
        Thread.ofVirtual().start(this::accept);
    }

    int port() {
        return door.getLocalPort();
    }

    /**
     * Breaks at a message from now on, once.
     *
     * @param message counted from 1
     * @param arrives whether it still gets there
     */
    void breakAt(int message, boolean arrives) {
        this.arrives = arrives;
        left.set(message);
    }

    /** Whether it broke since it was told to; from now on it does not. */
    boolean broke() {
        return left.getAndSet(NEVER) <= 0;
    }

    private void accept() {
        while (!door.isClosed()) {
            try {
                var client = door.accept();
                var server = new Socket(InetAddress.getLoopbackAddress(), port);
                client.setTcpNoDelay(true);
                server.setTcpNoDelay(true);
                Thread.ofVirtual().start(() -> carry(client, server, true));
                Thread.ofVirtual().start(() -> carry(server, client, false));
            } catch (IOException _) {
                // The test is over, or the connection is gone before it was there.
            }
        }
    }

    private void carry(Socket from, Socket to, boolean asking) {
        try (from;
                to) {
            boolean writes = false;
            InputStream in = from.getInputStream();
            var out = to.getOutputStream();
            var bytes = new byte[1 << 16];
            for (int length = in.read(bytes); length > 0; length = in.read(bytes)) {
                if (asking) {
                    var text = new String(bytes, 0, length, StandardCharsets.ISO_8859_1);
                    writes |= text.contains("LEVEL SERIALIZABLE");
                    if (writes && left.get() > 0 && left.decrementAndGet() == 0) {
                        if (arrives) {
                            out.write(bytes, 0, length);
                            out.flush();
                        }
                        return;
                    }
                }
                out.write(bytes, 0, length);
                out.flush();
            }
        } catch (IOException _) {
            // One end is gone, so the other goes.
        }
    }

    @Override
    public void close() {
        try {
            door.close();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
