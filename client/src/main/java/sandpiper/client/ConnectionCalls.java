package sandpiper.client;

import static sandpiper.client.ManageClient.escape;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/** Outside services whose codes and answers are used. */
public final class ConnectionCalls {
    private static final String PATH = "/manage/v1/connections";
    private static final String REACHES = PATH + "/reaches/";

    private final ManageClient http;

    ConnectionCalls(ManageClient http) {
        this.http = http;
    }

    /** Codes with labels that a connection gives. */
    public record Lookup(String name, String call) {}

    /** What a call takes. */
    public record CallParameter(String name) {}

    /** A question that steps ask. */
    public record Question(String name, String call, List<CallParameter> parameters) {}

    /** Where a service is reached, and by what the instance is known there. */
    public record Reach(String setting, String address, String scheme) {}

    /** One connection; {@code reach} is {@code null} when nobody has said where it is reached. */
    public record ConnectionEntry(
            String name,
            String label,
            String setting,
            List<Lookup> lookups,
            List<Question> calls,
            boolean live,
            boolean leftAlone,
            @Nullable Reach reach) {}

    /** How a service is reached from now on; what is {@code null} is left out, or stays. */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record ReachWanted(
            String address,
            String scheme,
            @Nullable String user,
            @Nullable String secret,
            @Nullable String tokenAddress,
            @Nullable String scope) {}

    /** What came of a try; {@code message} says why there is no answer. */
    public record Tried(long millis, @Nullable JsonNode answer, @Nullable String message) {}

    /** The part of a document that is used, and how it differs from the one there is. */
    public record Excerpt(String text, List<String> differences) {}

    public Answer<List<ConnectionEntry>> all() {
        return http.list(PATH, ConnectionEntry.class);
    }

    /** Says how the service of a setting is reached. */
    public void reach(String setting, ReachWanted wanted) {
        http.put(REACHES + escape(setting), wanted);
    }

    /** Forgets that. */
    public void forget(String setting) {
        http.delete(REACHES + escape(setting));
    }

    /** Asks what a connection offers, with values by the names of its parameters. */
    public Answer<Tried> tryOut(String name, String what, Map<String, @Nullable Object> values) {
        return http.send(
                "POST",
                "%s/%s/%s/try".formatted(PATH, escape(name), escape(what)),
                Map.of("values", values),
                Tried.class);
    }

    /** Compares a document with that of a connection, and cuts it down to what is used. */
    public Answer<Excerpt> excerpt(String connection, byte[] document) {
        return http.upload(
                "/manage/v1/documents/excerpt?connection=" + escape(connection),
                "text/plain",
                document,
                Excerpt.class);
    }
}
