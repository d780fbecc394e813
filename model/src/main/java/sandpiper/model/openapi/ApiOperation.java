package sandpiper.model.openapi;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Something an outside service offers.
 *
 * @param method in capitals
 * @param path with parameters in braces, as in {@code /rates/{currency}}
 * @param summary what the document says of it; may be empty
 * @param answer what comes when all goes well, or {@code null} when the document does not say
 */
public record ApiOperation(
        String method,
        String path,
        String summary,
        List<ApiParameter> parameters,
        @Nullable JsonShape answer) {
    public ApiOperation {
        parameters = List.copyOf(parameters);
    }

    /** As it is named in a connection: {@code GET /rates/{currency}}. */
    public String written() {
        return method + " " + path;
    }

    /** The parameter of a name, or nothing; the path before the query. */
    public Optional<ApiParameter> parameter(String name) {
        return parameters.stream().filter(one -> one.name().equals(name)).findFirst();
    }
}
