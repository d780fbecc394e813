package sandpiper.server.security;

import java.net.URLDecoder;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** Reads forms as they are sent ({@code application/x-www-form-urlencoded}), strictly. */
final class FormText {
    private static final int MOST = 50;

    private FormText() {}

    /** The parameters, or nothing when it is no form, or one of them comes twice. */
    static Optional<Map<String, String>> read(byte[] body) {
        var parameters = new HashMap<String, String>();
        for (var pair : new String(body, StandardCharsets.ISO_8859_1).split("&", MOST + 1)) {
            if (pair.isEmpty()) {
                continue;
            }
            int equals = pair.indexOf('=');
            var name = decoded(equals < 0 ? pair : pair.substring(0, equals));
            var value = decoded(equals < 0 ? "" : pair.substring(equals + 1));
            if (name.isEmpty()
                    || value.isEmpty()
                    || parameters.size() >= MOST
                    || parameters.put(name.get(), value.get()) != null) {
                return Optional.empty();
            }
        }
        return Optional.of(parameters);
    }

    private static Optional<String> decoded(String text) {
        try {
            // First to bytes, then strictly to text: the decoder itself lets wrong bytes pass.
            var bytes =
                    URLDecoder.decode(text, StandardCharsets.ISO_8859_1)
                            .getBytes(StandardCharsets.ISO_8859_1);
            return Optional.of(
                    StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes)).toString());
        } catch (IllegalArgumentException | CharacterCodingException _) {
            return Optional.empty();
        }
    }
}
