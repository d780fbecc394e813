package sandpiper.server.manage;

import jakarta.servlet.http.HttpServletRequest;

/** Which of the ways in a call of the manage API comes by, for the history. */
public final class Ways {
    private static final String CONSOLE = "console";
    private static final String COMMAND_LINE = "command line";

    /** How the command line calls itself. */
    private static final String ITS_AGENT = "sandpiper-cli";

    private Ways() {}

    public static String of(HttpServletRequest request) {
        var agent = request.getHeader("User-Agent");
        return agent != null && agent.startsWith(ITS_AGENT) ? COMMAND_LINE : CONSOLE;
    }
}
