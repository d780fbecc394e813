package sandpiper.model.check;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.openapi.ApiOperation;
import sandpiper.model.openapi.ApiParameter;
import sandpiper.model.openapi.JsonShape;
import sandpiper.model.release.Parameter;
import sandpiper.model.release.ValueType;
import sandpiper.model.source.Source;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.FileType;
import sandpiper.model.type.MoneyType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;

/**
 * Checks what a connection says of operations against the document that describes them. What the
 * document leaves open is taken as it is said.
 */
final class ContractChecks {
    private static final Set<String> NUMBERS = Set.of("number", "integer");

    private static final Set<String> OWN_HEADERS =
            Set.of(
                    "authorization",
                    "proxy-authorization",
                    "host",
                    "cookie",
                    "content-length",
                    "content-type",
                    "transfer-encoding",
                    "connection",
                    "upgrade",
                    "te",
                    "accept",
                    "user-agent",
                    "idempotency-key");

    private final Source source;

    ContractChecks(Source source) {
        this.source = source;
    }

    /** The names of the parameters in the path of an operation. */
    static List<String> inPath(ApiOperation operation) {
        return operation.parameters().stream()
                .filter(one -> one.place() == ApiParameter.Place.PATH)
                .map(ApiParameter::name)
                .toList();
    }

    /** That there is a parameter of a name. */
    boolean takes(ApiOperation operation, String name, String... place) {
        if (operation.parameter(name).isPresent()) {
            return true;
        }
        var names = operation.parameters().stream().map(ApiParameter::name).toList();
        source.errorAtKey(
                DefinitionCode.NOT_IN_CONTRACT,
                names.isEmpty()
                        ? "%s takes no parameters.".formatted(operation.written())
                        : "%s takes no %s; it takes %s."
                                .formatted(
                                        operation.written(),
                                        Quoted.of(name),
                                        String.join(", ", names)),
                Nearest.to(name, names).orElse(null),
                place);
        return false;
    }

    /** That there is a parameter of a name which takes values of a type. */
    void takes(ApiOperation operation, String name, Parameter parameter, String... place) {
        if (!(parameter.type() instanceof ValueType.Single(var field)) || !isPlain(field.type())) {
            source.errorAtKey(
                    DefinitionCode.NOT_FOR_THIS_TYPE,
                    "A parameter of an outside service is a single value: a text, number, boolean,"
                            + " date, time or the like.",
                    null,
                    place);
            return;
        }
        if (takes(operation, name, place)) {
            var found = operation.parameter(name).orElseThrow();
            if (found.place() == ApiParameter.Place.HEADER
                    && OWN_HEADERS.contains(name.toLowerCase(Locale.ROOT))) {
                source.errorAtKey(
                        DefinitionCode.NOT_FOR_THIS_TYPE,
                        "The header %s is sent by the service itself; credentials are given by the instance."
                                .formatted(name),
                        null,
                        place);
            }
            requireFit(found.shape(), field.type(), name, false, place);
        }
    }

    /** That every parameter an operation cannot do without is among some. */
    void needsNothingBut(ApiOperation operation, Collection<String> given, String... place) {
        for (var parameter : operation.parameters()) {
            if (parameter.required() && !given.contains(parameter.name())) {
                source.error(
                        DefinitionCode.NOT_IN_CONTRACT,
                        "%s needs %s, which is not given."
                                .formatted(operation.written(), parameter.name()),
                        null,
                        place);
            }
        }
    }

    /** That an answer has a list of entries with a code and a label. */
    void list(
            ApiOperation operation,
            List<String> items,
            List<String> key,
            List<String> label,
            List<String> place) {
        var answer = operation.answer();
        var list = answer == null ? null : reached(operation, answer, items, with(place, "items"));
        if (list == null) {
            return;
        }
        var entry = list.items().orElse(null);
        if (entry == null && !list.isOpen() && !list.types().contains("array")) {
            source.error(
                    DefinitionCode.NOT_IN_CONTRACT,
                    "%s is %s in the contract, not a list."
                            .formatted(
                                    items.isEmpty()
                                            ? "The answer of " + operation.written()
                                            : String.join(".", items),
                                    list.written()),
                    null,
                    with(place, items.isEmpty() ? "call" : "items"));
        }
        if (entry != null) {
            text(operation, entry, key, with(place, "key"));
            text(operation, entry, label, with(place, "label"));
        }
    }

    /** That an answer is an entry with a code and a label, found by its code. */
    void single(ApiOperation operation, List<String> key, List<String> label, List<String> place) {
        if (inPath(operation).size() != 1) {
            source.error(
                    DefinitionCode.NOT_IN_CONTRACT,
                    "%s must have one parameter in its path, which takes the code."
                            .formatted(operation.written()),
                    null,
                    with(place, "one"));
        }
        needsNothingBut(operation, inPath(operation), with(place, "one"));
        var answer = operation.answer();
        if (answer != null) {
            text(operation, answer, key, with(place, "one"));
            text(operation, answer, label, with(place, "one"));
        }
    }

