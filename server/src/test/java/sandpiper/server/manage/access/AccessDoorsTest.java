package sandpiper.server.manage.access;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.mockito.ArgumentCaptor;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpMethod;
import org.springframework.http.MediaType;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockMvcRequestBuilders;
import org.springframework.test.web.servlet.setup.MockMvcBuilders;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.engine.access.Role;
import sandpiper.engine.access.StoredClient;
import sandpiper.engine.access.StoredSecret;
import sandpiper.engine.access.StoredUser;
import sandpiper.engine.accounts.Accounts;
import sandpiper.engine.accounts.Clients;
import sandpiper.engine.accounts.Roles;
import sandpiper.engine.accounts.Users;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;
import sandpiper.server.config.ProblemAdvice;
import sandpiper.server.json.JsonReader;
import sandpiper.server.security.AccessTokens;
import sandpiper.server.security.Credentials;
import sandpiper.server.security.SecretCipher;

/**
 * Users, clients and roles at the doors of the manage API: who may, what is taken, what is said.
 */
class AccessDoorsTest {
    private static final Instant NOW = Instant.parse("2026-05-01T10:00:00Z");
    private static final Release RELEASE =
            Definitions.check(
                            Map.of(
                                    "shore/package.yaml",
                                    "package: shore\nversion: 1\n",
                                    "shore/objects/buoy.yaml",
                                    """
                                    object: Buoy
                                    key: code
                                    fields:
                                      code: { type: text }
                                      depth: { type: integer }
                                    functions:
                                      sound: { on: record, external: true, body: set depth = 1 }
                                    """,
                                    "shore/services/chart.yaml",
                                    """
                                    service: chart
                                    version: 1
                                    resources:
                                      buoys:
                                        object: Buoy
                                        read: { fields: [all] }
                                        query: { fields: [code] }
                                        calls: [sound]
                                    """))
                    .release()
                    .orElseThrow();

    private static final Actor BOSS =
            new Actor(Actor.Kind.USER, "boss", Set.of(Duty.ACCESS), List.of());
    private static final Actor CLERK =
            new Actor(Actor.Kind.USER, "clerk", Set.of(Duty.values()), List.of());

    private final Engine engine = mock();
    private final Accounts accounts = mock();
    private final Users users = mock();
    private final Clients clients = mock();
    private final Roles roles = mock();
    private final Credentials credentials = mock();
    private final PasswordEncoder passwords = mock();
    private final SecretCipher cipher = mock();
    private final AccessTokens tokens = mock();

    private Actor actor = BOSS;
    private MockMvc doors;

    /** Whoever the test says. */
    private final class Principal implements HandlerMethodArgumentResolver {
        @Override
        public boolean supportsParameter(MethodParameter parameter) {
            return parameter.hasParameterAnnotation(AuthenticationPrincipal.class);
        }

        @Override
        public Object resolveArgument(
                MethodParameter parameter,
                ModelAndViewContainer container,
                NativeWebRequest request,
                WebDataBinderFactory binder) {
            return actor;
        }
    }

    @BeforeEach
    void open() {
        LiveRelease live = mock();
        when(live.release()).thenReturn(RELEASE);
        when(engine.live()).thenReturn(live);
        when(engine.clock()).thenReturn(Clock.fixed(NOW, ZoneOffset.UTC));
        when(engine.accounts()).thenReturn(accounts);
        when(accounts.users()).thenReturn(users);
        when(accounts.clients()).thenReturn(clients);
        when(accounts.roles()).thenReturn(roles);
        when(passwords.encode(anyString())).thenAnswer(call -> "slow:" + call.getArgument(0));
        when(cipher.seal(anyString())).thenAnswer(call -> "sealed:" + call.getArgument(0));
        doors =
                MockMvcBuilders.standaloneSetup(
                                new UserController(engine, passwords, credentials),
                                new ClientController(engine, cipher, passwords, tokens),
                                new RoleController(engine))
                        .setControllerAdvice(new ProblemAdvice())
                        .setCustomArgumentResolvers(new Principal())
                        .build();
    }

