package sandpiper.engine.write;

import java.time.Instant;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.command.Fault;
import sandpiper.engine.command.Outcome;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.port.RunStorage.Run;
import sandpiper.engine.trace.Trace;

/** Writes down for the log that a function was called. */
public final class Runs {
    private static final int LONGEST = 500;

    private Runs() {}

    /**
     * A call that was done.
     *
     * @param start by {@link System#nanoTime}
     */
    public static Run of(
            Request request,
            RecordCommand.Call call,
            Outcome.Success done,
            Instant now,
            long start) {
        var result = done.result();
        return run(
                request,
                call,
                true,
                result == null ? "" : cut(String.valueOf(result.value())),
                done.trace(),
                now,
                start);
    }

    /** A call that was refused. */
    public static Run of(
            Request request,
            RecordCommand.Call call,
            Outcome.Refused refused,
            Instant now,
            long start) {
        return run(request, call, false, said(refused), refused.trace(), now, start);
    }

    /** The messages of a refusal as one text. */
    static String said(Outcome.Refused refused) {
        return cut(refused.faults().stream().map(Fault::message).collect(Collectors.joining(" ")));
    }

    private static Run run(
            Request request,
            RecordCommand.Call call,
            boolean done,
            String said,
            @Nullable Trace trace,
            Instant now,
            long start) {
        var key = call.key();
        return new Run(
                now,
                "function",
                call.object().name() + "." + call.function(),
                call.object().name(),
                key == null ? "" : key,
                done,
                said,
                (System.nanoTime() - start) / 1_000,
                request.actor().name(),
                request.via(),
                trace == null ? null : trace.id());
    }

    private static String cut(String text) {
        return text.length() > LONGEST ? text.substring(0, LONGEST) + "…" : text;
    }
}
