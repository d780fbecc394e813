package sandpiper.server.odata.query;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.apache.olingo.server.api.uri.UriInfo;
import org.apache.olingo.server.api.uri.UriResource;
import org.apache.olingo.server.api.uri.UriResourceCount;
import org.apache.olingo.server.api.uri.queryoption.ApplyItem;
import org.apache.olingo.server.api.uri.queryoption.ApplyOption;
import org.apache.olingo.server.api.uri.queryoption.apply.Aggregate;
import org.apache.olingo.server.api.uri.queryoption.apply.AggregateExpression;
import org.apache.olingo.server.api.uri.queryoption.apply.BottomTop;
import org.apache.olingo.server.api.uri.queryoption.apply.Filter;
import org.apache.olingo.server.api.uri.queryoption.apply.GroupBy;
import org.apache.olingo.server.api.uri.queryoption.apply.GroupByItem;
import org.apache.olingo.server.api.uri.queryoption.expression.Member;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.record.Aggregation;
import sandpiper.engine.record.Aggregation.Function;
import sandpiper.engine.record.Aggregation.Measure;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.type.FileType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.TemporalType;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.odata.request.Refusals;

/**
 * What {@code $apply} asks for (OData Data Aggregation 4.0): filters, and then one grouping or
 * aggregation. What else the standard has is refused.
 *
 * @param filter a condition in FEEL, or {@code null} for all records
 */
