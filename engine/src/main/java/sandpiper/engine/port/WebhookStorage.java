package sandpiper.engine.port;

import java.util.List;
import java.util.Optional;
import sandpiper.engine.event.Webhook;

/** Outside addresses that are told of events. */
public interface WebhookStorage {
    List<Webhook> all(Session session);

    Optional<Webhook> find(Session session, String name);

    /** Puts a webhook in the place of the one with its name, if there is one. */
    void put(Transaction transaction, Webhook webhook);

    void remove(Transaction transaction, String name);
}
