package sandpiper.engine.service;

import sandpiper.engine.access.ObjectGrant.Action;

/** What has to be granted for something to be done with a record. */
public sealed interface Right {
    /** To see it, create it, change it or take it away. */
    record Of(Action action) implements Right {}

    /** To take a transition or call a function, by its name. */
    record Calling(String name) implements Right {}
}
