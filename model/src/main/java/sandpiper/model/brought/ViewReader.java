package sandpiper.model.brought;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.Nearest;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.definition.DeliveredView;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.source.Source;
import sandpiper.model.yaml.YamlNode;

/** Reads a view of a list; the fields it names must be there. */
final class ViewReader {
    private final Source source;
    private final String packageName;
    private final Release release;

    ViewReader(Source source, String packageName, Release release) {
        this.source = source;
        this.packageName = packageName;
        this.release = release;
    }

    /** The view, or nothing when its object is not there. */
    Optional<DeliveredView> read(String name) {
        var root = source.root();
        var objectName = Source.text(root, "object").orElse("");
        var object = release.find(objectName);
        if (object.isEmpty()) {
            if (!objectName.isEmpty()) {
                source.error(
                        DefinitionCode.UNKNOWN_OBJECT,
                        "There is no object %s.".formatted(Quoted.of(objectName)),
                        Nearest.to(
                                        objectName,
                                        release.objects().stream().map(ObjectType::name).toList())
                                .orElse(null),
                        "object");
            }
            return Optional.empty();
        }
        BroughtConditions.check(source, release, object.get(), root, "filter");
        var sort = Source.text(root, "sort").orElse(null);
        if (sort != null) {
            path(object.get(), sort.startsWith("-") ? sort.substring(1) : sort, "sort");
        }
        var columns =
                Source.texts(root, "columns").stream()
                        .flatMap(text -> Arrays.stream(text.split(",")))
                        .map(String::strip)
                        .toList();
        columns.forEach(column -> path(object.get(), column, "columns"));
        return Optional.of(
                new DeliveredView(
                        name,
                        packageName,
                        objectName,
                        Source.text(root, "filter").orElse(null),
                        sort,
                        columns,
                        chart(object.get(), Source.mapping(root, "chart"))));
    }

    private DeliveredView.@Nullable Chart chart(ObjectType object, YamlNode.Mapping chart) {
        var by = Source.text(chart, "by");
        if (by.isEmpty()) {
            return null;
        }
        path(object, by.get(), "chart", "by");
        var sum = Source.text(chart, "sum").orElse(null);
        if (sum != null) {
            path(object, sum, "chart", "sum");
        }
        return new DeliveredView.Chart(
                Source.text(chart, "kind").orElse(""),
                by.get(),
                Source.text(chart, "step").orElse(null),
                sum);
    }

    private void path(ObjectType object, String path, String... place) {
        if (FieldPath.resolve(release, object, List.of(path.split("\\.", -1))).isEmpty()) {
            source.error(
                    DefinitionCode.UNKNOWN_FIELD,
                    "%s has no field %s.".formatted(object.name(), Quoted.of(path)),
                    Nearest.to(path, object.fields().names()).orElse(null),
                    place);
        }
    }
}
