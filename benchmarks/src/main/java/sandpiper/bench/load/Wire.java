package sandpiper.bench.load;

import java.io.BufferedInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.Locale;

/** One kept connection that sends requests and reads whole answers, one at a time (RFC 9112). */
final class Wire implements AutoCloseable {
    private static final int TIMEOUT_MILLIS = 60_000;

    private final Socket socket;
    private final BufferedInputStream in;

    Wire(URI server) throws IOException {
        socket = new Socket(server.getHost(), server.getPort());
        socket.setTcpNoDelay(true);
        socket.setSoTimeout(TIMEOUT_MILLIS);
        in = new BufferedInputStream(socket.getInputStream(), 32_768);
    }

    /** An answer's status and body. */
    record Answer(int status, byte[] body) {
        boolean isGood() {
            return status < 300;
        }

        @Override
        public String toString() {
            return status + ": " + new String(body, StandardCharsets.UTF_8);
        }
    }

    Answer ask(Call call) throws IOException {
        socket.getOutputStream().write(call.bytes());
        var status = line();
        int length = 0;
        boolean chunked = false;
        for (var header = line(); !header.isEmpty(); header = line()) {
            var small = header.toLowerCase(Locale.ROOT);
            if (small.startsWith("content-length:")) {
                length = Integer.parseInt(small.substring(15).trim());
            } else if (small.startsWith("transfer-encoding:")) {
                chunked = small.endsWith("chunked");
            }
        }
        return new Answer(
                Integer.parseInt(status.substring(9, 12)), chunked ? chunks() : body(length));
    }

    private byte[] chunks() throws IOException {
        var all = new java.io.ByteArrayOutputStream();
        while (true) {
            var size = Integer.parseInt(line(), 16);
            all.write(body(size));
            line();
            if (size == 0) {
                return all.toByteArray();
            }
        }
    }

    private byte[] body(int length) throws IOException {
        var bytes = in.readNBytes(length);
        if (bytes.length < length) {
            throw new EOFException("The connection ended within an answer.");
        }
        return bytes;
    }

    private String line() throws IOException {
        var text = new StringBuilder(64);
        while (true) {
            int c = in.read();
            if (c < 0) {
                throw new EOFException("The connection ended within an answer.");
            }
            if (c == '\n') {
                return text.toString();
            }
            if (c != '\r') {
                text.append((char) c);
            }
        }
    }

    @Override
    public void close() throws IOException {
        socket.close();
    }
}
