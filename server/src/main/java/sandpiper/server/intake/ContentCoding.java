package sandpiper.server.intake;

import jakarta.servlet.http.HttpServletRequest;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.util.Locale;
import java.util.zip.GZIPInputStream;
import java.util.zip.ZipException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import sandpiper.server.problem.ProblemException;

/** In which form a body is sent (RFC 9110 §8.4): as it is, or compressed with gzip. */
final class ContentCoding {
    /** What is taken, as {@code Accept-Encoding} says it (RFC 9110 §12.5.3). */
    static final String TAKEN = "gzip";

    private ContentCoding() {}

    static boolean isCompressed(HttpServletRequest request) {
        return !"identity".equals(coding(request));
    }

    private static String coding(HttpServletRequest request) {
        var header = request.getHeader(HttpHeaders.CONTENT_ENCODING);
        return header == null || header.isBlank()
                ? "identity"
                : header.strip().toLowerCase(Locale.ROOT);
    }

    /**
     * The body as it was before it was compressed.
     *
     * @throws ProblemException 415 for another coding, 400 for what is no gzip
     */
    static InputStream of(HttpServletRequest request) throws IOException {
        var coding = coding(request);
        return switch (coding) {
            case "identity" -> request.getInputStream();
            case "gzip", "x-gzip" -> new Inflated(request.getInputStream());
            default ->
                    throw new ProblemException(
                            HttpStatus.UNSUPPORTED_MEDIA_TYPE,
                            "Content-Encoding can be gzip, or be left away; this body comes in"
                                    + " another.");
        };
    }

    /** Tells what is no gzip from what does not come. */
    private static final class Inflated extends InputStream {
        private final InputStream raw;
        private InputStream inflated;

        Inflated(InputStream raw) {
            this.raw = raw;
            this.inflated = raw;
        }

        @Override
        public int read() throws IOException {
            var one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] into, int from, int length) throws IOException {
            try {
                if (inflated == raw) {
                    inflated = new GZIPInputStream(raw);
                }
                return inflated.read(into, from, length);
            } catch (ZipException | EOFException e) {
                throw new ProblemException(
                        HttpStatus.BAD_REQUEST,
                        "Content-Encoding says gzip, but the body is none, or not all of one.",
                        e);
            }
        }
    }
}
