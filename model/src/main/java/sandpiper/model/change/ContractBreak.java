package sandpiper.model.change;

/**
 * Something a change takes from those who call a published service.
 *
 * @param service its name
 * @param resource the resource, or empty when it is about the service as a whole
 * @param operation {@code create}, {@code read}, {@code update}, {@code query}, {@code remove}, the
 *     name of a call, or empty when it is about all of them
 * @param message what is different, as a sentence without its subject: "no longer shows nights"
 */
public record ContractBreak(
        String service, int version, String resource, String operation, String message) {
    /** The whole as people read it: "berth-desk v1, stays read: no longer shows nights". */
    public String sentence() {
        var where = "%s v%d".formatted(service, version);
        if (!resource.isEmpty()) {
            where += ", " + resource;
        }
        if (!operation.isEmpty()) {
            where += " " + operation;
        }
        return "%s: %s.".formatted(where, message);
    }
}
