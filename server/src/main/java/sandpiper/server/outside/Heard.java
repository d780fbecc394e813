package sandpiper.server.outside;

import org.jspecify.annotations.Nullable;

/**
 * What came of a request to a service outside.
 *
 * @param status of the answer; 0 when there was none
 * @param answer what was answered, as plain values
 * @param failure why it cannot be used, in a sentence; {@code null} when it can
 * @param down whether it may be answered later
 * @param again whether the request can be sent again at once without harm
 */
public record Heard(
        int status,
        @Nullable Object answer,
        @Nullable String failure,
        boolean down,
        boolean again) {
    static Heard failed(int status, String failure, boolean down, boolean again) {
        return new Heard(status, null, failure, down, again);
    }
}
