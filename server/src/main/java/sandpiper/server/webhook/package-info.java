/**
 * Tells outside addresses of events, as CloudEvents 1.0 in JSON, signed as Standard Webhooks has
 * it. {@link sandpiper.server.webhook.WebhookSender} delivers what is due; whom it may call is
 * decided by {@link sandpiper.server.outgoing.Targets}. Events for those who cannot be called are
 * read at a service's feed.
 */
@NullMarked
package sandpiper.server.webhook;

import org.jspecify.annotations.NullMarked;
