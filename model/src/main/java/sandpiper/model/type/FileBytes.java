package sandpiper.model.type;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;
import java.util.HexFormat;

/** What is in a file. Immutable. */
public final class FileBytes {
    /** No bytes. */
    static final FileBytes NONE = new FileBytes(new byte[0]);

    private final byte[] bytes;
    private final String sha256;

    /** Takes the bytes over; nobody else may change them. */
    public FileBytes(byte[] bytes) {
        this.bytes = bytes;
        this.sha256 = sha256(bytes);
    }

    private static String sha256(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("Every Java has SHA-256", e);
        }
    }

    /**
     * Bytes in base64 (RFC 4648), with the usual alphabet or that for addresses.
     *
     * @throws IllegalArgumentException when the text is neither
     */
    public static FileBytes ofBase64(String text) {
        boolean forAddresses = text.indexOf('-') >= 0 || text.indexOf('_') >= 0;
        return new FileBytes(
                (forAddresses ? Base64.getUrlDecoder() : Base64.getDecoder()).decode(text));
    }

    /** How many there are. */
    public int size() {
        return bytes.length;
    }

    /** Their SHA-256 digest in small hexadecimal digits; other bytes have another. */
    public String sha256() {
        return sha256;
    }

    /** The bytes themselves, not a copy: whoever gets them must not change them. */
    public byte[] array() {
        return bytes;
    }
}
