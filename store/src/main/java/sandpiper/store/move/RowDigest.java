package sandpiper.store.move;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import org.jspecify.annotations.Nullable;

/** What rows come to, in their order: the same on both engines when they are the same (SHA-256). */
final class RowDigest {
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
                case null -> digest.update((byte) 0);
                case Number number -> {
                    digest.update((byte) 1);
                    digest.update(ByteBuffer.allocate(8).putLong(number.longValue()).flip());
                }
                case byte[] bytes -> add((byte) 2, bytes);
                default ->
                        add((byte) 3, String.valueOf(value).getBytes(StandardCharsets.UTF_8));
            }
        }
    }

    private void add(byte kind, byte[] bytes) {
        digest.update(kind);
        digest.update(ByteBuffer.allocate(4).putInt(bytes.length).flip());
        digest.update(bytes);
    }

    long rows() {
        return rows;
    }

    String sum() {
        return HexFormat.of().formatHex(digest.digest());
    }
}
