package sandpiper.server.contract;

import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.PathItem;
import io.swagger.v3.oas.models.Paths;
import io.swagger.v3.oas.models.parameters.Parameter;
import io.swagger.v3.oas.models.responses.ApiResponse;
import io.swagger.v3.oas.models.responses.ApiResponses;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import sandpiper.model.Names;
import sandpiper.model.contract.ResourceNames;
import sandpiper.model.definition.Removal;
import sandpiper.model.release.CallType;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.ResourceType;
import sandpiper.model.type.ChoiceType;
import sandpiper.model.type.NumberType;
import sandpiper.model.type.TemporalType;
import sandpiper.model.type.TextType;
import sandpiper.model.type.TypeKeyword;
import sandpiper.server.contract.SharedParts.Failing;

/** The addresses of one resource, with what can be done at each. */
final class ResourcePaths {
    private static final List<Failing> OF_CHANGES =
            List.of(Failing.NOT_FOUND, Failing.CONFLICT, Failing.STALE, Failing.INVALID);

    private final ResourceType resource;
    private final RecordSchemas schemas;
    private final CallSchemas calls;
    private final SharedParts shared;
    private final Answers answers;
    private final String one;
    private final String many;

    ResourcePaths(
            ResourceType resource,
            RecordSchemas schemas,
            CallSchemas calls,
            SharedParts shared,
            Answers answers) {
        this.resource = resource;
        this.schemas = schemas;
        this.calls = calls;
        this.shared = shared;
        this.answers = answers;
        this.one = ResourceNames.one(resource);
        this.many = ResourceNames.many(resource);
    }

    void addTo(Paths paths) {
        boolean creates = resource.offers(ResourceType.Operation.CREATE);
        boolean updates = resource.offers(ResourceType.Operation.UPDATE);
        var collection = new PathItem();
        if (resource.offers(ResourceType.Operation.QUERY)) {
            collection.get(query());
        }
        if (creates) {
            collection.post(create());
        }
        add(paths, "", collection);
        var single = new PathItem();
        if (resource.offers(ResourceType.Operation.READ)) {
            single.get(read());
        }
        if (updates) {
            single.patch(update());
            if (creates && !resource.object().key().isEmpty()) {
                single.put(save());
            }
        }
        if (resource.offers(ResourceType.Operation.REMOVE)) {
            single.delete(remove());
        }
        add(paths, "/{key}", single);
        var deeper =
                new FilePaths(resource, answers, shared, ofChanges(), this::answerSchema).all();
        for (var call : resource.calls()) {
            deeper.computeIfAbsent("/" + Names.address(call.name()), _ -> new PathItem())
                    .post(call(call));
        }
        deeper.forEach((behind, item) -> add(paths, "/{key}" + behind, item));
        if (creates || updates) {
            add(paths, ":batch", new PathItem().post(batch()));
        }
    }

    private void add(Paths paths, String behind, PathItem item) {
        if (item.readOperations().isEmpty()) {
            return;
        }
        if (behind.startsWith("/{key}")) {
            item.addParametersItem(keyParameter());
        }
        paths.addPathItem("/" + resource.name() + behind, item);
    }

    private Parameter keyParameter() {
        var key = resource.object().key();
        var what =
                key.isEmpty()
                        ? "The record's id."
                        : "The record's key (%s) or its id.%s"
                                .formatted(
                                        String.join(", ", key),
                                        key.size() > 1
                                                ? " Values have commas between them; a comma in a"
                                                        + " value is written \\,."
                                                : "");
        return new Parameter()
                .name("key")
                .in("path")
                .required(true)
                .description(what)
                .schema(ContractSchema.text());
    }

    private Operation operation(String id, String summary, ApiResponses responses) {
        return operation(resource, id, summary, responses);
    }

    /** An operation of a resource, to which more is added. */
    static Operation operation(
            ResourceType resource, String id, String summary, ApiResponses responses) {
        return new Operation()
                .operationId(id)
                .addTagsItem(resource.name())
                .summary(summary)
                .responses(responses);
    }

    private static String lower(String label) {
        return label.substring(0, 1).toLowerCase(Locale.ROOT) + label.substring(1);
    }

