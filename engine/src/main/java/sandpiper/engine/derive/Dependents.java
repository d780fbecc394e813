package sandpiper.engine.derive;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Workspace;
import sandpiper.model.logic.Hop;
import sandpiper.model.logic.Watch;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;

/** Who reads a record: found by going the ways of formulas backwards. */
final class Dependents {
    private final Workspace workspace;

    Dependents(Workspace workspace) {
        this.workspace = workspace;
    }

    /**
     * The records a reading starts at, found by going its way backwards from a changed record.
     *
     * @param before the values others know of it; null when they know of no such record
     */
    Set<RecordState> of(Watch watch, RecordState changed, @Nullable Object @Nullable [] before) {
        Set<RecordState> at = new LinkedHashSet<>(List.of(changed));
        boolean last = true;
        for (var hop : watch.route().reversed()) {
            var next = new LinkedHashSet<RecordState>();
            for (var record : at) {
                switch (hop) {
                    case Hop.Along(var from, var part, var field) ->
                            referring(from, part, field, record).forEach(next::add);
                    case Hop.Back(_, var field) -> {
                        next.addAll(target(record.slots().get(field), field));
                        if (last && before != null) {
                            next.addAll(target(before[field.index()], field));
                        }
                    }
                    case Hop.Into _ -> next.add(record);
                    case Hop.Everywhere _ -> {
                        // worked out on read, so never watched
                    }
                }
            }
            at = next;
            last = false;
        }
        return at;
    }

    private List<RecordState> target(@Nullable Object number, Field field) {
        return number == null
                ? List.of()
                : List.of(workspace.record(workspace.release().target(field), (Long) number));
    }

    private List<RecordState> referring(
            ObjectType from, @Nullable Part part, Field field, RecordState to) {
        if (to.number() < 0) {
            // Nothing can refer to a record that is in no table yet.
            return List.of();
        }
        workspace.settle();
        return workspace
                .storage()
                .referring(workspace.session(), from, part, field, to.number())
                .stream()
                .map(number -> workspace.record(from, number))
                .toList();
    }
}
