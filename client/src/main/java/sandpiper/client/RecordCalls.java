package sandpiper.client;

import static sandpiper.client.ManageClient.escape;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/** Records of the live release, by the name of their object and their key or id; functions. */
public final class RecordCalls {
    private static final String CONFIRM = "Sandpiper-Confirm";
    private static final String IN_USE = "in-use";

    /** How the service says that a record in use is retired all the same. */
    public static final String USED_CONFIRMATION = CONFIRM + ": " + IN_USE;

    private final ManageClient http;

    RecordCalls(ManageClient http) {
        this.http = http;
    }

    /**
     * Which records are wanted; what is {@code null} is as usual.
     *
     * @param retired {@code with} or {@code only}
     * @param after the cursor of the page before
     */
    public record Query(
            int limit,
            boolean count,
            @Nullable String filter,
            @Nullable String search,
            @Nullable String sort,
            @Nullable String retired,
            @Nullable String after) {
        private String written() {
            var query = new StringBuilder("?limit=").append(limit);
            append(query, "count", count ? "true" : null);
            append(query, "filter", filter);
            append(query, "search", search);
            append(query, "sort", sort);
            append(query, "retired", retired);
            append(query, "after", after);
            return query.toString();
        }

        private static void append(StringBuilder query, String name, @Nullable String value) {
            if (value != null) {
                query.append('&').append(name).append('=').append(escape(value));
            }
        }
    }

    /** Some records; {@code next} is {@code null} on the last page. */
    public record Page(List<Stored> records, @Nullable Long total, @Nullable String next) {}

    /** A record with all its values. */
    public record Stored(String id, JsonNode values, boolean retired) {}

    /** What was changed of a record, newest first. */
    public record History(List<Entry> entries) {}

    /** One change of a record. */
    public record Entry(
            long version,
            String at,
            String by,
            String via,
            String operation,
            List<ValueChange> changes) {}

    /** A value before and after; {@code null} for none. */
    public record ValueChange(String path, @Nullable JsonNode before, @Nullable JsonNode after) {}

    /** What became of each row, in their order. */
    public record Imported(List<ImportedRow> results) {}

    /** {@code created}, {@code changed} or {@code same}; else there is a problem. */
    public record ImportedRow(String status, @Nullable Refusal problem) {}

    /** Why a row was refused. */
    public record Refusal(String detail, List<Wrong> errors) {}

    /** One thing that is wrong, with a JSON Pointer to it. */
    public record Wrong(String pointer, String code, String message) {}

    /** What a function gave back; {@code returns} is false where it gives nothing at all. */
    public record Called(boolean returns, @Nullable JsonNode result, List<String> warnings) {}

    /** What became of a function on each of several records. */
    public record CalledEach(long failed, List<CalledOn> results) {}

    /** What became of it on one; there is a problem when it is not done. */
    public record CalledOn(
            String key, boolean done, @Nullable JsonNode result, @Nullable String problem) {}

    @JsonInclude(JsonInclude.Include.NON_NULL)
    private record FunctionCall(@Nullable String key, Map<String, Object> arguments) {}

    private static String path(String object) {
        return "/manage/v1/records/" + escape(object);
    }

    private static String path(String object, String key) {
        return path(object) + "/" + escape(key);
    }

    public Answer<Page> find(String object, Query query) {
        return http.read(path(object) + query.written(), Page.class);
    }

    public Answer<Stored> read(String object, String key) {
        return http.read(path(object, key), Stored.class);
    }

    /**
     * What is in a file of a record.
     *
     * @param place the field; for a line item {@code receipts/2/scan}: the part, the line, the
     *     field
     */
    public byte[] file(String object, String key, String place) {
        return http.bytes(path(object, key) + "/files/" + place);
    }

    public Answer<History> history(String object, String key) {
        return http.read(path(object, key) + "/history", History.class);
    }

    public Stored create(String object, Map<String, ?> values) {
        return http.send("POST", path(object), values, Stored.class).value();
    }

    /** Changes the given values, provided the record has a version when one is given. */
    public Stored change(String object, String key, Map<String, ?> values, @Nullable Long version) {
        return ManageClient.typed(http.patch(path(object, key), values, version), Stored.class)
                .value();
    }

    /** Takes a record out of use; one that others refer to only when {@code used} says so. */
    public void retire(String object, String key, boolean used) {
        http.delete(path(object, key), used ? Map.of(CONFIRM, IN_USE) : Map.of());
    }

    /** Takes a retired record back into use. */
    public void restore(String object, String key) {
        http.post(path(object, key) + "/restore", Map.of());
    }

    public Stored transition(String object, String key, String transition) {
        return http.send(
                        "POST",
                        path(object, key) + "/transitions/" + escape(transition),
                        Map.of(),
                        Stored.class)
                .value();
    }

    /** Creates or changes by their keys; {@code whole} takes over what only the service sets. */
    public Imported bringIn(String object, List<? extends Map<String, ?>> rows, boolean whole) {
        return http.send(
                        "POST",
                        path(object) + "/batch",
                        Map.of("items", rows, "whole", whole),
                        Imported.class)
                .value();
    }

    private static String function(String object, String name) {
        return "/manage/v1/functions/%s/%s".formatted(escape(object), escape(name));
    }

    /** Calls a function, on a record unless {@code key} is {@code null}. */
    public Answer<Called> call(
            String object, String function, @Nullable String key, Map<String, Object> arguments) {
        return http.send(
                "POST", function(object, function), new FunctionCall(key, arguments), Called.class);
    }

    /** Calls a function on several records, on each by itself. */
    public Answer<CalledEach> callEach(
            String object, String function, List<String> keys, Map<String, Object> arguments) {
        return http.send(
                "POST",
                function(object, function) + "/each",
                Map.of("keys", keys, "arguments", arguments),
                CalledEach.class);
    }
}
