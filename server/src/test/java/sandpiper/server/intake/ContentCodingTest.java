package sandpiper.server.intake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.zip.GZIPOutputStream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.mock.web.MockHttpServletRequest;
import sandpiper.server.problem.ProblemException;

/** Bodies as they are and compressed; a bomb is stopped at the size a body may have. */
class ContentCodingTest {
    private static final String TEXT = "{\"name\": \"Sea Pink ü\"}";

    private static byte[] gzip(byte[] bytes) throws IOException {
        var out = new ByteArrayOutputStream();
        try (var gzip = new GZIPOutputStream(out)) {
            gzip.write(bytes);
        }
        return out.toByteArray();
    }

    private static MockHttpServletRequest request(@Nullable String coding, byte[] body) {
        var request = new MockHttpServletRequest("POST", "/api/x/v1/y");
        if (coding != null) {
            request.addHeader("Content-Encoding", coding);
        }
        request.setContent(body);
        return request;
    }

    private static String read(@Nullable String coding, byte[] body) throws IOException {
        return new String(
                ContentCoding.of(request(coding, body)).readAllBytes(), StandardCharsets.UTF_8);
    }

    @ParameterizedTest
    @ValueSource(strings = {"gzip", "x-gzip", " GZIP "})
    void whatIsCompressedIsReadAsItWas(String coding) throws IOException {
        assertThat(read(coding, gzip(TEXT.getBytes(StandardCharsets.UTF_8)))).isEqualTo(TEXT);
    }

    @Test
    void whatIsNotCompressedIsReadAsItIs() throws IOException {
        for (var coding : new String[] {null, "", "identity"}) {
            assertThat(read(coding, TEXT.getBytes(StandardCharsets.UTF_8))).isEqualTo(TEXT);
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"br", "deflate", "gzip, gzip", "zstd"})
    void anotherCodingIsRefused(String coding) {
        assertThatThrownBy(() -> read(coding, new byte[3]))
                .isInstanceOfSatisfying(
                        ProblemException.class,
                        e -> assertThat(e.problem().status()).isEqualTo(415));
    }

    @Test
    void whatIsNoGzipOrNotAllOfOneIsToldSo() throws IOException {
        var whole = gzip(TEXT.repeat(100).getBytes(StandardCharsets.UTF_8));
        for (var body : new byte[][] {{}, {1, 2, 3}, Arrays.copyOf(whole, whole.length - 9)}) {
            assertThatThrownBy(() -> read("gzip", body))
                    .isInstanceOfSatisfying(
                            ProblemException.class,
                            e -> assertThat(e.problem().status()).isEqualTo(400));
        }
    }

    @Test
    void aBombIsStoppedAtTheSizeABodyMayHave() throws IOException {
        var bomb = request("gzip", gzip(new byte[20 << 20]));
        var reader = new BodyReader(64 << 20, System::nanoTime);

        assertThat(bomb.getContentLengthLong()).isLessThan(100_000);
        assertThatThrownBy(() -> reader.read(new byte[0], ContentCoding.of(bomb), -1, 1 << 20))
                .isInstanceOfSatisfying(
                        ProblemException.class,
                        e -> assertThat(e.problem().status()).isEqualTo(413));
    }
}
