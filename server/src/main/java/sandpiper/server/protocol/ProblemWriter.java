package sandpiper.server.protocol;

import sandpiper.server.json.JsonText;
import sandpiper.server.problem.Problem;

/** Says in the form of a protocol what went wrong. Safe to be used by many threads. */
public interface ProblemWriter {
    /** Problems as RFC 9457 has them. */
    ProblemWriter PLAIN =
            new ProblemWriter() {
                @Override
                public String contentType() {
                    return Problem.CONTENT_TYPE;
                }

                @Override
                public String text(Problem problem) {
                    return JsonText.write(problem.plain());
                }
            };

    /** The content type of what is written, with its encoding where the type needs one. */
    String contentType();

    /** The whole answer. */
    String text(Problem problem);
}
