package sandpiper.server.service;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.function.Supplier;
import javax.crypto.Mac;
import javax.crypto.SecretKey;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import sandpiper.server.json.JsonReader;
import sandpiper.server.json.JsonText;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.security.Keys;

/**
 * Writes the place at which a query goes on as a text that callers hand back. It is sealed, so that
 * only places we gave are taken, and bound to the query it came from.
 */
@Component
public final class Cursors {
    private static final String ALGORITHM = "HmacSHA256";
    private static final int SEAL_BYTES = 12;

    private final Supplier<SecretKey> key;
    private volatile @Nullable Prepared prepared;

    private record Prepared(SecretKey key, Mac mac) {}

    Cursors(Keys keys) {
        this.key = keys.of("cursors");
    }

    /** Looking an algorithm up costs more than using it. */
    private Mac prototype() {
        var now = key.get();
        var known = prepared;
        if (known == null || known.key() != now) {
            try {
                var mac = Mac.getInstance(ALGORITHM);
                mac.init(now);
                known = new Prepared(now, mac);
                prepared = known;
            } catch (GeneralSecurityException e) {
                throw new IllegalStateException(e);
            }
        }
        return known.mac();
    }

    /** The text for a place; {@code query} tells which query it belongs to. */
    public String write(String query, List<@Nullable Object> place) {
        var bytes =
                JsonText.bytes(to -> {
                    to.writeStartObject();
                    to.writeName("p");
                    to.writeStartArray();
                    place.forEach(value -> JsonText.write(to, value));
                    to.writeEndArray();
                    to.writeEndObject();
                });
        var sealed = Arrays.copyOf(seal(query, bytes), SEAL_BYTES + bytes.length);
        System.arraycopy(bytes, 0, sealed, SEAL_BYTES, bytes.length);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(sealed);
    }

    /** The place of a text, or {@code null} when there is no text. */
    public @Nullable List<@Nullable Object> read(String query, @Nullable String text) {
        if (text == null || text.isEmpty()) {
            return null;
        }
        try {
            var sealed = Base64.getUrlDecoder().decode(text);
            var bytes =
                    Arrays.copyOfRange(sealed, Math.min(SEAL_BYTES, sealed.length), sealed.length);
            var seal = Arrays.copyOf(sealed, SEAL_BYTES);
            if (MessageDigest.isEqual(seal, seal(query, bytes))
                    && JsonReader.OWN.object(bytes).get("p") instanceof List<?> place) {
                return new ArrayList<@Nullable Object>(place);
            }
        } catch (IllegalArgumentException _) {
            // answered below
        }
        throw new ProblemException(
                HttpStatus.BAD_REQUEST,
                "after is not a cursor of this query; take it from next of the page before, with"
                        + " the same filter and sort.");
    }

    private byte[] seal(String query, byte[] content) {
        try {
            var mac = (Mac) prototype().clone();
            mac.update(query.getBytes(StandardCharsets.UTF_8));
            mac.update((byte) 0);
            return Arrays.copyOf(mac.doFinal(content), SEAL_BYTES);
        } catch (CloneNotSupportedException e) {
            throw new IllegalStateException(e);
        }
    }
}
