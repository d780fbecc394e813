package sandpiper.model.check;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Names;
import sandpiper.model.definition.DefaultValue;
import sandpiper.model.definition.FieldLogic;
import sandpiper.model.definition.Lifecycle;
import sandpiper.model.definition.PackageType;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.release.InherentEvents;
import sandpiper.model.source.Source;
import sandpiper.model.type.ChoiceList;
import sandpiper.model.type.ChoiceType;
import sandpiper.model.yaml.YamlNode;

/** Reads the lifecycle of an object. */
final class LifecycleReader {
    private static final String KEY = "lifecycle";
    private static final String USUAL_FIELD = "state";

    private final Source source;

    private final PackageType owner;

    LifecycleReader(Source source, PackageType owner) {
        this.owner = owner;
        this.source = source;
    }

    /** The lifecycle, or {@code null} when there is none or it cannot be used. */
    @Nullable Lifecycle read(Fields fields) {
        if (!(source.root().get(KEY).orElse(null) instanceof YamlNode.Mapping definition)) {
            return null;
        }
        var states = List.copyOf(labels(definition).keySet());
        var field = Source.text(definition, "field").orElse(USUAL_FIELD);
        if (fields.find(field).isPresent()) {
            source.errorAtKey(
                    DefinitionCode.DUPLICATE_NAME,
                    "The lifecycle makes the field %s by itself; take it out of the fields."
                            .formatted(Quoted.of(field)),
                    null,
                    "fields",
                    field);
            return null;
        }
        var initial = Source.text(definition, "initial").orElse("");
        checkState(initial, states, KEY, "initial");
        var transitions = new ArrayList<Lifecycle.Transition>();
        for (var entry : Source.mapping(definition, "transitions").entries()) {
            if (entry.value() instanceof YamlNode.Mapping transition) {
                if (InherentEvents.isTaken(entry.key().text())) {
                    source.errorAt(
                            entry.key().place(),
                            DefinitionCode.RESERVED_NAME,
                            "%s has a meaning already: an event is called so. Choose another name."
                                    .formatted(Quoted.of(entry.key().text())),
                            null);
                }
                transitions.add(transition(entry.key().text(), transition, states));
            }
        }
        warnOfUnreachable(initial, states, transitions);
        return states.isEmpty() ? null : new Lifecycle(field, initial, states, transitions);
    }

    private Map<String, String> labels(YamlNode.Mapping definition) {
        var labels = new LinkedHashMap<String, String>();
        switch (definition.get("states").orElse(null)) {
            case YamlNode.Sequence(var items, _) ->
                    items.forEach(
                            item -> labels.put(Source.text(item), Names.label(Source.text(item))));
            case YamlNode.Mapping mapping ->
                    mapping.entries()
                            .forEach(entry ->
                                    labels.put(
                                            entry.key().text(),
                                            Source.spoken(entry.value(), owner.languages())));
            case null, default -> {
                // reported by its shape
            }
        }
        return labels;
    }

    private Lifecycle.Transition transition(
            String name, YamlNode.Mapping definition, List<String> states) {
        var from = Source.texts(definition, "from");
        from.forEach(state -> checkState(state, states, KEY, "transitions", name, "from"));
        var to = Source.text(definition, "to").orElse("");
        checkState(to, states, KEY, "transitions", name, "to");
        return new Lifecycle.Transition(
                name,
                Source.spoken(definition, "label", owner.languages())
                        .orElseGet(() -> Names.label(name)),
                Source.text(definition, "describe").orElse(null),
                from,
                to);
    }

    private void checkState(String state, List<String> states, String... path) {
        if (!states.contains(state)) {
            source.error(
                    DefinitionCode.WRONG_VALUE,
                    "There is no state %s; there are %s."
                            .formatted(Quoted.of(state), String.join(", ", states)),
                    Nearest.to(state, states).orElse(null),
                    path);
        }
    }

    private void warnOfUnreachable(
            String initial, List<String> states, List<Lifecycle.Transition> transitions) {
        for (var state : states) {
            boolean reached =
                    state.equals(initial)
                            || transitions.stream().anyMatch(one -> one.to().equals(state));
            if (!reached) {
                source.warn(
                        DefinitionCode.WRONG_VALUE,
                        "No transition leads to the state %s.".formatted(Quoted.of(state)),
                        KEY,
                        "states");
            }
        }
    }

    /** The fields with the one that holds the state behind them. */
    Fields withState(String object, Fields fields, Lifecycle lifecycle) {
        var definition = Source.mapping(source.root(), KEY);
        var all = new ArrayList<>(fields.stream().toList());
        all.add(
                new Field(
                        all.size(),
                        lifecycle.field(),
                        Names.label(lifecycle.field()),
                        "Where the record is in its life.",
                        new ChoiceType(
                                new ChoiceList(
                                        object + Names.label(lifecycle.field()),
                                        labels(definition))),
                        true,
                        false,
                        true,
                        new DefaultValue.Fixed(lifecycle.initial(), lifecycle.initial()),
                        null,
                        FieldLogic.NONE,
                        null,
                        false));
        return new Fields(all);
    }
}
