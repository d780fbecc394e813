/**
 * Hands events on to those who hear them, and runs what is due. Start at {@link
 * sandpiper.engine.delivery.Deliveries}; {@link sandpiper.engine.delivery.Dispatcher} is the thread
 * that does the work. An event is stored with its change and handed on from there, so nothing is
 * lost when the service stops in between; a handler's work is stored together with the note that it
 * is done, so nothing is done twice.
 */
@NullMarked
package sandpiper.engine.delivery;

import org.jspecify.annotations.NullMarked;
