package sandpiper.logic.check;

import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.type.World;

/**
 * What an expression is written about: the names it may use. Their places in the frame are fixed,
 * so that whoever runs it knows where to put the values.
 *
 * @param self the record, named {@code this}; its members need no name before them. {@code null}
 *     for an expression that stands alone
 * @param owner the record a line item belongs to, whose members can be named too; otherwise {@code
 *     null}
 * @param changes whether it runs on a change, so that {@code old}, {@code changed} and {@code is
 *     new} have a meaning
 * @param item a record that is looked at on behalf of {@code this}, whose members come first;
 *     otherwise {@code null}
 * @param names further names, in the order of their places
 */
public record NameContext(
        World world,
        @Nullable RecordType self,
        @Nullable RecordType owner,
        boolean changes,
        @Nullable RecordType item,
        Map<String, LogicType> names) {
    /** Place of {@code this}. */
    public static final int THIS = 0;

    /** Place of the record a line item belongs to. */
    public static final int OWNER = 1;

    /** Place of the record as it was. */
    public static final int OLD = 2;

    /** Place of whether the record is new. */
    public static final int IS_NEW = 3;

    /** Place of the record that is looked at among others. */
    public static final int ITEM = 4;

    /** Place of the first of {@link #names}. */
    public static final int FIRST_NAME = 5;

    public NameContext {
        names = new LinkedHashMap<>(names);
    }

    /** For an expression that stands alone. */
    public static final NameContext ALONE =
            new NameContext(World.EMPTY, null, null, false, null, Map.of());

    /** About a record. */
    public static NameContext of(World world, RecordType self) {
        return new NameContext(world, self, null, false, null, Map.of());
    }

    /** About a line item of a record. */
    public static NameContext ofItem(World world, RecordType item, RecordType owner) {
        return new NameContext(world, item, owner, false, null, Map.of());
    }

    /** About a change of a record. */
    public static NameContext ofChange(World world, RecordType self) {
        return new NameContext(world, self, null, true, null, Map.of());
    }

    /** The same about a record that is looked at besides. */
    public NameContext lookingAt(RecordType looked) {
        return new NameContext(world, self, owner, changes, looked, names);
    }

    public NameContext with(Map<String, LogicType> more) {
        return new NameContext(world, self, owner, changes, item, more);
    }
}
