package sandpiper.model.release;

import java.math.RoundingMode;
import java.util.LinkedHashMap;
import java.util.regex.Pattern;
import sandpiper.logic.value.Context;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Values;
import sandpiper.model.type.FileType;
import sandpiper.model.type.KeptFile;
import sandpiper.model.type.ParsedValue;

/** Files as the language sees them: contexts with name, type, size and digest. */
final class FileContexts {
    private static final Pattern DIGEST = Pattern.compile("[0-9a-f]{64}");

    private FileContexts() {}

    static Context of(KeptFile file) {
        var entries = new LinkedHashMap<String, Object>();
        entries.put(FileType.NAME, file.name());
        entries.put(FileType.TYPE, file.mediaType());
        entries.put(FileType.SIZE, Decimal.of(file.size(), 0));
        entries.put(FileType.SHA256, file.sha256());
        return new Context(entries);
    }

    /** The file a context stands for: one that is kept, since logic makes none. */
    static ParsedValue stored(Object value) {
        return value instanceof Context context
                        && context.get(FileType.NAME) instanceof String name
                        && context.get(FileType.TYPE) instanceof String type
                        && context.get(FileType.SIZE) instanceof Decimal size
                        && context.get(FileType.SHA256) instanceof String sha256
                        && DIGEST.matcher(sha256).matches()
                ? ParsedValue.taken(new KeptFile(name, type, whole(size), sha256, null))
                : ParsedValue.wrongType(
                        "can be the file of another field, but not " + Values.kind(value));
    }

    private static long whole(Decimal size) {
        return size.unscaled(0, RoundingMode.DOWN).orElse(0);
    }
}
