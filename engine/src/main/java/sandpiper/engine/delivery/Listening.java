package sandpiper.engine.delivery;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.event.Webhook;
import sandpiper.engine.react.Listeners;
import sandpiper.engine.release.LiveRelease;

/** Who listens now: the live release's handlers and services, and the webhooks there are. */
final class Listening implements Listeners {
    /** Of the thread that writes, since others write at the same time. */
    private final ThreadLocal<Boolean> raised = ThreadLocal.withInitial(() -> false);

    private volatile List<Webhook> webhooks = List.of();
    private volatile @Nullable Heard heard;

    /** What the handlers and services of one release hear. */
    private record Heard(int release, Set<String> names) {}

    List<Webhook> webhooks() {
        return webhooks;
    }

    void webhooks(List<Webhook> now) {
        webhooks = List.copyOf(now);
    }

    @Override
    public boolean hear(LiveRelease live, String event) {
        var known = heard;
        if (known == null || known.release() != live.number()) {
            known = new Heard(live.number(), namesOf(live));
            heard = known;
        }
        return known.names().contains(event)
                || webhooks.stream().anyMatch(webhook -> webhook.hears(event));
    }

    private static Set<String> namesOf(LiveRelease live) {
        var names = new HashSet<String>();
        for (var event : live.release().events()) {
            boolean handled =
                    live.logic().handlersOf(event.name()).stream()
                            .anyMatch(handler -> !handler.definition().within());
            boolean published =
                    live.release().services().stream()
                            .anyMatch(service -> service.publishes(event.name()));
            if (handled || published) {
                names.add(event.name());
            }
        }
        return names;
    }

    @Override
    public void raised() {
        raised.set(true);
    }

    /** Whether this thread raised something since it asked last. */
    boolean takeRaised() {
        boolean some = raised.get();
        raised.set(false);
        return some;
    }
}
