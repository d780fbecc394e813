package sandpiper.server.manage.record;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.HistoryStorage;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.record.RecordView;
import sandpiper.model.release.FieldPath;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.OutsideCode;

/**
 * Records as console and command line get them: values, and beside them what people recognise
 * linked records by.
 */
public final class RecordJson {
    private RecordJson() {}

    /** What is seen of a record that was read with the fields that are seen. */
    static Map<String, @Nullable Object> of(RecordAccess access, RecordView view) {
        var tree = access.seen();
        var plain = new LinkedHashMap<String, @Nullable Object>();
        plain.put("id", view.id().toString());
        plain.put("version", view.version());
        plain.put("retired", view.retired());
        var stamps = Objects.requireNonNull(view.stamps());
        plain.put("createdAt", stamps.createdAt().toString());
        plain.put("createdBy", stamps.createdBy());
        plain.put("changedAt", stamps.changedAt().toString());
        plain.put("changedBy", stamps.changedBy());
        plain.put("values", PlainRecords.of(tree, view));
        var titles =
                new LinkedHashMap<String, @Nullable Object>(
                        titles(access, tree.paths(), view.values()));
        for (int i = 0; i < tree.parts().size(); i++) {
            var part = tree.parts().get(i);
            var items = new ArrayList<Map<String, String>>();
            view.parts()
                    .get(i)
                    .forEach(item -> items.add(titles(access, part.paths(), item.values())));
            titles.put(part.part().name(), items);
        }
        plain.put("titles", titles);
        return plain;
    }

    private static Map<String, String> titles(
            RecordAccess access, List<FieldPath> paths, @Nullable Object[] values) {
        var titles = new LinkedHashMap<String, String>();
        for (int i = 0; i < paths.size(); i++) {
            if (values[i] instanceof RecordView.Link(_, var title)
                    && title != null
                    && paths.get(i).last().type() instanceof FieldType.Reference reference
                    && access.tells(access.live().release().target(reference))) {
                titles.put(paths.get(i).last().name(), title);
            }
            if (values[i] instanceof OutsideCode(_, var label) && label != null) {
                titles.put(paths.get(i).last().name(), label);
            }
        }
        return titles;
    }

    /** A change of a record, without what is not seen. */
    static Map<String, @Nullable Object> of(RecordAccess access, HistoryStorage.Entry entry) {
        var plain = new LinkedHashMap<String, @Nullable Object>();
        plain.put("version", entry.version());
        plain.put("at", entry.at().toString());
        plain.put("by", entry.by());
        plain.put("via", entry.via());
        plain.put("operation", entry.operation());
        var changes = new ArrayList<Map<String, @Nullable Object>>();
        for (var change : entry.changes()) {
            var name = change.path().split("[.\\[]", 2)[0];
            if (access.rights().hidden().contains(name)) {
                continue;
            }
            var one = new LinkedHashMap<String, @Nullable Object>();
            one.put("path", change.path());
            one.put("before", change.before());
            one.put("after", change.after());
            changes.add(one);
        }
        plain.put("changes", changes);
        return plain;
    }
}
