package sandpiper.engine.definition;

import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.port.DefinitionStorage;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage;
import sandpiper.engine.write.Writer;
import sandpiper.model.check.CheckedDefinitions;
import sandpiper.model.check.Definitions;

/**
 * The files being edited. They may be wrong in any way; only a release asks that they are right.
 */
public final class Drafts {
    private final Storage storage;
    private final DefinitionStorage definitions;
    private final Writer writer;
    private final Clock clock;
    private volatile @Nullable Checked last;

    /** Files with what checking them came to. */
    private record Checked(Map<String, String> files, CheckedDefinitions result) {}

    public Drafts(Storage storage, Writer writer, Clock clock) {
        this.storage = storage;
        this.definitions = storage.definitions();
        this.writer = writer;
        this.clock = clock;
    }

    /** All texts by path, in the order of paths. */
    public Map<String, String> files() {
        try (var session = storage.snapshot()) {
            return files(session);
        }
    }

    Map<String, String> files(Session session) {
        return definitions.draft(session);
    }

    /** What there is to say about the files as they are. */
    public CheckedDefinitions check() {
        return check(files());
    }

    CheckedDefinitions check(Map<String, String> files) {
        var known = last;
        if (known != null && known.files().equals(files)) {
            return known.result();
        }
        var result = Definitions.check(files);
        last = new Checked(Map.copyOf(files), result);
        return result;
    }

    /** What there would be to say if one file had another text; nothing is kept. */
    public CheckedDefinitions checkWith(String path, String text) {
        var files = new TreeMap<>(files());
        files.put(path, text);
        return Definitions.check(files);
    }

    /** Keeps one file, right or wrong. */
    public CompletableFuture<Boolean> put(String path, String text, Actor actor) {
        return writer.submit(transaction -> {
            definitions.putDraftFile(transaction, path, text, clock.instant(), actor.name());
            return true;
        });
    }

    /** Takes one file out of the draft. */
    public CompletableFuture<Boolean> remove(String path) {
        return writer.submit(transaction -> {
            definitions.removeDraftFile(transaction, path);
            return true;
        });
    }

    /** What a push changed. */
    public record Pushed(List<String> added, List<String> changed, List<String> removed) {}

    /**
     * Puts whole packages in the place of those of the same names; packages that are not among the
     * files stay.
     */
    public CompletableFuture<Pushed> push(Map<String, String> files, Actor actor) {
        return writer.submit(transaction -> {
            var there = definitions.draft(transaction);
            var packages = files.keySet().stream().map(Drafts::packageOf).distinct().toList();
            var removed =
                    there.keySet().stream()
                            .filter(path ->
                                    packages.contains(packageOf(path)) && !files.containsKey(path))
                            .toList();
            removed.forEach(path -> definitions.removeDraftFile(transaction, path));
            var different =
                    files.keySet().stream()
                            .filter(path -> !Objects.equals(there.get(path), files.get(path)))
                            .sorted()
                            .toList();
            for (var path : different) {
                var text = Objects.requireNonNull(files.get(path));
                definitions.putDraftFile(transaction, path, text, clock.instant(), actor.name());
            }
            return new Pushed(
                    different.stream().filter(path -> !there.containsKey(path)).toList(),
                    different.stream().filter(there::containsKey).toList(),
                    removed);
        });
    }

    /** The package a path belongs to: its first folder. */
    public static String packageOf(String path) {
        int slash = path.indexOf('/');
        return slash < 0 ? "" : path.substring(0, slash);
    }
}
