package sandpiper.bench.load;

import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.Base64;

/**
 * One request, ready for the wire.
 *
 * @param bytes head and body
 */
public record Call(byte[] bytes) {
    private static final String CLIENT = "booking-site:berths-for-all";

    /** Reads what is at an address. */
    public static Call get(String address) {
        return of("GET", address, "", "", CLIENT);
    }

    /** Sends JSON to an address. */
    public static Call post(String address, String body) {
        return of("POST", address, body, "application/json", CLIENT);
    }

    /** Sends a body of a media type to an address. */
    public static Call post(String address, String body, String type) {
        return of("POST", address, body, type, CLIENT);
    }

    /** Sends JSON as somebody, given as name and password with a colon between. */
    public static Call postAs(String who, String address, String body) {
        return of("POST", address, body, "application/json", who);
    }

    private static Call of(String method, String address, String body, String type, String who) {
        var at = URI.create(address);
        var path = at.getRawPath() + (at.getRawQuery() == null ? "" : "?" + at.getRawQuery());
        var content = body.getBytes(StandardCharsets.UTF_8);
        var head = new StringBuilder();
        head.append(method).append(' ').append(path).append(" HTTP/1.1\r\n");
        head.append("Host: ").append(at.getRawAuthority()).append("\r\n");
        head.append("Authorization: Basic ")
                .append(Base64.getEncoder().encodeToString(who.getBytes(StandardCharsets.UTF_8)))
                .append("\r\n");
        if (content.length > 0) {
            head.append("Content-Type: ").append(type).append("\r\n");
            head.append("Content-Length: ").append(content.length).append("\r\n");
        }
        var start = head.append("\r\n").toString().getBytes(StandardCharsets.ISO_8859_1);
        var bytes = new byte[start.length + content.length];
        System.arraycopy(start, 0, bytes, 0, start.length);
        System.arraycopy(content, 0, bytes, start.length, content.length);
        return new Call(bytes);
    }
}
