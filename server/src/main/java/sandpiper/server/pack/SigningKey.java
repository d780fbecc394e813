package sandpiper.server.pack;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.KeyPairGenerator;
import java.security.PrivateKey;
import java.security.PublicKey;
import java.security.Signature;
import java.security.spec.PKCS8EncodedKeySpec;
import java.security.spec.X509EncodedKeySpec;
import java.util.Base64;
import java.util.regex.Pattern;

/**
 * A key that packages are signed with: Ed25519 (RFC 8032). Its file has the private and the public
 * part (PKCS #8 and SubjectPublicKeyInfo in PEM). Immutable.
 */
public final class SigningKey {
    private static final String ALGORITHM = "Ed25519";
    private static final String PRIVATE = "PRIVATE KEY";
    private static final String PUBLIC = "PUBLIC KEY";

    private final PrivateKey key;
    private final byte[] publicKey;

    private SigningKey(PrivateKey key, byte[] publicKey) {
        this.key = key;
        this.publicKey = publicKey;
    }

    /** A new key, as the text of its file. */
    public static String made() {
        try {
            var pair = KeyPairGenerator.getInstance(ALGORITHM).generateKeyPair();
            return block(PRIVATE, pair.getPrivate().getEncoded())
                    + block(PUBLIC, pair.getPublic().getEncoded());
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("Every Java has Ed25519.", e);
        }
    }

    private static String block(String kind, byte[] encoded) {
        return "-----BEGIN %s-----\n%s\n-----END %s-----\n"
                .formatted(kind, Base64.getEncoder().encodeToString(encoded), kind);
    }

    /**
     * Reads a key.
     *
     * @throws BadArchiveException when the file holds none
     */
    public static SigningKey read(Path file) {
        try {
            var text = Files.readString(file);
            var key =
                    KeyFactory.getInstance(ALGORITHM)
                            .generatePrivate(new PKCS8EncodedKeySpec(block(text, PRIVATE)));
            var made = new SigningKey(key, block(text, PUBLIC));
            var probe = new byte[] {1};
            if (isSigned(probe, made.publicKey, made.sign(probe))) {
                return made;
            }
            throw new GeneralSecurityException("The two parts are of different keys.");
        } catch (IOException | GeneralSecurityException | IllegalArgumentException e) {
            throw new BadArchiveException(
                    "%s holds no key to sign packages with; \"sandpiper signing-key FILE\" makes one."
                            .formatted(file),
                    e);
        }
    }

    private static byte[] block(String text, String kind) {
        var found =
                Pattern.compile(
                                "-----BEGIN %s-----(.*?)-----END %s-----".formatted(kind, kind),
                                Pattern.DOTALL)
                        .matcher(text);
        if (!found.find()) {
            throw new IllegalArgumentException("There is no " + kind);
        }
        return Base64.getMimeDecoder().decode(found.group(1).strip());
    }

    /** By which the key is known: the beginning of the SHA-256 of its public part. */
    public String fingerprint() {
        return fingerprint(publicKey);
    }

    static String fingerprint(byte[] publicKey) {
        return Manifest.sha256(publicKey).substring(0, 16);
    }

    byte[] publicKey() {
        return publicKey.clone();
    }

    byte[] sign(byte[] text) {
        try {
            var signature = Signature.getInstance(ALGORITHM);
            signature.initSign(key);
            signature.update(text);
            return signature.sign();
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("A key that was read signs.", e);
        }
    }

    /**
     * Whether a signature is that of a public key.
     *
     * @throws BadArchiveException when it is no key
     */
    static boolean isSigned(byte[] text, byte[] publicKey, byte[] signed) {
        try {
            PublicKey key =
                    KeyFactory.getInstance(ALGORITHM)
                            .generatePublic(new X509EncodedKeySpec(publicKey));
            var signature = Signature.getInstance(ALGORITHM);
            signature.initVerify(key);
            signature.update(text);
            return signature.verify(signed);
        } catch (GeneralSecurityException e) {
            throw new BadArchiveException("The signature cannot be read.", e);
        }
    }
}
