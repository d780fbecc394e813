package sandpiper.store.postgres;

import java.nio.charset.StandardCharsets;
import java.util.Set;
import java.util.zip.CRC32;
import org.jooq.Name;
import org.jooq.VisitContext;
import org.jooq.VisitListener;
import org.jooq.impl.DSL;

/**
 * Names as PostgreSQL keeps them: of a long one it would cut off the end, and a few columns are
 * there in each of its tables. What is ours has an underscore in it, which names that people choose
 * have not, so that no two come to be the same.
 */
final class PostgresNames implements VisitListener {
    /** Bytes of a name. */
    private static final int MOST = 63;

    private static final int KEPT = 50;

    /** Columns that each table has. */
    private static final Set<String> TAKEN =
            Set.of("tableoid", "xmin", "cmin", "xmax", "cmax", "ctid");

    static String of(String name) {
        if (TAKEN.contains(name)) {
            return name + "_";
        }
        if (name.length() <= MOST) {
            return name;
        }
        var sum = new CRC32();
        sum.update(name.getBytes(StandardCharsets.UTF_8));
        return "%s__%08x".formatted(name.substring(0, KEPT), sum.getValue());
    }

    @Override
    public void visitStart(VisitContext context) {
        if (context.queryPart() instanceof Name name) {
            var parts = name.getName();
            var changed = false;
            for (int i = 0; i < parts.length; i++) {
                var kept = of(parts[i]);
                changed |= !kept.equals(parts[i]);
                parts[i] = kept;
            }
            if (changed) {
                context.queryPart(DSL.name(parts));
            }
        }
    }
}
