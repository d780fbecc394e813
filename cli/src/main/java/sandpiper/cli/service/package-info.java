/** Commands that start a service, or keep it: {@link sandpiper.cli.service.ServeCommand}. */
@NullMarked
package sandpiper.cli.service;

import org.jspecify.annotations.NullMarked;
