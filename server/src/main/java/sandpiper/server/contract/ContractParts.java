package sandpiper.server.contract;

import static sandpiper.server.contract.OpenApiContract.map;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import sandpiper.server.json.Bounds;

/** The parameters and problems that operations of a contract share; only those that are used. */
final class ContractParts {
    private static final String PARAMETERS = "#/components/parameters/";
    private static final String RESPONSES = "#/components/responses/";

    /** What can go wrong, and when. */
    enum Failing {
        BAD_REQUEST("BadRequest", "400", "The request cannot be understood."),
        UNAUTHORIZED("Unauthorized", "401", "Credentials are missing or wrong."),
        FORBIDDEN("Forbidden", "403", "The operation is not granted."),
        NOT_FOUND("NotFound", "404", "There is no such record."),
        CONFLICT("Conflict", "409", "The data as it stands does not allow this."),
        STALE("Stale", "412", "The record was changed since it was read."),
        TOO_LARGE("TooLarge", "413", "The request is too large."),
        INVALID("Invalid", "422", "The values are not right; errors say which and why."),
        VERSION_NEEDED(
                "VersionNeeded",
                "428",
                "The version that was read must be sent along as If-Match."),
        TOO_MANY("TooMany", "429", "You have called too often; Retry-After says when to go on.");

        private final String title;
        private final String status;
        private final String describe;

        Failing(String title, String status, String describe) {
            this.title = title;
            this.status = status;
            this.describe = describe;
        }
    }

    private final Set<String> used = new TreeSet<>();

    /** Points to a shared parameter. */
    Map<String, Object> parameter(String name) {
        used.add(name);
        return map("$ref", PARAMETERS + name);
    }

    /** Adds answers of things that go wrong; every call can come too often. */
    void fail(Map<String, Object> answers, Failing... failures) {
        var all = new ArrayList<>(List.of(failures));
        all.add(Failing.TOO_MANY);
        for (var failing : all) {
            used.add(failing.title);
            answers.put(failing.status, map("$ref", RESPONSES + failing.title));
        }
    }

    /** The shared parameters that were pointed to. */
    Map<String, Object> parameters() {
        var all = new LinkedHashMap<String, Object>();
        all.put(
                "limit",
                inQuery(
                        "limit",
                        "Records of a page.",
                        map(
                                "type",
                                "integer",
                                "minimum",
                                1L,
                                "maximum",
                                (long) Bounds.now().page(),
                                "default",
                                (long) Bounds.now().usualPage())));
        all.put("after", inQuery("after", "The cursor `next` of the page before.", text()));
        all.put(
                "fields",
                inQuery(
                        "fields",
                        "The fields to answer with, with commas between them. When absent, a query"
                                + " answers with what it usually shows; fields and line items of a"
                                + " single record can be asked for as well.",
                        text()));
        all.put(
                "count",
                inQuery(
                        "count",
                        "Whether to count all that match.",
                        map("type", "boolean", "default", false)));
        all.put("ifMatch", ifMatch());
        var needed = ifMatch();
        needed.put("required", true);
        all.put("ifMatchNeeded", needed);
        all.put("ifNoneMatch", inHeader("If-None-Match", "The ETag of what you have.", text()));
        all.put(
                "idempotencyKey",
                inHeader(
                        "Idempotency-Key",
                        "A text of your choice; a request that repeats it within a day is done once"
                                + " and answered alike.",
                        map("type", "string", "maxLength", 255L)));
        all.keySet().retainAll(used);
        return all;
    }

    private static Map<String, Object> ifMatch() {
        return inHeader(
                "If-Match",
                "The ETag you read; the change is refused when the record has changed since.",
                text());
    }

    private static Map<String, Object> text() {
        return map("type", "string");
    }

    private static Map<String, Object> inQuery(
            String name, String describe, Map<String, Object> schema) {
        return map("name", name, "in", "query", "description", describe, "schema", schema);
    }

    private static Map<String, Object> inHeader(
            String name, String describe, Map<String, Object> schema) {
        return map("name", name, "in", "header", "description", describe, "schema", schema);
    }

    /** The shared answers that were pointed to; {@code problem} is the schema they have. */
    Map<String, Object> responses(String problem) {
        var responses = new LinkedHashMap<String, Object>();
        for (var failing : Failing.values()) {
            if (used.contains(failing.title)) {
                responses.put(failing.title, response(failing, problem));
            }
        }
        return responses;
    }

    private static Map<String, Object> response(Failing failing, String problem) {
        var response =
                map(
                        "description",
                        failing.describe,
                        "content",
                        map(
                                "application/problem+json",
                                map("schema", map("$ref", "#/components/schemas/" + problem))));
        if (failing == Failing.TOO_MANY) {
            response.put(
                    "headers",
                    map(
                            "Retry-After",
                            map(
                                    "description",
                                    "Seconds until the next call can be made.",
                                    "schema",
                                    map("type", "integer", "format", "int32"))));
        }
        return response;
    }
}
