package sandpiper.store;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.Engine;
import sandpiper.engine.record.Query;
import sandpiper.logic.condition.Condition;

/** Reads a query to its end, page after page. */
final class Pages {
    private Pages() {}

    /** The first field of every record found, which is its key. */
    static List<String> keys(
            Engine engine,
            String object,
            @Nullable Condition condition,
            List<Query.Sort> sorts,
            int limit) {
        return engine.records()
                .read((live, session) -> {
                    var type = live.release().object(object);
                    var keys = new ArrayList<String>();
                    List<@Nullable Object> after = null;
                    do {
                        var query =
                                new Query(
                                        type,
                                        live.release().everythingOf(type),
                                        condition,
                                        null,
                                        sorts,
                                        false,
                                        after,
                                        0,
                                        limit,
                                        false,
                                        Query.Retired.WITHOUT);
                        var page = engine.records().page(live, session, query);
                        page.records().forEach(record -> keys.add((String) record.values()[0]));
                        after = page.next();
                    } while (after != null);
                    return keys;
                });
    }
}
