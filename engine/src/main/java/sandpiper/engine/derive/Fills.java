package sandpiper.engine.derive;

import java.util.Collection;
import java.util.List;
import sandpiper.engine.trace.TraceStep;
import sandpiper.engine.trace.Tracer;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Row;
import sandpiper.engine.work.Workspace;
import sandpiper.model.definition.TravelSource;
import sandpiper.model.release.Field;

/**
 * Takes values over from a record that is chosen: the rate from the berth, the price from the
 * tariff, and what travels along a route.
 */
public final class Fills {
    private final Workspace workspace;
    private final TravelValues travels;
    private final Tracer tracer;

    public Fills(Workspace workspace, Tracer tracer) {
        this.workspace = workspace;
        this.travels = new TravelValues(workspace);
        this.tracer = tracer;
    }

    /**
     * Fills what a newly chosen record gives, and what a new line item has from its record.
     *
     * @param given names of fields that were given a value, which wins
     */
    public void fill(Row row, Collection<String> given) {
        var slots = row.slots();
        for (var field : slots.fields()) {
            fromChosen(row, field, given);
        }
        for (var field : slots.fields()) {
            var source = field.logic().source();
            if (source != null
                    && !source.follows()
                    && !given.contains(field.name())
                    && isChosen(row, source)) {
                alongRoute(row, field, source);
            }
        }
    }

    /**
     * The same for what has no value yet, and for new line items of a record.
     *
     * @return whether anything got one
     */
    public boolean fillEmpty(Row row) {
        var slots = row.slots();
        int before = slots.stamp();
        var given =
                slots.fields().stream()
                        .filter(field -> slots.get(field) != null)
                        .map(Field::name)
                        .toList();
        fill(row, given);
        boolean filled = slots.stamp() != before;
        if (row instanceof RecordState record) {
            for (var part : record.object().parts()) {
                for (var item : record.items(part)) {
                    filled |= item.slots().isNew() && fillEmpty(item);
                }
            }
        }
        return filled;
    }

    /** Fills what a record gives that a step has chosen; nothing when the field is no reference. */
    public void chosen(Row row, Field reference) {
        if (!reference.isReference()) {
            return;
        }
        fromChosen(row, reference, List.of());
        for (var field : row.slots().fields()) {
            var source = field.logic().source();
            if (field.logic().isTakenOver()
                    && source != null
                    && !source.ofRecord()
                    && source.through().getFirst().equals(reference.name())) {
                alongRoute(row, field, source);
            }
        }
    }

    private void fromChosen(Row row, Field reference, Collection<String> given) {
        var slots = row.slots();
        var fill = reference.logic().fill();
        var number = slots.get(reference);
        if (fill.isEmpty() || number == null || !slots.isChanged(reference)) {
            return;
        }
        var chosen = workspace.record(workspace.release().target(reference), (Long) number);
        fill.forEach((to, from) -> {
            if (!given.contains(to)) {
                var source = chosen.object().fields().get(from.text());
                slots.set(slots.fields().get(to), chosen.slots().get(source));
            }
        });
    }

    private static boolean isChosen(Row row, TravelSource source) {
        var slots = row.slots();
        return source.ofRecord()
                ? slots.isNew()
                : slots.isChanged(slots.fields().get(source.through().getFirst()));
    }

    private void alongRoute(Row row, Field field, TravelSource source) {
        var found = travels.find(row, source);
        if (found == null || !row.slots().set(field, found.value())) {
            return;
        }
        if (tracer.isOn()) {
            tracer.step(
                    TraceStep.Kind.SET,
                    row.path(field).toString(),
                    "%s of %s %s, along the route %s"
                            .formatted(
                                    source.field(),
                                    found.from().object().label(),
                                    found.from().record().keyText(),
                                    source.route()),
                    String.valueOf(found.value()));
        }
    }
}
