package sandpiper.model.check;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.definition.PackageType;
import sandpiper.model.release.Field;
import sandpiper.model.release.Fields;
import sandpiper.model.release.FunctionDefinition;
import sandpiper.model.release.ObjectType;
import sandpiper.model.source.Source;
import sandpiper.model.type.ChoiceList;

/** Reads what a package adds to an object of another one. */
final class ExtensionReader {
    private final Source source;
    private final PackageType owner;
    private final Map<String, ChoiceList> choices;

    ExtensionReader(Source source, PackageType owner, Map<String, ChoiceList> choices) {
        this.source = source;
        this.owner = owner;
        this.choices = choices;
    }

    ObjectType read(ObjectType object) {
        if (object.packageName().equals(owner.name())) {
            source.error(
                    DefinitionCode.NOT_FOR_THIS_TYPE,
                    "%s is an object of this package; change it in its own file."
                            .formatted(object.name()),
                    null,
                    "extend");
            return object;
        }
        var read =
                new FieldReader(source, owner, choices, List.of("fields"))
                        .read(Source.mapping(source.root(), "fields"), object.fields().size());
        var added = new ArrayList<Field>();
        for (var field : read) {
            boolean taken =
                    object.fields().names().stream().anyMatch(field.name()::equalsIgnoreCase)
                            || object.part(field.name()).isPresent();
            if (taken) {
                source.errorAtKey(
                        DefinitionCode.DUPLICATE_NAME,
                        "%s already has a field %s; choose another name."
                                .formatted(object.name(), Quoted.of(field.name())),
                        null,
                        "fields",
                        field.name());
                return object;
            }
            added.add(field.addedBy(owner.name()));
        }
        var rules = new RuleReader(source);
        var functions =
                new FunctionReader(source, owner, choices)
                        .read(source.root(), object.lifecycle()).stream()
                                .filter(one -> isNew(object, one))
                                .toList();
        var fields = new ArrayList<>(object.fields().stream().toList());
        fields.addAll(added);
        return object.with(
                new ObjectType.Addition(
                        added,
                        rules.checks(source.root(), List.of()),
                        rules.rules(source.root()),
                        functions,
                        new HandlerReader(source).read(source.root()),
                        new ScheduleReader(source, new Fields(fields)).read(source.root())));
    }

    private boolean isNew(ObjectType object, FunctionDefinition function) {
        if (object.function(function.name()).isEmpty()) {
            return true;
        }
        source.errorAtKey(
                DefinitionCode.DUPLICATE_NAME,
                "%s already has a function %s; choose another name."
                        .formatted(object.name(), Quoted.of(function.name())),
                null,
                "functions",
                function.name());
        return false;
    }
}
