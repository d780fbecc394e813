package sandpiper.client;

import static sandpiper.client.ManageClient.escape;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/** What the service does and has done: where it stands, traffic, events, runs, traces, backup. */
public final class ActivityCalls {
    private final ManageClient http;

    ActivityCalls(ManageClient http) {
        this.http = http;
    }

    /** Where a service stands. */
    public record Status(
            String version,
            String storedIn,
            @Nullable Sharing sharing,
            int release,
            int services,
            int changedFiles,
            List<ObjectCount> objects,
            @Nullable FileCount files,
            List<Working> working) {}

    /**
     * Several processes on one database; of the one that answers, transactions done again since
     * others changed the same, and since a connection was lost.
     */
    public record Sharing(List<Sharer> processes, long conflicts, long disconnects) {}

    /** A process that works on the data, since a moment in RFC 3339. */
    public record Sharer(String name, String since, boolean own) {}

    /** Files of records, each counted once however many records have it. */
    public record FileCount(long files, long bytes) {}

    /** How many records an object has. */
    public record ObjectCount(String name, long inUse, long retired) {}

    /** A formula that is being worked out for records that were there; a share from 0 to 1. */
    public record Working(String formula, double share) {}

    /** How services were called, and the last calls that failed. */
    public record Traffic(List<CallCount> calls, List<FailedCall> failed) {}

    /** Calls of one kind by one caller. */
    public record CallCount(
            String service,
            int version,
            int revision,
            String resource,
            String operation,
            String protocol,
            String caller,
            long calls,
            long errors,
            double meanMillis) {}

    /** A call that failed, with its status in HTTP. */
    public record FailedCall(
            String at,
            String service,
            String resource,
            String operation,
            String caller,
            int status,
            String message) {}

    /** Who named a revision in the last 30 days, and how often. */
    public record RevisionCaller(String caller, long calls, String last) {}

    /** A revision of a contract; {@code endedAt} is {@code null} while it is answered. */
    public record Revision(
            int number,
            @Nullable String at,
            List<String> gained,
            boolean newest,
            @Nullable String endedAt,
            List<RevisionCaller> callers) {}

    /** Something that happened; of a record, unless {@code key} is {@code null}. */
    public record Event(String at, String name, @Nullable String key, String by, JsonNode data) {}

    /** An event on its way to a handler, a schedule or a webhook. */
    public record Delivery(
            long number, Event event, String target, String state, int tries, String said) {}

    private record Count(long count) {}

    /** A run of a function, handler or schedule. */
    public record Run(
            String at,
            String kind,
            String name,
            String key,
            boolean done,
            String said,
            double millis,
            @Nullable String trace) {}

    /** The account of a request; in a list without its steps. */
    public record Trace(
            String id,
            String at,
            String what,
            String by,
            String via,
            String outcome,
            List<Step> steps) {}

    /** A step of an account; a depth from 0, with what it took in thousandths of milliseconds. */
    public record Step(
            int depth, String kind, String title, String detail, String result, long micros) {}

    public Answer<Status> status() {
        return http.read("/manage/v1/status", Status.class);
    }

    public Answer<Traffic> traffic(int days) {
        return http.read("/manage/v1/traffic?days=" + days, Traffic.class);
    }

    /** The revisions of a service's contract, newest first. */
    public Answer<List<Revision>> revisions(String service, int version) {
        return http.list(
                "/manage/v1/contracts/%s/v%d/revisions".formatted(escape(service), version),
                Revision.class);
    }

    /** Ends a revision: who still names it is refused. */
    public void endRevision(String service, int version, int number) {
        http.delete(
                "/manage/v1/contracts/%s/v%d/revisions/%d"
                        .formatted(escape(service), version, number));
    }

    /** Events whose name or key holds a text, newest first. */
    public Answer<List<Event>> events(String search, int limit) {
        return http.list(
                "/manage/v1/events?search=%s&limit=%d".formatted(escape(search), limit),
                Event.class);
    }

    /** Deliveries, newest first; an empty target or state is any. */
    public Answer<List<Delivery>> deliveries(String target, String state, int limit) {
        return http.list(
                "/manage/v1/deliveries?target=%s&state=%s&limit=%d"
                        .formatted(escape(target), escape(state), limit),
                Delivery.class);
    }

    /** Tries one delivery again; gives how many that are. */
    public long redeliver(long number) {
        return redeliverAt("/manage/v1/deliveries/%d/redeliver".formatted(number));
    }

    /** Tries again all that are parked; an empty target is any. */
    public long redeliverAll(String target) {
        return redeliverAt("/manage/v1/deliveries/redeliver?target=" + escape(target));
    }

    private long redeliverAt(String path) {
        return http.send("POST", path, List.of(), Count.class).value().count();
    }

    /** Runs, newest first, whose name and key hold texts. */
    public Answer<List<Run>> runs(String name, String key, boolean failedOnly, int limit) {
        return http.list(
                "/manage/v1/runs?name=%s&key=%s&limit=%d%s"
                        .formatted(
                                escape(name), escape(key), limit, failedOnly ? "&done=false" : ""),
                Run.class);
    }

    /** The last accounts, newest first. */
    public Answer<List<Trace>> traces(int limit) {
        return http.list("/manage/v1/traces?limit=" + limit, Trace.class);
    }

    public Answer<Trace> trace(String id) {
        return http.read("/manage/v1/traces/" + escape(id), Trace.class);
    }

    /** The newest account, if there is one. */
    public Optional<Answer<Trace>> lastTrace() {
        return traces(1).value().stream().findFirst().map(one -> trace(one.id()));
    }

    /** Writes a copy of everything the service holds to a file. */
    public void backup(Path file) {
        http.download("/manage/v1/backup", file);
    }
}
