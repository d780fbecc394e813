package sandpiper.server.service;

/**
 * How a protocol answers a change, in a form that can be kept and given again.
 *
 * @param <A> the answer
 */
public interface AnswerForm<A> {
    /** The answer to a change; called in its transaction, before it is committed. */
    A of(Changed changed);

    /** The answer as text, to be kept for a request that is repeated. */
    String write(A answer);

    /** The answer of a text that {@link #write} made. */
    A read(String kept);
}
