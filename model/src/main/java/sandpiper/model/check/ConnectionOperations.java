package sandpiper.model.check;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.connection.LookupType;
import sandpiper.model.connection.OutsideCallType;
import sandpiper.model.connection.OutsideOperation;
import sandpiper.model.definition.PackageType;
import sandpiper.model.openapi.ApiDocument;
import sandpiper.model.openapi.ApiOperation;
import sandpiper.model.openapi.ApiParameter;
import sandpiper.model.release.Parameter;
import sandpiper.model.release.ValueType;
import sandpiper.model.source.Source;
import sandpiper.model.type.ChoiceList;
import sandpiper.model.yaml.YamlNode;

/** Reads the lookups and calls of one connection, and holds them against its contract. */
final class ConnectionOperations {
    private static final Duration USUAL_KEEP = Duration.ofMinutes(10);
    private static final Duration LONGEST_KEEP = Duration.ofDays(3660);

    private final Source source;
    private final PackageType owner;
    private final String connection;
    private final @Nullable ApiDocument document;
    private final Map<String, ChoiceList> choices;
    private final ContractChecks checks;

    /**
     * Begins with none.
     *
     * @param document the contract, or null if it cannot be read, which is told elsewhere
     */
    ConnectionOperations(
            Source source,
            PackageType owner,
            String connection,
            Map<String, ChoiceList> choices,
            @Nullable ApiDocument document) {
        this.source = source;
        this.owner = owner;
        this.connection = connection;
        this.choices = choices;
        this.document = document;
        this.checks = new ContractChecks(source);
    }

    List<LookupType> lookups() {
        var lookups = new ArrayList<LookupType>();
        for (var entry : Source.mapping(source.root(), "lookups").entries()) {
            if (entry.value() instanceof YamlNode.Mapping definition) {
                lookups.add(lookup(entry.key().text(), definition));
            }
        }
        return lookups;
    }

    List<OutsideCallType> calls() {
        var calls = new ArrayList<OutsideCallType>();
        for (var entry : Source.mapping(source.root(), "calls").entries()) {
            if (entry.value() instanceof YamlNode.Mapping definition) {
                calls.add(call(entry.key().text(), definition));
            }
        }
        return calls;
    }

    private LookupType lookup(String name, YamlNode.Mapping definition) {
        var place = List.of("lookups", name);
        var written = Source.text(definition, "call").orElse("GET /");
        var search = Source.text(definition, "search").orElse(null);
        var one = Source.text(definition, "one").orElse(null);
        var items = steps(definition, "items");
        var key = steps(definition, "key");
        var label = definition.get("label").isPresent() ? steps(definition, "label") : key;
        for (var operation : one == null ? List.of(written) : List.of(written, one)) {
            if (!operation.startsWith("GET ")) {
                source.error(
                        DefinitionCode.NOT_FOR_THIS_TYPE,
                        "A lookup only reads: its operations are those of GET.",
                        null,
                        at(place, operation.equals(written) ? "call" : "one"));
            }
        }
        var list = called(definition, written, place);
        list.ifPresent(operation -> {
            if (search != null) {
                checks.takes(operation, search, at(place, "search"));
            }
            checks.needsNothingBut(
                    operation, search == null ? List.of() : List.of(search), at(place, "call"));
            checks.list(operation, items, key, label, place);
        });
        var single =
                one == null ? Optional.<ApiOperation>empty() : operation(one, at(place, "one"));
        single.ifPresent(operation -> checks.single(operation, key, label, place));
        return new LookupType(
                connection,
                name,
                sent(written, list.orElse(null), search == null ? List.of() : List.of(search)),
                search,
                one == null
                        ? null
                        : sent(
                                one,
                                single.orElse(null),
                                single.map(ContractChecks::inPath).orElse(List.of())),
                items,
                key,
                label,
                keep(definition, place).orElse(USUAL_KEEP),
                Source.text(definition, "whenDown").filter("accept"::equals).isPresent());
    }

    /** Of what is missing only that is said. */
    private Optional<ApiOperation> called(
            YamlNode.Mapping definition, String written, List<String> place) {
        return definition.get("call").isEmpty()
                ? Optional.empty()
                : operation(written, at(place, "call"));
    }

