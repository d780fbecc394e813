package sandpiper.model.release;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Span;
import sandpiper.logic.check.Checker;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.term.FormulaMember.Formula;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.EventShape;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.OutsideService;
import sandpiper.logic.type.RecordType;
import sandpiper.logic.type.World;
import sandpiper.model.definition.Brought;
import sandpiper.model.definition.PackageType;
import sandpiper.model.definition.Requirement;
import sandpiper.model.layout.Labels;
import sandpiper.model.type.ChoiceList;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;

/** A checked, immutable state of all definitions. Safe to share between threads. */
public final class Release {
    /** What a new instance begins with. */
    public static final Release EMPTY = new Release(List.of(), List.of(), List.of(), List.of());

    private final List<PackageType> packages;
    private final Map<String, ObjectType> objects = new LinkedHashMap<>();
    private final List<ChoiceList> choices;
    private final List<ServiceType> services;
    private final List<EventType> named;
    private final List<Requirement> requirements;
    private final List<RouteType> routes;
    private final List<OutsideService> connections;
    private final Brought brought;
    private final Labels labels;
    private final Map<String, EventType> events = new LinkedHashMap<>();
    private final Map<String, List<Inverse>> inverses = new LinkedHashMap<>();
    private final Map<String, FieldTree> everything = new LinkedHashMap<>();
    private final Map<String, ObjectRecordType> recordTypes = new LinkedHashMap<>();
    private final Map<String, Formula> formulas = new ConcurrentHashMap<>();

    /** Puts checked parts together; every reference must name one of the objects. */
    public Release(
            List<PackageType> packages,
            List<ObjectType> objects,
            List<ChoiceList> choices,
            List<ServiceType> services) {
        this(
                packages,
                objects,
                choices,
                services,
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                Brought.NOTHING,
                Labels.NONE);
    }

    /**
     * The same with events, what proves that it does what was asked for, routes, outside services,
     * roles, records and further labels.
     */
    public Release(
            List<PackageType> packages,
            List<ObjectType> objects,
            List<ChoiceList> choices,
            List<ServiceType> services,
            List<EventType> named,
            List<Requirement> requirements,
            List<RouteType> routes,
            List<? extends OutsideService> connections,
            Brought brought,
            Labels labels) {
        this.connections = List.copyOf(connections);
        this.labels = labels;
        this.named = List.copyOf(named);
        this.requirements = List.copyOf(requirements);
        this.routes = List.copyOf(routes);
        this.brought = brought;
        named.forEach(event -> events.put(event.name(), event));
        objects.forEach(object ->
                InherentEvents.of(object).forEach(event -> events.put(event.name(), event)));
        this.packages = List.copyOf(packages);
        this.choices = List.copyOf(choices);
        this.services = List.copyOf(services);
        objects.forEach(object -> this.objects.put(object.name(), object));
        objects.forEach(this::indexInverses);
        objects.forEach(object -> everything.put(object.name(), FieldTree.everythingOf(object)));
        objects.forEach(
                object -> recordTypes.put(object.name(), new ObjectRecordType(this, object)));
    }

    /** The same release with other objects in the place of its own. */
    public Release with(List<ObjectType> others) {
        return new Release(
                packages,
                others,
                choices,
                services,
                named,
                requirements,
                routes,
                connections,
                brought,
                labels);
    }

    /** Along which fields travel. */
    public List<RouteType> routes() {
        return routes;
    }

    /** The package that says where exchange rates come from, if one does. */
    public Optional<PackageType> rates() {
        return packages.stream().filter(one -> one.rates() != null).findFirst();
    }

    /** Outside services whose values are used. */
    public List<OutsideService> connections() {
        return connections;
    }

    /** What packages bring besides. */
    public Brought brought() {
        return brought;
    }

    /** What things are called in further languages. */
    public Labels labels() {
        return labels;
    }

    /** An object as the language sees it; the same one at each call. */
    public ObjectRecordType recordType(ObjectType object) {
        return java.util.Objects.requireNonNull(recordTypes.get(object.name()));
    }

