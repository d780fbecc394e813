package sandpiper.model.type;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Quoted;
import sandpiper.logic.type.LogicType;

/**
 * A file that is kept with a record. In plain form {@code {"name": "lease.pdf", "type":
 * "application/pdf", "size": 18231, "sha256": "…"}}; whoever gives one says its name and {@code
 * "content"}, the bytes in base64 (RFC 4648). Without content it is the file that is there already.
 * As text it is {@code lease.pdf; type=application/pdf; size=18231; sha256=…}, or with its bytes a
 * data URL (RFC 2397).
 *
 * @param accepts media types that are taken, also all of a kind as {@code image/*}; empty for any
 * @param largest bytes it may have
 */
public record FileType(List<String> accepts, long largest) implements FieldType {
    public static final String NAME = "name";
    public static final String TYPE = "type";
    public static final String SIZE = "size";
    public static final String SHA256 = "sha256";

    /** The bytes: base64 in text, or as they are from within. */
    public static final String CONTENT = "content";

    /** Bytes a file may have when the definition does not say. */
    public static final long USUAL_LARGEST = 3_000_000;

    /** Most bytes a definition may allow. */
    public static final long MOST = 200_000_000;

    private static final Set<String> MEMBERS = Set.of(NAME, TYPE, SIZE, SHA256, CONTENT);
    private static final int LONGEST_NAME = 255;
    private static final Pattern DIGEST = Pattern.compile("[0-9a-f]{64}");

    public FileType {
        accepts = List.copyOf(accepts);
    }

    /**
     * Learns what media types there are, in the background. Whoever reads a file before waits for
     * it; who has no files needs none of it.
     */
    public static void prepare() {
        MediaTypes.prepare();
    }

    /**
     * What a file is called that came without a name: the stem, with the ending its type usually
     * has.
     *
     * @param type as the sender says, or {@code null} when the bytes have to tell
     */
    public static String nameOf(String stem, @Nullable String type, FileBytes bytes) {
        return stem + MediaTypes.ending(type == null ? MediaTypes.of(bytes) : type);
    }

    @Override
    public TypeKeyword keyword() {
        return TypeKeyword.FILE;
    }

    @Override
    public LogicType logicType() {
        var entries = new LinkedHashMap<String, LogicType>();
        entries.put(NAME, LogicType.Simple.TEXT);
        entries.put(TYPE, LogicType.Simple.TEXT);
        entries.put(SIZE, LogicType.Simple.NUMBER);
        entries.put(SHA256, LogicType.Simple.TEXT);
        return new LogicType.ContextOf(entries);
    }

    @Override
    public ParsedValue read(Object plain) {
        if (!(plain instanceof Map<?, ?> map)) {
            return ParsedValue.wrongType(
                    "must be a file, as in {\"name\": \"lease.pdf\", \"content\": \"JVBERi0=\"},"
                            + " but was "
                            + TextType.shown(plain));
        }
        for (var member : map.keySet()) {
            if (!MEMBERS.contains(String.valueOf(member))) {
                return ParsedValue.wrongType(
                        "has name, type, size, sha256 and content, but not "
                                + Quoted.of(String.valueOf(member)));
            }
        }
        if (!(map.get(NAME) instanceof String name)) {
            return ParsedValue.wrongType("needs a name, as in {\"name\": \"lease.pdf\"}");
        }
        var type = map.get(TYPE);
        if (type != null && !(type instanceof String)) {
            return ParsedValue.wrongType("must have a type in text, as in application/pdf");
        }
        var content = map.get(CONTENT);
        if (content == null) {
            return withoutBytes(name, (String) type, map);
        }
        var bytes = bytes(content);
        if (bytes == null) {
            return ParsedValue.wrongType("must have its content in base64");
        }
        boolean whole =
                (map.get(SIZE) == null || isSize(map.get(SIZE), bytes.size()))
                        && (map.get(SHA256) == null || bytes.sha256().equals(map.get(SHA256)));
        return whole
                ? withBytes(name, (String) type, bytes)
                : new ParsedValue.Refused(
                        ValueCode.BAD_FILE,
                        "has other content than its size and sha256 say; it has %,d bytes"
                                .formatted(bytes.size()));
    }

    private static boolean isSize(@Nullable Object said, long size) {
        return said instanceof Long number && number == size;
    }

    /** Base64 with either alphabet, or bytes as they are. */
    private static @Nullable FileBytes bytes(Object content) {
        if (content instanceof FileBytes bytes) {
            return bytes;
        }
        if (!(content instanceof String text)) {
            return null;
        }
        try {
            return FileBytes.ofBase64(text);
        } catch (IllegalArgumentException _) {
            return null;
        }
    }

