package sandpiper.server.service;

import org.springframework.http.HttpStatus;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.model.release.Release;
import sandpiper.server.problem.ProblemException;

/** The definitions that a contract is made from. */
public final class Definitions {
    private Definitions() {}

    /** Which state is meant. */
    public enum Source {
        /** What answers now. */
        LIVE,
        /** What would answer if the draft were released; for those who design. */
        DRAFT
    }

    /**
     * The definitions of a state.
     *
     * @throws ProblemException when the draft is not for the caller, or has errors
     */
    public static Release of(Engine engine, Actor actor, Source source) {
        if (source == Source.LIVE) {
            return engine.live().release();
        }
        if (!actor.has(Duty.DESIGN)) {
            throw new ProblemException(
                    HttpStatus.FORBIDDEN, "The draft is for those who may design.");
        }
        return engine.drafts()
                .check()
                .release()
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.CONFLICT,
                                "The draft has errors; its contracts are made when they are"
                                        + " mended."));
    }
}
