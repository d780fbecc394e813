/** The service's own data: definitions, history, access, kept answers. */
@NullMarked
package sandpiper.store.system;

import org.jspecify.annotations.NullMarked;
