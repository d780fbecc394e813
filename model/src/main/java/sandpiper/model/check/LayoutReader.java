package sandpiper.model.check;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.layout.FormLayout;
import sandpiper.model.layout.FormLayout.Section;
import sandpiper.model.layout.FormLayout.SideList;
import sandpiper.model.layout.Layout;
import sandpiper.model.layout.ListLayout;
import sandpiper.model.release.ObjectType;
import sandpiper.model.source.Source;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;
import sandpiper.model.type.TextType;
import sandpiper.model.yaml.YamlNode;

/**
 * Reads how records are laid out, of each object first what its own file says and then what
 * extensions add. It comes after all objects, since a form shows fields of others too.
 */
final class LayoutReader {
    private final Map<String, ObjectType> objects;
    private final Map<String, Source> sources;
    private final Map<String, List<Source>> extensions;

    LayoutReader(
            Map<String, ObjectType> objects,
            Map<String, Source> sources,
            Map<String, List<Source>> extensions) {
        this.objects = objects;
        this.sources = sources;
        this.extensions = extensions;
    }

    void read() {
        for (var object : List.copyOf(objects.values())) {
            var all = new ArrayList<Source>();
            var own = sources.get(object.name());
            if (own != null) {
                all.add(own);
            }
            all.addAll(extensions.getOrDefault(object.name(), List.of()));
            var one = new OfObject(object);
            all.forEach(one::add);
            objects.put(object.name(), object.with(one.layout()));
        }
    }

    /** The layout of one object as it comes together. */
    private final class OfObject {
        private final ObjectType object;
        private final List<Section> sections = new ArrayList<>();
        private final Set<String> placed = new HashSet<>();
        private final Set<String> wide = new LinkedHashSet<>();
        private final Set<String> leftOut = new LinkedHashSet<>();
        private @Nullable List<SideList> side;
        private final Map<String, List<String>> details = new HashMap<>();
        private final List<String> columns = new ArrayList<>();
        private @Nullable String sort;

        OfObject(ObjectType object) {
            this.object = object;
        }

        Layout layout() {
            return new Layout(
                    new FormLayout(sections, wide, leftOut, side, details),
                    new ListLayout(columns, sort));
        }

        void add(Source source) {
            var form = Source.mapping(source.root(), "form");
            var before = Set.copyOf(placed);
            if (form.get("sections").orElse(null) instanceof YamlNode.Sequence(var items, _)) {
                for (var item : items) {
                    if (item instanceof YamlNode.Mapping section) {
                        section(source, section);
                    }
                }
            }
            wide.addAll(fields(source, form, "wide", object));
            for (var name : fields(source, form, "leaveOut", object)) {
                if (placed.contains(name) && !before.contains(name)) {
                    wrong(
                            source,
                            form,
                            "leaveOut",
                            "%s stands in a section and is left out; take it away from one of them."
                                    .formatted(name));
                }
                leftOut.add(name);
            }
            side(source, form);
            details(source, form);
            list(source, Source.mapping(source.root(), "list"));
        }

        private void section(Source source, YamlNode.Mapping section) {
            var names = new ArrayList<String>();
            for (var name : fields(source, section, "fields", object)) {
                if (object.isState(object.fields().get(name))) {
                    wrong(
                            source,
                            section,
                            "fields",
                            "%s is the state, which stands over the form by itself."
                                    .formatted(name));
                } else if (placed.add(name)) {
                    names.add(name);
                } else {
                    wrong(
                            source,
                            section,
                            "fields",
                            "%s stands in a section already.".formatted(name));
                }
            }
            var heading = Source.text(section, "heading").filter(text -> !text.isBlank());
            var after = Source.text(section, "after").orElse(null);
            if (after == null) {
                sections.add(new Section(heading.orElse(null), names));
                return;
            }
            if (!isField(source, section, "after", object, after)) {
                return;
            }
            for (int at = 0; at < sections.size(); at++) {
                var other = sections.get(at);
                int place = other.fields().indexOf(after);
                if (place >= 0 && heading.isPresent()) {
                    sections.add(at + 1, new Section(heading.get(), names));
                    return;
                }
                if (place >= 0) {
                    var joined = new ArrayList<>(other.fields());
                    joined.addAll(place + 1, names);
                    sections.set(at, new Section(other.heading(), joined));
                    return;
                }
            }
            besideOneInNoSection(heading.orElse(null), after, names);
        }

        /** The field it comes after stands in no section: both get one, where it would be shown. */
        private void besideOneInNoSection(
                @Nullable String heading, String after, List<String> names) {
            var all = new ArrayList<String>();
            for (var field : object.fields().names()) {
                if (!placed.contains(field) && !object.isState(object.fields().get(field))) {
                    all.add(field);
                }
                if (field.equals(after)) {
                    break;
                }
            }
            placed.addAll(all);
            if (heading == null) {
                all.addAll(names);
                sections.add(new Section(null, all));
            } else {
                sections.add(new Section(null, all));
                sections.add(new Section(heading, names));
            }
        }

