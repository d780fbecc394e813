package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Base64;

/** The header of a message that proves with a digest to know a secret, worked out by hand. */
record SignedInByDigest(String header) {
    private static final String WSS = "http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-";

    /** The secret of a client that may sign in with digests; made anew when it is there. */
    static String secret(String client, String grant) {
        Marina.call(Marina.CONSULTANT, "DELETE", "/manage/v1/clients/" + client, "");
        var made =
                Marina.call(
                        Marina.CONSULTANT,
                        "POST",
                        "/manage/v1/clients",
                        "{\"name\": \"%s\", \"grants\": [\"%s\"], \"digests\": true}"
                                .formatted(client, grant));
        assertThat(made.status()).as(made.whole().body()).isEqualTo(201);
        return made.json().path("secret").asString();
    }

    static SignedInByDigest made(String client, String secret, String which, Instant at) {
        // Shorter ones are not taken.
        var nonce = "the-nonce-" + which;
        var created = at.truncatedTo(ChronoUnit.SECONDS).toString();
        var digest = sha1(nonce + created + secret);
        return new SignedInByDigest(
                """
                <s:Header><w:Security s:mustUnderstand="1" xmlns:w="%1$swssecurity-secext-1.0.xsd"
                  xmlns:u="%1$swssecurity-utility-1.0.xsd"><w:UsernameToken>
                <w:Username>%2$s</w:Username>
                <w:Password Type="%1$susername-token-profile-1.0#PasswordDigest">%3$s</w:Password>
                <w:Nonce>%4$s</w:Nonce><u:Created>%5$s</u:Created>
                </w:UsernameToken></w:Security></s:Header>\
                """
                        .formatted(
                                WSS,
                                client,
                                digest,
                                Base64.getEncoder()
                                        .encodeToString(nonce.getBytes(StandardCharsets.UTF_8)),
                                created));
    }

    private static String sha1(String text) {
        try {
            return Base64.getEncoder()
                    .encodeToString(
                            MessageDigest.getInstance("SHA-1")
                                    .digest(text.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }
}
