package sandpiper.server.intake;

import static java.nio.charset.StandardCharsets.US_ASCII;
import static org.assertj.core.api.Assertions.assertThat;

import jakarta.servlet.http.HttpServlet;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.apache.catalina.startup.Tomcat;
import org.apache.coyote.http2.Http2Protocol;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Speaks HTTP/2 frame by frame (RFC 9113) to a server that refuses without reading. */
class UnreadBodyValveTest {
    private static final int DATA = 0;
    private static final int HEADERS = 1;
    private static final int RESET = 3;
    private static final int SETTINGS = 4;
    private static final int END_OF_STREAM = 1;
    private static final int END_OF_HEADERS = 4;
    private static final Duration ANSWERED = Duration.ofSeconds(30);
    private static final Duration QUIET = Duration.ofMillis(300);

    @TempDir Path folder;
    private final Tomcat server = new Tomcat();

    private void start(Duration patience) throws Exception {
        server.setBaseDir(folder.toString());
        server.setPort(0);
        server.setSilent(true);
        server.getConnector().setProperty("address", "127.0.0.1");
        server.getConnector().addUpgradeProtocol(new Http2Protocol());
        var context = server.addContext("", folder.toString());
        Tomcat.addServlet(context, "refuses", new Refusing());
        context.addServletMappingDecoded("/", "refuses");
        server.getEngine().getPipeline().addValve(new UnreadBodyValve(patience));
        server.start();
    }

    @AfterEach
    void stop() throws Exception {
        server.stop();
        server.destroy();
    }

    @Test
    void anAnswerStandsAloneWhereTheBodyComesAMomentLater() throws Exception {
        start(ANSWERED);
        try (var socket = begin(2)) {
            Thread.sleep(30);
            send(socket, DATA, END_OF_STREAM, "{}".getBytes(US_ASCII));
            assertThat(framesOfTheStream(socket)).containsExactly(HEADERS, DATA);
        }
    }

    @Test
    void whoKeepsTheRestBackIsAnsweredAndReset() throws Exception {
        start(Duration.ZERO);
        try (var socket = begin(1000)) {
            send(socket, DATA, 0, "{}".getBytes(US_ASCII));
            assertThat(framesOfTheStream(socket)).startsWith(HEADERS, DATA, RESET);
        }
    }

    /** Announces a body and sends nothing of it. */
    private Socket begin(int length) throws IOException {
        var socket =
                new Socket(InetAddress.getLoopbackAddress(), server.getConnector().getLocalPort());
        socket.setTcpNoDelay(true);
        socket.setSoTimeout((int) ANSWERED.toMillis());
        socket.getOutputStream().write("PRI * HTTP/2.0\r\n\r\nSM\r\n\r\n".getBytes(US_ASCII));
        send(socket, SETTINGS, 0, new byte[0]);
        var head = new ByteArrayOutputStream();
        field(head, ":method", "POST");
        field(head, ":scheme", "http");
        field(head, ":authority", "localhost");
        field(head, ":path", "/");
        field(head, "content-length", Integer.toString(length));
        send(socket, HEADERS, END_OF_HEADERS, head.toByteArray());
        return socket;
    }

    /** A field as two literals without an index (RFC 7541, section 6.2.2). */
    private static void field(ByteArrayOutputStream head, String name, String value) {
        head.write(0);
        for (String text : List.of(name, value)) {
            head.write(text.length());
            head.writeBytes(text.getBytes(US_ASCII));
        }
    }

    private static void send(Socket socket, int type, int flags, byte[] payload)
            throws IOException {
        int stream = type == SETTINGS ? 0 : 1;
        var frame = new ByteArrayOutputStream();
        frame.writeBytes(new byte[] {0, 0, (byte) payload.length, (byte) type, (byte) flags});
        frame.writeBytes(new byte[] {0, 0, 0, (byte) stream});
        frame.writeBytes(payload);
        socket.getOutputStream().write(frame.toByteArray());
    }

    /** The kinds of frames that come for the stream, and soon after its end. */
    private static List<Integer> framesOfTheStream(Socket socket) throws IOException {
        var kinds = new ArrayList<Integer>();
        var input = new DataInputStream(socket.getInputStream());
        try {
            while (true) {
                int length = input.readUnsignedByte() << 16 | input.readUnsignedShort();
                int kind = input.readUnsignedByte();
                int flags = input.readUnsignedByte();
                int stream = input.readInt();
                input.skipNBytes(length);
                if (stream == 1 && kind <= RESET) {
                    kinds.add(kind);
                }
                if (stream == 1 && kind == DATA && (flags & END_OF_STREAM) != 0) {
                    socket.setSoTimeout((int) QUIET.toMillis());
                }
            }
        } catch (SocketTimeoutException quiet) {
            return kinds;
        }
    }

    private static final class Refusing extends HttpServlet {
        private static final long serialVersionUID = 1;

        @Override
        protected void doPost(HttpServletRequest request, HttpServletResponse response)
                throws IOException {
            response.setStatus(HttpServletResponse.SC_UNSUPPORTED_MEDIA_TYPE);
            response.getWriter().print("not this");
        }
    }
}
