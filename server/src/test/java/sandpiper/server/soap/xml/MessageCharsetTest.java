package sandpiper.server.soap.xml;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.server.problem.ProblemException;

/** What the content type says of the characters wins over what the message says of itself. */
class MessageCharsetTest {
    private static final String BODY = "<a>ü€</a>";

    private static String read(byte[] body, @Nullable String type) {
        return new String(MessageCharset.unified(body, type), StandardCharsets.UTF_8);
    }

    @ParameterizedTest
    @CsvSource({
        "text/xml; charset=utf-8, UTF-8",
        "'text/xml; charset=\"UTF-8\"', UTF-8",
        "application/soap+xml; charset=utf-16le, UTF-16LE",
        "application/soap+xml; charset=utf-16, UTF-16",
        "text/xml; charset=windows-1252, windows-1252"
    })
    void theCharactersOfTheContentTypeAreRead(String type, String charset) {
        assertThat(read(BODY.getBytes(Charset.forName(charset)), type)).isEqualTo(BODY);
    }

    @Test
    void aDeclarationInsideDoesNotCountThen() {
        var declared = "<?xml version=\"1.0\" encoding=\"ISO-8859-1\"?>" + BODY;

        assertThat(read(declared.getBytes(StandardCharsets.UTF_8), "text/xml; charset=utf-8"))
                .isEqualTo(BODY);
    }

    @Test
    void withoutOneTheMessageIsLeftAsItIs() {
        var latin =
                ("<?xml version=\"1.0\" encoding=\"ISO-8859-1\"?><a>ü</a>")
                        .getBytes(StandardCharsets.ISO_8859_1);

        assertThat(MessageCharset.unified(latin, "text/xml")).isSameAs(latin);
        assertThat(MessageCharset.unified(latin, null)).isSameAs(latin);
        assertThat(MessageCharset.unified(latin, "no type")).isSameAs(latin);
    }

    @ParameterizedTest
    @CsvSource({"text/xml; charset=nonsense, 415", "text/xml; charset=utf-8;, 400"})
    void whatIsNotOfThemIsRefused(String type, int status) {
        var latin =
                ("<?xml version='1.0' encoding='x'?><a>ü</a>")
                        .getBytes(StandardCharsets.ISO_8859_1);

        assertThatThrownBy(() -> MessageCharset.unified(latin, type))
                .isInstanceOfSatisfying(
                        ProblemException.class,
                        e -> assertThat(e.problem().status()).isEqualTo(status));
    }
}
