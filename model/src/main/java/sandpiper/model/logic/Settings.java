package sandpiper.model.logic;

import org.jspecify.annotations.Nullable;
import sandpiper.logic.check.Setting;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;

/** What the logic of an object may name, place by place. */
public final class Settings {
    private Settings() {}

    /** For formulas and conditions of a record, or of its line items when there is a part. */
    public static Setting of(Release release, ObjectType object, @Nullable Part part) {
        var record = release.recordType(object);
        return part == null
                ? Setting.of(release.world(), record)
                : Setting.ofItem(release.world(), record.part(part), record);
    }

    /** For checks and rules, which see how the record was before. */
    public static Setting ofChange(Release release, ObjectType object) {
        return Setting.ofChange(release.world(), release.recordType(object));
    }

    /** For what a reference offers. */
    public static Setting ofOffer(
            Release release, ObjectType object, @Nullable Part part, ObjectType target) {
        return of(release, object, part).lookingAt(release.recordType(target));
    }
}
