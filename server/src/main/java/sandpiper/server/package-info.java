/**
 * The service as it runs: start at {@link sandpiper.server.SandpiperServer}. Each package below is
 * a way in or serves one: {@code rest} for services, {@code manage} for console and command line,
 * {@code contract} for what is handed to integrators, {@code security} for who may come in, {@code
 * problem} and {@code json} for how answers are written. A way in only translates to and from the
 * engine.
 */
@NullMarked
package sandpiper.server;

import org.jspecify.annotations.NullMarked;
