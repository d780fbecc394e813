package sandpiper.model.brought;

import java.time.Clock;
import java.time.Instant;
import sandpiper.logic.filter.Checked;
import sandpiper.logic.filter.ConditionChecker;
import sandpiper.model.logic.Reports;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.source.Source;
import sandpiper.model.yaml.YamlNode;

/** Checks conditions on records. */
final class BroughtConditions {
    private BroughtConditions() {}

    /** What checking one came to. */
    static Checked checked(Release release, ObjectType object, String condition) {
        // What day it is changes nothing about whether the condition is right.
        return ConditionChecker.check(
                condition, release.recordType(object), Clock.fixed(Instant.EPOCH, object.zone()));
    }

    /** Reports what is wrong with the one behind a key, at its places. */
    static void check(
            Source source,
            Release release,
            ObjectType object,
            YamlNode.Mapping mapping,
            String key) {
        var text = source.logic(mapping, key);
        if (text != null
                && checked(release, object, text.text()) instanceof Checked.Rejected(var wrong)) {
            Reports.add(text, wrong, source.diagnostics());
        }
    }
}
