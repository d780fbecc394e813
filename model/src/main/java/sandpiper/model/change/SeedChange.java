package sandpiper.model.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import sandpiper.model.definition.SeedFile;
import sandpiper.model.release.Release;

/**
 * Records of an object that a package brings otherwise than before.
 *
 * @param after the file as it is now
 * @param added those that were not in it
 * @param changed those that were in it with other values
 * @param removed how many are no longer in it; they stay where they are
 */
public record SeedChange(
        SeedFile after, List<SeedFile.Row> added, List<SeedFile.Row> changed, int removed) {
    public SeedChange {
        added = List.copyOf(added);
        changed = List.copyOf(changed);
    }

    /** Of all objects with records that are brought now, where there is a difference. */
    public static List<SeedChange> of(Release before, Release after) {
        var changes = new ArrayList<SeedChange>();
        for (var file : after.brought().seeds()) {
            var former = former(before, file);
            var added = new ArrayList<SeedFile.Row>();
            var changed = new ArrayList<SeedFile.Row>();
            for (var row : file.rows()) {
                var known = former.remove(row.key());
                if (known == null) {
                    added.add(row);
                } else if (!known.values().equals(row.values())) {
                    changed.add(row);
                }
            }
            if (!added.isEmpty() || !changed.isEmpty() || !former.isEmpty()) {
                changes.add(new SeedChange(file, added, changed, former.size()));
            }
        }
        return changes;
    }

    private static Map<String, SeedFile.Row> former(Release before, SeedFile file) {
        var rows = new HashMap<String, SeedFile.Row>();
        before.brought().seeds().stream()
                .filter(one -> one.object().equals(file.object()))
                .flatMap(one -> one.rows().stream())
                .forEach(row -> rows.put(row.key(), row));
        return rows;
    }

    /** What is other, in words. */
    public String sentence() {
        var words = new ArrayList<String>();
        count(words, added.size(), "is brought", "are brought");
        count(words, changed.size(), "is brought otherwise", "are brought otherwise");
        count(words, removed, "no longer is, and stays", "no longer are, and stay");
        return "Records of %s: %s.".formatted(after.object(), String.join(", ", words));
    }

    private static void count(List<String> words, int count, String one, String many) {
        if (count > 0) {
            words.add("%,d %s".formatted(count, count == 1 ? one : many));
        }
    }
}
