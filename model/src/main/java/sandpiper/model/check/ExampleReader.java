package sandpiper.model.check;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.logic.type.OutsideService.OutsideFunction;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Names;
import sandpiper.model.definition.Requirement;
import sandpiper.model.definition.Requirement.Action;
import sandpiper.model.release.FunctionDefinition;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;
import sandpiper.model.source.Source;
import sandpiper.model.yaml.PlainYaml;
import sandpiper.model.yaml.YamlNode;

/** Reads one example, with the names that were given to records so far. */
final class ExampleReader {
    /** An example that names no day takes place on this one, so that it is the same every day. */
    private static final LocalDate USUAL_DAY = LocalDate.of(2026, 6, 1);

    private final Source source;
    private final Release release;
    private final Set<String> told;
    private final YamlNode.Scalar name;
    private final YamlNode.Mapping definition;
    private final Map<String, ObjectType> named = new LinkedHashMap<>();
    private @Nullable ObjectType last;

    /**
     * Reads an example of a file.
     *
     * @param told what was found wrong in the file so far
     */
    ExampleReader(
            Source source,
            Release release,
            Set<String> told,
            YamlNode.Scalar name,
            YamlNode.Mapping definition) {
        this.source = source;
        this.release = release;
        this.told = told;
        this.name = name;
        this.definition = definition;
    }

    Requirement.Example read() {
        var given = new ArrayList<>(actions(shared()));
        given.addAll(actions(definition.get("given").orElse(null)));
        var when = actions(definition.get("when").orElse(null));
        return new Requirement.Example(
                name.text(),
                Source.text(definition, "label").orElseGet(() -> Names.label(name.text())),
                today(),
                answers(),
                given,
                when,
                expected(Source.mapping(definition, "then")),
                source.file(),
                name.place());
    }

    /** What there is before each example of the file. */
    private @Nullable YamlNode shared() {
        return source.root().get("given").orElse(null);
    }

    /** What outside services are said to answer, by their calls. */
    private Map<String, @Nullable Object> answers() {
        var answers = new LinkedHashMap<String, @Nullable Object>();
        for (var entry : Source.mapping(definition, "answers").entries()) {
            var call = entry.key().text();
            var known =
                    release.connections().stream()
                            .flatMap(one -> one.functions().stream())
                            .map(OutsideFunction::written)
                            .toList();
            if (!known.contains(call)) {
                wrong(
                        entry.key(),
                        "There is no call %s of an outside service.".formatted(Quoted.of(call)),
                        nearest(call, known));
            }
            answers.put(call, PlainYaml.of(entry.value()));
        }
        return answers;
    }

    private LocalDate today() {
        var text = Source.text(definition, "today");
        try {
            return text.map(LocalDate::parse).orElse(USUAL_DAY);
        } catch (DateTimeException e) {
            wrong(definition.get("today").orElse(name), "There is no such day.", null);
            return USUAL_DAY;
        }
    }

    private List<Action> actions(@Nullable YamlNode node) {
        var nodes = node instanceof YamlNode.Sequence(var items, _) ? items : nodes(node);
        var actions = new ArrayList<Action>();
        for (var one : nodes) {
            if (one instanceof YamlNode.Mapping action) {
                action(action).ifPresent(actions::add);
            }
        }
        return actions;
    }

    private List<YamlNode> nodes(@Nullable YamlNode node) {
        return node == null ? List.of() : List.of(node);
    }

    private Optional<Action> action(YamlNode.Mapping action) {
        var kinds =
                List.of("create", "change", "retire", "call", "transition").stream()
                        .filter(kind -> action.get(kind).isPresent())
                        .toList();
        if (kinds.size() != 1) {
            wrong(action, "An action is one of create, change, retire, call and transition.", null);
            return Optional.empty();
        }
        var kind = kinds.getFirst();
        var node = action.get(kind).orElseThrow();
        var subject = Source.text(node);
        var as = Source.text(action, "as").orElse(null);
        var by = Source.text(action, "by").orElse(null);
        var found =
                switch (kind) {
                    case "create" -> create(node, subject, action, as, by);
                    case "change" ->
                            record(node, subject)
                                    .map(object -> {
                                        remember(as, object);
                                        return new Action.Change(
                                                subject, values(action, "values", object), as, by);
                                    });
                    case "retire" ->
                            record(node, subject)
                                    .map(object -> {
                                        remember(as, object);
                                        return new Action.Retire(subject, as, by);
                                    });
                    case "transition" -> transit(node, subject, action, as, by);
                    default -> call(node, subject, action, as, by);
                };
        return found.map(one -> (Action) one);
    }

    private Optional<Action> create(
            YamlNode node,
            String subject,
            YamlNode.Mapping action,
            @Nullable String as,
            @Nullable String by) {
        return object(node, subject)
                .map(object -> {
                    remember(as, object);
                    return new Action.Create(subject, values(action, "values", object), as, by);
                });
    }

    private Optional<Action> transit(
            YamlNode node,
            String subject,
            YamlNode.Mapping action,
            @Nullable String as,
            @Nullable String by) {
        var of = of(action, node);
        if (of.isEmpty()) {
            return Optional.empty();
        }
        var object = record(action.get("of").orElse(node), of.get());
        if (object.isEmpty()) {
            return Optional.empty();
        }
        var lifecycle = object.get().lifecycle();
        if (lifecycle == null || lifecycle.find(subject).isEmpty()) {
            wrong(
                    node,
                    "%s has no transition %s.".formatted(object.get().name(), Quoted.of(subject)),
                    lifecycle == null
                            ? null
                            : nearest(
                                    subject,
                                    lifecycle.transitions().stream()
                                            .map(one -> one.name())
                                            .toList()));
            return Optional.empty();
        }
        remember(as, object.get());
        return Optional.of(new Action.Transit(subject, of.get(), as, by));
    }

