package sandpiper.server.intake;

import jakarta.servlet.ServletException;
import java.io.IOException;
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
 */
public final class UnreadBodyValve extends ValveBase {
    /** Makes one that can be used with asynchronous requests. */
    public UnreadBodyValve() {
        super(true);
    }

    private static final int MOST = 1 << 20;
    private static final int STEP = 8 << 10;

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

    /** Reads what has come, without waiting for more, and tells whether that was all. */
    private static boolean isRead(Request request) throws IOException {
        var input = request.getStream();
        var step = new byte[STEP];
        for (int done = 0; done < MOST; ) {
            request.getCoyoteRequest().action(ActionCode.AVAILABLE, Boolean.TRUE);
            if (request.getCoyoteRequest().getAvailable() <= 0) {
                break;
            }
            int read = input.read(step);
            if (read < 0) {
                return true;
            }
            done += read;
        }
        var all = new AtomicBoolean();
        request.getCoyoteRequest().action(ActionCode.REQUEST_BODY_FULLY_READ, all);
        return all.get();
    }
}
