package sandpiper.server.problem;

import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import sandpiper.engine.accounts.AccountException;
import sandpiper.engine.port.ConflictException;
import sandpiper.engine.port.OverloadedException;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.port.TooLongException;
import sandpiper.engine.service.DeniedException;
import sandpiper.engine.writer.UnfinishedException;

/** What callers are told of something that went wrong here; the log has the rest. */
public final class Failure {
    private static final Logger LOG = LoggerFactory.getLogger(Failure.class);

    /** When trying again is right after what {@linkplain #isPassing passes}, as a header has it. */
    public static final String RETRY_AFTER_SECONDS = "1";

    private Failure() {}

    /** Whether trying again in a moment is right. */
    public static boolean isPassing(Throwable failure) {
        return failure instanceof OverloadedException || failure instanceof ConflictException;
    }

    /** The problem of a failure; {@code request} says in the log what was asked. */
    public static Problem of(Exception failure, String request) {
        return switch (failure) {
            case ProblemException known -> known.problem();
            case DeniedException denied ->
                    Problem.of(
                            switch (denied.reason()) {
                                case UNKNOWN -> HttpStatus.NOT_FOUND;
                                case NOT_GRANTED -> HttpStatus.FORBIDDEN;
                                case NOT_OFFERED -> HttpStatus.METHOD_NOT_ALLOWED;
                                case ENDED -> HttpStatus.GONE;
                                case MEANINGLESS -> HttpStatus.BAD_REQUEST;
                            },
                            String.valueOf(denied.getMessage()),
                            List.of());
            case AccountException account ->
                    Problem.of(
                            switch (account.reason()) {
                                case MISSING -> HttpStatus.NOT_FOUND;
                                case CONFLICT -> HttpStatus.CONFLICT;
                                case INVALID -> HttpStatus.UNPROCESSABLE_CONTENT;
                            },
                            String.valueOf(account.getMessage()),
                            List.of());
            case OverloadedException overloaded ->
                    Problem.of(
                            HttpStatus.SERVICE_UNAVAILABLE,
                            String.valueOf(overloaded.getMessage()),
                            List.of());
            case UnfinishedException unfinished ->
                    Problem.of(
                            HttpStatus.SERVICE_UNAVAILABLE,
                            String.valueOf(unfinished.getMessage()),
                            List.of());
            case TooLongException slow ->
                    Problem.of(
                            HttpStatus.SERVICE_UNAVAILABLE,
                            String.valueOf(slow.getMessage()),
                            List.of());
            case ConflictException conflict ->
                    Problem.of(HttpStatus.SERVICE_UNAVAILABLE, conflict.words(), List.of());
            case StorageException.Uncertain uncertain ->
                    Problem.of(HttpStatus.SERVICE_UNAVAILABLE, uncertain.words(), List.of());
            case StorageException storage -> {
                LOG.error("{}: storage does not work", request, storage);
                yield Problem.of(
                        HttpStatus.SERVICE_UNAVAILABLE,
                        "The service cannot store or read just now; its operator finds the reason"
                                + " in the log.",
                        List.of());
            }
            default -> {
                LOG.error("{} failed", request, failure);
                yield Problem.of(
                        HttpStatus.INTERNAL_SERVER_ERROR,
                        "Something unexpected happened; the operator finds it in the log.",
                        List.of());
            }
        };
    }
}