        private void side(Source source, YamlNode.Mapping form) {
            if (!(form.get("side").orElse(null) instanceof YamlNode.Sequence(var items, _))) {
                return;
            }
            var lists = side == null ? new ArrayList<SideList>() : new ArrayList<>(side);
            for (var item : items) {
                if (!(item instanceof YamlNode.Mapping one)) {
                    continue;
                }
                var written = Source.text(one, "records").orElse("");
                var known = referring();
                var found = known.get(written);
                if (found == null) {
                    source.errorAt(
                            one.placeOf("records"),
                            DefinitionCode.UNKNOWN_FIELD,
                            "No records %s refer to %s%s"
                                    .formatted(
                                            Quoted.of(written),
                                            object.name(),
                                            known.isEmpty()
                                                    ? "; none do at all."
                                                    : "; there are %s."
                                                            .formatted(
                                                                    String.join(
                                                                            ", ", known.keySet()))),
                            Nearest.to(written, known.keySet()).orElse(null));
                } else {
                    lists.add(
                            new SideList(
                                    found.object(),
                                    found.field(),
                                    fields(
                                            source,
                                            one,
                                            "fields",
                                            objects.getOrDefault(found.object(), object))));
                }
            }
            side = lists;
        }

        /** The references to this object by the names they can be written with. */
        private Map<String, SideList> referring() {
            var known = new LinkedHashMap<String, SideList>();
            for (var other : objects.values()) {
                for (var field : other.fields()) {
                    if (field.type() instanceof FieldType.Reference(var to, var inverse)
                            && to.equals(object.name())) {
                        var list = new SideList(other.name(), field.name(), List.of());
                        if (inverse != null) {
                            known.put(inverse, list);
                        }
                        known.put(other.name() + "." + field.name(), list);
                    }
                }
            }
            return known;
        }

        private void details(Source source, YamlNode.Mapping form) {
            var written = Source.mapping(form, "details");
            for (var entry : written.entries()) {
                var name = entry.key().text();
                var field = object.fields().find(name).orElse(null);
                if (field == null) {
                    unknown(source, entry.key(), object, name);
                } else if (field.type() instanceof FieldType.Reference(var to, _)) {
                    var target = objects.get(to);
                    if (target != null) {
                        details.put(name, fields(source, written, name, target));
                    }
                } else {
                    source.errorAt(
                            entry.key().place(),
                            DefinitionCode.NOT_FOR_THIS_TYPE,
                            "%s refers to no record, so it has no details.".formatted(name),
                            null);
                }
            }
        }

        private void list(Source source, YamlNode.Mapping list) {
            var added = new ArrayList<String>();
            for (var name : fields(source, list, "columns", object)) {
                if (columns.contains(name) || added.contains(name)) {
                    wrong(source, list, "columns", "%s is a column already.".formatted(name));
                } else {
                    added.add(name);
                }
            }
            var after = Source.text(list, "after").orElse(null);
            int place = after == null ? columns.size() : columns.indexOf(after) + 1;
            if (after != null && place == 0) {
                source.errorAt(
                        list.placeOf("after"),
                        DefinitionCode.UNKNOWN_FIELD,
                        columns.isEmpty()
                                ? "%s says of no columns; take \"after\" away, or name all columns."
                                        .formatted(object.name())
                                : "There is no column %s; there are %s."
                                        .formatted(Quoted.of(after), String.join(", ", columns)),
                        Nearest.to(after, columns).orElse(null));
                place = columns.size();
            }
            columns.addAll(place, added);
            var wanted = Source.text(list, "sort").orElse(null);
            if (wanted != null) {
                var name = wanted.startsWith("-") ? wanted.substring(1) : wanted;
                if (isField(source, list, "sort", object, name)) {
                    if (object.fields().get(name).type() instanceof TextType text
                            && text.isLocalised()) {
                        wrong(
                                source,
                                list,
                                "sort",
                                "%s is in several languages; sort by another field."
                                        .formatted(name));
                    }
                    if (object.fields().get(name).type() instanceof FileType) {
                        wrong(
                                source,
                                list,
                                "sort",
                                "%s is a file; sort by another field.".formatted(name));
                    }
                    sort = wanted;
                }
            }
        }

        /** The fields behind a key, those that there are. */
        private List<String> fields(Source source, YamlNode.Mapping at, String key, ObjectType of) {
            var names =
                    Source.texts(at, key).stream()
                            .flatMap(text -> Arrays.stream(text.split(",")))
                            .map(String::strip)
                            .filter(text -> !text.isEmpty())
                            .toList();
            return names.stream().filter(name -> isField(source, at, key, of, name)).toList();
        }

        private boolean isField(
                Source source, YamlNode.Mapping at, String key, ObjectType of, String name) {
            if (of.fields().find(name).isPresent()) {
                return true;
            }
            source.errorAt(
                    at.placeOf(key),
                    DefinitionCode.UNKNOWN_FIELD,
                    noSuchField(of, name),
                    Nearest.to(name, of.fields().names()).orElse(null));
            return false;
        }

        private void unknown(Source source, YamlNode.Scalar at, ObjectType of, String name) {
            source.errorAt(
                    at.place(),
                    DefinitionCode.UNKNOWN_FIELD,
                    noSuchField(of, name),
                    Nearest.to(name, of.fields().names()).orElse(null));
        }

        private String noSuchField(ObjectType of, String name) {
            return of.part(name).isPresent()
                    ? "%s are line items; they stand below the fields by themselves."
                            .formatted(Quoted.of(name))
                    : "%s has no field %s.".formatted(of.name(), Quoted.of(name));
        }

        private void wrong(Source source, YamlNode.Mapping at, String key, String message) {
            source.errorAt(at.placeOf(key), DefinitionCode.DUPLICATE_NAME, message, null);
        }
    }
}
