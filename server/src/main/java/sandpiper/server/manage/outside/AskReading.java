package sandpiper.server.manage.outside;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.outside.Ask;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.connection.ConnectionType;
import sandpiper.model.connection.LookupType;
import sandpiper.model.connection.OutsideCallType;
import sandpiper.model.release.ValueType;
import sandpiper.model.type.FieldType;
import sandpiper.model.type.ParsedValue;
import sandpiper.server.problem.Problem.Wrong;
import sandpiper.server.problem.ProblemException;

/** Reads what somebody wants to ask a connection. */
final class AskReading {
    private static final String CODE = "SP4000";
    private static final String SEARCH = "search";
    private static final String ONE = "code";

    private final ConnectionType connection;

    AskReading(ConnectionType connection) {
        this.connection = connection;
    }

    /** {@code what} names a lookup or call; {@code values} are by the names of its parameters. */
    Ask read(String what, Map<String, @Nullable Object> values) {
        var lookup = connection.lookup(what);
        if (lookup.isPresent()) {
            return lookup(lookup.get(), values);
        }
        var call = connection.function(what);
        if (call.isPresent()) {
            return call((OutsideCallType) call.get(), values);
        }
        var names = new ArrayList<String>();
        connection.lookups().forEach(one -> names.add(one.name()));
        connection.functions().forEach(one -> names.add(one.name()));
        throw new ProblemException(
                HttpStatus.NOT_FOUND,
                "%s has nothing called %s; it has %s."
                        .formatted(connection.name(), Quoted.of(what), String.join(", ", names)));
    }

    private Ask lookup(LookupType lookup, Map<String, @Nullable Object> values) {
        requireKnown(values, lookup.single() == null ? List.of(SEARCH) : List.of(SEARCH, ONE));
        var code = values.get(ONE);
        return code != null && lookup.single() != null
                ? new Ask(
                        connection, Ask.Kind.ENTRY, lookup.name(), List.of(String.valueOf(code)), 0)
                : new Ask(
                        connection,
                        Ask.Kind.ENTRIES,
                        lookup.name(),
                        List.of(
                                lookup.search() == null || values.get(SEARCH) == null
                                        ? ""
                                        : String.valueOf(values.get(SEARCH))),
                        0);
    }

    private Ask call(OutsideCallType call, Map<String, @Nullable Object> values) {
        requireKnown(values, call.takes().names());
        var wrong = new ArrayList<Wrong>();
        var arguments = new ArrayList<@Nullable Object>();
        for (var parameter : call.takes().entries()) {
            var given = values.get(parameter.name());
            boolean isEmpty = given == null || String.valueOf(given).isBlank();
            if (isEmpty && parameter.required()) {
                wrong.add(wrong(parameter.name(), parameter.label() + " is required."));
            }
            if (given == null
                    || isEmpty
                    || !(parameter.type() instanceof ValueType.Single(var field))) {
                arguments.add(null);
                continue;
            }
            switch (parsed(field.type(), given)) {
                case ParsedValue.Taken(var stored) -> arguments.add(field.type().write(stored));
                case ParsedValue.Refused refused ->
                        wrong.add(
                                wrong(
                                        parameter.name(),
                                        "%s %s.".formatted(parameter.label(), refused.message())));
            }
        }
        if (!wrong.isEmpty()) {
            throw new ProblemException(
                    HttpStatus.UNPROCESSABLE_CONTENT, wrong.getFirst().message(), wrong);
        }
        return new Ask(connection, Ask.Kind.CALL, call.name(), arguments, 0);
    }

    private static ParsedValue parsed(FieldType type, Object given) {
        return given instanceof String text ? type.readText(text) : type.read(given);
    }

    private static void requireKnown(Map<String, @Nullable Object> values, List<String> names) {
        for (var name : values.keySet()) {
            if (!names.contains(name)) {
                throw new ProblemException(
                        HttpStatus.UNPROCESSABLE_CONTENT,
                        names.isEmpty()
                                ? "It takes no %s.".formatted(Quoted.of(name))
                                : "It takes no %s; it takes %s.%s"
                                        .formatted(
                                                Quoted.of(name),
                                                String.join(", ", names),
                                                Nearest.to(name, names)
                                                        .map(near -> " Did you mean " + near + "?")
                                                        .orElse("")));
            }
        }
    }

    private static Wrong wrong(String name, String message) {
        return new Wrong(FaultPath.of("values").then(name), CODE, message);
    }
}