    private MockHttpServletResponse ask(String method, String path, String body) throws Exception {
        return doors.perform(
                        MockMvcRequestBuilders.request(HttpMethod.valueOf(method), path)
                                .contentType(MediaType.APPLICATION_JSON)
                                .content(body))
                .andReturn()
                .getResponse();
    }

    private static String text(MockHttpServletResponse answer) throws Exception {
        return answer.getContentAsString();
    }

    private static StoredUser user(String name) {
        return new StoredUser(name, "A person", "hash", List.of("DESIGN"), List.of(), false, true);
    }

    private static StoredClient client(boolean sealed) {
        return StoredClient.made(
                "tug",
                "Tug",
                new StoredSecret("hash", sealed ? "sealed" : null),
                List.of("chart/buoys/read"),
                NOW,
                0);
    }

    @ParameterizedTest
    @CsvSource({
        "GET, /manage/v1/users",
        "POST, /manage/v1/users",
        "PATCH, /manage/v1/users/ann",
        "DELETE, /manage/v1/users/ann",
        "GET, /manage/v1/clients",
        "POST, /manage/v1/clients",
        "PATCH, /manage/v1/clients/tug",
        "POST, /manage/v1/clients/tug/secret",
        "POST, /manage/v1/clients/tug/token",
        "DELETE, /manage/v1/clients/tug",
        "GET, /manage/v1/roles",
        "PUT, /manage/v1/roles/mates",
        "DELETE, /manage/v1/roles/mates"
    })
    void whoIsNotTrustedWithAccessGoesNoFurther(String method, String path) throws Exception {
        actor = new Actor(Actor.Kind.USER, "ann", Set.of(Duty.DESIGN), List.of());

        var answer =
                ask(
                        method,
                        path,
                        "{\"name\": \"ann\", \"password\": \"long enough\", \"grants\": []}");

        assertThat(answer.getStatus()).as(text(answer)).isEqualTo(403);
        assertThat(text(answer)).contains("Your duties do not include access.");
    }

    @Test
    void aUserIsMadeWithASlowHashAndSeenWithoutIt() throws Exception {
        var answer =
                ask(
                        "POST",
                        "/manage/v1/users",
                        """
                        {"name": "ann.b", "password": "tide and time", "duties": ["DESIGN"],
                         "roles": ["clerk"], "temporary": true}
                        """);

        assertThat(answer.getStatus()).as(text(answer)).isEqualTo(201);
        assertThat(text(answer))
                .contains("\"name\":\"ann.b\"", "\"label\":\"ann.b\"", "\"duties\":[\"design\"]")
                .contains("\"temporary\":true")
                .doesNotContain("tide and time", "slow:");
        var added = ArgumentCaptor.forClass(StoredUser.class);
        verify(users).add(eq(BOSS), added.capture());
        assertThat(added.getValue().passwordHash()).isEqualTo("slow:tide and time");
        assertThat(added.getValue().roles()).containsExactly("clerk");
        assertThat(added.getValue().disabled()).isFalse();
    }

    @ParameterizedTest
    @CsvSource({
        "'{\"name\": \"A B\", \"password\": \"tide and time\"}', small letters",
        "'{\"name\": \"ann\", \"password\": \"short\"}', password",
        "'{\"name\": \"ann\"}', password",
        "'{\"name\": \"ann\"', not the JSON",
        "'{\"name\": \"ann\", \"password\": \"password1234\"}', password"
    })
    void aUserThatMakesNoSenseIsRefused(String body, String said) throws Exception {
        var answer = ask("POST", "/manage/v1/users", body);

        assertThat(answer.getStatus()).as(text(answer)).isBetween(400, 422);
        assertThat(text(answer)).contains(said);
        verify(users, never()).add(any(), any());
    }

