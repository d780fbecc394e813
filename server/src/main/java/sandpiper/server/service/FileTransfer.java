package sandpiper.server.service;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import sandpiper.model.type.FileBytes;
import sandpiper.model.type.FileType;
import sandpiper.model.type.KeptFile;

/**
 * Files as bodies of requests and answers: what they are called stands in {@code
 * Content-Disposition} (RFC 6266), what they are in {@code Content-Type}.
 */
public final class FileTransfer {
    private FileTransfer() {}

    /**
     * What goes with the bytes of a file. No browser shows one as a page of this service: it may
     * have been made to act in the name of who looks at it.
     */
    public static Map<String, String> headers(KeptFile file) {
        var headers = new LinkedHashMap<String, String>();
        headers.put(HttpHeaders.CONTENT_TYPE, file.mediaType());
        headers.put(
                HttpHeaders.CONTENT_DISPOSITION,
                ContentDisposition.attachment()
                        .filename(file.name(), StandardCharsets.UTF_8)
                        .build()
                        .toString());
        headers.put(HttpHeaders.ETAG, tag(file));
        headers.put(
                "Repr-Digest",
                "sha-256=:%s:"
                        .formatted(
                                Base64.getEncoder()
                                        .encodeToString(HexFormat.of().parseHex(file.sha256()))));
        headers.put(HttpHeaders.CACHE_CONTROL, "private, no-cache");
        headers.put("Content-Security-Policy", "default-src 'none'; sandbox");
        headers.put("X-Content-Type-Options", "nosniff");
        return headers;
    }

    /** The entity tag of its bytes. */
    public static String tag(KeptFile file) {
        return '"' + file.sha256() + '"';
    }

    /** Whether what the caller has is still right. */
    public static boolean isFresh(@Nullable String ifNoneMatch, KeptFile file) {
        return ifNoneMatch != null
                && (ifNoneMatch.strip().equals("*") || ifNoneMatch.contains(tag(file)));
    }

    /**
     * The plain form of a file that is the body of a request.
     *
     * @param stem begins its name when the sender does not say one
     */
    public static Map<String, Object> read(HttpServletRequest request, byte[] body, String stem) {
        return read(
                request.getHeader(HttpHeaders.CONTENT_DISPOSITION),
                request.getContentType(),
                body,
                stem);
    }

    /**
     * The same from the values of the headers. Who says that it is just bytes does not know what it
     * is: then its beginning tells.
     */
    public static Map<String, Object> read(
            @Nullable String disposition, @Nullable String type, byte[] body, String stem) {
        return plain(disposition, type, new FileBytes(body), stem);
    }

    /** The same of bytes that came in another form. */
    public static Map<String, Object> plain(
            @Nullable String disposition, @Nullable String type, FileBytes bytes, String stem) {
        var name = disposition == null ? null : ContentDisposition.parse(disposition).getFilename();
        boolean known = type != null && !type.equals(MediaType.APPLICATION_OCTET_STREAM_VALUE);
        var plain = new LinkedHashMap<String, Object>();
        plain.put(
                FileType.NAME,
                name == null || name.isBlank()
                        ? FileType.nameOf(stem, known ? type : null, bytes)
                        : name);
        if (known) {
            plain.put(FileType.TYPE, type);
        }
        plain.put(FileType.CONTENT, bytes);
        return plain;
    }
}
