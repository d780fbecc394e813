package sandpiper.model.route;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.ProblemCode;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.definition.FieldLogic;
import sandpiper.model.definition.LogicText;
import sandpiper.model.definition.PackageSight;
import sandpiper.model.definition.PackageType;
import sandpiper.model.definition.TravelSource;
import sandpiper.model.definition.Travels;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.RouteType;
import sandpiper.model.release.RouteType.Step;
import sandpiper.model.source.Source;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;
import sandpiper.model.type.MoneyType;
import sandpiper.model.type.TextType;

/**
 * Makes the fields that travel along routes on every object and part they reach, as if they were
 * written there: of the same type, label and meaning.
 */
public final class TravellingFields {
    private final RouteReader reader;
    private final Map<String, RouteType> routes = new LinkedHashMap<>();
    private final Map<String, PackageType> packages;
    private final Map<String, ObjectType> objects;
    private final Map<String, List<Source>> sources;
    private final BiConsumer<String, String> alike;

    /**
     * For the routes that were read.
     *
     * @param objects takes the objects with what was made
     * @param sources the files of each object, its own first
     * @param alike takes the written name of a field, and that of one made from it
     */
    public TravellingFields(
            RouteReader reader,
            Map<String, PackageType> packages,
            Map<String, ObjectType> objects,
            Map<String, List<Source>> sources,
            BiConsumer<String, String> alike) {
        this.reader = reader;
        reader.routes().forEach(route -> routes.put(route.name(), route));
        this.packages = packages;
        this.objects = objects;
        this.sources = sources;
        this.alike = alike;
    }

    /** A field on its way, and where its declaration stands. */
    private record Traveller(
            ObjectType object, Field field, Travels travels, RouteType route, Source source) {
        void error(ProblemCode code, String message, @Nullable String suggestion) {
            source.errorAt(
                    source.root().placeOf("fields", field.name(), "travels"),
                    code,
                    message,
                    suggestion);
        }
    }

    /** Where a value is, seen from the records of an object. */
    private record Origin(String object, List<String> through) {}

    /** Makes them all. */
    public void make() {
        for (var object : List.copyOf(objects.values())) {
            for (var field : object.fields()) {
                for (var travels : field.logic().travels()) {
                    send(object, field, travels);
                }
            }
            for (var part : object.parts()) {
                for (var field : part.fields()) {
                    if (!field.logic().travels().isEmpty()) {
                        stays(object, part, field);
                    }
                }
            }
        }
    }

    private static String[] place(@Nullable Part part, Field field) {
        return part == null
                ? new String[] {"fields", field.name(), "travels"}
                : new String[] {"parts", part.name(), "fields", field.name(), "travels"};
    }

    private void stays(ObjectType object, Part part, Field field) {
        sourceOf(object, field)
                .error(
                        DefinitionCode.NOT_FOR_THIS_TYPE,
                        "Fields of a record travel, those of its line items do not.",
                        null,
                        place(part, field));
    }

    private Source sourceOf(ObjectType object, Field field) {
        var files = Objects.requireNonNull(sources.get(object.name()));
        return files.stream()
                .filter(one -> Source.mapping(one.root(), "fields").get(field.name()).isPresent())
                .findFirst()
                .orElse(files.getFirst());
    }

    private void send(ObjectType object, Field field, Travels travels) {
        var source = sourceOf(object, field);
        var route = routes.get(travels.route());
        if (route == null && reader.isNamed(travels.route())) {
            // What is wrong with it is told in its own file.
            return;
        }
        if (route == null) {
            source.error(
                    DefinitionCode.UNKNOWN_ROUTE,
                    "There is no route %s.".formatted(Quoted.of(travels.route())),
                    Nearest.to(travels.route(), routes.keySet()).orElse(null),
                    place(null, field));
            return;
        }
        var traveller = new Traveller(object, field, travels, route, source);
        var from = source.file().substring(0, source.file().indexOf('/'));
        if (!PackageSight.reaches(packages, from, route.packageName())) {
            traveller.error(
                    DefinitionCode.NOT_VISIBLE,
                    "The route %s is in the package %s, which %s does not depend on; add it to \"depends\" in package.yaml."
                            .formatted(route.name(), route.packageName(), from),
                    null);
            return;
        }
        var starts = route.steps().stream().map(Step::from).distinct().toList();
        if (!starts.contains(object.name())) {
            traveller.error(
                    DefinitionCode.NOT_ON_ROUTE,
                    "Nothing is made from %s on the route %s; it goes on from %s."
                            .formatted(object.name(), route.name(), String.join(", ", starts)),
                    null);
            return;
        }
        if (mayTravel(traveller)) {
            var reached = new ArrayList<String>();
            go(traveller, object.name(), new Origin(object.name(), List.of()), reached);
            requireReached(traveller, reached);
        }
    }

