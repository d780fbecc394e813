/**
 * A client of the manage API. Start at {@link sandpiper.client.ManageClient}. Knows HTTP and JSON,
 * and no rules.
 */
@NullMarked
package sandpiper.client;

import org.jspecify.annotations.NullMarked;
