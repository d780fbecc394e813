package sandpiper.engine.derive;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.Session;
import sandpiper.engine.record.RecordView;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.work.RecordState;
import sandpiper.engine.work.Row;
import sandpiper.engine.work.Workspace;
import sandpiper.logic.run.BudgetException;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;

/** Puts into records that were read what is worked out only now. */
public final class OnReadFormulas {
    private final Workspace workspace;
    private final ObjectType object;
    private final FieldTree tree;

    private OnReadFormulas(
            LiveRelease live, Session session, Instant now, ObjectType object, FieldTree tree) {
        this.workspace = Workspace.forReading(live, session, now, object.zone());
        this.object = object;
        this.tree = tree;
    }

    /** The same records with all values; they are changed only when there is something to add. */
    public static List<RecordView> in(
            LiveRelease live,
            Session session,
            Instant now,
            ObjectType object,
            FieldTree tree,
            List<RecordView> views) {
        boolean any =
                tree.paths().stream().anyMatch(path -> path.last().onRead())
                        || tree.parts().stream()
                                .flatMap(part -> part.paths().stream())
                                .anyMatch(path -> path.last().onRead());
        if (!any) {
            return views;
        }
        var worker = new OnReadFormulas(live, session, now, object, tree);
        return views.stream().map(worker::with).toList();
    }

    private RecordView with(RecordView view) {
        var record = workspace.record(object, view.number());
        var values = view.values().clone();
        for (int i = 0; i < values.length; i++) {
            var path = tree.paths().get(i);
            if (path.last().onRead()) {
                values[i] = value(record, path);
            }
        }
        var parts = new ArrayList<List<RecordView.ItemView>>();
        for (int p = 0; p < tree.parts().size(); p++) {
            parts.add(items(record, tree.parts().get(p), view.parts().get(p)));
        }
        return new RecordView(
                view.number(),
                view.id(),
                view.version(),
                view.retired(),
                view.stamps(),
                values,
                parts);
    }

    private List<RecordView.ItemView> items(
            RecordState record, FieldTree.PartTree part, List<RecordView.ItemView> views) {
        if (part.paths().stream().noneMatch(path -> path.last().onRead())) {
            return views;
        }
        var states = record.items(part.part());
        var items = new ArrayList<RecordView.ItemView>();
        for (int i = 0; i < views.size() && i < states.size(); i++) {
            var values = views.get(i).values().clone();
            for (int v = 0; v < values.length; v++) {
                var path = part.paths().get(v);
                if (path.last().onRead() && path.isOwn()) {
                    values[v] = stored(states.get(i), path.last());
                }
            }
            items.add(new RecordView.ItemView(views.get(i).line(), values));
        }
        return items;
    }

    private @Nullable Object value(RecordState from, FieldPath path) {
        var record = from;
        for (var step : path.way()) {
            var number = record.slots().get(step);
            if (number == null) {
                return null;
            }
            record = workspace.record(workspace.release().target(step), (Long) number);
        }
        return stored(record, path.last());
    }

    private @Nullable Object stored(Row row, Field field) {
        try {
            return workspace.workedOut(row, field);
        } catch (BudgetException _) {
            return null;
        }
    }
}
