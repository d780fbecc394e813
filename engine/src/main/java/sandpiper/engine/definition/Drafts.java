package sandpiper.engine.definition;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.Actor;
import sandpiper.engine.port.DefinitionStorage;
import sandpiper.engine.port.DefinitionStorage.DraftFileState;
import sandpiper.engine.port.DefinitionStorage.StoredOrigin;
import sandpiper.engine.port.Session;
import sandpiper.engine.port.Storage;
import sandpiper.engine.port.Transaction;
import sandpiper.engine.writer.Writer;
import sandpiper.model.check.CheckedDefinitions;
import sandpiper.model.check.Definitions;

/**
 * The files being edited. They may be wrong in any way; only a release asks that they are right.
 */
public final class Drafts {
    /** Changes of one hand that follow each other this closely are one version. */
    private static final Duration ONE_SITTING = Duration.ofMinutes(5);

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

    /** What there would be to say if a package had other files; nothing is kept. */
    public CheckedDefinitions checkWith(String packageName, Map<String, String> others) {
        var files = new TreeMap<>(files());
        files.keySet().removeIf(path -> packageOf(path).equals(packageName));
        files.putAll(others);
        return Definitions.check(files);
    }

    /**
     * Keeps one file, right or wrong.
     *
     * @param base the text the change began with, or {@code null} to keep it whatever is there
     * @return what somebody else has made of the file meanwhile, and then nothing was kept; empty
     *     when it was
     */
    public Optional<DraftFileState> put(
            String path, String text, @Nullable String base, Actor actor) {
        return writer.write(transaction -> {
            var there = definitions.draftFile(transaction, path);
            boolean isOther =
                    base != null
                            && there.isPresent()
                            && !there.get().text().equals(base)
                            && !there.get().text().equals(text);
            if (isOther) {
                return there;
            }
            remember(transaction, path, isOneSitting(transaction, path, actor));
            definitions.putDraftFile(transaction, path, text, clock.instant(), actor.name());
            return Optional.empty();
        });
    }

    /** Puts a text in the place of another, which is kept. */
    private void putIn(Transaction transaction, String path, String text, Actor actor) {
        remember(transaction, path, false);
        definitions.putDraftFile(transaction, path, text, clock.instant(), actor.name());
    }

    /** Whether the same hand goes on with a file that it changed a moment ago. */
    private boolean isOneSitting(Transaction transaction, String path, Actor actor) {
        var now = clock.instant();
        return definitions
                        .draftFile(transaction, path)
                        .filter(there -> there.by().equals(actor.name()))
                        .isPresent()
                && definitions
                        .lastDraftVersion(transaction, path)
                        .filter(last -> last.plus(ONE_SITTING).isAfter(now))
                        .isPresent();
    }

    /** Keeps what is there to come back to, unless it is only a step on the way. */
    private void remember(Transaction transaction, String path, boolean isStep) {
        if (!isStep) {
            definitions
                    .draftFile(transaction, path)
                    .ifPresent(there ->
                            definitions.keepDraftVersion(transaction, there, clock.instant()));
        }
    }

    /** Takes files out of the draft, all of them at once. */
    public Boolean remove(List<String> paths) {
        return writer.write(transaction -> {
            paths.forEach(path -> removeIn(transaction, path));
            return true;
        });
    }

    private void removeIn(Transaction transaction, String path) {
        remember(transaction, path, false);
        definitions.removeDraftFile(transaction, path);
    }

    /** Gives a file another path; tells whether there was one, and none at the other. */
    public Boolean move(String from, String to, Actor actor) {
        return writer.write(transaction -> {
            var there = definitions.draftFile(transaction, from);
            if (there.isEmpty() || definitions.draftFile(transaction, to).isPresent()) {
                return false;
            }
            putIn(transaction, to, there.get().text(), actor);
            removeIn(transaction, from);
            return true;
        });
    }

    /**
     * Makes files what they are in the live release; those that are not in it go.
     *
     * @param paths of the files, or {@code null} for the whole draft
     */
    public Boolean takeBack(@Nullable List<String> paths, Actor actor) {
        return writer.write(transaction -> {
            var live =
                    definitions
                            .newestRelease(transaction)
                            .map(number -> definitions.filesOf(transaction, number))
                            .orElse(Map.of());
            var all = new TreeSet<String>();
            if (paths == null) {
                all.addAll(live.keySet());
                all.addAll(definitions.draft(transaction).keySet());
            } else {
                all.addAll(paths);
            }
            for (var path : all) {
                var text = live.get(path);
                if (text == null) {
                    removeIn(transaction, path);
                } else {
                    putIn(transaction, path, text, actor);
                }
            }
            return true;
        });
    }

    /**
     * Lets files go with a release that was not made from the draft, unless somebody has changed
     * them in it.
     */
    void follow(
            Transaction transaction,
            Map<String, String> before,
            Map<String, String> after,
            Actor actor) {
        var draft = definitions.draft(transaction);
        var all = new TreeSet<>(before.keySet());
        all.addAll(after.keySet());
        for (var path : all) {
            var text = after.get(path);
            if (Objects.equals(draft.get(path), text)
                    || !Objects.equals(draft.get(path), before.get(path))) {
                continue;
            }
            if (text == null) {
                removeIn(transaction, path);
            } else {
                putIn(transaction, path, text, actor);
            }
        }
    }

    /**
     * What files were before they were changed or taken out, newest first.
     *
     * @param path of one file, or {@code null} for all of them
     */
    public List<DraftFileState> versions(@Nullable String path, int limit) {
        try (var session = storage.snapshot()) {
            return definitions.draftVersions(session, path, limit);
        }
    }

    /** What a push changed. */
    public record Pushed(List<String> added, List<String> changed, List<String> removed) {}

    /**
     * Puts whole packages in the place of those of the same names; packages that are not among the
     * files stay.
     */
    public Pushed push(Map<String, String> files, Actor actor) {
        return writer.write(transaction -> pushIn(transaction, files, actor));
    }

    /** The same with one package, keeping from where it came. */
    public Pushed unpack(Map<String, String> files, StoredOrigin origin, Actor actor) {
        return writer.write(transaction -> {
            var pushed = pushIn(transaction, files, actor);
            definitions.putOrigin(transaction, origin);
            return pushed;
        });
    }

    /** From where packages came, newest first. */
    public List<StoredOrigin> origins() {
        try (var session = storage.snapshot()) {
            return definitions.origins(session);
        }
    }

    private Pushed pushIn(Transaction transaction, Map<String, String> files, Actor actor) {
        var there = definitions.draft(transaction);
        var packages = files.keySet().stream().map(Drafts::packageOf).distinct().toList();
        var removed =
                there.keySet().stream()
                        .filter(path ->
                                packages.contains(packageOf(path)) && !files.containsKey(path))
                        .toList();
        removed.forEach(path -> removeIn(transaction, path));
        var different =
                files.keySet().stream()
                        .filter(path -> !Objects.equals(there.get(path), files.get(path)))
                        .sorted()
                        .toList();
        for (var path : different) {
            var text = Objects.requireNonNull(files.get(path));
            putIn(transaction, path, text, actor);
        }
        return new Pushed(
                different.stream().filter(path -> !there.containsKey(path)).toList(),
                different.stream().filter(there::containsKey).toList(),
                removed);
    }

    /** The package a path belongs to: its first folder. */
    public static String packageOf(String path) {
        int slash = path.indexOf('/');
        return slash < 0 ? "" : path.substring(0, slash);
    }
}
