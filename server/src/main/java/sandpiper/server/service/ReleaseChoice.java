package sandpiper.server.service;

import java.util.function.Predicate;
import org.springframework.http.HttpStatus;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.model.release.Release;
import sandpiper.model.release.ServiceType;
import sandpiper.server.problem.ProblemException;

/** The definitions that a contract is made from. */
public final class ReleaseChoice {
    private ReleaseChoice() {}

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

    /**
     * A service the caller may see and that fits.
     *
     * @param words what it should do, behind its name in the message, such as "over REST"
     * @throws ProblemException when there is none
     */
    public static ServiceType service(
            Release release,
            Actor actor,
            String name,
            int version,
            Predicate<ServiceType> fits,
            String words) {
        return release.service(name, version)
                .filter(found -> actor.maySee(name) && fits.test(found))
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.NOT_FOUND,
                                "There is no service %s v%d%s for you."
                                        .formatted(name, version, words)));
    }
}
