package sandpiper.server.pack;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ArchiveTest {
    private static final Map<String, String> FILES =
            Map.of(
                    "yard/package.yaml",
                    "package: yard\nversion: 1.2\ndepends: [harbour, tides]\n",
                    "yard/objects/job.yaml",
                    "object: Job\nlabel: \"Aufträge ⚓\"\nfields: { code: { type: text } }\n",
                    "harbour/package.yaml",
                    "package: harbour\nversion: 3\n");

    @TempDir Path folder;

    private static PackedPackage yard(Manifest.@Nullable Origin origin) {
        return PackedPackage.of("yard", FILES, Map.of("harbour", "3"), origin);
    }

    private SigningKey key(String name) throws IOException {
        return SigningKey.read(Files.writeString(folder.resolve(name), SigningKey.made()));
    }

    /** The entries of an archive, to be packed again in another way. */
    private static Map<String, String> entries() throws IOException {
        var entries = new LinkedHashMap<String, String>();
        try (var zip =
                new java.util.zip.ZipInputStream(
                        new java.io.ByteArrayInputStream(ArchiveWriter.write(yard(null), null)))) {
            for (var one = zip.getNextEntry(); one != null; one = zip.getNextEntry()) {
                entries.put(one.getName(), new String(zip.readAllBytes(), StandardCharsets.UTF_8));
            }
        }
        return entries;
    }

    private static byte[] zip(Map<String, String> entries) throws IOException {
        var bytes = new ByteArrayOutputStream();
        try (var zip = new ZipOutputStream(bytes)) {
            for (var one : entries.entrySet()) {
                zip.putNextEntry(new ZipEntry(one.getKey()));
                zip.write(one.getValue().getBytes(StandardCharsets.UTF_8));
                zip.closeEntry();
            }
        }
        return bytes.toByteArray();
    }

    private static void assertRefused(byte[] archive, String why) {
        assertThatThrownBy(() -> ArchiveReader.read(archive))
                .isInstanceOf(BadArchiveException.class)
                .hasMessageContaining(why);
    }

    private static void assertRefused(Map<String, String> entries, String why) throws IOException {
        assertRefused(zip(entries), why);
    }

    @Test
    void whatIsPackedIsReadAgainWithWhatItNeedsAndFromWhereItCame() {
        var packed = yard(new Manifest.Origin("development", 7));

        var read = ArchiveReader.read(ArchiveWriter.write(packed, null));

        assertThat(read).isEqualTo(packed);
        assertThat(read.files())
                .hasSize(2)
                .containsEntry("yard/objects/job.yaml", FILES.get("yard/objects/job.yaml"));
        assertThat(read.manifest().depends())
                .containsExactly(Map.entry("harbour", "3"), Map.entry("tides", ""));
        assertThat(read.manifest().origin()).isEqualTo(new Manifest.Origin("development", 7));
        assertThat(Manifest.parse(read.manifest().text())).isEqualTo(read.manifest());
    }

    @Test
    void theSameContentGivesTheSameBytes() throws IOException {
        var key = key("one");

        assertThat(ArchiveWriter.write(yard(null), key))
                .isEqualTo(
                        ArchiveWriter.write(
                                PackedPackage.of(
                                        "yard", new TreeMap<>(FILES), Map.of("harbour", "3"), null),
                                key));
        assertThat(yard(null).manifest().content())
                .isEqualTo(yard(new Manifest.Origin("x", 1)).manifest().content());
    }

    @Test
    void aSignatureNamesItsKey() throws IOException {
        var key = key("one");

        assertThat(ArchiveReader.read(ArchiveWriter.write(yard(null), key)).signer())
                .isEqualTo(key.fingerprint());
        assertThat(key.fingerprint())
                .matches("[0-9a-f]{16}")
                .isNotEqualTo(key("two").fingerprint());
    }

    @Test
    void aSignatureOfSomethingElseIsRefused() throws IOException {
        var other = ArchiveWriter.write(yard(new Manifest.Origin("elsewhere", 2)), key("one"));
        var entries = entries();
        try (var zip = new java.util.zip.ZipInputStream(new java.io.ByteArrayInputStream(other))) {
            for (var one = zip.getNextEntry(); one != null; one = zip.getNextEntry()) {
                if (one.getName().equals("signature.json")) {
                    entries.put(
                            one.getName(), new String(zip.readAllBytes(), StandardCharsets.UTF_8));
                }
            }
        }
        assertRefused(entries, "altered after it was signed");
        entries.put("signature.json", "{\"publicKey\": \"AAAA\", \"signature\": \"AAAA\"}");
        assertRefused(entries, "The signature cannot be read");
        entries.put("signature.json", "{}");
        assertRefused(entries, "The signature cannot be read");
    }

    @Test
    void aKeyThatIsNoneIsTold() throws IOException {
        var half =
                Files.writeString(
                        folder.resolve("half"),
                        SigningKey.made()
                                .substring(0, SigningKey.made().indexOf("-----BEGIN PUBLIC")));
        var mixed =
                Files.writeString(
                        folder.resolve("mixed"),
                        Files.readString(half)
                                + SigningKey.made()
                                        .substring(SigningKey.made().indexOf("-----BEGIN PUBLIC")));
        for (var file : java.util.List.of(half, mixed, folder.resolve("none"))) {
            assertThatThrownBy(() -> SigningKey.read(file))
                    .isInstanceOf(BadArchiveException.class)
                    .hasMessageContaining("holds no key to sign packages with");
        }
    }

    @Test
    void whatIsNoPackageIsTold() throws IOException {
        assertRefused("no zip at all".getBytes(StandardCharsets.UTF_8), "no packed package");
        assertRefused(new byte[0], "no packed package");
        assertRefused(FILES, "it has no manifest.json");
        var cut = ArchiveWriter.write(yard(null), null);
        assertRefused(java.util.Arrays.copyOf(cut, cut.length / 3), "");
    }

    @Test
    void aFileThatIsNotWhatWasPackedIsTold() throws IOException {
        var altered = entries();
        altered.merge("yard/objects/job.yaml", "# mine\n", String::concat);
        assertRefused(altered, "yard/objects/job.yaml is not what was packed");
        var more = entries();
        more.put("yard/objects/buoy.yaml", "object: Buoy\n");
        assertRefused(more, "a file that its manifest does not name: yard/objects/buoy.yaml");
        var less = entries();
        less.remove("yard/objects/job.yaml");
        assertRefused(less, "not whole: yard/objects/job.yaml is missing");
    }

    @Test
    void pathsThatLeadElsewhereAreTold() throws IOException {
        for (var path :
                java.util.List.of(
                        "../evil.yaml",
                        "/etc/passwd",
                        "yard/../../evil.yaml",
                        "yard\\evil.yaml",
                        "yard//evil.yaml",
                        "yard/objects/")) {
            var entries = entries();
            entries.put(path, "");
            assertRefused(
                    entries, path.endsWith("/") ? "does not name" : "a path that no package has");
        }
        var other = entries();
        other.computeIfPresent(
                "manifest.json",
                (_, text) -> text.replace("\"yard/objects/job", "\"harbour/objects/job"));
        assertRefused(other, "outside of the package");
    }

    @Test
    void twoFilesOfOneNameAreTold() throws IOException {
        var entries = entries();
        entries.put("yard/objects/jox.yaml", "object: Jox\n");
        var bytes =
                new String(zip(entries), StandardCharsets.ISO_8859_1)
                        .replace("jox.yaml", "job.yaml");
        assertRefused(bytes.getBytes(StandardCharsets.ISO_8859_1), "two files of one name");
    }

    @Test
    void aBombIsNotUnpacked() throws IOException {
        var entries = entries();
        entries.put("yard/objects/bomb.yaml", "0".repeat(30_000_000));
        var archive = zip(entries);
        assertThat(archive.length).isLessThan(200_000);
        assertRefused(archive, "a package is far smaller");
        var many = entries();
        for (int i = 0; i < 5_100; i++) {
            many.put("yard/objects/o%d.yaml".formatted(i), "");
        }
        assertRefused(many, "a package is far smaller");
    }

    @Test
    void aManifestThatLiesOrIsNewerIsTold() throws IOException {
        var newer = entries();
        newer.computeIfPresent(
                "manifest.json", (_, text) -> text.replace("\"format\" : 1", "\"format\" : 2"));
        assertRefused(newer, "packed by a newer Sandpiper (format 2, this one reads 1)");
        var version = entries();
        version.computeIfPresent("manifest.json", (_, text) -> text.replace("\"1.2\"", "\"9\""));
        assertRefused(version, "The manifest says yard 9, but its package.yaml says yard 1.2.");
        for (var text :
                java.util.List.of(
                        "{",
                        "[]",
                        "{}",
                        "{\"format\": 1}",
                        "null",
                        "{\"format\": 1, \"name\": \"../x\", \"version\": \"1\", \"depends\": {},"
                                + " \"files\": {}}")) {
            var broken = entries();
            broken.put("manifest.json", text);
            assertRefused(broken, "manifest");
        }
    }

    @Test
    void versionsAreInTheOrderOfTheirNumbers() {
        assertThat(VersionOrder.isOlder("1.9", "1.10")).isTrue();
        assertThat(VersionOrder.isOlder("1.10", "1.9")).isFalse();
        assertThat(VersionOrder.isOlder("1", "1.0")).isFalse();
        assertThat(VersionOrder.isOlder("1.0", "1")).isFalse();
        assertThat(VersionOrder.isOlder("2.0-rc", "2.0")).isTrue();
        assertThat(VersionOrder.isOlder("0.1", "")).isFalse();
    }
}
