package sandpiper.server.service;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;

/** The writers for the trees of fields that callers get, each made once for a release. */
@Component
public final class RecordWriters {
    /** Writers kept; callers may choose fields as they like, so there must be an end. */
    private static final int MOST = 1_000;

    private volatile Kept kept = new Kept(-1, new ConcurrentHashMap<>());

    private record Key(String object, String shape) {}

    private record Kept(int release, Map<Key, RecordWriter> writers) {}

    /** The writer for a tree of an object. */
    public RecordWriter of(LiveRelease live, ObjectType object, FieldTree tree) {
        var now = kept;
        if (now.release() != live.number() || now.writers().size() > MOST) {
            now = new Kept(live.number(), new ConcurrentHashMap<>());
            kept = now;
        }
        var key = new Key(object.name(), tree.shape());
        var there = now.writers().get(key);
        return there != null
                ? there
                : now.writers().computeIfAbsent(key, _ -> new RecordWriter(tree));
    }
}
