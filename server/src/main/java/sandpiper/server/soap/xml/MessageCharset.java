package sandpiper.server.soap.xml;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import java.util.Locale;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.logic.Quoted;
import sandpiper.server.problem.ProblemException;

/**
 * In which characters a message is written: those of its content type, whatever the message says of
 * itself (RFC 7303 §3.2); without that, what the message says.
 */
public final class MessageCharset {
    private static final String DECLARATION = "^\\uFEFF?<\\?xml[^>]*\\?>";

    private static final Pattern CHARSET =
            Pattern.compile(";\\s*charset\\s*=\\s*\"?([^\";\\s]+)", Pattern.CASE_INSENSITIVE);

    private MessageCharset() {}

    /**
     * The message as every reader of XML reads it by itself.
     *
     * @throws ProblemException 415 for characters that nobody knows here, 400 for bytes that are
     *     none
     */
    public static byte[] unified(byte[] body, @Nullable String contentType) {
        var name = parameter(contentType);
        if (name == null) {
            return body;
        }
        var charset = charset(name);
        if (charset.equals(StandardCharsets.UTF_8) && !declaresAnother(body)) {
            return body;
        }
        try {
            var text = charset.newDecoder().decode(ByteBuffer.wrap(body)).toString();
            return text.replaceFirst(DECLARATION, "").getBytes(StandardCharsets.UTF_8);
        } catch (CharacterCodingException e) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    "The content type says that the message is %s, but it is not."
                            .formatted(charset.name()),
                    e);
        }
    }

    private static @Nullable String parameter(@Nullable String contentType) {
        var found = CHARSET.matcher(contentType == null ? "" : contentType);
        return found.find() ? found.group(1) : null;
    }

    private static Charset charset(String name) {
        try {
            return Charset.forName(name);
        } catch (IllegalCharsetNameException | UnsupportedCharsetException e) {
            throw new ProblemException(
                    HttpStatus.UNSUPPORTED_MEDIA_TYPE,
                    "There is no charset %s here; send UTF-8.".formatted(Quoted.of(name)),
                    e);
        }
    }

    private static boolean declaresAnother(byte[] body) {
        var head = new String(body, 0, Math.min(body.length, 200), StandardCharsets.ISO_8859_1);
        return head.contains("encoding=") && !head.toLowerCase(Locale.ROOT).contains("utf-8");
    }
}
