package sandpiper.store.sql;

import org.jooq.DSLContext;
import org.jooq.SQLDialect;
import org.jooq.conf.RenderQuotedNames;
import org.jooq.conf.Settings;
import org.jooq.impl.DSL;

/** How all statements are rendered: with quoted names, on one line. */
public final class Rendering {
    private Rendering() {}

    static {
        // jOOQ greets on standard output otherwise.
        System.setProperty("org.jooq.no-logo", "true");
        System.setProperty("org.jooq.no-tips", "true");
    }

    /** A renderer for a dialect; it runs nothing. */
    public static DSLContext in(SQLDialect dialect) {
        return DSL.using(dialect, settings());
    }

    /** What renderers are set up with. */
    public static Settings settings() {
        return new Settings()
                .withRenderQuotedNames(RenderQuotedNames.ALWAYS)
                .withRenderFormatted(false);
    }
}