    private Optional<String> of(YamlNode.Mapping action, YamlNode node) {
        var of = Source.text(action, "of");
        if (of.isEmpty()) {
            wrong(node, "Say behind \"of\" which record it is done with.", null);
        }
        return of;
    }

    private Optional<Action> call(
            YamlNode node,
            String subject,
            YamlNode.Mapping action,
            @Nullable String as,
            @Nullable String by) {
        int dot = subject.indexOf('.');
        var of = Source.text(action, "of").orElse(null);
        Optional<ObjectType> object;
        if (dot > 0) {
            object = object(node, subject.substring(0, dot));
        } else if (of == null) {
            of(action, node);
            return Optional.empty();
        } else {
            object = record(action.get("of").orElse(node), of);
        }
        if (object.isEmpty()) {
            return Optional.empty();
        }
        var wanted = subject.substring(dot + 1);
        var function = object.get().function(wanted);
        if (function.isEmpty()) {
            wrong(
                    node,
                    "%s has no function %s.".formatted(object.get().name(), Quoted.of(wanted)),
                    nearest(
                            wanted,
                            object.get().functions().stream()
                                    .map(FunctionDefinition::name)
                                    .toList()));
            return Optional.empty();
        }
        if (function.get().onRecord() && of == null) {
            of(action, node);
            return Optional.empty();
        }
        remember(as, object.get());
        return Optional.of(
                new Action.Call(
                        object.get().name() + "." + wanted,
                        function.get().onRecord() ? of : null,
                        PlainYaml.of(Source.mapping(action, "with")),
                        as,
                        by));
    }

    private void remember(@Nullable String as, ObjectType object) {
        last = object;
        if (as != null) {
            named.put(as, object);
        }
    }

    private Optional<ObjectType> object(YamlNode node, String objectName) {
        var object = release.find(objectName);
        if (object.isEmpty()) {
            wrong(
                    node,
                    "There is no object %s.".formatted(Quoted.of(objectName)),
                    nearest(objectName, release.objects().stream().map(ObjectType::name).toList()));
        }
        return object;
    }

    /** The object of a record that is written as {@code Object/key} or by its name. */
    private Optional<ObjectType> record(YamlNode node, String written) {
        int slash = written.indexOf('/');
        if (slash > 0) {
            return object(node, written.substring(0, slash));
        }
        var object = named.get(written);
        if (object == null) {
            wrong(
                    node,
                    "No record is called %s here; write Object/key, or a name given before behind as."
                            .formatted(Quoted.of(written)),
                    nearest(written, named.keySet()));
        }
        return Optional.ofNullable(object);
    }

    private Map<String, @Nullable Object> values(
            YamlNode.Mapping action, String key, ObjectType object) {
        var values = Source.mapping(action, key);
        checkFields(values, object);
        return PlainYaml.of(values);
    }

    private void checkFields(YamlNode.Mapping values, ObjectType object) {
        for (var entry : values.entries()) {
            var field = entry.key().text();
            if (object.fields().find(field).isEmpty() && object.part(field).isEmpty()) {
                var names = new ArrayList<>(object.fields().names());
                object.parts().stream().map(Part::name).forEach(names::add);
                wrong(
                        entry.key(),
                        "%s has no field %s.".formatted(object.name(), Quoted.of(field)),
                        nearest(field, names));
            }
        }
    }

    private Requirement.Expected expected(YamlNode.Mapping then) {
        var subject = last;
        var values = Source.mapping(then, "values");
        if (subject != null) {
            checkFields(values, subject);
        }
        var records = new LinkedHashMap<String, Map<String, @Nullable Object>>();
        for (var entry : Source.mapping(then, "records").entries()) {
            if (entry.value() instanceof YamlNode.Mapping ofRecord) {
                record(entry.key(), entry.key().text())
                        .ifPresent(object -> checkFields(ofRecord, object));
                records.put(entry.key().text(), PlainYaml.of(ofRecord));
            }
        }
        var result = then.get("result");
        return new Requirement.Expected(
                Source.text(then, "refused").orElse(null),
                Source.text(then, "at").orElse(null),
                Source.text(then, "warns").orElse(null),
                result.isPresent(),
                result.map(PlainYaml::of).orElse(null),
                PlainYaml.of(values),
                records,
                then.get("events").map(this::events).orElse(null));
    }

    private List<Requirement.ExpectedEvent> events(YamlNode node) {
        var events = new ArrayList<Requirement.ExpectedEvent>();
        var items = node instanceof YamlNode.Sequence(var all, _) ? all : List.of(node);
        for (var item : items) {
            var entry =
                    item instanceof YamlNode.Mapping(var entries, _) && entries.size() == 1
                            ? entries.getFirst()
                            : null;
            var written = entry == null ? Source.text(item) : entry.key().text();
            var event = release.event(written);
            if (event.isEmpty()) {
                wrong(
                        item,
                        "There is no event %s.".formatted(Quoted.of(written)),
                        nearest(
                                written,
                                release.events().stream().map(one -> one.name()).toList()));
            }
            events.add(
                    new Requirement.ExpectedEvent(
                            written,
                            entry != null && entry.value() instanceof YamlNode.Mapping told
                                    ? PlainYaml.of(told)
                                    : Map.of()));
        }
        return events;
    }

    private static @Nullable String nearest(String name, Collection<String> names) {
        return Nearest.to(name, names).orElse(null);
    }

    /** What examples share is read with each of them, but wrong only once. */
    private void wrong(YamlNode node, String message, @Nullable String suggestion) {
        if (!told.add(node.place() + message)) {
            return;
        }
        source.errorAt(node.place(), DefinitionCode.BAD_EXAMPLE, message, suggestion);
    }
}
