package sandpiper.model.type;

import org.jspecify.annotations.Nullable;

/**
 * A file of a record. Two are the same when they have the same name, type and bytes.
 *
 * @param name as people see it: {@code lease.pdf}
 * @param mediaType what it is (RFC 6838): {@code application/pdf}
 * @param size in bytes
 * @param sha256 the digest of its bytes, by which they are found where they are kept
 * @param bytes what is in it, where it is on its way to be kept; {@code null} where it is kept
 *     already
 */
public record KeptFile(
        String name, String mediaType, long size, String sha256, @Nullable FileBytes bytes) {
    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof KeptFile file
                && file.sha256.equals(sha256)
                && file.name.equals(name)
                && file.mediaType.equals(mediaType);
    }

    @Override
    public int hashCode() {
        return sha256.hashCode();
    }

    /** The same as if its bytes had come, for work of which nothing will be kept. */
    public KeptFile supposed() {
        return new KeptFile(name, mediaType, size, sha256, FileBytes.NONE);
    }

    /** Whether both have the same bytes and take them for the same. */
    public boolean hasBytesOf(KeptFile other) {
        return other.sha256.equals(sha256) && other.mediaType.equals(mediaType);
    }

    /** The name, as people see it. */
    @Override
    public String toString() {
        return name;
    }
}
