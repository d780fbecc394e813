package sandpiper.engine.react;

import sandpiper.engine.release.LiveRelease;

/** Who listens to events, as far as those who raise them need to know. */
public interface Listeners {
    /** Nobody does. */
    Listeners NONE =
            new Listeners() {
                @Override
                public boolean hear(LiveRelease live, String event) {
                    return false;
                }

                @Override
                public void raised() {
                    // nobody to tell
                }
            };

    /** Whether anybody hears an event of this name: a handler, a service, a webhook. */
    boolean hear(LiveRelease live, String event);

    /** Is told that an event was stored, which counts once the transaction is committed. */
    void raised();
}
