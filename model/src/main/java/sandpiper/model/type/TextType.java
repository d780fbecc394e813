package sandpiper.model.type;

import com.google.re2j.Pattern;
import java.net.URI;
import java.net.URISyntaxException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.type.LogicType;

/**
 * Text of some form: plain, an email address, a phone number or a web address.
 *
 * @param length most code points
 * @param pattern what the whole text must match, or {@code null}; RE2, so it ends in linear time
 *     whatever the text
 * @param multiline whether line breaks are allowed
 * @param languages the languages of a localised text, the main one first; empty when it is not
 *     localised
 */
public record TextType(
        TypeKeyword keyword,
        int length,
        @Nullable Pattern pattern,
        boolean multiline,
        List<String> languages)
        implements FieldType {
    /** Characters of a text whose definition says nothing. */
    public static final int USUAL_LENGTH = 200;

    /** Characters of a text of several lines whose definition says nothing. */
    public static final int USUAL_MULTILINE_LENGTH = 10_000;

    // One at sign, something on both sides, a dot in the domain: strict forms refuse real
    // addresses.
    private static final Pattern EMAIL =
            Pattern.compile("[^\\s@<>\"]+@[^\\s@<>\"]+\\.[^\\s@<>\".]+");
    private static final Pattern PHONE = Pattern.compile("\\+?[0-9][0-9 ()./-]{2,}");

    public TextType {
        languages = List.copyOf(languages);
    }

    /** A short text of one line. */
    public static TextType plain() {
        return new TextType(TypeKeyword.TEXT, USUAL_LENGTH, null, false, List.of());
    }

    /** An email address, at most the 254 characters RFC 5321 allows. */
    public static TextType email() {
        return new TextType(TypeKeyword.EMAIL, 254, null, false, List.of());
    }

    /** The same of at most this many characters. */
    public static TextType email(int most) {
        return new TextType(TypeKeyword.EMAIL, most, null, false, List.of());
    }

    /** A phone number with digits, spaces and the usual signs. */
    public static TextType phone() {
        return new TextType(TypeKeyword.PHONE, 40, null, false, List.of());
    }

    /** The same of at most this many characters. */
    public static TextType phone(int most) {
        return new TextType(TypeKeyword.PHONE, most, null, false, List.of());
    }

    /** An http or https address. */
    public static TextType webAddress() {
        return new TextType(TypeKeyword.WEB_ADDRESS, 2000, null, false, List.of());
    }

    /** The same of at most this many characters. */
    public static TextType webAddress(int most) {
        return new TextType(TypeKeyword.WEB_ADDRESS, most, null, false, List.of());
    }

    /** Whether values are {@link Localised}. */
    public boolean isLocalised() {
        return !languages.isEmpty();
    }

    @Override
    public LogicType logicType() {
        return LogicType.Simple.TEXT;
    }

    @Override
    public ParsedValue read(Object plain) {
        if (isLocalised()) {
            return readLocalised(plain);
        }
        return plain instanceof String text
                ? readOne(text)
                : ParsedValue.wrongType("must be text, but was " + shown(plain));
    }

    private ParsedValue readLocalised(Object plain) {
        if (plain instanceof String text) {
            return readLocalised(Map.of(languages.getFirst(), text));
        }
        if (!(plain instanceof Map<?, ?> texts)) {
            return ParsedValue.wrongType(
                    "must be text, or texts by language (%s), but was %s"
                            .formatted(String.join(", ", languages), shown(plain)));
        }
        for (var language : texts.keySet()) {
            if (!languages.contains(String.valueOf(language))) {
                var nearest = Nearest.to(String.valueOf(language), languages);
                return new ParsedValue.Refused(
                        ValueCode.UNKNOWN_LANGUAGE,
                        "has no language %s; there is %s"
                                .formatted(
                                        Quoted.of(String.valueOf(language)),
                                        nearest.orElse(String.join(", ", languages))));
            }
        }
        var read = new ArrayList<@Nullable String>();
        for (var language : languages) {
            var text = texts.get(language);
            if (text == null || (text instanceof String blank && blank.isBlank())) {
                read.add(null);
                continue;
            }
            if (!(text instanceof String one)) {
                return ParsedValue.wrongType(
                        "must have text in %s, but was %s".formatted(language, shown(text)));
            }
            switch (readOne(one)) {
                case ParsedValue.Taken(var value) -> read.add((String) value);
                case ParsedValue.Refused refused -> {
                    return new ParsedValue.Refused(
                            refused.code(), "(%s) %s".formatted(language, refused.message()));
                }
            }
        }
        return ParsedValue.taken(new Localised(read));
    }

    private ParsedValue readOne(String text) {
        int count = text.codePointCount(0, text.length());
        if (count > length) {
            return new ParsedValue.Refused(
                    ValueCode.TOO_LONG,
                    "may have %,d characters, but has %,d".formatted(length, count));
        }
        var unprintable =
                text.codePoints()
                        .filter(c -> isUnprintable(c) && !(multiline && (c == '\n' || c == '\r')))
                        .findFirst();
        if (unprintable.isPresent()) {
            int c = unprintable.getAsInt();
            return new ParsedValue.Refused(
                    ValueCode.BAD_TEXT,
                    c == '\n' || c == '\r'
                            ? "must be a single line"
                            : "has a character that is not text (U+%04X)".formatted(c));
        }
        return switch (keyword) {
            case EMAIL -> matching(EMAIL, text, "must be an email address, as in ann@example.org");
            case PHONE -> matching(PHONE, text, "must be a phone number, as in +49 4321 5550");
            case WEB_ADDRESS ->
                    isWebAddress(text)
                            ? ParsedValue.taken(text)
                            : new ParsedValue.Refused(
                                    ValueCode.PATTERN,
                                    "must be a web address, as in https://example.org, but was "
                                            + Quoted.of(text));
            default ->
                    pattern == null
                            ? ParsedValue.taken(text)
                            : matching(pattern, text, "must have the form " + pattern.pattern());
        };
    }

    private static boolean isUnprintable(int c) {
        int type = Character.getType(c);
        return (type == Character.CONTROL && c != '\t') || type == Character.SURROGATE;
    }

    private static ParsedValue matching(Pattern pattern, String text, String rule) {
        return pattern.matches(text)
                ? ParsedValue.taken(text)
                : new ParsedValue.Refused(
                        ValueCode.PATTERN, "%s, but was %s".formatted(rule, Quoted.of(text)));
    }

    private static boolean isWebAddress(String text) {
        try {
            var uri = new URI(text);
            return ("http".equals(uri.getScheme()) || "https".equals(uri.getScheme()))
                    && uri.getHost() != null;
        } catch (URISyntaxException _) {
            return false;
        }
    }

    @Override
    public Object write(Object stored) {
        if (!(stored instanceof Localised localised)) {
            return stored;
        }
        var texts = new LinkedHashMap<String, Object>();
        for (int i = 0; i < languages.size(); i++) {
            var text = localised.text(i);
            if (text != null) {
                texts.put(languages.get(i), text);
            }
        }
        return texts;
    }

    @Override
    public String writeText(Object stored) {
        if (!(stored instanceof Localised localised)) {
            return (String) stored;
        }
        var main = localised.text(0);
        return main == null ? "" : main;
    }

    @Override
    public List<Column> columns() {
        if (!isLocalised()) {
            return List.of(new Column("", Storage.TEXT));
        }
        var columns = new ArrayList<Column>();
        for (int i = 0; i < languages.size(); i++) {
            columns.add(new Column(i == 0 ? "" : "_" + languages.get(i), Storage.TEXT));
        }
        return columns;
    }

    @Override
    public Storage stores() {
        return Storage.TEXT;
    }

    @Override
    public Map<String, Object> schema() {
        var one = new LinkedHashMap<String, Object>();
        one.put("type", "string");
        one.put("maxLength", length);
        switch (keyword) {
            case EMAIL -> one.put("format", "email");
            case WEB_ADDRESS -> one.put("format", "uri");
            default -> {
                if (pattern != null) {
                    one.put("pattern", "^(?:" + pattern.pattern() + ")$");
                }
            }
        }
        if (!isLocalised()) {
            return one;
        }
        var properties = new LinkedHashMap<String, Object>();
        languages.forEach(language -> properties.put(language, one));
        var schema = new LinkedHashMap<String, Object>();
        schema.put("type", "object");
        schema.put("properties", properties);
        schema.put("additionalProperties", false);
        return schema;
    }

    @Override
    public Object example() {
        Object one =
                switch (keyword) {
                    case EMAIL -> "harbour@example.org";
                    case PHONE -> "+49 4321 5550";
                    case WEB_ADDRESS -> "https://example.org";
                    default -> "Text".substring(0, Math.min(4, length));
                };
        return isLocalised() ? Map.of(languages.getFirst(), one) : one;
    }

    static String shown(Object plain) {
        return switch (plain) {
            case String text -> Quoted.of(text);
            case Boolean flag -> flag.toString();
            case Number number -> number.toString();
            case List<?> _ -> "a list";
            case Map<?, ?> _ -> "an object";
            default -> "something else";
        };
    }
}
