/**
 * What has happened, and who is told of it. {@link sandpiper.engine.event.Event} is the fact,
 * {@link sandpiper.engine.event.Delivery} one telling of it to somebody who listens. An event is
 * stored with the change that raised it, so neither is there without the other. Knows nothing of
 * HTTP: who delivers over a network asks for what is due.
 */
@NullMarked
package sandpiper.engine.event;

import org.jspecify.annotations.NullMarked;
