package sandpiper.model.release;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.type.FunctionType;
import sandpiper.logic.type.LogicType;

/** A function of an object as the language sees it. */
public record ObjectFunctionType(
        ObjectType object,
        FunctionDefinition definition,
        List<Parameter> parameters,
        @Nullable LogicType returns)
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
                returns == null ? null : returns.logicType(release));
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