    private OutsideCallType call(String name, YamlNode.Mapping definition) {
        var place = List.of("calls", name);
        var written = Source.text(definition, "call").orElse("GET /");
        var values = new ValueReader(source, owner, choices);
        var parameters = Source.mapping(definition, "parameters");
        var given = values.group(parameters, List.of("calls", name, "parameters"));
        var returns =
                definition
                        .get("returns")
                        .map(node -> values.one("returns", node, place))
                        .orElse(null);
        var steps = steps(definition, "at");
        var keep = keep(definition, place);
        if (keep.isPresent() && !written.startsWith("GET ")) {
            source.error(
                    DefinitionCode.NOT_FOR_THIS_TYPE,
                    "Only what GET answers is kept; another call changes something outside.",
                    null,
                    at(place, "keep"));
        }
        var operation = called(definition, written, place);
        var names = given.names().stream().map(one -> sentName(parameters, one)).toList();
        operation.ifPresent(one -> {
            for (int i = 0; i < names.size(); i++) {
                var parameter = given.entries().get(i);
                checks.takes(
                        one, names.get(i), parameter, at(place, "parameters", parameter.name()));
            }
            checks.needsNothingBut(one, names, at(place, "call"));
            if (returns != null) {
                checks.gives(one, steps, returns, place);
            }
        });
        return new OutsideCallType(
                connection,
                name,
                Source.text(definition, "describe").orElse(null),
                sent(written, operation.orElse(null), names),
                required(given, names, operation.orElse(null)),
                returns,
                steps,
                keep.orElse(null),
                owner.zone());
    }

    /** What the contract calls a parameter. */
    private static String sentName(YamlNode.Mapping parameters, String name) {
        return Source.text(Source.mapping(parameters, name), "sent").orElse(name);
    }

    /** What the contract always needs, a caller always gives. */
    private static ValueType.Group required(
            ValueType.Group given, List<String> names, @Nullable ApiOperation operation) {
        var entries = new ArrayList<Parameter>();
        for (int i = 0; i < names.size(); i++) {
            var one = given.entries().get(i);
            boolean needed =
                    operation != null
                            && operation
                                    .parameter(names.get(i))
                                    .filter(ApiParameter::required)
                                    .isPresent();
            entries.add(
                    new Parameter(
                            one.name(),
                            one.label(),
                            one.describe(),
                            one.required() || needed,
                            one.type()));
        }
        return new ValueType.Group(entries);
    }

    private Optional<ApiOperation> operation(String written, String[] place) {
        if (document == null) {
            return Optional.empty();
        }
        int space = written.indexOf(' ');
        var found = document.operation(written.substring(0, space), written.substring(space + 1));
        if (found.isEmpty()) {
            var all = document.operations().stream().map(ApiOperation::written).toList();
            source.error(
                    DefinitionCode.NOT_IN_CONTRACT,
                    "The contract has no operation %s.".formatted(Quoted.of(written)),
                    Nearest.to(written, all).orElse(null),
                    place);
        }
        return found;
    }

    private static OutsideOperation sent(
            String written, @Nullable ApiOperation operation, List<String> names) {
        int space = written.indexOf(' ');
        var places = new ArrayList<OutsideOperation.Sent>();
        for (var name : names) {
            places.add(
                    new OutsideOperation.Sent(
                            name,
                            operation == null
                                    ? OutsideOperation.Where.QUERY
                                    : operation
                                            .parameter(name)
                                            .map(one ->
                                                    OutsideOperation.Where.valueOf(
                                                            one.place().name()))
                                            .orElse(OutsideOperation.Where.QUERY)));
        }
        return new OutsideOperation(
                written.substring(0, space), written.substring(space + 1), places);
    }

    private Optional<Duration> keep(YamlNode.Mapping definition, List<String> place) {
        var written = Source.text(definition, "keep");
        if (written.isEmpty()) {
            return Optional.empty();
        }
        var keep = Duration.parse(written.get());
        if (keep.isZero() || keep.compareTo(LONGEST_KEEP) > 0) {
            source.error(
                    DefinitionCode.WRONG_VALUE,
                    "Answers are kept for a second to ten years.",
                    null,
                    at(place, "keep"));
            return Optional.of(USUAL_KEEP);
        }
        return Optional.of(keep);
    }

    private static List<String> steps(YamlNode.Mapping definition, String key) {
        return Source.text(definition, key)
                .filter(text -> !text.isBlank())
                .map(text -> List.of(text.strip().split("\\.", -1)))
                .orElse(List.of());
    }

    private static String[] at(List<String> place, String... more) {
        var all = new ArrayList<>(place);
        all.addAll(List.of(more));
        return all.toArray(String[]::new);
    }
}
