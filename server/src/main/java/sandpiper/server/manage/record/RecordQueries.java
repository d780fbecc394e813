package sandpiper.server.manage.record;

import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.Engine;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.record.Query;
import sandpiper.engine.release.LiveRelease;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.ObjectType;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.service.Conditions;
import sandpiper.server.service.QueryParameters;

/** Reads which records are meant, within what whoever asks may see. */
public final class RecordQueries {
    private static final int USUAL_PAGE = 50;
    private static final int HIGHEST_PAGE = 500;

    private RecordQueries() {}

    static ObjectType object(LiveRelease live, String name) {
        return live.release()
                .find(name)
                .orElseThrow(() -> {
                    var names = live.release().objects().stream().map(ObjectType::name).toList();
                    return new ProblemException(
                            HttpStatus.NOT_FOUND,
                            "There is no object %s.%s"
                                    .formatted(
                                            Quoted.of(name),
                                            Nearest.to(name, names)
                                                    .map(near -> " Did you mean " + near + "?")
                                                    .orElse("")));
                });
    }

    /**
     * The query of the parameters filter, search, sort, retired, limit and count.
     *
     * @param after the place to go on from, or {@code null}
     */
    static Query of(
            Engine engine,
            RecordAccess access,
            QueryParameters reader,
            @Nullable List<@Nullable Object> after) {
        var type = access.type();
        var clock = engine.clock().withZone(type.zone());
        var asked = reader.request(USUAL_PAGE, HIGHEST_PAGE);
        var sort = reader.text("sort");
        boolean byCreation = sort == null || sort.equals("-created") || sort.equals("created");
        var search = reader.text("search");
        boolean byCondition = search != null && access.searchesByCondition();
        var query =
                new Query(
                        type,
                        access.seen(),
                        Conditions.read("filter", asked.filter(), access.filterable(), clock),
                        byCondition ? null : search,
                        byCreation
                                ? List.of()
                                : asked.order(
                                        access.names(),
                                        name -> FieldPath.of(type.fields().get(name)),
                                        access.live().release().recordType(type),
                                        clock),
                        byCreation && !"created".equals(sort),
                        after,
                        0,
                        asked.limit(),
                        asked.counted(),
                        retired(reader));
        var reached =
                query.where(
                        engine.records().condition(access.live(), type, access.scope(Action.VIEW)));
        return search != null && byCondition
                ? reached.where(
                        Conditions.read(
                                "search",
                                access.searchText(search),
                                access.live().release().recordType(type),
                                clock))
                : reached;
    }

    private static Query.Retired retired(QueryParameters reader) {
        var text = reader.text("retired");
        try {
            return text == null
                    ? Query.Retired.WITHOUT
                    : Query.Retired.valueOf(text.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException _) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST, "retired must be without, with or only.");
        }
    }
}
