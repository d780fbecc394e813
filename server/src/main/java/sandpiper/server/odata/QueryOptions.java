package sandpiper.server.odata;

import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.OptionalInt;
import java.util.regex.Pattern;
import org.apache.olingo.server.api.ODataRequest;
import org.apache.olingo.server.api.uri.UriInfo;
import org.apache.olingo.server.api.uri.queryoption.expression.Member;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.record.Query;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType.Operation;
import sandpiper.server.json.Bounds;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.odata.query.AppliedGroups;
import sandpiper.server.odata.query.FilterText;
import sandpiper.server.odata.request.Refusals;
import sandpiper.server.odata.request.SearchText;
import sandpiper.server.service.QueryRequest;
import sandpiper.server.service.ServiceCall;

/** The system query options of a request for records. */
public final class QueryOptions {
    private static final Pattern PAGE_SIZE =
            Pattern.compile("(?:^|[,; ])(?:odata\\.)?maxpagesize=\"?([1-9][0-9]{0,8})\\b");

    private final ODataContext exchange;
    private final UriInfo uri;
    private final EntityShape shape;
    private final @Nullable String filter;
    private final List<QueryRequest.Sort> sorts;

    QueryOptions(ODataContext exchange, String set, UriInfo uri) {
        this.exchange = exchange;
        this.uri = uri;
        this.shape = exchange.model().shape(set);
        var asked = uri.getFilterOption();
        this.filter = asked == null ? null : FilterText.of(shape, uri, asked.getExpression());
        this.sorts = sorts();
        if (uri.getApplyOption() != null) {
            throw Refusals.notOffered("$apply is offered for the records of a set alone.");
        }
        requireNoDelta();
    }

    /** Options of a request for groups of records. */
    QueryOptions(ODataContext exchange, String set, UriInfo uri, AppliedGroups groups) {
        this.exchange = exchange;
        this.uri = uri;
        this.shape = exchange.model().shape(set);
        this.filter = groups.filter();
        this.sorts = List.of();
        requireNoDelta();
    }

    private void requireNoDelta() {
        if (uri.getDeltaTokenOption() != null) {
            throw Refusals.notOffered("Delta links are not offered.");
        }
    }

    /** The group to begin with, counted from 0. */
    int from(ServiceCall call) {
        var token = uri.getSkipTokenOption();
        var place =
                token == null ? null : exchange.cursors().read(fingerprint(call), token.getValue());
        if (place != null) {
            return Math.toIntExact((Long) Objects.requireNonNull(place.getFirst()));
        }
        return uri.getSkipOption() == null ? 0 : uri.getSkipOption().getValue();
    }

    private List<QueryRequest.Sort> sorts() {
        var order = uri.getOrderByOption();
        if (order == null) {
            return List.of();
        }
        var names = new ArrayList<QueryRequest.Sort>();
        for (var item : order.getOrders()) {
            if (!(item.getExpression() instanceof Member member)) {
                throw Refusals.notOffered("$orderby takes properties, not expressions.");
            }
            var path = FilterText.path(shape, member.getResourcePath());
            names.add(new QueryRequest.Sort(path, item.isDescending()));
        }
        return names;
    }

    /** How many records the page may have. */
    int limit(@Nullable List<String> prefer) {
        var top = uri.getTopOption();
        int most =
                top == null
                        ? exchange.json().bounds().usualPage()
                        : exchange.json().bounds().page();
        most = preferredPage(prefer, exchange.json().bounds()).orElse(most);
        return top == null ? most : Math.min(most, top.getValue());
    }

    /** How many records a caller would like a page to have, as far as that can be. */
    static OptionalInt preferredPage(@Nullable List<String> prefer, Bounds bounds) {
        var size =
                PAGE_SIZE.matcher(
                        String.join(",", Objects.requireNonNullElse(prefer, List.<String>of())));
        return size.find()
                ? OptionalInt.of(Math.min(bounds.page(), Integer.parseInt(size.group(1))))
                : OptionalInt.empty();
    }

    /** Whether the caller asked for more than a page has. */
    boolean wantsMoreThan(int limit) {
        return uri.getTopOption() == null || uri.getTopOption().getValue() > limit;
    }

    /** The query, within what the caller can reach; {@code tree} is what is read of records. */
    Query query(
            LiveRelease live,
            ServiceCall call,
            int limit,
            boolean counted,
            @Nullable FieldTree tree) {
        var token = uri.getApplyOption() == null ? uri.getSkipTokenOption() : null;
        var after =
                token == null ? null : exchange.cursors().read(fingerprint(call), token.getValue());
        var shown = call.resource(live, Operation.QUERY).tree(Operation.QUERY).orElseThrow();
        var query =
                call.query(live, new QueryRequest(filter, false, sorts, limit, counted, after))
                        .with(tree == null ? FieldTree.EMPTY : tree);
        var search = uri.getSearchOption();
        if (search != null) {
            query =
                    query.where(
                            call.condition(
                                    live, SearchText.of(shown, search.getSearchExpression())));
        }
        var skip = uri.getSkipOption();
        return skip == null ? query : query.skipping(skip.getValue());
    }

    private String fingerprint(ServiceCall call) {
        return "odata %s %s %s %s %s %s"
                .formatted(
                        call.via(),
                        shape.type(),
                        filter,
                        sorts,
                        uri.getSearchOption() == null ? "" : uri.getSearchOption().getText(),
                        uri.getApplyOption() == null ? "" : uri.getApplyOption().getText());
    }

    /** The address of the next page. */
    String next(ODataRequest request, List<@Nullable Object> place, int limit) {
        var call = exchange.call(uri.getUriResourceParts().getFirst().getSegmentValue());
        var options = new ArrayList<String>();
        for (var option : Objects.requireNonNullElse(request.getRawQueryPath(), "").split("&")) {
            var name = URLDecoder.decode(option.split("=", 2)[0], StandardCharsets.UTF_8);
            if (!option.isEmpty()
                    && !List.of("$skiptoken", "$skip", "$top").contains(name)
                    && !List.of("skiptoken", "skip", "top").contains(name)) {
                options.add(option);
            }
        }
        var top = uri.getTopOption();
        if (top != null) {
            options.add("$top=" + (top.getValue() - limit));
        }
        options.add("$skiptoken=" + exchange.cursors().write(fingerprint(call), place));
        return exchange.root() + request.getRawODataPath() + "?" + String.join("&", options);
    }
}