    @Test
    void whatIsAbsentOfAUserStays() throws Exception {
        when(users.change(any(), any(), any(), any()))
                .thenAnswer(call ->
                        ((UnaryOperator<StoredUser>) call.getArgument(3)).apply(user("ann")));

        var answer = ask("PATCH", "/manage/v1/users/ann", "{\"label\": \"Ann\"}");

        assertThat(text(answer))
                .contains("\"label\":\"Ann\"", "\"duties\":[\"design\"]", "\"temporary\":true");
        answer = ask("PATCH", "/manage/v1/users/ann", "{\"password\": \"another long one\"}");
        assertThat(text(answer)).contains("\"temporary\":false");
        answer = ask("PATCH", "/manage/v1/users/ann", "{\"disabled\": true, \"duties\": []}");
        assertThat(text(answer)).contains("\"disabled\":true", "\"duties\":[]");
    }

    @ParameterizedTest
    @CsvSource({
        "'{\"disabled\": true}', cannot change your own rights",
        "'{\"roles\": []}', cannot change your own rights",
        "'{\"duties\": []}', cannot change your own rights",
        "'{\"password\": \"another long one\"}', with the current one beside it",
        "'{\"temporary\": true}', goes with a new password"
    })
    void whatOneMayNotDoToOneselfIsSaid(String body, String said) throws Exception {
        var answer = ask("PATCH", "/manage/v1/users/boss", body);

        assertThat(answer.getStatus()).isIn(409, 422);
        assertThat(text(answer)).contains(said);
        verify(users, never()).change(any(), any(), any(), any());
    }

    @Test
    void onesOwnPasswordNeedsTheCurrentOneAndAnother() throws Exception {
        actor = CLERK;
        when(users.get("clerk")).thenReturn(user("clerk"));
        when(credentials.isCurrent(any(), eq("tide and time"))).thenReturn(true);
        when(users.change(any(), any(), any(), any()))
                .thenAnswer(call -> {
                    var changed =
                            ((UnaryOperator<StoredUser>) call.getArgument(3)).apply(user("clerk"));
                    assertThat(changed.temporary()).isFalse();
                    assertThat(changed.passwordHash()).isEqualTo("slow:wind and weather");
                    assertThat(changed.duties()).containsExactly("DESIGN");
                    return changed;
                });
        var path = "/manage/v1/users/me/password";

        assertThat(
                        text(
                                ask(
                                        "POST",
                                        path,
                                        "{\"current\": \"wrong one\", \"next\": \"wind and"
                                                + " weather\"}")))
                .contains("The current password is not right.");
        assertThat(
                        text(
                                ask(
                                        "POST",
                                        path,
                                        "{\"current\": \"tide and time\", \"next\": \"tide and"
                                                + " time\"}")))
                .contains("is the current one; choose another");
        verify(users, never()).change(any(), any(), any(), any());
        assertThat(
                        ask(
                                        "POST",
                                        path,
                                        "{\"current\": \"tide and time\", \"next\": \"wind and"
                                                + " weather\"}")
                                .getStatus())
                .isEqualTo(204);
        verify(users).change(eq(CLERK), eq("clerk"), eq("password changed"), any());
    }

    @Test
    void aSecretThatIsMadeIsShownOnceAndHashedFast() throws Exception {
        var answer =
                ask(
                        "POST",
                        "/manage/v1/clients",
                        "{\"name\": \"tug\", \"grants\": [\"chart/buoys/read\"]}");

        assertThat(answer.getStatus()).as(text(answer)).isEqualTo(201);
        var body = JsonReader.OWN.object(answer.getContentAsByteArray());
        assertThat(String.valueOf(body.get("secret"))).hasSizeGreaterThan(20);
        var added = ArgumentCaptor.forClass(StoredClient.class);
        verify(clients).add(eq(BOSS), added.capture());
        assertThat(added.getValue().secret().hash()).doesNotStartWith("slow:");
        assertThat(added.getValue().secret().sealed()).isNull();
        assertThat(added.getValue().createdAt()).isEqualTo(NOW);
    }

