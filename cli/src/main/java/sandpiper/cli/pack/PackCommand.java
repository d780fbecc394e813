package sandpiper.cli.pack;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.cli.common.Connection;
import sandpiper.cli.common.Plural;
import sandpiper.cli.draft.PackageFiles;
import sandpiper.client.RefusedException;
import sandpiper.model.check.Definitions;
import sandpiper.server.pack.ArchiveReader;
import sandpiper.server.pack.ArchiveWriter;
import sandpiper.server.pack.BadArchiveException;
import sandpiper.server.pack.PackedPackage;
import sandpiper.server.pack.SigningKey;

@Command(
        name = "pack",
        mixinStandardHelpOptions = true,
        description = {
            "Write a package as one file, which \"unpack\" takes into another instance.",
            "The file has a checksum of each definition file and is signed when there is a key:"
                    + " that of the service for a live package, --key for a folder."
        },
        footer = {
            "",
            "Examples:",
            "  sandpiper pack demo/packages/gullhaven",
            "  sandpiper pack --live gullhaven --out gullhaven.zip"
        })
public final class PackCommand extends AnsweringCommand implements Callable<Integer> {
    @Mixin Connection connection;

    @ArgGroup(exclusive = true, multiplicity = "1")
    Source source = new Source();

    static final class Source {
        @Parameters(paramLabel = "FOLDER", arity = "0..1", description = "The folder of a package.")
        @Nullable Path folder;

        @Option(
                names = "--live",
                paramLabel = "PACKAGE",
                description = "A package as the service has it live.")
        @Nullable String live;
    }

    @Option(
            names = "--out",
            paramLabel = "FILE",
            description = "The file to write (default: PACKAGE-VERSION.zip).")
    @Nullable Path out;

    @Option(
            names = "--key",
            paramLabel = "FILE",
            description = "A key to sign the package of a folder with; see signing-key.")
    @Nullable Path key;

    @Override
    public Integer call() throws IOException {
        try {
            return source.live == null
                    ? packFolder(Objects.requireNonNull(source.folder))
                    : packLive(source.live);
        } catch (BadArchiveException e) {
            throw new RefusedException(0, String.valueOf(e.getMessage()), List.of());
        }
    }

    private int packLive(String name) throws IOException {
        if (key != null) {
            throw new RefusedException(
                    0,
                    "The service signs what it has live, with the key of its own settings; --key is"
                            + " for folders.",
                    List.of());
        }
        var part = Files.createTempFile(Path.of("").toAbsolutePath(), "sandpiper", ".part");
        try {
            connection.open().draft().pack(name, part);
            return keep(ArchiveReader.read(Files.readAllBytes(part)), Files.readAllBytes(part));
        } finally {
            Files.deleteIfExists(part);
        }
    }

    private int packFolder(Path folder) throws IOException {
        if (!Files.exists(folder.resolve("package.yaml"))) {
            throw new RefusedException(
                    0,
                    "%s is no folder of one package: it has no package.yaml.".formatted(folder),
                    List.of());
        }
        var files = new TreeMap<>(PackageFiles.read(folder));
        var name = files.firstKey().substring(0, files.firstKey().indexOf('/'));
        var beside = beside(folder, name, files);
        var packed = PackedPackage.of(name, files, beside, null);
        if (beside.keySet().containsAll(packed.manifest().depends().keySet())) {
            var errors = Definitions.check(files).errors();
            if (!errors.isEmpty()) {
                throw new RefusedException(
                        0,
                        "%s has %d %s; \"sandpiper check %s\" shows them. Nothing was packed."
                                .formatted(
                                        name,
                                        errors.size(),
                                        errors.size() == 1 ? "error" : "errors",
                                        folder.resolveSibling("")),
                        List.of());
            }
        }
        var signed = key == null ? null : SigningKey.read(key);
        var archive = ArchiveWriter.write(packed, signed);
        return keep(ArchiveReader.read(archive), archive);
    }

    /**
     * The versions of the packages that lie beside it and that it needs; their files come to the
     * others.
     */
    private static Map<String, String> beside(Path folder, String name, Map<String, String> files) {
        var versions = new TreeMap<String, String>();
        var parent = folder.toAbsolutePath().normalize().getParent();
        var wanted =
                new ArrayDeque<>(
                        PackedPackage.of(name, files, Map.of(), null)
                                .manifest()
                                .depends()
                                .keySet());
        while (!wanted.isEmpty()) {
            var one = wanted.pop();
            var there = parent == null ? null : parent.resolve(one);
            if (there == null
                    || versions.containsKey(one)
                    || !Files.exists(there.resolve("package.yaml"))) {
                continue;
            }
            files.putAll(PackageFiles.read(there));
            var manifest = PackedPackage.of(one, files, Map.of(), null).manifest();
            versions.put(one, manifest.version());
            wanted.addAll(manifest.depends().keySet());
        }
        return versions;
    }

    private int keep(PackedPackage packed, byte[] archive) throws IOException {
        var manifest = packed.manifest();
        var file =
                out == null
                        ? Path.of("%s-%s.zip".formatted(manifest.name(), manifest.version()))
                        : out;
        Files.write(file, archive);
        return say(
                "%s has %s %s, %s, content %s, %s."
                        .formatted(
                                file,
                                manifest.name(),
                                manifest.version(),
                                Plural.of(packed.files().size(), "file"),
                                manifest.content(),
                                packed.signer() == null
                                        ? "not signed"
                                        : "signed with key " + packed.signer()));
    }
}
