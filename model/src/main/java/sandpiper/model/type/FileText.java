package sandpiper.model.type;

import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * Files as text: what a file is called and known by, {@code lease.pdf; type=application/pdf;
 * size=18231; sha256=…}, or with its bytes a data URL (RFC 2397), {@code
 * data:application/pdf;name=lease.pdf;base64,…}.
 */
final class FileText {
    /** A name may have characters that some take for the end of a line. */
    private static final Pattern WRITTEN =
            Pattern.compile(
                    "(.+); type=(.+); size=(\\d{1,12}); sha256=([0-9a-f]{64})", Pattern.DOTALL);

    private static final String URL = "data:";
    private static final String BASE64 = ";base64";
    private static final String NAME = ";name=";

    /** What a file is called that comes without a name. */
    private static final String UNNAMED = "file";

    private FileText() {}

    static String write(KeptFile file) {
        return "%s; type=%s; size=%d; sha256=%s"
                .formatted(file.name(), file.mediaType(), file.size(), file.sha256());
    }

    /** The plain form of what a text says; nothing when it is of neither form. */
    static Optional<Map<String, Object>> read(String text) {
        var written = WRITTEN.matcher(text);
        if (written.matches()) {
            var plain = new LinkedHashMap<String, Object>();
            plain.put(FileType.NAME, written.group(1));
            plain.put(FileType.TYPE, written.group(2));
            plain.put(FileType.SIZE, Long.valueOf(written.group(3)));
            plain.put(FileType.SHA256, written.group(4));
            return Optional.of(plain);
        }
        int comma = text.indexOf(',');
        return text.startsWith(URL) && comma > 0 && text.substring(0, comma).endsWith(BASE64)
                ? Optional.of(
                        dataUrl(
                                text.substring(URL.length(), comma - BASE64.length()),
                                text.substring(comma + 1).strip()))
                : Optional.empty();
    }

    private static Map<String, Object> dataUrl(String head, String content) {
        int name = head.indexOf(NAME);
        var plain = new LinkedHashMap<String, Object>();
        plain.put(
                FileType.NAME, name < 0 ? UNNAMED : decoded(head.substring(name + NAME.length())));
        var type = name < 0 ? head : head.substring(0, name);
        if (!type.isEmpty()) {
            plain.put(FileType.TYPE, type);
        }
        plain.put(FileType.CONTENT, content);
        return plain;
    }

    private static String decoded(String name) {
        try {
            // A plus is a plus here, unlike in forms.
            return URLDecoder.decode(name.replace("+", "%2B"), StandardCharsets.UTF_8);
        } catch (IllegalArgumentException _) {
            return name;
        }
    }
}
