package sandpiper.engine.derive;

import java.util.Collection;
import sandpiper.engine.work.Slots;
import sandpiper.engine.work.Workspace;

/**
 * Takes values over from a record that is chosen: the rate from the berth, the price from the
 * tariff.
 */
public final class Fills {
    private final Workspace workspace;

    public Fills(Workspace workspace) {
        this.workspace = workspace;
    }

    /**
     * Fills what a newly chosen record gives.
     *
     * @param given names of fields that were given a value, which wins
     */
    public void fill(Slots slots, Collection<String> given) {
        for (var reference : slots.fields()) {
            var fill = reference.logic().fill();
            var number = slots.get(reference);
            if (fill.isEmpty() || number == null || !slots.isChanged(reference)) {
                continue;
            }
            var chosen = workspace.record(workspace.release().target(reference), (Long) number);
            fill.forEach((to, from) -> {
                if (!given.contains(to)) {
                    var source = chosen.object().fields().get(from.text());
                    slots.set(slots.fields().get(to), chosen.slots().get(source));
                }
            });
        }
    }
}
