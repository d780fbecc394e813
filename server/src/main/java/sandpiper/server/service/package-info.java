/**
 * Services whatever their protocol: who may call what, and what the engine is then asked. Start at
 * {@link sandpiper.server.service.ServiceCall}.
 */
@NullMarked
package sandpiper.server.service;

import org.jspecify.annotations.NullMarked;
