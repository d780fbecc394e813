package sandpiper.server.problem;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.command.Outcome;

/**
 * What went wrong, as RFC 9457 has it.
 *
 * @param title the kind of problem in a few words
 * @param status the HTTP status
 * @param detail a sentence that says what to do
 * @param errors each thing that is wrong, with its place; empty when the detail says all
 */
public record Problem(String title, int status, String detail, List<Wrong> errors) {
    /** The content type of a problem. */
    public static final String CONTENT_TYPE = "application/problem+json";

    public Problem {
        errors = List.copyOf(errors);
    }

    /**
     * One thing that is wrong.
     *
     * @param path into the request's body
     */
    public record Wrong(FaultPath path, String code, String message) {}

    /** A problem of a status. */
    public static Problem of(HttpStatus status, String detail, List<Wrong> errors) {
        return new Problem(title(status), status.value(), detail, errors);
    }

    private static String title(HttpStatus status) {
        return switch (status) {
            case UNPROCESSABLE_CONTENT -> "The values are not right";
            case BAD_REQUEST -> "The request is not right";
            case UNAUTHORIZED -> "Sign-in is needed";
            case FORBIDDEN -> "This is not granted";
            case NOT_FOUND -> "There is no such thing";
            case CONFLICT -> "The data as it stands does not allow this";
            case PRECONDITION_FAILED -> "The record was changed meanwhile";
            case PRECONDITION_REQUIRED -> "The version is needed";
            case TOO_MANY_REQUESTS -> "Too many calls";
            case SERVICE_UNAVAILABLE -> "The service cannot do this now";
            case CONTENT_TOO_LARGE -> "The request is too large";
            default -> status.getReasonPhrase();
        };
    }

    /** The problem of a command that was not done. */
    public static Problem of(Outcome.Refused refused) {
        var status =
                switch (refused.reason()) {
                    case INVALID -> HttpStatus.UNPROCESSABLE_CONTENT;
                    case MISSING -> HttpStatus.NOT_FOUND;
                    case STALE -> HttpStatus.PRECONDITION_FAILED;
                    case UNVERSIONED -> HttpStatus.PRECONDITION_REQUIRED;
                    case CONFLICT -> HttpStatus.CONFLICT;
                    case UNAVAILABLE -> HttpStatus.SERVICE_UNAVAILABLE;
                };
        var faults = refused.faults();
        var detail =
                faults.size() == 1
                        ? faults.getFirst().message()
                        : "%d things are wrong; each is listed with its place."
                                .formatted(faults.size());
        return of(
                status,
                detail,
                faults.stream()
                        .map(fault -> new Wrong(fault.path(), fault.code().id(), fault.message()))
                        .toList());
    }

    /** What faults or warnings say. */
    public static List<String> messages(List<Fault> faults) {
        return faults.stream().map(Fault::message).toList();
    }

    /** Everything that is wrong, in one text for people. */
    public String said() {
        return errors.size() < 2
                ? detail
                : String.join(" ", errors.stream().map(Wrong::message).toList());
    }

    /** As plain values, ready to be written. */
    public Map<String, Object> plain() {
        var plain = new LinkedHashMap<String, Object>();
        plain.put("type", "about:blank");
        plain.put("title", title);
        plain.put("status", (long) status);
        plain.put("detail", detail);
        if (!errors.isEmpty()) {
            var list = new ArrayList<Object>();
            for (var error : errors) {
                var one = new LinkedHashMap<String, Object>();
                one.put("pointer", error.path().pointer());
                one.put("code", error.code());
                one.put("message", error.message());
                list.add(one);
            }
            plain.put("errors", list);
        }
        return plain;
    }
}
