package sandpiper.store.move;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import org.jspecify.annotations.Nullable;

/** What rows come to, in their order: the same on both engines when they are the same (SHA-256). */
final class RowDigest {
    private static final byte NOTHING = 0;
    private static final byte NUMBER = 1;
    private static final byte BYTES = 2;
    private static final byte TEXT = 3;

    private final MessageDigest digest;
    private long rows;

    RowDigest() {
        try {
            digest = MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    void add(@Nullable Object[] row) {
        rows++;
        for (var value : row) {
            switch (value) {
                case null -> digest.update(NOTHING);
                case Long number -> {
                    digest.update(NUMBER);
                    digest.update(ByteBuffer.allocate(Long.BYTES).putLong(number).flip());
                }
                case byte[] bytes -> add(BYTES, bytes);
                default -> add(TEXT, value.toString().getBytes(StandardCharsets.UTF_8));
            }
        }
    }

    private void add(byte kind, byte[] bytes) {
        digest.update(kind);
        digest.update(ByteBuffer.allocate(Integer.BYTES).putInt(bytes.length).flip());
        digest.update(bytes);
    }

    long rows() {
        return rows;
    }

    String sum() {
        return HexFormat.of().formatHex(digest.digest());
    }
}
