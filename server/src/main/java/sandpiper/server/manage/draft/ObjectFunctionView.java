package sandpiper.server.manage.draft;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.FunctionDefinition;
import sandpiper.model.release.ObjectType;

/**
 * A function as it is written.
 *
 * @param transition whether it stands in for the transition of its name
 * @param returns what it gives back in words, or {@code null} for nothing
 */
public record ObjectFunctionView(
        String name,
        String label,
        @Nullable String describe,
        boolean onRecord,
        boolean external,
        boolean ownRights,
        boolean transition,
        List<ParameterView> parameters,
        @Nullable String returns,
        String body,
        String file) {

    static ObjectFunctionView of(ObjectType object, FunctionDefinition function) {
        var lifecycle = object.lifecycle();
        var returns = function.returns();
        return new ObjectFunctionView(
                function.name(),
                function.label(),
                function.describe(),
                function.onRecord(),
                function.external(),
                function.ownRights(),
                lifecycle != null && lifecycle.find(function.name()).isPresent(),
                ParameterView.of(function.parameters()),
                returns == null ? null : ParameterView.words(returns),
                function.body().text(),
                function.body().origin().file());
    }
}