    /** "a stay", "an owner". */
    private String article() {
        var words = Names.withArticle(resource.object().label());
        int space = words.indexOf(' ') + 1;
        return words.substring(0, space) + lower(words.substring(space));
    }

    private Operation query() {
        var item = schemas.answer(one + "Item", resource, ResourceType.Operation.QUERY);
        var responses = answered("200", Answers.of("One page.", schemas.page(one + "Page", item)));
        answers.withoutBody(responses, List.of());
        var operation =
                operation("query" + many, "Find " + lower(resource.object().plural()), responses)
                        .description(
                                "Filter with a FEEL condition, as in `%s`. Pages go on with the cursor `next` of the page before."
                                        .formatted(filterExample()));
        if (resource.isFilterable()) {
            operation.addParametersItem(
                    inQuery(
                                    "filter",
                                    "A condition over "
                                            + String.join(", ", resource.filterNames())
                                            + ".")
                            .example(filterExample()));
        }
        if (!resource.sortable().isEmpty()) {
            operation.addParametersItem(
                    inQuery(
                                    "sort",
                                    "Fields with commas between them, a minus before those that run"
                                            + " down: "
                                            + written(resource.sortable())
                                            + ".")
                            .example("-" + resource.sortable().getFirst().written()));
        }
        for (var name : List.of("limit", "after", "fields", "count")) {
            operation.addParametersItem(shared.parameter(name));
        }
        return operation;
    }

    private static Parameter inQuery(String name, String describe) {
        return new Parameter()
                .name(name)
                .in("query")
                .description(describe)
                .schema(ContractSchema.text());
    }

    private static String written(List<FieldPath> paths) {
        return paths.stream().map(FieldPath::written).collect(Collectors.joining(", "));
    }

    /** A condition a caller could write. */
    private String filterExample() {
        return resource.filterable().stream()
                .map(ResourcePaths::filterExample)
                .filter(text -> !text.isEmpty())
                .findFirst()
                .orElse("");
    }

    private static String filterExample(FieldPath path) {
        return switch (path.last().type()) {
            case ChoiceType choice -> path.written() + " = \"" + choice.example() + "\"";
            case TemporalType temporal when temporal.keyword() == TypeKeyword.DATE ->
                    path.written() + " >= date(\"2026-05-01\")";
            case NumberType _ -> path.written() + " > 10";
            case TextType _ -> "starts with(" + path.written() + ", \"A\")";
            default -> "";
        };
    }

    /** The schema of the record as it is answered by what changes it. */
    private String answerSchema() {
        for (var operation :
                List.of(
                        ResourceType.Operation.READ,
                        ResourceType.Operation.QUERY,
                        ResourceType.Operation.UPDATE)) {
            if (resource.offers(operation)) {
                var name = operation == ResourceType.Operation.QUERY ? one + "Item" : one;
                return schemas.answer(name, resource, operation);
            }
        }
        return schemas.answer(one, resource, ResourceType.Operation.CREATE);
    }

    private static ApiResponses answered(String status, ApiResponse answer) {
        return new ApiResponses().addApiResponse(status, answer);
    }

    private Operation create() {
        var input = schemas.created(one + "Create", resource);
        var responses = answered("201", Answers.ofRecord("It was created.", answerSchema(), true));
        answers.withBody(responses, List.of(Failing.CONFLICT, Failing.INVALID));
        return operation("create" + one, "Create " + article(), responses)
                .addParametersItem(shared.parameter("idempotencyKey"))
                .requestBody(Answers.body(input));
    }

    private Operation read() {
        var responses = answered("200", Answers.ofRecord("The record.", answerSchema(), false));
        responses.addApiResponse(
                "304", new ApiResponse().description("What you have is still right."));
        answers.withoutBody(responses, List.of(Failing.NOT_FOUND));
        return operation("read" + one, "Read " + article(), responses)
                .addParametersItem(shared.parameter("fields"))
                .addParametersItem(shared.parameter("ifNoneMatch"));
    }

