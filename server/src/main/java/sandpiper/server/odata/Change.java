package sandpiper.server.odata;

import java.util.Set;
import java.util.function.Function;
import org.apache.olingo.commons.api.format.ContentType;
import org.apache.olingo.server.api.uri.UriInfo;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.release.LiveRelease;
import sandpiper.server.service.ServiceCall;
import sandpiper.server.service.Writes;

/**
 * A change that is asked for, and how its outcome is to be answered.
 *
 * @param set whose record it is about, or {@code null} when it is about none
 * @param command makes the command for a release
 * @param answered what the answer holds, or {@code null} when nothing is left to be shown
 * @param traced whether an account of it is wanted
 * @param once makes sure that a repeated request is done once, or {@code null}
 * @param made where the entity will be that it makes, from the root of the service; {@code null}
 *     when that is not known before or when it makes none
 */
public record Change(
        @Nullable String set,
        ServiceCall call,
        Function<LiveRelease, RecordCommand> command,
        @Nullable Answered answered,
        boolean traced,
        Writes.@Nullable Once once,
        @Nullable String made) {
    /** One that makes nothing whose address is known before. */
    Change(
            @Nullable String set,
            ServiceCall call,
            Function<LiveRelease, RecordCommand> command,
            @Nullable Answered answered,
            boolean traced,
            Writes.@Nullable Once once) {
        this(set, call, command, answered, traced, once, null);
    }

    /** The same, making an entity of an address. */
    Change making(@Nullable String address) {
        return new Change(set, call, command, answered, traced, once, address);
    }

    /**
     * What an answer holds.
     *
     * @param items line items that came in and so are shown as well
     * @param brief whether the caller wants no more than to know that it was done
     */
    record Answered(UriInfo uri, ContentType type, Set<String> items, boolean brief) {}
}
