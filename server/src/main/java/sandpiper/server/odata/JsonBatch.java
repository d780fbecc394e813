package sandpiper.server.odata;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.commons.api.http.HttpMethod;
import org.apache.olingo.server.api.ODataRequest;
import org.apache.olingo.server.api.ODataResponse;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.logic.Quoted;
import sandpiper.server.json.JsonReader;
import sandpiper.server.json.JsonText;
import sandpiper.server.odata.request.Refusals;

/**
 * Several requests in one, in the JSON form (OData JSON Format 4.01, 19). Requests of an atomicity
 * group, which stand together, are done or left as one.
 */
public final class JsonBatch {
    private final String root;
    private final Function<ODataRequest, ODataResponse> handler;
    private final ChangeRun run;
    private final Batches batches;
    private final Set<String> failed = new HashSet<>();
    private final Set<String> ids = new HashSet<>();
    private final List<Map<String, @Nullable Object>> responses = new ArrayList<>();

    /** Where what a request made is, from the root of the service, by the request's id. */
    private final Map<String, String> made = new HashMap<>();

    JsonBatch(
            String root,
            Function<ODataRequest, ODataResponse> handler,
            ChangeRun run,
            Batches batches) {
        this.root = root;
        this.handler = handler;
        this.run = run;
        this.batches = batches;
    }

    /** One request of the batch. */
    private record Part(
            String id, @Nullable String group, List<String> dependsOn, ODataRequest request) {}

    /**
     * The answer to a batch; {@code goesOn} says that a failure does not stop what is behind it.
     */
    Map<String, @Nullable Object> run(Map<String, @Nullable Object> body, boolean goesOn) {
        if (!(body.get("requests") instanceof List<?> list)) {
            throw Refusals.bad("A batch has a list \"requests\".");
        }
        Batches.checkSize(run.exchange(), list.size());
        var parts = new ArrayList<Part>();
        for (var one : list) {
            var part = part(one);
            if (!ids.add(part.id())) {
                throw Refusals.bad(
                        "Two requests of the batch have the id %s."
                                .formatted(Quoted.of(part.id())));
            }
            parts.add(part);
        }
        checkGroups(parts);
        int at = 0;
        while (at < parts.size() && (goesOn || failed.isEmpty())) {
            int end = endOfGroup(parts, at);
            if (parts.get(at).group() == null) {
                alone(parts.get(at));
            } else {
                together(parts.subList(at, end));
            }
            at = end;
        }
        var answer = new LinkedHashMap<String, @Nullable Object>();
        answer.put("responses", responses);
        return answer;
    }

    private static void checkGroups(List<Part> parts) {
        var ended = new HashSet<String>();
        String current = null;
        for (var part : parts) {
            var group = part.group();
            if (group == null || !group.equals(current)) {
                if (current != null) {
                    ended.add(current);
                }
                if (group != null && ended.contains(group)) {
                    throw Refusals.bad(
                            "The requests of atomicity group %s do not stand together."
                                    .formatted(Quoted.of(group)));
                }
                current = group;
            }
        }
    }

    private static int endOfGroup(List<Part> parts, int at) {
        int end = at + 1;
        var group = parts.get(at).group();
        while (group != null && end < parts.size() && group.equals(parts.get(end).group())) {
            end++;
        }
        return end;
    }

    private void alone(Part part) {
        if (!isReady(part)) {
            return;
        }
        add(part, handle(part));
    }

    /** Does what is asked for, of the entity that was made before when the address means one. */
    private ODataResponse handle(Part part) {
        var request = part.request();
        var path = request.getRawODataPath();
        if (path.startsWith("/$")) {
            int end = path.indexOf('/', 2);
            var id = end < 0 ? path.substring(2) : path.substring(2, end);
            var address = made.get(id);
            if (address != null) {
                request.setRawODataPath(address + (end < 0 ? "" : path.substring(end)));
                request.setRawRequestUri(root + request.getRawODataPath());
            } else if (ids.contains(id)) {
                throw Refusals.notOffered(
                        "What request %s makes has no address before it is made; it must stand"
                                        .formatted(Quoted.of(id))
                                + " before, and have a key of its own.");
            }
        }
        var answer = handler.apply(request);
        var location = answer.getHeader(HttpHeader.LOCATION);
        if (location != null && location.startsWith(root)) {
            made.put(part.id(), location.substring(root.length()));
        }
        return answer;
    }

    /** Whether everything a request depends on went well; otherwise it is answered here. */
    private boolean isReady(Part part) {
        var missing = part.dependsOn().stream().filter(failed::contains).findFirst();
        missing.ifPresent(id -> {
            var response = new ODataResponse();
            new ODataErrors()
                    .write(
                            response,
                            sandpiper.server.problem.Problem.of(
                                    HttpStatus.FAILED_DEPENDENCY,
                                    "Request %s, which this one depends on, failed."
                                            .formatted(Quoted.of(id)),
                                    List.of()),
                            null);
            add(part, response);
        });
        return missing.isEmpty();
    }

