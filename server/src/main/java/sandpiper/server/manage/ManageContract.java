package sandpiper.server.manage;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.Operation;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.info.License;
import io.swagger.v3.oas.models.media.ArraySchema;
import io.swagger.v3.oas.models.media.Content;
import io.swagger.v3.oas.models.media.IntegerSchema;
import io.swagger.v3.oas.models.media.MediaType;
import io.swagger.v3.oas.models.media.ObjectSchema;
import io.swagger.v3.oas.models.media.Schema;
import io.swagger.v3.oas.models.media.StringSchema;
import io.swagger.v3.oas.models.responses.ApiResponse;
import io.swagger.v3.oas.models.security.SecurityRequirement;
import io.swagger.v3.oas.models.security.SecurityScheme;
import io.swagger.v3.oas.models.servers.Server;
import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import sandpiper.engine.definition.ReleasePreview;
import sandpiper.model.Diagnostic;
import sandpiper.server.manage.access.AccessLogController;
import sandpiper.server.manage.access.ClientController;
import sandpiper.server.manage.access.OwnSessionsController;
import sandpiper.server.manage.access.RoleController;
import sandpiper.server.manage.access.SessionController;
import sandpiper.server.manage.access.UserController;
import sandpiper.server.manage.activity.EventController;
import sandpiper.server.manage.activity.RevisionController;
import sandpiper.server.manage.activity.StatusController;
import sandpiper.server.manage.activity.TraceController;
import sandpiper.server.manage.draft.ConditionController;
import sandpiper.server.manage.draft.ConditionView;
import sandpiper.server.manage.draft.DraftController;
import sandpiper.server.manage.draft.EventView;
import sandpiper.server.manage.draft.ExampleController;
import sandpiper.server.manage.draft.FieldView;
import sandpiper.server.manage.draft.HandlerView;
import sandpiper.server.manage.draft.KeptController;
import sandpiper.server.manage.draft.LayoutView;
import sandpiper.server.manage.draft.LogicController;
import sandpiper.server.manage.draft.LogicRequest;
import sandpiper.server.manage.draft.ModelView;
import sandpiper.server.manage.draft.ObjectFunctionView;
import sandpiper.server.manage.draft.PackageController;
import sandpiper.server.manage.draft.ParameterView;
import sandpiper.server.manage.draft.RehearsalController;
import sandpiper.server.manage.draft.ReleaseController;
import sandpiper.server.manage.draft.RequirementController;
import sandpiper.server.manage.draft.RouteView;
import sandpiper.server.manage.draft.ScheduleView;
import sandpiper.server.manage.draft.ServiceView;
import sandpiper.server.manage.record.FigureController;
import sandpiper.server.manage.record.FunctionController;
import sandpiper.server.manage.record.FunctionTrialController;
import sandpiper.server.manage.record.LogicTrialController;
import sandpiper.server.manage.record.NamedViewController;
import sandpiper.server.manage.record.TrialController;

/**
 * What the manage API's own contract says beyond what is found in its methods: which members are
 * always there.
 */
@Configuration
class ManageContract {
    private static final String BASIC = "basic";
    private static final String SESSION = "session";
    private static final String PROBLEM = "Problem";

    /** Where nobody needs to be signed in. */
    private static final Set<String> OPEN = Set.of("/manage/v1/health", "/manage/v1/ready");

    private static final List<Class<?>> HOLDERS =
            List.of(
                    UserController.class,
                    RoleController.class,
                    AccessLogController.class,
                    DraftController.class,
                    LogicController.class,
                    LogicRequest.class,
                    ModelView.class,
                    FieldView.class,
                    RouteView.class,
                    LayoutView.class,
                    ConditionController.class,
                    ConditionView.class,
                    FigureController.class,
                    NamedViewController.class,
                    KeptController.class,
                    PackageController.class,
                    RehearsalController.class,
                    ReleaseController.class,
                    ReleasePreview.class,
                    ServiceView.class,
                    ClientController.class,
                    SessionController.class,
                    OwnSessionsController.class,
                    ExampleController.class,
                    StatusController.class,
                    TraceController.class,
                    ObjectFunctionView.class,
                    ParameterView.class,
                    HandlerView.class,
                    ScheduleView.class,
                    EventView.class,
                    EventController.class,
                    FunctionController.class,
                    FunctionTrialController.class,
                    RequirementController.class,
                    sandpiper.server.webhook.WebhookController.class,
                    sandpiper.server.traffic.TrafficController.class,
                    sandpiper.server.manage.outside.ConnectionController.class,
                    sandpiper.server.manage.outside.ConnectionView.class,
                    sandpiper.server.manage.outside.DocumentController.class,
                    sandpiper.server.manage.outside.DocumentView.class,
                    RevisionController.class,
                    LogicTrialController.class,
                    TrialController.class);

