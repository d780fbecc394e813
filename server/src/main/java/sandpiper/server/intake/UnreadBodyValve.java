package sandpiper.server.intake;

import jakarta.servlet.ServletException;
import java.io.IOException;
import java.time.Duration;
import java.util.concurrent.atomic.AtomicBoolean;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ValveBase;
import org.apache.coyote.ActionCode;
import org.springframework.http.HttpStatus;

/**
 * Ends the connection of a caller who is refused before its body has come. The web server would
 * wait for the rest, so that who sends slowly keeps one of its threads; what is there already is
 * read, so that the caller gets to see the answer.
 *
 * <p>Over HTTP/2 the stream is reset after the answer (RFC 9113, section 8.1). Some clients lose
 * the answer by that while they still send, so that what they have begun may take a moment to come.
 */
public final class UnreadBodyValve extends ValveBase {
    private static final int MOST = 1 << 20;
    private static final int STEP = 8 << 10;
    private static final Duration PATIENCE = Duration.ofMillis(200);
    private static final Duration LOOK = Duration.ofMillis(2);

    private final Duration patience;

    /** Makes one that can be used with asynchronous requests. */
    public UnreadBodyValve() {
        this(PATIENCE);
    }

    UnreadBodyValve(Duration patience) {
        super(true);
        this.patience = patience;
    }

    @Override
    public void invoke(Request request, Response response) throws IOException, ServletException {
        getNext().invoke(request, response);
        boolean refused = response.getStatus() >= HttpStatus.BAD_REQUEST.value();
        if (refused && !request.isAsync() && !isRead(request)) {
            if (!response.isCommitted()) {
                LastAnswer.say(request, response);
            }
            request.getCoyoteRequest().action(ActionCode.DISABLE_SWALLOW_INPUT, null);
        }
    }

    /**
     * Reads what has come, without waiting for more than a moment, and tells whether that was all.
     */
    private boolean isRead(Request request) throws IOException {
        long end = System.nanoTime();
        if (!LastAnswer.endsConnection(request)) {
            end += patience.toNanos();
        }
        var input = request.getStream();
        var step = new byte[STEP];
        for (int done = 0; done < MOST && !isAllRead(request); ) {
            request.getCoyoteRequest().action(ActionCode.AVAILABLE, Boolean.TRUE);
            if (request.getCoyoteRequest().getAvailable() > 0) {
                int read = input.read(step);
                if (read < 0) {
                    return true;
                }
                done += read;
            } else if (System.nanoTime() - end >= 0 || !waited()) {
                break;
            }
        }
        return isAllRead(request);
    }

    private static boolean isAllRead(Request request) {
        var all = new AtomicBoolean();
        request.getCoyoteRequest().action(ActionCode.REQUEST_BODY_FULLY_READ, all);
        return all.get();
    }

    private static boolean waited() {
        try {
            Thread.sleep(LOOK);
            return true;
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            return false;
        }
    }
}
