package sandpiper.engine.write;

import sandpiper.engine.port.EventStorage;

/** Where events go that are raised, and who hears them. */
public record Outbox(EventStorage events, Listeners listeners) {}
