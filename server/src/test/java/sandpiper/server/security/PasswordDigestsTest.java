package sandpiper.server.security;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PasswordDigestsTest {
    private static final Instant NOW = Instant.parse("2026-11-23T08:00:00Z");

    private static PasswordDigests.Proof at(String created) {
        return new PasswordDigests.Proof("bm9uY2U=", created, "unused");
    }

    @ParameterizedTest
    @CsvSource({
        "2026-11-23T08:00:00Z, true",
        "2026-11-23T07:55:00Z, true",
        "2026-11-23T07:54:59Z, false",
        "2026-11-23T08:01:00Z, true",
        "2026-11-23T08:01:01Z, false",
        "yesterday, false",
    })
    void aProofIsGoodForAShortTime(String created, boolean good) {
        assertThat(PasswordDigests.isInTime(at(created), NOW)).isEqualTo(good);
    }

    @Test
    void onlyTheRightPasswordMakesTheDigest() {
        // SHA-1 of "nonce-nonce-1234", the moment and "varnish", worked out with another tool.
        var proof =
                new PasswordDigests.Proof(
                        "bm9uY2Utbm9uY2UtMTIzNA==",
                        "2026-11-23T08:00:00Z",
                        "FHVU/ZW2YQZbofyDh/jZeyZv8Po=");

        assertThat(PasswordDigests.isRight(proof, "varnish")).isTrue();
        assertThat(PasswordDigests.isRight(proof, "sandpaper")).isFalse();
    }

    @Test
    void whatIsNoBase64IsNotRight() {
        var proof = new PasswordDigests.Proof("%%%", "2026-11-23T08:00:00Z", "%%%");

        assertThat(PasswordDigests.isRight(proof, "varnish")).isFalse();
    }

    @Test
    void aNonceIsGoodOncePerClient() {
        var digests = new PasswordDigests(Instant.EPOCH);
        var proof = at("2026-11-23T08:00:00Z");

        assertThat(digests.isFirst("ferry", proof)).isTrue();
        assertThat(digests.isFirst("ferry", proof)).isFalse();
        assertThat(digests.isFirst("pilot", proof)).isTrue();
    }

    @Test
    void aNonceIsItsBytesHoweverTheyAreWritten() {
        var digests = new PasswordDigests(Instant.EPOCH);
        var made = "2026-11-23T08:00:00Z";

        assertThat(
                        digests.isFirst(
                                "ferry", new PasswordDigests.Proof("QUJDREVGR0hJSg==", made, "")))
                .isTrue();
        for (var same : List.of("QUJDREVGR0hJSg", "QUJDREVGR0hJSh==", "QUJDREVGR0hJSi")) {
            assertThat(digests.isFirst("ferry", new PasswordDigests.Proof(same, made, "")))
                    .isFalse();
        }
    }

    @Test
    void whatWasMadeBeforeTheStartIsNotTaken() {
        var digests = new PasswordDigests(NOW);

        assertThat(digests.isFirst("ferry", at("2026-11-23T07:59:59Z"))).isFalse();
    }
}
