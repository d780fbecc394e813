/**
 * How an instance is set up, from its configuration file and the environment: {@link
 * sandpiper.server.settings.Settings}.
 */
@NullMarked
package sandpiper.server.settings;

import org.jspecify.annotations.NullMarked;
