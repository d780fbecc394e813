package sandpiper.server.manage.outside;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.model.openapi.ApiDocument;
import sandpiper.model.openapi.ApiOperation;
import sandpiper.model.openapi.JsonShape;

/**
 * A document that describes a service outside, as far as a connection is made from it.
 *
 * @param address the first it names; empty for none
 * @param more whether it offers more operations than are shown
 */
public record DocumentView(
        String title,
        String version,
        String address,
        List<OperationView> operations,
        boolean more) {
    private static final int MOST_OPERATIONS = 2_000;
    private static final int DEEPEST = 6;

    /**
     * Something a service offers.
     *
     * @param answer what comes when all goes well, or {@code null} when the document does not say
     */
    record OperationView(
            String method,
            String path,
            String summary,
            List<OperationParameterView> parameters,
            @Nullable ShapeView answer) {}

    /** What an operation takes; {@code place} is path, query, header or body. */
    record OperationParameterView(String name, String place, boolean required, String type) {}

    /**
     * What a document says of a value.
     *
     * @param properties what it has under names; empty when it has none, or deeper than is shown
     * @param items what is in a list, or {@code null}
     */
    record ShapeView(String type, Map<String, ShapeView> properties, @Nullable ShapeView items) {
        static ShapeView of(JsonShape shape, int depth) {
            var properties = new LinkedHashMap<String, ShapeView>();
            if (depth < DEEPEST) {
                shape.properties().forEach((name, one) -> properties.put(name, of(one, depth + 1)));
            }
            return new ShapeView(
                    shape.written(),
                    properties,
                    depth < DEEPEST
                            ? shape.items().map(one -> of(one, depth + 1)).orElse(null)
                            : null);
        }
    }

    static DocumentView of(ApiDocument document) {
        return new DocumentView(
                document.title(),
                document.version(),
                document.address(),
                document.operations().stream()
                        .limit(MOST_OPERATIONS)
                        .map(DocumentView::operation)
                        .toList(),
                document.operations().size() > MOST_OPERATIONS);
    }

    private static OperationView operation(ApiOperation operation) {
        var answer = operation.answer();
        return new OperationView(
                operation.method(),
                operation.path(),
                operation.summary(),
                operation.parameters().stream()
                        .map(one ->
                                new OperationParameterView(
                                        one.name(),
                                        one.place().word(),
                                        one.required(),
                                        one.shape().written()))
                        .toList(),
                answer == null ? null : ShapeView.of(answer, 0));
    }
}
