package sandpiper.engine.outside;

/** Asks services outside. Implemented by whoever can reach them. */
@FunctionalInterface
public interface OutsideServices {
    /** Where there is no way out. */
    OutsideServices NONE =
            (ask, _) ->
                    new Reply.Failure(
                            "%s is not asked here.".formatted(ask.connection().label()), true);

    /**
     * Asks, and waits for a bounded time. Called by many threads, never by the writer's.
     *
     * @param repeatKey the same when the same is asked again, so that what changes something
     *     outside is done once
     */
    Reply ask(Ask ask, String repeatKey);
}
