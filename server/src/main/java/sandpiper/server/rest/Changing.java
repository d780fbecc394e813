package sandpiper.server.rest;

import jakarta.servlet.http.HttpServletRequest;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.release.LiveRelease;
import sandpiper.server.service.IdempotencyKey;
import sandpiper.server.service.Performed;
import sandpiper.server.service.StoredReply;
import sandpiper.server.service.Traced;
import sandpiper.server.service.Writes;

/** Changes over REST: done once, and answered with what there is then. */
final class Changing {
    private Changing() {}

    /** Carries a change out; {@code body} is what came, by which a repeated request is known. */
    static HttpReply change(
            Call call,
            HttpServletRequest http,
            byte[] body,
            Function<LiveRelease, RecordCommand> command) {
        StoredReply.Form form = call::answer;
        var asked =
                new Writes.Asked<>(
                        call.service(), command, Traced.isAsked(http), once(http, body), form);
        return switch (Writes.perform(asked)) {
            case Performed.Refused<StoredReply>(var refused) -> HttpReply.of(refused);
            case Performed.Again<StoredReply>(var answer) -> HttpReply.of(answer, true);
            case Performed.Done<StoredReply>(var done, var answer) ->
                    HttpReply.of(answer, false).with(Traced.headers(done.trace(), done.warnings()));
        };
    }

    private static Writes.@Nullable Once once(HttpServletRequest http, byte[] body) {
        var key = IdempotencyKey.of(http);
        return key == null
                ? null
                : Writes.Once.of(key, http.getMethod(), http.getRequestURI(), body);
    }
}