    private static boolean mayTravel(Traveller traveller) {
        var type = traveller.field().type();
        boolean cannotFollow =
                type instanceof FieldType.Reference
                        || type instanceof MoneyType
                        || type instanceof FileType
                        || (type instanceof TextType text && text.isLocalised());
        if (traveller.travels().follows() && cannotFollow) {
            traveller.error(
                    DefinitionCode.NOT_FOR_THIS_TYPE,
                    "References, files, texts in several languages and amounts with a currency of"
                        + " their own do not follow; leave \"follows\" out, and their values are"
                        + " taken over.",
                    null);
            return false;
        }
        return true;
    }

    private static void requireReached(Traveller traveller, List<String> reached) {
        var named = traveller.travels().to();
        if (named == null) {
            return;
        }
        for (var name : named) {
            if (!reached.contains(name)) {
                traveller.error(
                        DefinitionCode.NOT_ON_ROUTE,
                        "The route %s does not lead from %s to %s; it leads to %s."
                                .formatted(
                                        traveller.route().name(),
                                        traveller.object().name(),
                                        name,
                                        String.join(", ", reached)),
                        Nearest.to(name, reached).orElse(null));
            }
        }
    }

    /** Goes every step that begins at an object. */
    private void go(Traveller traveller, String at, Origin origin, List<String> reached) {
        for (var step : traveller.route().steps()) {
            if (!step.from().equals(at)) {
                continue;
            }
            reached.add(step.target());
            var through = new ArrayList<>(step.through());
            through.addAll(origin.through());
            boolean made = false;
            if (traveller.travels().reaches(step.target())) {
                made = make(traveller, step, new Origin(origin.object(), through));
                if (!made) {
                    continue;
                }
            }
            if (step.part() == null) {
                go(
                        traveller,
                        step.to(),
                        made
                                ? new Origin(step.to(), List.of())
                                : new Origin(origin.object(), through),
                        reached);
            }
        }
    }

    /** Makes the field at the end of a step; tells whether its name was free. */
    private boolean make(Traveller traveller, Step step, Origin origin) {
        var object = Objects.requireNonNull(objects.get(step.to()));
        var part = step.part() == null ? null : object.part(step.part()).orElseThrow();
        var name = traveller.field().name();
        var fields = part == null ? object.fields() : part.fields();
        var there = fields.names().stream().filter(name::equalsIgnoreCase).findFirst();
        if (there.isPresent() || (part == null && object.part(name).isPresent())) {
            var source = there.flatMap(fields::find).map(one -> one.logic().source()).orElse(null);
            traveller.error(
                    DefinitionCode.DUPLICATE_NAME,
                    source == null
                            ? "%s already has something called %s; choose another name, or leave %s out with \"to\"."
                                    .formatted(step.target(), Quoted.of(name), step.target())
                            : "%s gets %s from %s on the route %s already; leave it out of one of them with \"to\"."
                                    .formatted(
                                            step.target(),
                                            Quoted.of(name),
                                            source.object(),
                                            source.route()),
                    null);
            return false;
        }
        var source =
                new TravelSource(
                        traveller.route().name(),
                        origin.object(),
                        name,
                        origin.through(),
                        part != null && !step.isFromItem(),
                        traveller.travels().follows());
        var made = with(fields, field(traveller, source, fields.size(), object.packageName()));
        objects.put(
                step.to(),
                part == null
                        ? object.with(made, object.parts())
                        : object.with(
                                object.fields(),
                                object.parts().stream()
                                        .map(one -> one.equals(part) ? one.with(made) : one)
                                        .toList()));
        alike.accept(traveller.object().name() + "." + name, step.target() + "." + name);
        return true;
    }

    private static Fields with(Fields fields, Field more) {
        var all = new ArrayList<>(fields.stream().toList());
        all.add(more);
        return new Fields(all);
    }

    private static Field field(
            Traveller traveller, TravelSource source, int index, String packageName) {
        var field = traveller.field();
        var from = Objects.requireNonNullElse(field.addedBy(), traveller.object().packageName());
        return new Field(
                index,
                field.name(),
                field.label(),
                field.describe(),
                withoutInverse(field.type()),
                false,
                false,
                field.readOnly() || source.follows(),
                null,
                field.was(),
                FieldLogic.of(source, source.follows() ? formula(traveller, source) : null),
                from.equals(packageName) ? null : from,
                false);
    }

    /** The list of those that refer to a record is that of the field that travels. */
    private static FieldType withoutInverse(FieldType type) {
        return type instanceof FieldType.Reference(var to, _)
                ? new FieldType.Reference(to, null)
                : type;
    }

    /** Works the value out; what is wrong with it is told where the field is sent on its way. */
    private static LogicText formula(Traveller traveller, TravelSource source) {
        var place = traveller.source().root().placeOf(place(null, traveller.field()));
        return new LogicText(
                source.written(),
                new LogicText.Origin() {
                    @Override
                    public String file() {
                        return traveller.source().file();
                    }

                    @Override
                    public sandpiper.model.Place place(int start, int end) {
                        return place;
                    }
                });
    }
}