    /** What expressions may name. */
    public World world() {
        return new World() {
            @Override
            public Optional<RecordType> object(String name) {
                return Optional.ofNullable(recordTypes.get(name));
            }

            @Override
            public java.util.Collection<String> objectNames() {
                return recordTypes.keySet();
            }

            @Override
            public Optional<OutsideService> connection(String name) {
                return connections.stream().filter(one -> one.name().equals(name)).findFirst();
            }

            @Override
            public boolean hasRates() {
                return rates().isPresent();
            }

            @Override
            public List<String> connectionNames() {
                return connections.stream().map(OutsideService::name).toList();
            }

            @Override
            public Optional<EventShape> event(String name) {
                return named.stream()
                        .filter(event -> event.name().equals(name))
                        .<EventShape>map(event -> new ModelEvent(event, Release.this))
                        .findFirst();
            }

            @Override
            public List<String> eventNames() {
                return named.stream().map(EventType::name).toList();
            }
        };
    }

    /**
     * The formula of a field of an object, or {@code null} when it has none; the same one at each
     * call.
     */
    @Nullable Formula formula(ObjectType object, Field field, LogicType type) {
        var text = field.logic().formula();
        return text == null
                ? null
                : formulas.computeIfAbsent(
                        object.name() + "." + field.name(),
                        _ -> checked(object, text.text(), type));
    }

    private Formula checked(ObjectType object, String text, LogicType type) {
        var record = recordType(object);
        var checked = Checker.value(text, NameContext.of(world(), record), type);
        var item =
                new Term.Local(
                        NameContext.THIS, "this", new LogicType.RecordOf(record), new Span(0, 0));
        return new Formula(checked.term(), item, checked.slots());
    }

    private void indexInverses(ObjectType object) {
        for (var field : object.fields()) {
            if (field.type() instanceof FieldType.Reference(var to, _)) {
                inverses.computeIfAbsent(to, _ -> new ArrayList<>())
                        .add(new Inverse(object, null, field));
            }
        }
        for (var part : object.parts()) {
            for (var field : part.fields()) {
                if (field.type() instanceof FieldType.Reference(var to, _)) {
                    inverses.computeIfAbsent(to, _ -> new ArrayList<>())
                            .add(new Inverse(object, part, field));
                }
            }
        }
    }

    public List<PackageType> packages() {
        return packages;
    }

    /** All objects, packages that others depend on first. */
    public List<ObjectType> objects() {
        return List.copyOf(objects.values());
    }

    /** Whether records or line items have files. */
    public boolean hasFiles() {
        return objects.values().stream()
                .flatMap(object ->
                        Stream.concat(
                                object.fields().stream(),
                                object.parts().stream().flatMap(part -> part.fields().stream())))
                .anyMatch(field -> field.type() instanceof FileType);
    }

    /** The object of a name, or nothing. */
    public Optional<ObjectType> find(String name) {
        return Optional.ofNullable(objects.get(name));
    }

    /** The object of a name that is known to exist. */
    public ObjectType object(String name) {
        return find(name)
                .orElseThrow(() -> new IllegalArgumentException("No object is called " + name));
    }

    /**
     * The tree of all an object has of its own; the same one at each call, so that what is made of
     * it can be kept.
     */
    public FieldTree everythingOf(ObjectType object) {
        return java.util.Objects.requireNonNull(everything.get(object.name()));
    }

    /**
     * The object that a reference field points to.
     *
     * @throws ClassCastException for a field that is no reference
     */
    public ObjectType target(Field field) {
        return target((FieldType.Reference) field.type());
    }

    /** The object a reference points to. */
    public ObjectType target(FieldType.Reference reference) {
        return object(reference.to());
    }

    public List<ChoiceList> choices() {
        return choices;
    }

    public List<ServiceType> services() {
        return services;
    }

    /** The service of a name and version, or nothing. */
    public Optional<ServiceType> service(String name, int version) {
        return services.stream()
                .filter(service -> service.name().equals(name) && service.version() == version)
                .findFirst();
    }

    /** Every event there is: those that have a definition, and those of every object. */
    public List<EventType> events() {
        return List.copyOf(events.values());
    }

    /** Events that have a definition. */
    public List<EventType> namedEvents() {
        return named;
    }

    /** The event of a name, or nothing. */
    public Optional<EventType> event(String name) {
        return Optional.ofNullable(events.get(name));
    }

    /** What was asked for, with what proves it. */
    public List<Requirement> requirements() {
        return requirements;
    }

    /** Every reference that points to an object, from records and from line items. */
    public List<Inverse> referencesTo(ObjectType object) {
        return List.copyOf(inverses.getOrDefault(object.name(), List.of()));
    }
}
