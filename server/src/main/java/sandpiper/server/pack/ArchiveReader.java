package sandpiper.server.pack;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.zip.ZipInputStream;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;

/**
 * Reads a packed package. Nothing in it is believed: every file must be in the manifest with its
 * checksum, every path must lie in the package, and no more is unpacked than a package can be.
 */
public final class ArchiveReader {
    /** Packages are far smaller. */
    private static final int MOST_BYTES = 20 << 20;

    private static final int MOST_FILES = 5_000;
    private static final Pattern NAME = Pattern.compile("[a-z][a-z0-9-]{0,99}");
    private static final Pattern PATH = Pattern.compile("[a-z0-9-]+/[A-Za-z0-9._/-]{1,200}");

    private ArchiveReader() {}

    /**
     * The package in an archive.
     *
     * @throws BadArchiveException when it is no package, is not whole, or was altered
     */
    public static PackedPackage read(byte[] archive) {
        var entries = entries(archive);
        var head = entries.remove(ArchiveWriter.MANIFEST);
        if (head == null) {
            throw new BadArchiveException(
                    "This is no packed package: it has no %s. \"sandpiper pack\" writes one."
                            .formatted(ArchiveWriter.MANIFEST));
        }
        var manifest = manifest(head);
        var signature = entries.remove(ArchiveWriter.SIGNATURE);
        var signer = signature == null ? null : signer(head, signature);
        var files = new TreeMap<String, String>();
        for (var entry : entries.entrySet()) {
            files.put(entry.getKey(), checked(manifest, entry.getKey(), entry.getValue()));
        }
        manifest.files()
                .keySet()
                .forEach(path -> {
                    if (!files.containsKey(path)) {
                        throw new BadArchiveException(
                                "The archive is not whole: %s is missing.".formatted(path));
                    }
                });
        var own = PackageHead.of(manifest.name(), files);
        if (!own.name().equals(manifest.name()) || !own.version().equals(manifest.version())) {
            throw new BadArchiveException(
                    "The manifest says %s %s, but its package.yaml says %s %s."
                            .formatted(
                                    manifest.name(),
                                    manifest.version(),
                                    own.name(),
                                    own.version()));
        }
        return new PackedPackage(manifest, files, signer);
    }

    private static Map<String, byte[]> entries(byte[] archive) {
        var entries = new LinkedHashMap<String, byte[]>();
        int left = MOST_BYTES;
        try (var zip =
                new ZipInputStream(new ByteArrayInputStream(archive), StandardCharsets.UTF_8)) {
            for (var entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                var path = entry.getName();
                if (!path.equals(ArchiveWriter.MANIFEST)
                        && !path.equals(ArchiveWriter.SIGNATURE)
                        && !isPath(path)) {
                    throw new BadArchiveException(
                            "The archive has a path that no package has: %s.".formatted(path));
                }
                var content = zip.readNBytes(left + 1);
                left -= content.length;
                if (left < 0 || entries.size() >= MOST_FILES) {
                    throw new BadArchiveException(
                            "The archive unpacks to more than %,d MB or %,d files; a package is far smaller."
                                    .formatted(MOST_BYTES >> 20, MOST_FILES));
                }
                if (entries.put(path, content) != null) {
                    throw new BadArchiveException(
                            "The archive has two files of one name: %s.".formatted(path));
                }
            }
        } catch (IOException | IllegalArgumentException e) {
            throw new BadArchiveException("This is no zip archive that can be read.", e);
        }
        return entries;
    }

    /** Whether a path is that of a definition file and leads nowhere else. */
    public static boolean isPath(String path) {
        return PATH.matcher(path).matches() && !path.contains("..") && !path.contains("//");
    }

    private static Manifest manifest(byte[] text) {
        try {
            var tree = ArchiveWriter.JSON.readTree(text);
            int format = tree.path("format").asInt(0);
            if (format > Manifest.FORMAT) {
                throw new BadArchiveException(
                        "The package was packed by a newer Sandpiper (format %d, this one reads %d); bring this instance up to date first."
                                .formatted(format, Manifest.FORMAT));
            }
            var manifest = ArchiveWriter.JSON.treeToValue(tree, Manifest.class);
            if (format < 1 || !NAME.matcher(manifest.name()).matches()) {
                throw new BadArchiveException("The manifest names no package.");
            }
            manifest.files()
                    .keySet()
                    .forEach(path -> {
                        if (!isPath(path) || !path.startsWith(manifest.name() + "/")) {
                            throw new BadArchiveException(
                                    "The manifest names a path outside of the package: %s."
                                            .formatted(path));
                        }
                    });
            return manifest;
        } catch (JacksonException | NullPointerException e) {
            throw new BadArchiveException("The manifest cannot be read.", e);
        }
    }

    private static String signer(byte[] manifest, byte[] text) {
        try {
            var signed = ArchiveWriter.JSON.readValue(text, ArchiveWriter.Signed.class);
            var key = Base64.getDecoder().decode(signed.publicKey());
            if (!SigningKey.isSigned(
                    manifest, key, Base64.getDecoder().decode(signed.signature()))) {
                throw new BadArchiveException(
                        "The signature is not that of this manifest: the package was altered after"
                                + " it was signed.");
            }
            return SigningKey.fingerprint(key);
        } catch (JacksonException | IllegalArgumentException | NullPointerException e) {
            throw new BadArchiveException("The signature cannot be read.", e);
        }
    }

    private static String checked(Manifest manifest, String path, byte[] content) {
        @Nullable String sum = manifest.files().get(path);
        if (sum == null) {
            throw new BadArchiveException(
                    "The archive has a file that its manifest does not name: %s.".formatted(path));
        }
        if (!sum.equals(Manifest.sha256(content))) {
            throw new BadArchiveException(
                    "%s is not what was packed: its checksum differs.".formatted(path));
        }
        try {
            return StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(content)).toString();
        } catch (CharacterCodingException e) {
            throw new BadArchiveException("%s is not text in UTF-8.".formatted(path), e);
        }
    }
}
