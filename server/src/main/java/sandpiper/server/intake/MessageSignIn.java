package sandpiper.server.intake;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Optional;
import sandpiper.engine.access.Actor;
import sandpiper.server.problem.Problem;

/** Knows who asks from the beginning of a message that brings its credentials inside. */
public interface MessageSignIn {
    /** The attribute of the request that holds who asks, once that is known from the message. */
    String ACTOR = MessageSignIn.class.getName();

    /** Whether messages to the address of a request may bring credentials. */
    boolean isFor(HttpServletRequest request);

    /**
     * Who asks, or nothing when the beginning does not say.
     *
     * @param head the first bytes of the message, perhaps not all of it
     * @param address from which it comes
     * @throws sandpiper.server.problem.ProblemException when it does not say so rightly
     */
    Optional<Actor> signIn(byte[] head, String address);

    /** What a sender of such a message is told that goes no further. */
    Written refusal(HttpServletRequest request, Problem problem);

    /** An answer in the protocol's own form. */
    record Written(String contentType, String text) {}
}