    @Test
    void aSecretThatIsChosenIsHashedSlowlyAndSealedForDigests() throws Exception {
        ask(
                "POST",
                "/manage/v1/clients",
                """
                {"name": "tug", "label": "The tug", "grants": [], "secret": "rope and anchor",
                 "digests": true, "callsPerMinute": 60}
                """);

        var added = ArgumentCaptor.forClass(StoredClient.class);
        verify(clients).add(eq(BOSS), added.capture());
        assertThat(added.getValue().secret().hash()).isEqualTo("slow:rope and anchor");
        assertThat(added.getValue().secret().sealed()).isEqualTo("sealed:rope and anchor");
        assertThat(added.getValue().callsPerMinute()).isEqualTo(60);
        assertThat(added.getValue().label()).isEqualTo("The tug");
    }

    @ParameterizedTest
    @CsvSource({
        "chart, 'is no grant; write service/resource/operation'",
        "chrt/buoys/read, 'There is no service \"chrt\". Did you mean chart?'",
        "chart/boys/read, 'There is no resource \"boys\". Did you mean buoys?'",
        "chart/buoys/raed, 'There is no operation \"raed\". Did you mean read?'",
        "chart/buoys/create, 'There is no operation \"create\".'",
        "chart/buoys/read where dept = 1, 'The condition is not right'",
        "chart/functions/read, 'There is no function'",
        "chart/events/write, 'There is no operation \"write\"'",
        "chart/events/read where depth = 1, 'events cannot have one'"
    })
    void aGrantThatIsNoneIsSaidAtItsPlace(String grant, String said) throws Exception {
        var answer =
                ask(
                        "POST",
                        "/manage/v1/clients",
                        "{\"name\": \"tug\", \"grants\": [\"chart/buoys/read\", \"%s\"]}"
                                .formatted(grant));

        assertThat(answer.getStatus()).as(text(answer)).isEqualTo(422);
        var problem = JsonReader.OWN.object(answer.getContentAsByteArray());
        assertThat(String.valueOf(problem.get("detail"))).contains(said);
        assertThat(problem.get("errors").toString()).contains("pointer=/grants/1");
        verify(clients, never()).add(any(), any());
    }

    @ParameterizedTest
    @CsvSource({
        "*/*/*",
        "chart/*/read",
        "chart/buoys/sound",
        "chart/buoys/query where depth > 3",
        "chart/events/read"
    })
    void grantsOfManyKindsAreTaken(String grant) throws Exception {
        var answer =
                ask(
                        "POST",
                        "/manage/v1/clients",
                        "{\"name\": \"tug\", \"grants\": [\"%s\"]}".formatted(grant));

        assertThat(answer.getStatus()).as(text(answer)).isEqualTo(201);
    }

    @Test
    void aChangeOfAClientSaysWhatItWas() throws Exception {
        when(clients.change(any(), any(), any(), any(), any()))
                .thenAnswer(call ->
                        ((UnaryOperator<StoredClient>) call.getArgument(4)).apply(client(false)));

        var answer =
                ask(
                        "PATCH",
                        "/manage/v1/clients/tug",
                        "{\"disabled\": true, \"callsPerMinute\": 1200}");

        assertThat(text(answer)).contains("\"disabled\":true", "\"callsPerMinute\":1200");
        verify(clients)
                .change(
                        eq(BOSS),
                        eq("tug"),
                        eq("client changed"),
                        eq("disabled; 1,200 calls a minute"),
                        any());
        ask("PATCH", "/manage/v1/clients/tug", "{\"disabled\": false, \"callsPerMinute\": 0}");
        verify(clients).change(any(), any(), any(), eq("enabled; as many calls as usual"), any());
    }

    @ParameterizedTest
    @CsvSource({
        "{}, false, 2026-05-02T10:00:00Z, false",
        "{}, true, 2026-05-02T10:00:00Z, true",
        "'{\"overlapHours\": 2, \"digests\": true}', false, 2026-05-01T12:00:00Z, true",
        "'{\"overlapHours\": 2, \"digests\": false}', true, 2026-05-01T12:00:00Z, false"
    })
    void aNewSecretLetsTheOldOneLiveForAWhile(
            String body, boolean sealed, String until, boolean digests) throws Exception {
        when(clients.change(any(), any(), any(), any(), any()))
                .thenAnswer(call ->
                        ((UnaryOperator<StoredClient>) call.getArgument(4)).apply(client(sealed)));

        var answer = ask("POST", "/manage/v1/clients/tug/secret", body);

        assertThat(text(answer))
                .contains("\"previousUntil\":\"" + until + "\"", "\"digests\":" + digests);
    }