    @Bean
    OpenApiCustomizer alwaysThere() {
        var records =
                Stream.concat(
                                HOLDERS.stream()
                                        .flatMap(holder ->
                                                Stream.concat(
                                                        Stream.of(holder),
                                                        Arrays.stream(
                                                                holder.getDeclaredClasses()))),
                                Stream.of(Diagnostic.class))
                        .filter(Class::isRecord)
                        .collect(
                                Collectors.<Class<?>, String, Class<?>>toMap(
                                        Class::getSimpleName, Function.identity(), (a, _) -> a));
        return contract -> complete(contract, records);
    }

    @SuppressWarnings("rawtypes") // the contract's own classes are raw here
    private static void complete(OpenAPI contract, Map<String, Class<?>> records) {
        contract.info(
                new Info()
                        .title("Sandpiper manage API")
                        .version("1")
                        .description("Everything that console and command line do.")
                        .license(new License().name("Apache-2.0").identifier("Apache-2.0")));
        contract.setServers(List.of(new Server().url("/")));
        contract.getComponents()
                .addSecuritySchemes(
                        BASIC, new SecurityScheme().type(SecurityScheme.Type.HTTP).scheme(BASIC))
                .addSecuritySchemes(
                        SESSION,
                        new SecurityScheme()
                                .type(SecurityScheme.Type.APIKEY)
                                .in(SecurityScheme.In.COOKIE)
                                .name("SANDPIPER"))
                .addSchemas(PROBLEM, problem());
        contract.setSecurity(
                List.of(
                        new SecurityRequirement().addList(BASIC),
                        new SecurityRequirement().addList(SESSION)));
        contract.getPaths()
                .forEach((path, item) -> item.readOperations().forEach(one -> refusals(path, one)));
        for (var schema : contract.getComponents().getSchemas().entrySet()) {
            var type = records.get(schema.getKey());
            if (type != null) {
                require(schema.getValue(), type);
            }
        }
    }

    /** Whatever is refused is answered with a problem; a few calls need nobody to be signed in. */
    private static void refusals(String path, Operation operation) {
        operation
                .getResponses()
                .addApiResponse(
                        "4XX",
                        new ApiResponse()
                                .description("It was refused; the problem says why.")
                                .content(
                                        new Content()
                                                .addMediaType(
                                                        "application/problem+json",
                                                        new MediaType()
                                                                .schema(
                                                                        new Schema<>()
                                                                                .$ref(PROBLEM)))));
        if (OPEN.contains(path) || "signIn".equals(operation.getOperationId())) {
            operation.setSecurity(List.of());
        }
    }

    /** A problem as RFC 9457 has it, with what is wrong place by place. */
    private static Schema<?> problem() {
        var wrong = new ObjectSchema();
        wrong.addProperty("pointer", new StringSchema());
        wrong.addProperty("code", new StringSchema());
        wrong.addProperty("message", new StringSchema());
        wrong.setRequired(List.of("pointer", "code", "message"));
        var problem = new ObjectSchema();
        problem.addProperty("title", new StringSchema());
        problem.addProperty("status", new IntegerSchema());
        problem.addProperty("detail", new StringSchema());
        problem.addProperty("errors", new ArraySchema().items(wrong));
        problem.setRequired(List.of("title", "status", "detail"));
        return problem;
    }

    private static void require(Schema<?> schema, Class<?> type) {
        schema.setRequired(
                Arrays.stream(type.getRecordComponents())
                        .filter(component -> !isNullable(component))
                        .map(RecordComponent::getName)
                        .toList());
    }

    private static boolean isNullable(RecordComponent component) {
        return component.getAnnotatedType().isAnnotationPresent(Nullable.class);
    }
}
