package sandpiper.model.release;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.syntax.Expr;
import sandpiper.logic.syntax.StepParser;
import sandpiper.logic.type.FunctionType;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.OutsideService.OutsideFunction;

/**
 * A function of an object as the language sees it.
 *
 * @param asksAnew whether it asks an outside service at every call, itself or by a function that it
 *     names with its object
 */
public record ObjectFunctionType(
        ObjectType object,
        FunctionDefinition definition,
        List<Parameter> parameters,
        @Nullable LogicType returns,
        boolean asksAnew)
        implements FunctionType {
    public ObjectFunctionType {
        parameters = List.copyOf(parameters);
    }

    /** The function of a release, whose objects its types may name. */
    public static ObjectFunctionType of(
            Release release, ObjectType object, FunctionDefinition definition) {
        var returns = definition.returns();
        return new ObjectFunctionType(
                object,
                definition,
                definition.parameters().entries().stream()
                        .map(one ->
                                new Parameter(
                                        one.name(), one.type().logicType(release), one.required()))
                        .toList(),
                returns == null ? null : returns.logicType(release),
                !release.connections().isEmpty()
                        && asksAnew(release, object, definition, new HashSet<>()));
    }

    private static boolean asksAnew(
            Release release, ObjectType object, FunctionDefinition definition, Set<String> seen) {
        if (!seen.add(object.name() + "." + definition.name())) {
            return false;
        }
        return StepParser.called(definition.body().text()).stream()
                .anyMatch(call ->
                        switch (call) {
                            case Expr.Call(var name, _, _, _) ->
                                    asksAnew(release, object, name, seen);
                            case Expr.Invocation(
                                            Expr.Path(Expr.Name(var of, _), var name, _, _),
                                            _,
                                            _) ->
                                    release.world()
                                                    .connection(of)
                                                    .flatMap(one -> one.function(name))
                                                    .filter(OutsideFunction::asksAnew)
                                                    .isPresent()
                                            || release.find(of)
                                                    .filter(one ->
                                                            asksAnew(release, one, name, seen))
                                                    .isPresent();
                            default -> false;
                        });
    }

    private static boolean asksAnew(
            Release release, ObjectType object, String function, Set<String> seen) {
        return object.functions().stream()
                .filter(one -> one.name().equals(function))
                .anyMatch(one -> asksAnew(release, object, one, seen));
    }

    @Override
    public String name() {
        return definition.name();
    }

    @Override
    public boolean isOnRecord() {
        return definition.onRecord();
    }

    /** As it is written from anywhere: {@code Stay.quote}. */
    public String written() {
        return object.name() + "." + name();
    }
}
