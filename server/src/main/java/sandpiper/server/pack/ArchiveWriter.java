package sandpiper.server.pack;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.Base64;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.util.DefaultIndenter;
import tools.jackson.core.util.DefaultPrettyPrinter;
import tools.jackson.databind.ObjectWriter;
import tools.jackson.databind.json.JsonMapper;

/**
 * Writes a package as a zip archive: the manifest, its signature, and the files in the order of
 * their paths, without the time and without compression, so that the same content gives the same
 * bytes on every machine.
 */
public final class ArchiveWriter {
    static final String MANIFEST = "manifest.json";
    static final String SIGNATURE = "signature.json";
    static final JsonMapper JSON = JsonMapper.builder().build();

    /** Lines end alike on every machine. */
    private static final ObjectWriter WRITER =
            JSON.writer()
                    .with(
                            new DefaultPrettyPrinter()
                                    .withObjectIndenter(new DefaultIndenter("  ", "\n")));

    /** The earliest that an archive can name. */
    private static final LocalDateTime NO_TIME = LocalDateTime.of(1980, 1, 1, 0, 0);

    private ArchiveWriter() {}

    /** The signature of a manifest's bytes; both texts in Base64. */
    record Signed(String publicKey, String signature) {}

    /**
     * A package as the bytes of an archive.
     *
     * @param key to sign with, or {@code null} to leave it unsigned
     */
    public static byte[] write(PackedPackage packed, @Nullable SigningKey key) {
        var manifest = text(packed.manifest());
        var bytes = new ByteArrayOutputStream();
        try (var zip = new ZipOutputStream(bytes, StandardCharsets.UTF_8)) {
            add(zip, MANIFEST, manifest);
            if (key != null) {
                var base64 = Base64.getEncoder();
                var signed =
                        new Signed(
                                base64.encodeToString(key.publicKey()),
                                base64.encodeToString(key.sign(manifest)));
                add(zip, SIGNATURE, WRITER.writeValueAsBytes(signed));
            }
            for (var file : packed.files().entrySet()) {
                add(zip, file.getKey(), file.getValue().getBytes(StandardCharsets.UTF_8));
            }
        } catch (IOException e) {
            throw new UncheckedIOException("Memory takes what is written.", e);
        }
        return bytes.toByteArray();
    }

    static byte[] text(Manifest manifest) {
        return WRITER.writeValueAsBytes(manifest);
    }

    private static void add(ZipOutputStream zip, String path, byte[] content) throws IOException {
        var entry = new ZipEntry(path);
        var sum = new CRC32();
        sum.update(content);
        entry.setMethod(ZipEntry.STORED);
        entry.setSize(content.length);
        entry.setCrc(sum.getValue());
        entry.setTimeLocal(NO_TIME);
        zip.putNextEntry(entry);
        zip.write(content);
        zip.closeEntry();
    }
}
