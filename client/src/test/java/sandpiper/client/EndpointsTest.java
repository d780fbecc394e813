package sandpiper.client;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import tools.jackson.databind.JsonNode;

/**
 * Each method asks for what the manage API's own document has: the address and method are there,
 * the body has no member that is not, and what is read from the answer is among what it says.
 */
class EndpointsTest {
    private static final JsonNode CONTRACT = contract();

    private ScriptedServer server;
    private ManageClient client;

    private static JsonNode contract() {
        try {
            return ManageClient.read(
                    Files.readString(Path.of("../console/src/api/manage.openapi.json")));
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    @BeforeEach
    void start() throws IOException {
        server = new ScriptedServer();
        client = server.client("secret");
    }

    @AfterEach
    void stop() {
        server.close();
    }

    private record Case(String name, String answer, Consumer<ManageClient> call) {}

    private static Case of(String name, Consumer<ManageClient> call) {
        return new Case(name, "{}", call);
    }

    private static Case list(String name, Consumer<ManageClient> call) {
        return new Case(name, "[]", call);
    }

    private static Stream<Case> cases() {
        var files = Map.of("yard/package.yaml", "package: yard\n");
        return Stream.of(
                list("clients", it -> it.access().clients()),
                of(
                        "createClient",
                        it ->
                                it.access()
                                        .createClient(
                                                new AccessCalls.NewClient(
                                                        "desk",
                                                        List.of("a/b/c"),
                                                        true,
                                                        9,
                                                        "Desk"))),
                of("rotateClient", it -> it.access().rotateClient("a b", 24)),
                of("switchClient", it -> it.access().switchClient("desk", true)),
                of("limitClient", it -> it.access().limitClient("desk", 60)),
                of("removeClient", it -> it.access().removeClient("desk")),
                list("users", it -> it.access().users()),
                of(
                        "createUser",
                        it ->
                                it.access()
                                        .createUser(
                                                new AccessCalls.NewUser(
                                                        "bob", List.of(), "Bob", "pw", true))),
                of(
                        "changeUser",
                        it ->
                                it.access()
                                        .changeUser(
                                                "bob",
                                                new AccessCalls.UserChange(
                                                        List.of("pilot"), true, "pw", false))),
                of("removeUser", it -> it.access().removeUser("bob")),
                of("changePassword", it -> it.access().changePassword("old", "new")),
                list("roles", it -> it.access().roles()),
                of(
                        "setRole",
                        it -> it.access().setRole("pilot", ManageClient.read("{\"duties\": []}"))),
                of("removeRole", it -> it.access().removeRole("pilot")),
                list("log", it -> it.access().log()),
                of("renewKeys", it -> it.access().renewKeys()),
                of("draft", it -> it.draft().draft()),
                of("push", it -> it.draft().push(files)),
                of("preview", it -> it.draft().preview()),
                of(
                        "release",
                        it ->
                                it.draft()
                                        .release(
                                                new DraftCalls.Wanted(
                                                        "why", true, true, true, false))),
                of("previewOfTakingBack", it -> it.draft().previewOfTakingBack(3, true)),
                of(
                        "takeBack",
                        it ->
                                it.draft()
                                        .takeBack(
                                                3,
                                                new DraftCalls.Wanted(
                                                        "why", true, true, true, true))),
                list("kept", it -> it.draft().kept()),
                new Case("routes", "{\"routes\": []}", it -> it.draft().routes("DRAFT")),
                of("forget", it -> it.draft().forget(7)),
                of("rehearse", it -> it.draft().rehearse()),
                new Case("rehearsal", "{\"last\": {}}", it -> it.draft().rehearsal()),
                of("endRehearsal", it -> it.draft().endRehearsal()),
                list("packages", it -> it.draft().packages()),
                of("unpack", it -> it.draft().unpack(new byte[] {1})),
                of("play", it -> it.draft().play(files)),
                of(
                        "tryOut",
                        it ->
                                it.draft()
                                        .tryOut(
                                                new DraftCalls.Trial(
                                                        new DraftCalls.Logic("BODY", "Job", "1"),
                                                        "J1",
                                                        Map.of()))),
                of("objects", it -> it.draft().objects()),
                list("services", it -> it.draft().services()),
                of(
                        "contract",
                        it -> it.draft().contract(new DraftCalls.Service("desk", 2), "wsdl")),
                of("status", it -> it.activity().status()),
                of("traffic", it -> it.activity().traffic(7)),
                list("revisions", it -> it.activity().revisions("desk", 2)),
                of("endRevision", it -> it.activity().endRevision("desk", 2, 3)),
                list("events", it -> it.activity().events("a b", 5)),
                list("deliveries", it -> it.activity().deliveries("webhook x", "parked", 5)),
                of("redeliver", it -> it.activity().redeliver(7)),
                of("redeliverAll", it -> it.activity().redeliverAll("webhook x")),
                list("runs", it -> it.activity().runs("Job.end", "J1", true, 5)),
                list("traces", it -> it.activity().traces(5)),
                of("trace", it -> it.activity().trace("t1")),
                list("connections", it -> it.connections().all()),
                of(
                        "reachConnection",
                        it ->
                                it.connections()
                                        .reach(
                                                "tides",
                                                new ConnectionCalls.ReachWanted(
                                                        "https://t.example",
                                                        "client-credentials",
                                                        "c",
                                                        "s",
                                                        "https://t.example/token",
                                                        "read"))),
                of("forgetConnection", it -> it.connections().forget("tides")),
                of("tryConnection", it -> it.connections().tryOut("tides", "rate", Map.of("a", 1))),
                of("excerpt", it -> it.connections().excerpt("tides", new byte[] {'{', '}'})),
                list("webhooks", it -> it.webhooks().all()),
                of(
                        "createWebhook",
                        it ->
                                it.webhooks()
                                        .create(
                                                new WebhookCalls.Wanted(
                                                        "ledger",
                                                        "https://l.example/",
                                                        List.of("JobEnded"),
                                                        "total > 1",
                                                        "Ledger",
                                                        null))),
                of(
                        "changeWebhook",
                        it ->
                                it.webhooks()
                                        .change(
                                                "ledger",
                                                new WebhookCalls.Wanted(
                                                        null,
                                                        "https://m.example/",
                                                        null,
                                                        "",
                                                        null,
                                                        true))),
                of("rotateWebhook", it -> it.webhooks().rotate("ledger", 1)),
                of("testWebhook", it -> it.webhooks().test("ledger")),
                of("removeWebhook", it -> it.webhooks().remove("ledger")),
                of(
                        "find",
                        it ->
                                it.records()
                                        .find(
                                                "Job",
                                                new RecordCalls.Query(
                                                        5, true, "a = 1", "b", "-a", "with", "x"))),
                of("read", it -> it.records().read("Job", "a/1,b")),
                of("history", it -> it.records().history("Job", "J1")),
                of("create", it -> it.records().create("Job", Map.of("code", "J1"))),
                of("change", it -> it.records().change("Job", "J1", Map.of("code", "J2"), 7L)),
                of("retire", it -> it.records().retire("Job", "J1", true)),
                of("restore", it -> it.records().restore("Job", "J1")),
                of("transition", it -> it.records().transition("Job", "J1", "end")),
                of("bringIn", it -> it.records().bringIn("Job", List.of(Map.of("a", 1)), true)),
                of("call", it -> it.records().call("Job", "quote", "J1", Map.of("a", 1))),
                of(
                        "callEach",
                        it -> it.records().callEach("Job", "quote", List.of("J1"), Map.of())));
    }

    @TestFactory
    Stream<DynamicTest> everyCallIsInTheContract() {
        return cases().map(one ->
                DynamicTest.dynamicTest(
                        one.name(),
                        () -> {
                            server.answers(one.answer());
                            one.call().accept(client);

                            var sent = server.taken();
                            assertThat(sent).hasSize(1);
                            holdAgainstTheContract(sent.getFirst());
                        }));
    }

    private static void holdAgainstTheContract(ScriptedServer.Sent sent) {
        var path = sent.path().split("\\?")[0];
        var operation =
                CONTRACT.path("paths").properties().stream()
                        .filter(one -> matches(one.getKey(), path))
                        .map(one ->
                                one.getValue()
                                        .path(sent.method().toLowerCase(java.util.Locale.ROOT)))
                        .filter(JsonNode::isObject)
                        .findFirst();

        assertThat(operation).as("%s %s", sent.method(), path).isPresent();
        var schema =
                operation
                        .get()
                        .path("requestBody")
                        .path("content")
                        .path("application/json")
                        .path("schema")
                        .path("$ref")
                        .asString("");
        if (!schema.isEmpty()) {
            var known =
                    CONTRACT.path("components")
                            .path("schemas")
                            .path(schema.substring(schema.lastIndexOf('/') + 1))
                            .path("properties")
                            .propertyNames();
            assertThat(known).containsAll(ManageClient.read(sent.body()).propertyNames());
        }
    }

    private static boolean matches(String template, String path) {
        var pattern =
                Stream.of(template.split("/"))
                        .map(part ->
                                part.contains("{") ? part.replaceAll("\\{[^}]*}", "[^/]+") : part)
                        .reduce((a, b) -> a + "/" + b)
                        .orElse("");
        return Pattern.matches(pattern, path);
    }

    /** What is read of answers, by the schema it has in the contract. */
    private static final Map<String, Class<?>> ANSWERS =
            Map.ofEntries(
                    Map.entry("ClientView", AccessCalls.Client.class),
                    Map.entry("MadeClient", AccessCalls.ClientSecret.class),
                    Map.entry("UserView", AccessCalls.User.class),
                    Map.entry("RoleView", AccessCalls.Role.class),
                    Map.entry("ObjectGrantView", AccessCalls.ObjectGrant.class),
                    Map.entry("EntryView", AccessCalls.LogEntry.class),
                    Map.entry("Draft", DraftCalls.Draft.class),
                    Map.entry("DraftFile", DraftCalls.DraftFile.class),
                    Map.entry("Diagnostic", DraftCalls.Finding.class),
                    Map.entry("Pushed", DraftCalls.Pushed.class),
                    Map.entry("ReleasePreview", DraftCalls.Preview.class),
                    Map.entry("FileChange", DraftCalls.FileChange.class),
                    Map.entry("ReleaseView", DraftCalls.Released.class),
                    Map.entry("Requirements", DraftCalls.Requirements.class),
                    Map.entry("RequirementView", DraftCalls.Requirement.class),
                    Map.entry("ExampleView", DraftCalls.Example.class),
                    Map.entry("ServiceView", DraftCalls.Service.class),
                    Map.entry("Tried", DraftCalls.Tried.class),
                    Map.entry("Finding", DraftCalls.LogicFinding.class),
                    Map.entry("RecordPreview", DraftCalls.RecordAfter.class),
                    Map.entry("ObjectView", DraftCalls.ObjectType.class),
                    Map.entry("PartView", DraftCalls.Part.class),
                    Map.entry("FieldView", DraftCalls.Field.class),
                    Map.entry("Status", ActivityCalls.Status.class),
                    Map.entry("ObjectCount", ActivityCalls.ObjectCount.class),
                    Map.entry("Working", ActivityCalls.Working.class),
                    Map.entry("TrafficView", ActivityCalls.Traffic.class),
                    Map.entry("CallsView", ActivityCalls.CallCount.class),
                    Map.entry("RevisionView", ActivityCalls.Revision.class),
                    Map.entry("RevisionCaller", ActivityCalls.RevisionCaller.class),
                    Map.entry("FailedView", ActivityCalls.FailedCall.class),
                    Map.entry("RaisedEventView", ActivityCalls.Event.class),
                    Map.entry("DeliveryView", ActivityCalls.Delivery.class),
                    Map.entry("RunView", ActivityCalls.Run.class),
                    Map.entry("TraceView", ActivityCalls.Trace.class),
                    Map.entry("StepView", ActivityCalls.Step.class),
                    Map.entry("WebhookView", WebhookCalls.Webhook.class),
                    Map.entry("MadeWebhook", WebhookCalls.WebhookSecret.class),
                    Map.entry("CallResults", RecordCalls.CalledEach.class),
                    Map.entry("CallResult", RecordCalls.CalledOn.class));

    @TestFactory
    Stream<DynamicTest> whatIsReadIsWhatIsAnswered() {
        return ANSWERS.entrySet().stream()
                .map(one ->
                        DynamicTest.dynamicTest(
                                one.getKey(),
                                () -> {
                                    var schema =
                                            CONTRACT.path("components")
                                                    .path("schemas")
                                                    .path(one.getKey());
                                    var required = new ArrayList<String>();
                                    schema.path("required")
                                            .forEach(name -> required.add(name.asString()));
                                    for (var component : one.getValue().getRecordComponents()) {
                                        assertThat(schema.path("properties").propertyNames())
                                                .contains(component.getName());
                                        if (!component
                                                .getAnnotatedType()
                                                .isAnnotationPresent(
                                                        org.jspecify.annotations.Nullable.class)) {
                                            assertThat(required).contains(component.getName());
                                        }
                                    }
                                }));
    }

    @Test
    void theLastTraceIsReadWhole() {
        server.answers("[]");

        assertThat(client.activity().lastTrace()).isEmpty();
    }

    @Test
    void aRoleIsFoundByItsNameWithItsWords() {
        server.answers("[{\"name\": \"a\"}, {\"name\": \"b\", \"describe\": \"Pilots\"}]");

        assertThat(client.access().role("b"))
                .hasValueSatisfying(role ->
                        assertThat(role.json().path("describe").asString()).isEqualTo("Pilots"));
        assertThat(client.access().role("c")).isEmpty();
    }

    @Test
    void whatIsNotSaidIsEmptyAndWhatIsMoreIsKept() {
        server.answers("{\"added\": [\"a\"], \"later\": 1}");

        var pushed = client.draft().push(Map.of());

        assertThat(pushed.value().added()).containsExactly("a");
        assertThat(pushed.value().diagnostics()).isEmpty();
        assertThat(pushed.value().errors()).isZero();
        assertThat(pushed.json().path("later").asInt()).isEqualTo(1);
    }

    @Test
    void anAnswerOfAnotherShapeIsToldInAWord() {
        server.answers("{\"added\": 7}");

        assertThatThrownBy(() -> client.draft().push(Map.of()))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("does not understand; are both of one version?");
    }
}
