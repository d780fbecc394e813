package sandpiper.server.pack;

import java.util.Collections;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * A package as one file.
 *
 * @param files texts by path, each beginning with the package's name
 * @param signer the fingerprint of the key it is signed with, or {@code null} when it is not signed
 */
public record PackedPackage(
        Manifest manifest, SortedMap<String, String> files, @Nullable String signer) {
    public PackedPackage {
        files = Collections.unmodifiableSortedMap(new TreeMap<>(files));
    }

    /**
     * A package that is not signed.
     *
     * @param files of this package and perhaps of others
     * @param versions of packages that are known, by name
     * @throws BadArchiveException when there is no such package among the files
     */
    public static PackedPackage of(
            String name,
            Map<String, String> files,
            Map<String, String> versions,
            Manifest.@Nullable Origin origin) {
        var own = new TreeMap<String, String>();
        files.forEach((path, text) -> {
            if (path.startsWith(name + "/")) {
                own.put(path, text);
            }
        });
        var head = PackageHead.of(name, own);
        var depends = new TreeMap<String, String>();
        head.depends().forEach(one -> depends.put(one, versions.getOrDefault(one, "")));
        return new PackedPackage(
                new Manifest(
                        Manifest.FORMAT,
                        name,
                        head.version(),
                        depends,
                        origin,
                        Manifest.checksums(own)),
                own,
                null);
    }
}
