package sandpiper.server.odata;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.apache.olingo.server.api.uri.UriInfoResource;
import org.apache.olingo.server.api.uri.UriResourceKind;
import org.apache.olingo.server.api.uri.UriResourceNavigation;
import org.apache.olingo.server.api.uri.UriResourceProperty;
import org.apache.olingo.server.api.uri.queryoption.ExpandItem;
import org.apache.olingo.server.api.uri.queryoption.ExpandOption;
import org.apache.olingo.server.api.uri.queryoption.SelectItem;
import org.apache.olingo.server.api.uri.queryoption.SelectOption;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.FieldTree;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.odata.metadata.EntityShape.Items;
import sandpiper.server.odata.metadata.EntityShape.ToOne;
import sandpiper.server.odata.metadata.EntityShape.Value;
import sandpiper.server.odata.request.Refusals;

/**
 * What of an entity is answered, by {@code $select} and {@code $expand}, out of what the operation
 * shows.
 *
 * @param id whether the public id is among it; so with the version
 * @param narrowed whether it is less than everything the type has
 */
public record Projection(
        EntityShape shape,
        boolean id,
        boolean version,
        List<Value> values,
        List<Expanded> references,
        List<ExpandedItems> items,
        boolean narrowed) {
    public Projection {
        values = List.copyOf(values);
        references = List.copyOf(references);
        items = List.copyOf(items);
    }

    /** A record that is referred to, answered inside. */
    record Expanded(ToOne one, Projection inside) {}

    /**
     * Line items answered inside.
     *
     * @param skip how many to leave out at the beginning
     * @param top how many at most, or {@code null} for all
     * @param counted whether their number is told
     * @param listed whether they are there themselves, and not their number alone
     */
    record ExpandedItems(
            Items items,
            Projection inside,
            int skip,
            @Nullable Integer top,
            boolean counted,
            boolean listed) {}

    /** Everything of its own that can be shown, without what would be expanded. */
    static Projection plain(EntityShape shape, FieldTree available) {
        return of(shape, available, null, null);
    }

    static Projection of(
            EntityShape shape,
            FieldTree available,
            @Nullable SelectOption select,
            @Nullable ExpandOption expand) {
        return of(shape, available, available, select, expand);
    }

    /** {@code usual} is what is answered when nothing is selected. */
    static Projection of(
            EntityShape shape,
            FieldTree available,
            FieldTree usual,
            @Nullable SelectOption select,
            @Nullable ExpandOption expand) {
        return new Reader(available, written(available))
                .read(shape, written(usual), select, expand);
    }

    private static Set<String> written(FieldTree tree) {
        var paths = new LinkedHashSet<String>();
        tree.paths().forEach(path -> paths.add(path.written()));
        return paths;
    }

    /** Only what is needed to tell an entity, as a step on the way to something inside it. */
    static Projection step(EntityShape shape, Expanded inside) {
        return new Projection(shape, false, false, List.of(), List.of(inside), List.of(), true);
    }

    /** The same for line items. */
    static Projection step(EntityShape shape, ExpandedItems inside) {
        return new Projection(shape, false, false, List.of(), List.of(), List.of(inside), true);
    }

    /** The same with one more record inside. */
    private Projection with(Expanded more) {
        var all = new ArrayList<>(references);
        all.add(more);
        return new Projection(shape, id, version, values, all, items, narrowed);
    }

    /** The same with all line items of the given names. */
    Projection withItems(Set<String> names, FieldTree available) {
        var more = new ArrayList<>(items);
        shape.items().stream()
                .filter(one -> names.contains(one.name()))
                .filter(one -> items.stream().noneMatch(there -> there.items().equals(one)))
                .forEach(one ->
                        available
                                .part(one.name())
                                .ifPresent(part ->
                                        more.add(
                                                new ExpandedItems(
                                                        one,
                                                        plain(
                                                                one.target(),
                                                                new FieldTree(
                                                                        part.paths(), List.of())),
                                                        0,
                                                        null,
                                                        false,
                                                        true))));
        return new Projection(shape, id, version, values, references, more, narrowed);
    }

    private record Reader(FieldTree available, Set<String> paths) {
        /** Stands for as many levels as there are. */
        private static final int DEEPEST = Integer.MAX_VALUE;

        Projection read(
                EntityShape shape,
                Set<String> usual,
                @Nullable SelectOption select,
                @Nullable ExpandOption expand) {
            var chosen = chosen(select);
            var values = new ArrayList<Value>();
            for (var value : shape.values()) {
                boolean shown = paths.contains(value.path().written());
                if (chosen == null
                        ? usual.contains(value.path().written())
                        : chosen.contains(value.name())) {
                    if (!shown) {
                        throw Refusals.bad("%s is not shown.".formatted(value.name()));
                    }
                    values.add(value);
                }
            }
            boolean all = chosen == null;
            var references = new ArrayList<Expanded>();
            var items = new ArrayList<ExpandedItems>();
            if (expand != null) {
                expand.getExpandItems().forEach(item -> expand(shape, item, references, items));
            }
            return new Projection(
                    shape,
                    shape.own() && (chosen == null || chosen.contains(EntityShape.ID)),
                    shape.own() && (chosen == null || chosen.contains(EntityShape.VERSION)),
                    values,
                    references,
                    items,
                    !all || values.size() < shape.values().size());
        }

        private static @Nullable Set<String> chosen(@Nullable SelectOption select) {
            if (select == null || select.getSelectItems().stream().anyMatch(SelectItem::isStar)) {
                return null;
            }
            var names = new LinkedHashSet<String>();
            for (var item : select.getSelectItems()) {
                var path = item.getResourcePath();
                if (path != null
                        && path.getUriResourceParts().getFirst()
                                instanceof UriResourceProperty property) {
                    names.add(property.getProperty().getName());
                }
            }
            return names;
        }

        private void expand(
                EntityShape shape,
                ExpandItem item,
                List<Expanded> references,
                List<ExpandedItems> items) {
            if (item.getFilterOption() != null
                    || item.getSearchOption() != null
                    || item.getOrderByOption() != null
                    || item.getApplyOption() != null) {
                throw Refusals.notOffered(
                        "Inside $expand there are $select, $expand, $levels, $top, $skip and"
                                + " $count; filter and sort what you were given.");
            }
            if (item.isRef()) {
                throw Refusals.notOffered("$ref is not offered inside $expand.");
            }
            if (item.isStar()) {
                if (item.getLevelsOption() != null || item.hasCountPath()) {
                    throw Refusals.notOffered(
                            "$levels and $count are not offered with *; name what they are for.");
                }
                shape.references().stream()
                        .filter(one -> isShown(one))
                        .forEach(one -> references.add(reference(one, item)));
                shape.items().stream()
                        .filter(one -> available.part(one.name()).isPresent())
                        .forEach(one -> items.add(items(one, item)));
                return;
            }
            var name = navigation(item.getResourcePath());
            shape.reference(name)
                    .ifPresent(one -> {
                        if (!isShown(one)) {
                            throw notShown(name);
                        }
                        if (item.hasCountPath()) {
                            throw Refusals.bad(
                                    "%s is a single record; only lists are counted."
                                            .formatted(name));
                        }
                        references.add(reference(one, item));
                    });
            shape.items(name)
                    .ifPresent(one -> {
                        if (available.part(name).isEmpty()) {
                            throw notShown(name);
                        }
                        if (item.getLevelsOption() != null) {
                            throw Refusals.bad(
                                    "$levels is for references; %s are line items."
                                            .formatted(name));
                        }
                        items.add(items(one, item));
                    });
        }

        private static RuntimeException notShown(String name) {
            return Refusals.bad("%s is not shown.".formatted(name));
        }

        private boolean isShown(ToOne one) {
            var before = one.path().written() + ".";
            return paths.stream().anyMatch(path -> path.startsWith(before));
        }

        private Expanded reference(ToOne one, ExpandItem item) {
            var levels = item.getLevelsOption();
            int wanted = levels == null ? 1 : levels.isMax() ? DEEPEST : levels.getValue();
            if (wanted < 1) {
                throw Refusals.bad("$levels is a number from 1, or max.");
            }
            return reference(one, item, wanted, 1);
        }

        /** With the references of the same name behind it, as deep as was asked for. */
        private Expanded reference(ToOne one, ExpandItem item, int wanted, int level) {
            var inside = read(one.target(), paths, item.getSelectOption(), item.getExpandOption());
            var further = one.target().reference(one.name()).filter(this::isShown);
            if (level >= wanted || (further.isEmpty() && wanted == DEEPEST)) {
                return new Expanded(one, inside);
            }
            if (further.isEmpty()) {
                throw Refusals.bad(
                        "%s is shown %d deep, so $levels may be %d or max."
                                .formatted(one.name(), level, level));
            }
            if (inside.references().stream().anyMatch(two -> two.one().name().equals(one.name()))) {
                throw Refusals.bad(
                        "%s is expanded by $levels and by $expand; use one of them."
                                .formatted(one.name()));
            }
            return new Expanded(
                    one, inside.with(reference(further.get(), item, wanted, level + 1)));
        }

        private ExpandedItems items(Items one, ExpandItem item) {
            var part = available.part(one.name()).orElseThrow();
            var inside =
                    of(
                            one.target(),
                            new FieldTree(part.paths(), List.of()),
                            item.getSelectOption(),
                            item.getExpandOption());
            return new ExpandedItems(
                    one,
                    inside,
                    item.getSkipOption() == null ? 0 : item.getSkipOption().getValue(),
                    item.getTopOption() == null ? null : item.getTopOption().getValue(),
                    item.hasCountPath()
                            || (item.getCountOption() != null && item.getCountOption().getValue()),
                    !item.hasCountPath());
        }

        private static String navigation(UriInfoResource path) {
            var parts =
                    path.getUriResourceParts().stream()
                            .filter(part -> part.getKind() != UriResourceKind.count)
                            .toList();
            if (parts.size() == 1 && parts.getFirst() instanceof UriResourceNavigation one) {
                return one.getProperty().getName();
            }
            throw Refusals.notOffered(
                    "$expand takes one step at a time: vessel($expand=owner), not vessel/owner.");
        }
    }

    /** The fields that must be read for it. */
    FieldTree tree(FieldTree available) {
        var needed = new LinkedHashSet<String>();
        need(needed);
        var paths =
                available.paths().stream().filter(path -> needed.contains(path.written())).toList();
        var parts =
                items.stream().flatMap(one -> available.part(one.items().name()).stream()).toList();
        return new FieldTree(paths, parts);
    }

    private void need(Set<String> needed) {
        values.forEach(value -> needed.add(value.path().written()));
        shape.values().stream()
                .filter(value -> shape.key().contains(value.name()))
                .forEach(value -> needed.add(value.path().written()));
        references.forEach(one -> {
            // Whether there is such a record at all is told by the reference, where it is shown.
            needed.add(one.one().path().written());
            one.inside().need(needed);
        });
    }

    /** As it stands in a context URL: {@code (number,vessel(name))}; empty for everything. */
    String contextList() {
        var names = new ArrayList<String>();
        if (narrowed) {
            if (id) {
                names.add(EntityShape.ID);
            }
            if (version) {
                names.add(EntityShape.VERSION);
            }
            values.forEach(value -> names.add(value.name()));
        }
        references.forEach(one -> names.add(one.one().name() + inner(one.inside())));
        items.stream()
                .filter(ExpandedItems::listed)
                .forEach(one -> names.add(one.items().name() + inner(one.inside())));
        return names.isEmpty() ? "" : "(" + String.join(",", names) + ")";
    }

    private static String inner(Projection inside) {
        var list = inside.contextList();
        return list.isEmpty() ? "()" : list;
    }
}
