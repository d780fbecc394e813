package sandpiper.model.type;

import java.util.Arrays;
import java.util.Locale;
import java.util.regex.Pattern;
import org.apache.tika.Tika;
import org.apache.tika.mime.MediaType;
import org.apache.tika.mime.MimeTypeException;
import org.apache.tika.mime.MimeTypes;

/** Media types (RFC 6838), and whether the bytes of a file are of the one it is said to be. */
public final class MediaTypes {
    private static final String TOKEN = "[A-Za-z0-9][A-Za-z0-9!#$&^_.+-]{0,126}";
    private static final Pattern ONE =
            Pattern.compile(TOKEN + "/" + TOKEN + "(\\s*;\\s*[^\\p{Cntrl};]{1,100}){0,4}");

    /** A media type, or all of a kind as in {@code image/*}. */
    public static final Pattern RANGE = Pattern.compile(TOKEN + "/(\\*|" + TOKEN + ")");

    /** Enough of the beginning for every form that is known by it. */
    private static final int BEGINNING = 64 << 10;

    /** Known when they are first needed: there are some thousand types. */
    private static final class Known {
        static final MimeTypes TYPES = MimeTypes.getDefaultMimeTypes();
        static final Tika DETECTOR = new Tika(TYPES);
    }

    private MediaTypes() {}

    static void prepare() {
        Thread.ofVirtual().name("media-types").start(() -> Known.DETECTOR.detect(new byte[] {'%'}));
    }

    static boolean isOne(String text) {
        return ONE.matcher(text).matches();
    }

    /** Whether a range has a type in it, whatever parameters the type has. */
    static boolean includes(String range, String type) {
        var bare = bare(type);
        var wanted = range.toLowerCase(Locale.ROOT);
        return wanted.endsWith("/*")
                ? bare.startsWith(wanted.substring(0, wanted.length() - 1))
                : bare.equals(wanted);
    }

    private static String bare(String type) {
        return type.split(";", 2)[0].strip().toLowerCase(Locale.ROOT);
    }

    /** The type that bytes are of by their beginning; {@code application/octet-stream} for any. */
    static String of(FileBytes bytes) {
        return detect(bytes).toString();
    }

    /** The usual ending of names, {@code .pdf}; empty when there is none. */
    static String ending(String type) {
        try {
            return Known.TYPES.forName(bare(type)).getExtension();
        } catch (MimeTypeException _) {
            return "";
        }
    }

    private static MediaType detect(FileBytes bytes) {
        var all = bytes.array();
        var beginning = all.length <= BEGINNING ? all : Arrays.copyOf(all, BEGINNING);
        return MediaType.parse(Known.DETECTOR.detect(beginning)).getBaseType();
    }

    /**
     * Whether bytes can be of a type: by their beginning they are of it, of one it is a kind of, or
     * of a kind of it. A type that is known by no beginning is believed of bytes that are known by
     * none either.
     */
    static boolean canBe(FileBytes bytes, String type) {
        var said = MediaType.parse(bare(type));
        if (said == null) {
            return false;
        }
        var seen = detect(bytes);
        var registry = Known.TYPES.getMediaTypeRegistry();
        var plain = registry.normalize(said);
        if (seen.equals(plain) || registry.isSpecializationOf(seen, plain)) {
            return true;
        }
        // Bytes that are just bytes, or just text, may be of any type that has no beginning.
        boolean tellsNothing =
                seen.equals(MediaType.OCTET_STREAM) || seen.equals(MediaType.TEXT_PLAIN);
        return tellsNothing ? !hasBeginning(plain) : registry.isSpecializationOf(plain, seen);
    }

    /** Whether a type has a beginning of its own, so that bytes without it are not of it. */
    private static boolean hasBeginning(MediaType type) {
        try {
            return Known.TYPES.forName(type.toString()).hasMagic();
        } catch (MimeTypeException _) {
            return false;
        }
    }
}