    /** Needed where the resource says so, so that no change is lost over another. */
    private Parameter ifMatch() {
        return shared.parameter(resource.versioned() ? "ifMatchNeeded" : "ifMatch");
    }

    /** What can go wrong when a record that is there is changed. */
    private List<Failing> ofChanges() {
        var failures = new ArrayList<>(OF_CHANGES);
        if (resource.versioned()) {
            failures.add(Failing.VERSION_NEEDED);
        }
        return failures;
    }

    private Operation update() {
        var input = schemas.changed(one + "Update", resource);
        var responses = answered("200", Answers.ofRecord("It was changed.", answerSchema(), false));
        answers.withBody(responses, ofChanges());
        return operation("update" + one, "Change " + article(), responses)
                .description(
                        "A merge patch (RFC 7396): fields that are not named stay, null empties"
                            + " one. A list of line items replaces the list; an item that names its"
                            + " line, or stands in the same place, keeps what it does not name.")
                .addParametersItem(ifMatch())
                .addParametersItem(shared.parameter("idempotencyKey"))
                .requestBody(Answers.body(input, "application/merge-patch+json"));
    }

    private Operation save() {
        var input = schemas.saved(one + "Save", resource);
        var responses =
                answered(
                        "200",
                        Answers.ofRecord("It was there and was changed.", answerSchema(), false));
        responses.addApiResponse("201", Answers.ofRecord("It was created.", answerSchema(), true));
        answers.withBody(responses, ofChanges());
        return operation("save" + one, "Create or change " + article() + " by its key", responses)
                .addParametersItem(shared.parameter("ifMatch"))
                .addParametersItem(shared.parameter("idempotencyKey"))
                .requestBody(Answers.body(input));
    }

    private Operation remove() {
        boolean deletes = resource.object().removal() == Removal.DELETE;
        var responses = answered("204", new ApiResponse().description("It was done."));
        var failures = new ArrayList<>(ofChanges());
        failures.remove(Failing.INVALID);
        answers.withoutBody(responses, failures);
        return operation("remove" + one, (deletes ? "Delete " : "Retire ") + article(), responses)
                .addParametersItem(ifMatch());
    }

    /** A transition, or a function on a record. */
    private Operation call(CallType call) {
        var name = one + ResourceNames.joined(Names.address(call.name()));
        var returns = call.returns();
        var record = answerSchema();
        var responses =
                answered(
                        "200",
                        Answers.ofRecord(
                                returns == null
                                        ? "The record as it is now."
                                        : "What it returns, and the record as it is now.",
                                returns == null
                                        ? record
                                        : schemas.put(
                                                name + "Result", calls.answer(returns, record)),
                                false));
        answers.withBody(responses, ofChanges());
        var operation =
                operation(call.name() + one, summary(call), responses)
                        .description(CallSchemas.described(call))
                        .addParametersItem(ifMatch())
                        .addParametersItem(shared.parameter("idempotencyKey"));
        if (!call.parameters().entries().isEmpty()) {
            var arguments = schemas.put(name + "Arguments", calls.arguments(call.parameters()));
            operation.requestBody(Answers.body(arguments, call.parameters()));
        }
        return operation;
    }

    private String summary(CallType call) {
        return switch (call) {
            case CallType.OfTransition(var transition) ->
                    "%s: take %s to %s".formatted(transition.label(), article(), transition.to());
            case CallType.OfFunction(var function) ->
                    "%s: call it on %s".formatted(function.label(), article());
        };
    }

    private Operation batch() {
        var input = schemas.put(one + "Batch", BatchSchemas.of(one, resource, schemas));
        var responses =
                answered(
                        "200",
                        Answers.of(
                                "What became of each item.",
                                shared.schema("BatchResult", schemas)));
        // A call that there is not; what is wrong with a record is told in its result.
        answers.withBody(
                responses, resource.calls().isEmpty() ? List.of() : List.of(Failing.NOT_FOUND));
        return operation(
                        "batch" + many,
                        "Create and change many " + lower(resource.object().plural()),
                        responses)
                .description(
                        "Each item is done or refused for itself, and has its result in the same"
                                + " place.")
                .requestBody(Answers.body(input));
    }
}