    private void together(List<Part> parts) {
        if (!parts.stream().allMatch(this::isReady)) {
            return;
        }
        var changes = new ArrayList<Change>();
        run.gather();
        try {
            for (var part : parts) {
                if (part.request().getMethod() == HttpMethod.GET) {
                    throw Refusals.bad(
                            "Request %s reads; an atomicity group holds changes."
                                    .formatted(Quoted.of(part.id())));
                }
                var answer = handle(part);
                if (answer.getStatusCode() >= 400) {
                    refuse(parts, part, answer);
                    return;
                }
            }
        } finally {
            changes.addAll(run.gathered());
        }
        var answers = batches.answers(parts.stream().map(Part::request).toList(), changes);
        if (answers.size() < parts.size()) {
            refuse(parts, culprit(parts, answers.getFirst()), answers.getFirst());
            return;
        }
        for (int i = 0; i < parts.size(); i++) {
            add(parts.get(i), answers.get(i));
        }
    }

    private static Part culprit(List<Part> parts, ODataResponse answer) {
        var id = answer.getHeader(HttpHeader.CONTENT_ID);
        return parts.stream()
                .filter(part -> part.id().equals(id))
                .findFirst()
                .orElse(parts.getFirst());
    }

    /** The one that is at fault says why, the others that they depend on it. */
    private void refuse(List<Part> parts, Part culprit, ODataResponse answer) {
        add(culprit, answer);
        for (var part : parts) {
            if (part != culprit) {
                var dependent =
                        new Part(part.id(), part.group(), List.of(culprit.id()), part.request());
                isReady(dependent);
            }
        }
    }

    private void add(Part part, ODataResponse answer) {
        if (answer.getStatusCode() >= 400) {
            failed.add(part.id());
            if (part.group() != null) {
                failed.add(part.group());
            }
        }
        var one = new LinkedHashMap<String, @Nullable Object>();
        one.put("id", part.id());
        if (part.group() != null) {
            one.put("atomicityGroup", part.group());
        }
        one.put("status", (long) answer.getStatusCode());
        var headers = new LinkedHashMap<String, @Nullable Object>();
        answer.getAllHeaders()
                .forEach((name, values) -> {
                    if (!name.equalsIgnoreCase(HttpHeader.CONTENT_ID)) {
                        headers.put(name.toLowerCase(Locale.ROOT), String.join(", ", values));
                    }
                });
        one.put("headers", headers);
        if (answer.getContent() != null) {
            one.put("body", content(answer));
        }
        responses.add(one);
    }

    private static Object content(ODataResponse answer) {
        try {
            var bytes = answer.getContent().readAllBytes();
            var type = Objects.requireNonNullElse(answer.getHeader(HttpHeader.CONTENT_TYPE), "");
            return type.startsWith("application/json")
                    ? JsonReader.OWN.object(bytes)
                    : new String(bytes, StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new IllegalStateException("Bytes in memory cannot fail", e);
        }
    }

    private Part part(@Nullable Object given) {
        if (!(given instanceof Map<?, ?> one)
                || !(one.get("id") instanceof String id)
                || !(one.get("method") instanceof String method)
                || !(one.get("url") instanceof String url)) {
            throw Refusals.bad("A request of a batch has id, method and url, each a text.");
        }
        var request = new ODataRequest();
        try {
            request.setMethod(HttpMethod.valueOf(method.toUpperCase(Locale.ROOT)));
        } catch (IllegalArgumentException _) {
            throw Refusals.bad("There is no method %s.".formatted(Quoted.of(method)));
        }
        if (one.get("headers") instanceof Map<?, ?> headers) {
            headers.forEach((name, value) ->
                    request.setHeader(String.valueOf(name), String.valueOf(value)));
        }
        address(request, url);
        request.setHeader(HttpHeader.CONTENT_ID, id);
        var body = one.get("body");
        if (body != null) {
            if (request.getHeader(HttpHeader.CONTENT_TYPE) == null) {
                request.setHeader(HttpHeader.CONTENT_TYPE, "application/json");
            }
            request.setBody(
                    new ByteArrayInputStream(
                            JsonText.write(body).getBytes(StandardCharsets.UTF_8)));
        }
        var dependsOn =
                one.get("dependsOn") instanceof List<?> list
                        ? list.stream().map(String::valueOf).toList()
                        : List.<String>of();
        var group = one.get("atomicityGroup");
        return new Part(id, group == null ? null : String.valueOf(group), dependsOn, request);
    }

    /** Addresses are from the root of the service, or whole, or from the root of the server. */
    private void address(ODataRequest request, String url) {
        var path = url;
        var home = java.net.URI.create(root).getRawPath();
        if (path.startsWith(root)) {
            path = path.substring(root.length());
        } else if (path.startsWith(home)) {
            path = path.substring(home.length());
        }
        if (!path.startsWith("/")) {
            path = "/" + path;
        }
        int query = path.indexOf('?');
        request.setRawBaseUri(root);
        request.setRawODataPath(query < 0 ? path : path.substring(0, query));
        request.setRawQueryPath(query < 0 ? null : path.substring(query + 1));
        request.setRawRequestUri(root + path);
    }
}