    @Test
    void aTokenToTryAClientIsNoted() throws Exception {
        when(clients.change(any(), any(), any(), any(), any())).thenReturn(client(false));
        when(tokens.issue("tug")).thenReturn("ey");

        assertThat(text(ask("POST", "/manage/v1/clients/tug/token", "")))
                .isEqualTo("{\"token\":\"ey\",\"seconds\":600}");
        verify(clients).change(eq(BOSS), eq("tug"), eq("client tried"), any(), any());
    }

    @Test
    void aRoleIsPutWithWhatItMayAndSeenAgain() throws Exception {
        var answer =
                ask(
                        "PUT",
                        "/manage/v1/roles/mates",
                        """
                        {"duties": ["DESIGN"], "services": ["chart/*/read"],
                         "objects": [{"object": "Buoy", "actions": ["VIEW", "EDIT"],
                                      "where": "depth > 2", "hidden": [], "readOnly": ["depth"]},
                                     {"object": "*", "actions": ["VIEW"], "where": " "}]}
                        """);

        assertThat(answer.getStatus()).as(text(answer)).isEqualTo(200);
        assertThat(text(answer))
                .contains("\"label\":\"mates\"", "\"duties\":[\"DESIGN\"]", "depth > 2");
        var put = ArgumentCaptor.forClass(Role.class);
        verify(roles).put(eq(BOSS), put.capture());
        assertThat(put.getValue().objects())
                .extracting(ObjectGrant::object, ObjectGrant::where)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("Buoy", "depth > 2"),
                        org.assertj.core.groups.Tuple.tuple("*", null));
    }

    @ParameterizedTest
    @CsvSource({
        "'{\"object\": \"Boy\", \"actions\": []}', /objects/0/object, Did you mean Buoy?",
        "'{\"object\": \"Buoy\", \"actions\": [], \"where\": \"dept = 1\"}', /objects/0/where,"
                + " condition is not right",
        "'{\"object\": \"Buoy\", \"actions\": [], \"hidden\": [\"dpth\"]}', /objects/0, 'There is"
                + " no field \"dpth\".'",
        "'{\"object\": \"Buoy\", \"actions\": [], \"hidden\": [\"code\"]}', /objects/0/hidden, is"
                + " the key and cannot be hidden",
        "'{\"object\": \"*\", \"actions\": [], \"hidden\": [\"code\"]}', /objects/0, has no"
                + " condition and names no fields"
    })
    void aGrantOnObjectsThatIsNoneIsSaidAtItsPlace(String grant, String place, String said)
            throws Exception {
        var answer = ask("PUT", "/manage/v1/roles/mates", "{\"objects\": [%s]}".formatted(grant));

        assertThat(answer.getStatus()).as(text(answer)).isEqualTo(422);
        assertThat(text(answer)).contains("\"pointer\":\"" + place + "\"");
        assertThat(
                        String.valueOf(
                                JsonReader.OWN
                                        .object(answer.getContentAsByteArray())
                                        .get("detail")))
                .contains(said);
        verify(roles, never()).put(any(), any());
    }

    @Test
    void severalThingsThatAreWrongAreAllSaid() throws Exception {
        var answer =
                ask(
                        "PUT",
                        "/manage/v1/roles/mates",
                        "{\"services\": [\"x/y/z\"], \"objects\": [{\"object\": \"Boy\","
                                + " \"actions\": []}]}");

        assertThat(text(answer))
                .contains("2 things are wrong; each is listed with its place.")
                .contains("/services/0", "/objects/0/object");
    }
}
