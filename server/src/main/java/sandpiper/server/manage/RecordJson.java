package sandpiper.server.manage;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.HistoryStorage;
import sandpiper.engine.read.PlainRecords;
import sandpiper.engine.read.RecordView;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;

/**
 * Records as console and command line get them: values, and beside them what people recognise
 * linked records by.
 */
final class RecordJson {
    private RecordJson() {}

    static Map<String, @Nullable Object> of(Release release, ObjectType object, RecordView view) {
        var tree = release.everythingOf(object);
        var plain = new LinkedHashMap<String, @Nullable Object>();
        plain.put("id", view.id().toString());
        plain.put("version", view.version());
        plain.put("retired", view.retired());
        plain.put("createdAt", view.createdAt().toString());
        plain.put("createdBy", view.createdBy());
        plain.put("changedAt", view.changedAt().toString());
        plain.put("changedBy", view.changedBy());
        plain.put("values", PlainRecords.of(tree, view));
        var titles =
                new LinkedHashMap<String, @Nullable Object>(titles(tree.paths(), view.values()));
        for (int i = 0; i < tree.parts().size(); i++) {
            var part = tree.parts().get(i);
            var items = new ArrayList<Map<String, String>>();
            view.parts().get(i).forEach(item -> items.add(titles(part.paths(), item.values())));
            titles.put(part.part().name(), items);
        }
        plain.put("titles", titles);
        return plain;
    }

    private static Map<String, String> titles(List<FieldPath> paths, @Nullable Object[] values) {
        var titles = new LinkedHashMap<String, String>();
        for (int i = 0; i < paths.size(); i++) {
            if (values[i] instanceof RecordView.Link(_, var title) && title != null) {
                titles.put(paths.get(i).last().name(), title);
            }
        }
        return titles;
    }

    static Map<String, @Nullable Object> of(HistoryStorage.Entry entry) {
        var plain = new LinkedHashMap<String, @Nullable Object>();
        plain.put("version", entry.version());
        plain.put("at", entry.at().toString());
        plain.put("by", entry.by());
        plain.put("via", entry.via());
        plain.put("operation", entry.operation());
        var changes = new ArrayList<Map<String, @Nullable Object>>();
        for (var change : entry.changes()) {
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
