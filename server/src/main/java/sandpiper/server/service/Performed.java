package sandpiper.server.service;

import sandpiper.engine.command.Outcome;

/**
 * What came of a change that was asked for.
 *
 * @param <A> the answer in the form of the protocol
 */
public sealed interface Performed<A> {
    /** It was done now. */
    record Done<A>(Outcome.Success success, A answer) implements Performed<A> {}

    /** It had been done before, and is answered as it was then. */
    record Again<A>(A answer) implements Performed<A> {}

    /** Nothing was done. */
    record Refused<A>(Outcome.Refused refused) implements Performed<A> {}
}