    private ParsedValue withBytes(String name, @Nullable String type, FileBytes bytes) {
        if (bytes.size() == 0) {
            return new ParsedValue.Refused(
                    ValueCode.BAD_FILE, "is empty: it has no bytes; leave it out instead");
        }
        if (bytes.size() > largest) {
            return new ParsedValue.Refused(
                    ValueCode.TOO_LONG,
                    "may have %,d bytes, but %s has %,d"
                            .formatted(largest, Quoted.of(name), bytes.size()));
        }
        var said = type == null ? MediaTypes.of(bytes) : type;
        var refused = refused(name, said);
        if (refused != null) {
            return refused;
        }
        return MediaTypes.canBe(bytes, said)
                ? ParsedValue.taken(new KeptFile(name, said, bytes.size(), bytes.sha256(), bytes))
                : new ParsedValue.Refused(
                        ValueCode.BAD_FILE,
                        "is said to be %s, but by its content %s is %s"
                                .formatted(said, Quoted.of(name), MediaTypes.of(bytes)));
    }

    private ParsedValue withoutBytes(String name, @Nullable String type, Map<?, ?> map) {
        if (type == null
                || !(map.get(SIZE) instanceof Long size)
                || !(map.get(SHA256) instanceof String sha256)
                || !DIGEST.matcher(sha256).matches()) {
            return ParsedValue.wrongType(
                    "needs its content in base64, or name, type, size and sha256 as they were"
                            + " read");
        }
        var refused = refused(name, type);
        return refused == null
                ? ParsedValue.taken(new KeptFile(name, type, size, sha256, null))
                : refused;
    }

    private @Nullable ParsedValue refused(String name, String type) {
        boolean isName =
                !name.isBlank()
                        && name.length() <= LONGEST_NAME
                        && name.chars()
                                .noneMatch(c -> c == '/' || c == '\\' || Character.isISOControl(c));
        if (!isName) {
            return new ParsedValue.Refused(
                    ValueCode.BAD_FILE,
                    "must have a name of up to %d characters without slashes, but has %s"
                            .formatted(LONGEST_NAME, Quoted.of(name)));
        }
        if (!MediaTypes.isOne(type)) {
            return new ParsedValue.Refused(
                    ValueCode.BAD_FILE,
                    "must have a media type as in application/pdf, but has " + Quoted.of(type));
        }
        return accepts.isEmpty() || accepts.stream().anyMatch(one -> MediaTypes.includes(one, type))
                ? null
                : new ParsedValue.Refused(
                        ValueCode.BAD_FILE,
                        "must be %s, but %s is %s"
                                .formatted(String.join(" or ", accepts), Quoted.of(name), type));
    }

    @Override
    public ParsedValue readText(String text) {
        return FileText.read(text)
                .map(this::read)
                .orElseGet(() ->
                        ParsedValue.wrongType(
                                "must be a data URL, as in"
                                        + " data:text/plain;name=note.txt;base64,QWhveQ=="));
    }

    @Override
    public Object write(Object stored) {
        var file = (KeptFile) stored;
        var plain = new LinkedHashMap<String, Object>();
        plain.put(NAME, file.name());
        plain.put(TYPE, file.mediaType());
        plain.put(SIZE, file.size());
        plain.put(SHA256, file.sha256());
        return plain;
    }

    @Override
    public String writeText(Object stored) {
        return FileText.write((KeptFile) stored);
    }

    @Override
    public List<Column> columns() {
        return List.of(
                new Column("", Storage.TEXT),
                new Column("_name", Storage.TEXT),
                new Column("_type", Storage.TEXT),
                new Column("_size", Storage.INTEGER));
    }

    /** The digest. */
    @Override
    public Storage stores() {
        return Storage.TEXT;
    }

    @Override
    public Map<String, Object> schema() {
        var properties = new LinkedHashMap<String, Object>();
        properties.put(NAME, text("maxLength", LONGEST_NAME));
        properties.put(TYPE, text("pattern", "^[^/]+/[^/]+$"));
        properties.put(
                SIZE,
                new LinkedHashMap<>(Map.of("type", "integer", "minimum", 1, "maximum", largest)));
        properties.put(SHA256, text("pattern", "^[0-9a-f]{64}$"));
        var content = text("contentEncoding", "base64");
        content.put("writeOnly", true);
        properties.put(CONTENT, content);
        var schema = new LinkedHashMap<String, Object>();
        schema.put("type", "object");
        schema.put("properties", properties);
        schema.put("required", List.of(NAME));
        schema.put("additionalProperties", false);
        return schema;
    }

    private static Map<String, Object> text(String key, Object value) {
        var schema = new LinkedHashMap<String, Object>();
        schema.put("type", "string");
        schema.put(key, value);
        return schema;
    }

    /** What it takes, in words: {@code image/png or application/pdf, up to 3,000,000 bytes}. */
    public String taken() {
        return "%sup to %,d bytes"
                .formatted(accepts.isEmpty() ? "" : String.join(" or ", accepts) + ", ", largest);
    }

    @Override
    public Object example() {
        var example = FileExamples.of(accepts);
        var plain = new LinkedHashMap<String, Object>();
        plain.put(NAME, example.name());
        plain.put(TYPE, example.type());
        plain.put(CONTENT, example.content());
        return plain;
    }
}
