package sandpiper.server.contract;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.PathItem;
import io.swagger.v3.oas.models.Paths;
import io.swagger.v3.oas.models.SpecVersion;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.info.License;
import io.swagger.v3.oas.models.responses.ApiResponses;
import io.swagger.v3.oas.models.security.SecurityRequirement;
import io.swagger.v3.oas.models.servers.Server;
import io.swagger.v3.oas.models.tags.Tag;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import sandpiper.model.Names;
import sandpiper.model.contract.ResourceNames;
import sandpiper.model.release.CallType;
import sandpiper.model.release.ObjectFunctionType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ServiceType;
import sandpiper.server.contract.SharedParts.Failing;
import sandpiper.server.json.Bounds;
import sandpiper.server.protocol.Protocol;

/**
 * Writes a service down as OpenAPI 3.1 (with JSON Schema 2020-12). Labels, descriptions and choices
 * come from the definitions, so that the contract needs no other document beside it.
 */
public final class OpenApiContract {
    private final ServiceType service;
    private final String server;
    private final RecordSchemas schemas;
    private final CallSchemas calls;
    private final SharedParts shared;
    private final Answers answers;

    private OpenApiContract(Release release, ServiceType service, String server, Bounds bounds) {
        this.service = service;
        this.server = server;
        var fields = new FieldSchemas(release);
        this.schemas = new RecordSchemas(fields);
        this.calls = new CallSchemas(fields);
        this.shared = new SharedParts(server, bounds);
        this.answers = new Answers(shared);
    }

    /**
     * The contract of a service; {@code server} is the address of the instance, without a slash at
     * the end.
     */
    public static OpenAPI of(Release release, ServiceType service, String server, Bounds bounds) {
        return new OpenApiContract(release, service, server, bounds).document();
    }

    private OpenAPI document() {
        var document =
                new OpenAPI(SpecVersion.V31)
                        .openapi("3.1.0")
                        .info(info())
                        .addServersItem(
                                new Server()
                                        .url(
                                                server
                                                        + Protocol.REST.address(
                                                                service.name(), service.version())))
                        .addSecurityItem(new SecurityRequirement().addList("basic"))
                        .addSecurityItem(new SecurityRequirement().addList("oauth2"))
                        .paths(paths())
                        .components(shared.components(schemas));
        service.resources()
                .forEach(resource ->
                        document.addTagsItem(
                                new Tag().name(resource.name()).description(about(resource))));
        if (!service.functions().isEmpty()) {
            document.addTagsItem(
                    new Tag()
                            .name(ServiceType.FUNCTIONS)
                            .description("What can be called without a record."));
        }
        if (!service.events().isEmpty()) {
            document.addTagsItem(
                    new Tag().name(ServiceType.EVENTS).description("What has happened."));
        }
        return document;
    }

    private Info info() {
        return new Info()
                .title(service.label())
                .version(String.valueOf(service.version()))
                .description(Objects.requireNonNullElse(service.describe(), service.label() + "."))
                .license(new License().name("Proprietary").identifier("LicenseRef-Proprietary"));
    }

    private Paths paths() {
        var paths = new Paths();
        for (var resource : service.resources()) {
            new ResourcePaths(resource, schemas, calls, shared, answers).addTo(paths);
        }
        for (var function : service.functions()) {
            paths.addPathItem(
                    "/" + Names.address(function.name()), new PathItem().post(function(function)));
        }
        paths.values().forEach(this::ofRevision);
        if (!service.events().isEmpty()) {
            paths.addPathItem("/events", new PathItem().get(feed()));
        }
        return paths;
    }

    /** A caller can say which revision of the contract it was made from. */
    private void ofRevision(PathItem path) {
        path.addParametersItem(shared.parameter("revision"));
        path.readOperations().forEach(one -> shared.fail(one.getResponses(), Failing.GONE));
    }

    /** What a resource is, which records it shows and what new ones have. */
    private static String about(ResourceType resource) {
        var about =
                new StringBuilder(
                        Objects.requireNonNullElse(
                                resource.describe(), resource.object().plural() + "."));
        var where = resource.where();
        if (where != null) {
            about.append(" Shows only those for which `").append(where.text()).append("`.");
        }
        if (!resource.presets().isEmpty()) {
            about.append(" New ones have ")
                    .append(
                            resource.presets().entrySet().stream()
                                    .map(one ->
                                            "`%s: %s`"
                                                    .formatted(
                                                            one.getKey().name(),
                                                            one.getValue().written()))
                                    .sorted()
                                    .collect(Collectors.joining(", ")))
                    .append('.');
        }
        return about.toString();
    }

    /** A function of an object as a whole. */
    private Operation function(ObjectFunctionType function) {
        var definition = function.definition();
        var name = ResourceNames.joined(Names.address(function.name()));
        var arguments = schemas.put(name + "Arguments", calls.arguments(definition.parameters()));
        var result = schemas.put(name + "Result", calls.answer(definition.returns(), null));
        var responses = new ApiResponses();
        responses.addApiResponse(
                "200",
                Answers.of(
                        definition.returns() == null ? "It was done." : "What it returns.",
                        result));
        answers.withBody(responses, List.of(Failing.CONFLICT, Failing.INVALID));
        return new Operation()
                .operationId(function.name())
                .addTagsItem(ServiceType.FUNCTIONS)
                .summary(definition.label())
                .description(CallSchemas.described(new CallType.OfFunction(definition)))
                .addParametersItem(shared.parameter("idempotencyKey"))
                .requestBody(Answers.body(arguments, definition.parameters()))
                .responses(responses);
    }

    /** The events of the service, for those who ask for them. */
    private Operation feed() {
        shared.schema("Event", schemas);
        var responses = new ApiResponses();
        responses.addApiResponse(
                "200", Answers.of("Events, oldest first.", shared.schema("EventPage", schemas)));
        answers.withoutBody(responses, List.of());
        return new Operation()
                .operationId("readEvents")
                .addTagsItem(ServiceType.EVENTS)
                .summary("Read what has happened")
                .description(
                        "%s. The document for events (AsyncAPI) says what each has in `data`."
                                .formatted(
                                        service.events().stream()
                                                .map(event -> event.name())
                                                .collect(Collectors.joining(", "))))
                .addParametersItem(shared.parameter("afterEvent"))
                .addParametersItem(shared.parameter("eventLimit"))
                .responses(responses);
    }
}
