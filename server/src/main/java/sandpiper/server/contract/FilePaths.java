package sandpiper.server.contract;

import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.PathItem;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.MediaType;
import io.swagger.v3.oas.models.parameters.Parameter;
import io.swagger.v3.oas.models.parameters.RequestBody;
import io.swagger.v3.oas.models.responses.ApiResponse;
import io.swagger.v3.oas.models.responses.ApiResponses;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import sandpiper.model.contract.ResourceNames;
import sandpiper.model.release.Field;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.Part;
import sandpiper.model.release.ResourceType;
import sandpiper.model.type.FileType;
import sandpiper.server.contract.SharedParts.Failing;

/** The addresses of the files of a resource's records: their bytes are the bodies. */
final class FilePaths {
    private final ResourceType resource;
    private final Answers answers;
    private final SharedParts shared;
    private final List<Failing> ofChanges;
    private final Supplier<String> record;

    /**
     * @param ofChanges what can go wrong when a record is changed
     * @param record gives the schema a change is answered with
     */
    FilePaths(
            ResourceType resource,
            Answers answers,
            SharedParts shared,
            List<Failing> ofChanges,
            Supplier<String> record) {
        this.resource = resource;
        this.answers = answers;
        this.shared = shared;
        this.ofChanges = ofChanges;
        this.record = record;
    }

    /** What stands behind the address of a record, with what can be done there. */
    Map<String, PathItem> all() {
        var paths = new LinkedHashMap<String, PathItem>();
        for (var operation : List.of(ResourceType.Operation.READ, ResourceType.Operation.UPDATE)) {
            var tree = resource.tree(operation).orElse(FieldTree.EMPTY);
            tree.paths().stream()
                    .filter(FieldPath::isOwn)
                    .forEach(path -> add(paths, operation, null, path.last()));
            tree.parts()
                    .forEach(part ->
                            part.paths().stream()
                                    .filter(FieldPath::isOwn)
                                    .forEach(path ->
                                            add(paths, operation, part.part(), path.last())));
        }
        return paths;
    }

    private void add(
            Map<String, PathItem> paths,
            ResourceType.Operation operation,
            @Nullable Part part,
            Field field) {
        if (!(field.type() instanceof FileType type)) {
            return;
        }
        var behind = (part == null ? "" : "/" + part.name() + "/{line}") + "/" + field.name();
        var item =
                paths.computeIfAbsent(
                        behind,
                        _ ->
                                part == null
                                        ? new PathItem()
                                        : new PathItem().addParametersItem(line()));
        var name =
                ResourceNames.one(resource)
                        + (part == null ? "" : ResourceNames.capital(part.name()))
                        + ResourceNames.capital(field.name());
        if (operation == ResourceType.Operation.READ) {
            item.get(read(name, field, type));
        } else {
            item.put(put(name, field, type));
            item.delete(remove(name, field));
        }
    }

    private static Parameter line() {
        return new Parameter()
                .name("line")
                .in("path")
                .required(true)
                .description("The line item.")
                .schema(ContractSchema.number());
    }

    private Operation operation(String id, String summary, ApiResponses responses) {
        return ResourcePaths.operation(resource, id, summary, responses);
    }

    private Operation read(String name, Field field, FileType type) {
        var responses =
                new ApiResponses()
                        .addApiResponse(
                                "200",
                                new ApiResponse()
                                        .description(
                                                "The file; Content-Disposition says what it is"
                                                        + " called.")
                                        .content(content(type)))
                        .addApiResponse(
                                "304",
                                new ApiResponse().description("What you have is still right."));
        answers.withoutBody(responses, List.of(Failing.NOT_FOUND));
        return operation("read" + name, "Download " + field.label(), responses)
                .description(field.told())
                .addParametersItem(shared.parameter("ifNoneMatch"));
    }

    private Operation put(String name, Field field, FileType type) {
        var responses = changed();
        answers.withBody(responses, ofChanges);
        return operation("put" + name, "Upload " + field.label(), responses)
                .description(
                        "The body is the file, %s. Content-Disposition says what it is called: attachment; filename=\"lease.pdf\"."
                                .formatted(type.taken()))
                .addParametersItem(ifMatch())
                .addParametersItem(shared.parameter("idempotencyKey"))
                .requestBody(new RequestBody().required(true).content(content(type)));
    }

    private Operation remove(String name, Field field) {
        var responses = changed();
        answers.withoutBody(responses, ofChanges);
        return operation("remove" + name, "Take away " + field.label(), responses)
                .addParametersItem(ifMatch());
    }

    private Parameter ifMatch() {
        return shared.parameter(resource.versioned() ? "ifMatchNeeded" : "ifMatch");
    }

    private ApiResponses changed() {
        return new ApiResponses()
                .addApiResponse(
                        "200", Answers.ofRecord("The record as it is now.", record.get(), false));
    }

    private static Content content(FileType type) {
        var content = new Content();
        Optional.of(type.accepts())
                .filter(accepts -> !accepts.isEmpty())
                .orElse(List.of("*/*"))
                .forEach(one -> content.addMediaType(one, new MediaType()));
        return content;
    }
}