    /** That an answer has values of a type at a place. */
    void gives(ApiOperation operation, List<String> at, ValueType type, List<String> place) {
        var answer = operation.answer();
        var shape = answer == null ? null : reached(operation, answer, at, with(place, "at"));
        if (shape != null) {
            value(operation, shape, type, "The answer", with(place, "returns"));
        }
    }

    private void value(
            ApiOperation operation, JsonShape shape, ValueType type, String what, String... place) {
        switch (type) {
            case ValueType.Single(var field) -> {
                if (isPlain(field.type())) {
                    requireFit(shape, field.type(), what, true, place);
                } else {
                    source.error(
                            DefinitionCode.NOT_FOR_THIS_TYPE,
                            "An outside service gives no values of this type.",
                            null,
                            place);
                }
            }
            case ValueType.Many(var item) -> {
                var items = shape.items();
                if (items.isPresent()) {
                    value(operation, items.get(), item, "An entry of " + what, place);
                } else if (!shape.isOpen()) {
                    source.error(
                            DefinitionCode.NOT_IN_CONTRACT,
                            "%s is %s in the contract, not a list."
                                    .formatted(what, shape.written()),
                            null,
                            place);
                }
            }
            case ValueType.Group group ->
                    group.entries()
                            .forEach(one -> {
                                var inside = reached(operation, shape, List.of(one.name()), place);
                                if (inside != null) {
                                    value(operation, inside, one.type(), one.name(), place);
                                }
                            });
        }
    }

    private void text(
            ApiOperation operation, JsonShape entry, List<String> steps, String... place) {
        var shape = reached(operation, entry, steps, place);
        if (shape != null
                && !shape.types().isEmpty()
                && shape.types().stream()
                        .noneMatch(type -> type.equals("string") || NUMBERS.contains(type))) {
            source.error(
                    DefinitionCode.NOT_IN_CONTRACT,
                    "%s is %s in the contract, not a text."
                            .formatted(String.join(".", steps), shape.written()),
                    null,
                    place);
        }
    }

    /** Where steps lead, or {@code null} when that is wrong, which is told, or left open. */
    private @org.jspecify.annotations.Nullable JsonShape reached(
            ApiOperation operation, JsonShape from, List<String> steps, String... place) {
        var at = from;
        for (var step : steps) {
            if (at.isElsewhere()) {
                source.warn(
                        DefinitionCode.NOT_IN_CONTRACT,
                        "The contract says in another document, which is not fetched, what %s"
                                        .formatted(operation.written())
                                + " answers; it cannot be checked.",
                        place);
            }
            if (at.isOpen()) {
                return null;
            }
            var next = at.properties().get(step);
            if (next == null) {
                var names = new ArrayList<>(at.properties().keySet());
                source.error(
                        DefinitionCode.NOT_IN_CONTRACT,
                        names.isEmpty()
                                ? "The answer of %s has no %s: there is %s in the contract."
                                        .formatted(
                                                operation.written(), Quoted.of(step), at.written())
                                : "The answer of %s has no %s; there it has %s."
                                        .formatted(
                                                operation.written(),
                                                Quoted.of(step),
                                                String.join(", ", names)),
                        Nearest.to(step, names).orElse(null),
                        place);
                return null;
            }
            at = next;
        }
        return at;
    }

    private static boolean isPlain(FieldType type) {
        return !(type instanceof FieldType.Reference)
                && !(type instanceof MoneyType)
                && !(type instanceof FileType)
                && !(type instanceof TextType text && text.isLocalised());
    }

    /** That the contract's type can be what a field type is. */
    private void requireFit(
            JsonShape shape, FieldType type, String what, boolean comes, String... place) {
        var types = shape.types();
        if (types.isEmpty() || types.stream().anyMatch(one -> fits(one, type, comes))) {
            return;
        }
        source.error(
                DefinitionCode.NOT_IN_CONTRACT,
                "%s is %s in the contract, which does not go with %s."
                        .formatted(what, shape.written(), type.keyword().word()),
                null,
                place);
    }

    private static boolean fits(String json, FieldType type, boolean comes) {
        boolean isNumber =
                switch (type.keyword()) {
                    case INTEGER, DECIMAL, PERCENT, AMOUNT -> true;
                    default -> false;
                };
        return switch (json) {
            // Numbers come as texts where they must be exact; what is sent is what was asked for.
            case "string" -> !isNumber || comes;
            case "integer" -> isNumber && (comes || type.keyword() == TypeKeyword.INTEGER);
            case "number" -> isNumber;
            case "boolean" -> type.keyword() == TypeKeyword.BOOLEAN;
            default -> false;
        };
    }

    private static String[] with(List<String> place, String more) {
        var all = new ArrayList<>(place);
        all.add(more);
        return all.toArray(String[]::new);
    }
}