public record AppliedGroups(
        @Nullable String filter,
        List<Key> keys,
        List<Alias> measures,
        List<Aggregation.Order> orders) {

    /** A property that the records of a group have in common; {@code steps} lead to it. */
    public record Key(List<String> steps, FieldPath path) {
        private String written() {
            return String.join("/", steps);
        }
    }

    /** Something worked out, under the name it is answered with. */
    public record Alias(String name, Measure measure) {}

    /**
     * Reads the option of an address, with what stands beside it.
     *
     * @param shown the fields that callers may see of each record
     */
    public static AppliedGroups of(EntityShape shape, FieldTree shown, UriInfo uri) {
        requireNothingBeside(uri);
        var filters = new ArrayList<String>();
        var keys = new ArrayList<Key>();
        var measures = new ArrayList<Alias>();
        boolean grouped = false;
        for (var item : uri.getApplyOption().getApplyItems()) {
            if (grouped) {
                throw Refusals.notOffered("Behind a grouping in $apply nothing more is offered.");
            }
            switch (item) {
                case Filter filter ->
                        filters.add(
                                FilterText.of(
                                        shape, uri, filter.getFilterOption().getExpression()));
                case GroupBy by -> {
                    grouped = true;
                    by.getGroupByItems().forEach(one -> keys.add(key(shape, shown, one)));
                    if (by.getApplyOption() != null) {
                        measures.addAll(measures(shape, shown, by.getApplyOption()));
                    }
                }
                case Aggregate aggregate -> {
                    grouped = true;
                    measures.addAll(measures(shape, shown, aggregate));
                }
                default -> throw notOffered(item);
            }
        }
        if (!grouped) {
            throw Refusals.notOffered(
                    "$apply needs groupby or aggregate here; to filter alone there is $filter.");
        }
        return new AppliedGroups(
                filters.isEmpty()
                        ? null
                        : filters.stream()
                                .map("(%s)"::formatted)
                                .collect(Collectors.joining(" and ")),
                keys,
                measures,
                orders(uri, keys, measures));
    }

    private static void requireNothingBeside(UriInfo uri) {
        if (uri.getFilterOption() != null
                || uri.getSearchOption() != null
                || uri.getSelectOption() != null
                || uri.getExpandOption() != null
                || uri.getCountOption() != null) {
            throw Refusals.notOffered(
                    "Beside $apply there can be $orderby, $top and $skip; a filter stands inside"
                            + " it: filter(...)/groupby(...).");
        }
    }

    private static RuntimeException notOffered(ApplyItem item) {
        return Refusals.notOffered(
                "%s is not offered in $apply; filter, groupby and aggregate are."
                        .formatted(
                                item instanceof BottomTop one
                                        ? one.getMethod()
                                                .name()
                                                .replace("_", "")
                                                .toLowerCase(Locale.ROOT)
                                        : item.getKind()
                                                .name()
                                                .replace("_", "")
                                                .toLowerCase(Locale.ROOT)));
    }

    private static Key key(EntityShape shape, FieldTree shown, GroupByItem item) {
        if (!item.getRollup().isEmpty() || item.isRollupAll()) {
            throw Refusals.notOffered("rollup is not offered in $apply.");
        }
        var path = path(shape, shown, item.getPath());
        if (path.last().type() instanceof FileType) {
            throw Refusals.notOffered(
                    "%s is a file; records are not grouped by it.".formatted(path.written()));
        }
        return new Key(names(item.getPath()), path);
    }

    private static List<String> names(List<UriResource> parts) {
        return parts.stream().map(UriResource::getSegmentValue).toList();
    }

    /** A stored value that is shown. */
    private static FieldPath path(EntityShape shape, FieldTree shown, List<UriResource> parts) {
        var path = FilterText.path(shape, parts);
        if (shown.paths().stream().noneMatch(one -> one.written().equals(path.written()))) {
            throw Refusals.bad(
                    "%s is not shown in a query, so records are not grouped by it or added up."
                            .formatted(String.join("/", names(parts))));
        }
        if (path.last().onRead()) {
            throw Refusals.notOffered(
                    "%s is worked out each time it is read; records are not grouped by it or added up."
                            .formatted(String.join("/", names(parts))));
        }
        return path;
    }

    private static List<Alias> measures(EntityShape shape, FieldTree shown, ApplyOption inside) {
        var items = inside.getApplyItems();
        if (items.size() == 1 && items.getFirst() instanceof Aggregate aggregate) {
            return measures(shape, shown, aggregate);
        }
        throw Refusals.notOffered("Inside groupby only aggregate is offered.");
    }

    private static List<Alias> measures(EntityShape shape, FieldTree shown, Aggregate aggregate) {
        return aggregate.getExpressions().stream().map(one -> measure(shape, shown, one)).toList();
    }

    private static Alias measure(EntityShape shape, FieldTree shown, AggregateExpression asked) {
        if (asked.getInlineAggregateExpression() != null
                || !asked.getFrom().isEmpty()
                || asked.getCustomMethod() != null) {
            throw Refusals.notOffered(
                    "In aggregate $count and properties with sum, average, min, max or"
                            + " countdistinct are offered.");
        }
        if (asked.getPath().size() == 1 && asked.getPath().getFirst() instanceof UriResourceCount) {
            return new Alias(asked.getAlias(), Measure.COUNT);
        }
        var method = asked.getStandardMethod();
        if (method == null || !(asked.getExpression() instanceof Member member)) {
            throw Refusals.notOffered("aggregate takes properties, not expressions.");
        }
        var path = path(shape, shown, member.getResourcePath().getUriResourceParts());
        var function =
                switch (method) {
                    case SUM -> Function.SUM;
                    case AVERAGE -> Function.AVERAGE;
                    case MIN -> Function.MIN;
                    case MAX -> Function.MAX;
                    case COUNT_DISTINCT -> Function.DISTINCT;
                };
        requireFits(function, path);
        return new Alias(asked.getAlias(), new Measure(function, path));
    }

    private static void requireFits(Function function, FieldPath path) {
        var type = path.last().type();
        boolean fits =
                switch (function) {
                    case SUM, AVERAGE -> type instanceof NumberType;
                    case MIN, MAX -> type instanceof NumberType || type instanceof TemporalType;
                    case DISTINCT -> !(type instanceof FileType);
                    case COUNT -> true;
                };
        if (!fits) {
            throw Refusals.notOffered(
                    "%s has no %s: that is offered of numbers%s."
                            .formatted(
                                    path.written(),
                                    function.name().toLowerCase(Locale.ROOT),
                                    function == Function.MIN || function == Function.MAX
                                            ? ", dates and times"
                                            : ""));
        }
    }

    private static List<Aggregation.Order> orders(
            UriInfo uri, List<Key> keys, List<Alias> measures) {
        if (uri.getOrderByOption() == null) {
            return List.of();
        }
        var columns = new ArrayList<String>();
        keys.forEach(key -> columns.add(key.written()));
        measures.forEach(measure -> columns.add(measure.name()));
        return uri.getOrderByOption().getOrders().stream()
                .map(item -> {
                    var name =
                            item.getExpression() instanceof Member member
                                    ? String.join(
                                            "/",
                                            names(member.getResourcePath().getUriResourceParts()))
                                    : "";
                    if (!columns.contains(name)) {
                        throw Refusals.bad(
                                "Groups are sorted by what they have: %s."
                                        .formatted(String.join(", ", columns)));
                    }
                    return new Aggregation.Order(columns.indexOf(name), item.isDescending());
                })
                .toList();
    }

    /** As it stands in a context URL: {@code (state,vessel(name),total)}. */
    public String contextList() {
        var names = new ArrayList<String>();
        keys.forEach(key ->
                names.add(String.join("(", key.steps()) + ")".repeat(key.steps().size() - 1)));
        measures.forEach(measure -> names.add(measure.name()));
        return "(" + String.join(",", names) + ")";
    }
}
