package sandpiper.server.manage.record;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import java.math.BigDecimal;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.record.Figures;
import sandpiper.engine.record.Figures.Grouping;
import sandpiper.engine.record.Figures.Step;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.release.Field;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;
import sandpiper.model.type.MoneyType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.TemporalType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.service.QueryParameters;

/** What the records of a list come to: how many, sums of numbers, and both by one field. */
@RestController
@RequestMapping("/manage/v1/figures/{object}")
public class FigureController {
    private static final List<String> PARAMETERS =
            List.of("filter", "search", "retired", "of", "by", "step");
    private static final int MOST_SUMS = 30;

    private final Engine engine;

    FigureController(Engine engine) {
        this.engine = engine;
    }

    /**
     * What records come to.
     *
     * @param sums by field
     * @param more whether there are more groups than these
     */
    record FiguresView(
            long count, Map<String, BigDecimal> sums, List<GroupView> groups, boolean more) {}

    /**
     * Records with one value in common.
     *
     * @param value a code, a key, a truth, the first day of a step; {@code null} for none
     * @param title what a linked record is recognised by, or {@code null}
     */
    record GroupView(
            @Nullable String value,
            @Nullable String title,
            long count,
            Map<String, BigDecimal> sums) {}

    /**
     * The figures of the records that {@code filter}, {@code search} and {@code retired} find.
     * {@code of} names fields to add up, {@code by} the field to group by and {@code step} how long
     * groups of a date are.
     */
    @Operation(summary = "The figures of the records that filter, search and retired find")
    @GetMapping
    FiguresView figures(
            @PathVariable String object,
            @AuthenticationPrincipal Actor actor,
            HttpServletRequest request) {
        var reader = new QueryParameters(request.getParameterMap(), PARAMETERS);
        return engine.records()
                .read((live, session) -> {
                    var type = RecordQueries.object(live, object);
                    var access = RecordAccess.of(actor, live, type).require(Action.VIEW);
                    var sums = sums(access, reader.text("of"));
                    var by = reader.text("by");
                    var grouping =
                            by == null
                                    ? null
                                    : grouping(field(access, "by", by), reader.text("step"));
                    var query = RecordQueries.of(engine, access, reader, null);
                    var found = engine.records().figures(live, session, query, sums, grouping);
                    boolean told =
                            grouping == null
                                    || !(grouping.field().type()
                                            instanceof FieldType.Reference reference)
                                    || access.tells(live.release().target(reference));
                    return view(found, sums, told);
                });
    }

    private static FiguresView view(Figures figures, List<Field> sums, boolean told) {
        return new FiguresView(
                figures.count(),
                byName(sums, figures.sums()),
                figures.groups().stream()
                        .map(group ->
                                new GroupView(
                                        group.value().plain() == null
                                                ? null
                                                : String.valueOf(group.value().plain()),
                                        told ? group.value().title() : null,
                                        group.count(),
                                        byName(sums, group.sums())))
                        .toList(),
                figures.more());
    }

    private static Map<String, BigDecimal> byName(List<Field> fields, List<BigDecimal> sums) {
        var named = new LinkedHashMap<String, BigDecimal>();
        for (int i = 0; i < fields.size(); i++) {
            named.put(fields.get(i).name(), sums.get(i));
        }
        return named;
    }

    private static List<Field> sums(RecordAccess access, @Nullable String names) {
        if (names == null) {
            return List.of();
        }
        var fields =
                Arrays.stream(names.split(","))
                        .map(String::strip)
                        .map(name -> field(access, "of", name))
                        .toList();
        for (var field : fields) {
            boolean adds =
                    field.type() instanceof NumberType number
                            && number.keyword() != TypeKeyword.PERCENT;
            if (!adds) {
                throw wrong(
                        field.type() instanceof MoneyType
                                ? "%s may be in several currencies and cannot be added up."
                                        .formatted(field.name())
                                : "%s is no number that can be added up.".formatted(field.name()));
            }
        }
        if (fields.size() > MOST_SUMS) {
            throw wrong("At most %d fields can be added up at once.".formatted(MOST_SUMS));
        }
        return fields;
    }

    private static Field field(RecordAccess access, String parameter, String name) {
        if (!access.names().contains(name)) {
            throw wrong(
                    "%s names %s, which %s has not.%s"
                            .formatted(
                                    parameter,
                                    Quoted.of(name),
                                    access.type().name(),
                                    Nearest.to(name, access.names())
                                            .map(near -> " Did you mean " + near + "?")
                                            .orElse("")));
        }
        var field = access.type().fields().get(name);
        if (field.onRead()) {
            throw wrong(
                    "%s is worked out when it is read; records cannot be counted by it."
                            .formatted(name));
        }
        return field;
    }

    private static Grouping grouping(Field field, @Nullable String step) {
        boolean inTime =
                field.type() instanceof TemporalType temporal
                        && (temporal.keyword() == TypeKeyword.DATE
                                || temporal.keyword() == TypeKeyword.DATE_TIME);
        boolean groups =
                inTime
                        || !(field.type() instanceof MoneyType
                                || field.type() instanceof FileType
                                || (field.type() instanceof TextType text
                                        && (text.isLocalised() || text.multiline())));
        if (!groups) {
            throw wrong("Records cannot be counted by %s.".formatted(field.name()));
        }
        if (!inTime) {
            if (step != null) {
                throw wrong("step is for dates and moments; %s is none.".formatted(field.name()));
            }
            return new Grouping(field, null);
        }
        try {
            return new Grouping(
                    field, step == null ? Step.MONTH : Step.valueOf(step.toUpperCase(Locale.ROOT)));
        } catch (IllegalArgumentException _) {
            throw wrong(
                    "step must be one of %s."
                            .formatted(
                                    Arrays.stream(Step.values())
                                            .map(one -> one.name().toLowerCase(Locale.ROOT))
                                            .collect(Collectors.joining(", "))));
        }
    }

    private static ProblemException wrong(String message) {
        return new ProblemException(HttpStatus.BAD_REQUEST, message);
    }
}
