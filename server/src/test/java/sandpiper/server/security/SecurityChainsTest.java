package sandpiper.server.security;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.reset;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.get;
import static org.springframework.test.web.servlet.request.MockMvcRequestBuilders.request;

import jakarta.servlet.Filter;
import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Import;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.mock.web.MockServletContext;
import org.springframework.security.config.annotation.web.configuration.EnableWebSecurity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.test.web.servlet.MockMvc;
import org.springframework.test.web.servlet.request.MockHttpServletRequestBuilder;
import org.springframework.test.web.servlet.setup.MockMvcBuilders;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.context.support.AnnotationConfigWebApplicationContext;
import org.springframework.web.servlet.config.annotation.EnableWebMvc;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.OpenSession;
import sandpiper.engine.signin.OpenSessions;
import sandpiper.server.intake.PublicAddress;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.settings.SomeSettings;

/** Every door of the service with every kind of credentials, and none, in front of an echo. */
class SecurityChainsTest {
    private static final Actor TUG = new Actor(Actor.Kind.CLIENT, "tug", Set.of(), List.of());
    private static final Actor ANN = new Actor(Actor.Kind.USER, "ann", Set.of(), List.of());

    private static final Credentials CREDENTIALS = mock();
    private static final AccessTokens TOKENS = mock();
    private static final RateLimits LIMITS = mock();
    private static final OpenSessions SESSIONS = mock();

    private static final AnnotationConfigWebApplicationContext CONTEXT =
            new AnnotationConfigWebApplicationContext();
    private static MockMvc doors;

    @Configuration
    @EnableWebMvc
    @EnableWebSecurity
    @Import({SecurityConfiguration.class, Echo.class})
    static class Doors {
        @Bean
        Credentials credentials() {
            return CREDENTIALS;
        }

        @Bean
        AccessTokens tokens() {
            return TOKENS;
        }

        @Bean
        RateLimits limits() {
            return LIMITS;
        }

        @Bean
        OpenSessions openSessions() {
            return SESSIONS;
        }

        @Bean
        SignInFailures signInFailures() {
            return new SignInFailures();
        }

        @Bean
        Origins origins() {
            return new Origins(
                    SomeSettings.with(Map.of("sandpiper.cors.origins", "https://booking.example")));
        }

        @Bean
        PublicAddress addresses() {
            PublicAddress address = mock();
            when(address.isSecure()).thenReturn(true);
            return address;
        }
    }

    /** Says who came through. */
    @RestController
    static class Echo {
        @RequestMapping("/**")
        String who(@AuthenticationPrincipal @Nullable Actor actor, HttpServletRequest request) {
            return request.getMethod() + " by " + (actor == null ? "nobody" : actor.name());
        }
    }

    @BeforeAll
    static void open() {
        CONTEXT.setServletContext(new MockServletContext());
        CONTEXT.register(Doors.class);
        CONTEXT.refresh();
        doors =
                MockMvcBuilders.webAppContextSetup(CONTEXT)
                        .addFilters(CONTEXT.getBean("springSecurityFilterChain", Filter.class))
                        .build();
    }

    @AfterAll
    static void shut() {
        CONTEXT.close();
    }

    @BeforeEach
    void known() {
        reset(CREDENTIALS, TOKENS, LIMITS, SESSIONS);
        when(CREDENTIALS.client(anyString(), anyString(), anyString()))
                .thenReturn(Optional.empty());
        when(CREDENTIALS.user(anyString(), anyString(), anyString())).thenReturn(Optional.empty());
        when(CREDENTIALS.client(eq("tug"), eq("rope"), anyString())).thenReturn(Optional.of(TUG));
        when(CREDENTIALS.user(eq("ann"), eq("tide"), anyString())).thenReturn(Optional.of(ANN));
        when(CREDENTIALS.client("tug")).thenReturn(Optional.of(TUG));
        when(CREDENTIALS.signedIn("ann", "stamp")).thenReturn(Optional.of(ANN));
        when(SESSIONS.find(anyString())).thenReturn(Optional.empty());
        when(SESSIONS.find(Secrets.hash("open")))
                .thenReturn(
                        Optional.of(
                                new OpenSession(
                                        "1",
                                        "ann",
                                        "stamp",
                                        "",
                                        "",
                                        Instant.now(),
                                        Instant.now())));
        when(TOKENS.client(anyString())).thenReturn(Optional.empty());
        when(TOKENS.client("good")).thenReturn(Optional.of("tug"));
    }

    private static String basic(String nameAndSecret) {
        return "Basic "
                + Base64.getEncoder()
                        .encodeToString(nameAndSecret.getBytes(StandardCharsets.UTF_8));
    }

    private static MockHttpServletResponse answer(MockHttpServletRequestBuilder request)
            throws Exception {
        return doors.perform(request).andReturn().getResponse();
    }

    private static MockHttpServletResponse answer(
            HttpMethod method, String path, String credentials) throws Exception {
        var request = request(method, path);
        switch (credentials) {
            case "client" -> request.header(HttpHeaders.AUTHORIZATION, basic("tug:rope"));
            case "user" -> request.header(HttpHeaders.AUTHORIZATION, basic("ann:tide"));
            case "wrong" -> request.header(HttpHeaders.AUTHORIZATION, basic("tug:string"));
            case "token" -> request.header(HttpHeaders.AUTHORIZATION, "Bearer good");
            case "stale" -> request.header(HttpHeaders.AUTHORIZATION, "Bearer old");
            case "session" -> withSession(request);
            default -> assertThat(credentials).isEqualTo("none");
        }
        return answer(request);
    }

    private static MockHttpServletRequestBuilder withSession(
            MockHttpServletRequestBuilder request) {
        return request.cookie(new Cookie("SANDPIPER", "open"));
    }

    @ParameterizedTest
    @CsvSource({
        // services are for clients, by secret or token, and for people who try them
        "/api/desk/v1/stays, none, 401, ''",
        "/api/desk/v1/stays, client, 200, tug",
        "/api/desk/v1/stays, token, 200, tug",
        "/api/desk/v1/stays, stale, 401, ''",
        "/api/desk/v1/stays, wrong, 401, ''",
        "/api/desk/v1/stays, user, 401, ''",
        "/api/desk/v1/stays, session, 200, ann",
        "/odata/desk/v1/stays, none, 401, ''",
        "/odata/desk/v1/stays, client, 200, tug",
        "/odata/desk/v1/stays, token, 200, tug",
        "/odata/desk/v1/stays, session, 200, ann",
        "/odata/vocabularies/Core.V1, none, 200, nobody",
        // a SOAP message may bring its credentials inside
        "/soap/desk/v1, none, 200, nobody",
        "/soap/desk/v1, client, 200, tug",
        "/soap/desk/v1, wrong, 401, ''",
        "/soap/desk/v1, stale, 401, ''",
        // the manage API is for people
        "/manage/v1/status, none, 401, ''",
        "/manage/v1/status, user, 200, ann",
        "/manage/v1/status, session, 200, ann",
        "/manage/v1/status, client, 401, ''",
        "/manage/v1/status, token, 401, ''",
        "/manage/v1/health, none, 200, nobody",
        "/manage/v1/ready, none, 200, nobody",
        "/manage/v1/session, none, 200, nobody",
        "/manage/v1/healthy, none, 401, ''",
        // the console's own files and the token endpoint look at nobody
        "/, none, 200, nobody",
        "/packages, session, 200, ann",
        "/oauth2/token, none, 200, nobody"
    })
    void everyDoorLetsInWhoIsMeant(String path, String credentials, int status, String who)
            throws Exception {
        var answer = answer(HttpMethod.GET, path, credentials);

        assertThat(answer.getStatus()).isEqualTo(status);
        if (status == 200) {
            assertThat(answer.getContentAsString()).isEqualTo("GET by " + who);
        }
    }

    @ParameterizedTest
    @CsvSource({
        "/api/desk/v1/stays, application/problem+json",
        "/odata/desk/v1/stays, application/json",
        "/manage/v1/status, application/problem+json"
    })
    void aRefusalIsInTheFormOfItsDoor(String path, String type) throws Exception {
        var answer = answer(HttpMethod.GET, path, "none");

        assertThat(answer.getStatus()).isEqualTo(401);
        assertThat(answer.getContentType()).startsWith(type);
        assertThat(answer.getContentAsString()).contains("Send the id and secret of a client");
    }

    @Test
    void servicesSayHowToSignInAndThePageOfTheConsoleDoesIsNotAsked() throws Exception {
        assertThat(
                        answer(HttpMethod.GET, "/api/desk/v1/stays", "none")
                                .getHeader(HttpHeaders.WWW_AUTHENTICATE))
                .startsWith("Basic realm=\"Sandpiper\"");
        assertThat(
                        answer(HttpMethod.GET, "/api/desk/v1/stays", "stale")
                                .getHeader(HttpHeaders.WWW_AUTHENTICATE))
                .contains("Bearer", "invalid_token");
        assertThat(
                        answer(HttpMethod.GET, "/manage/v1/status", "none")
                                .getHeader(HttpHeaders.WWW_AUTHENTICATE))
                .isNull();
    }

    @ParameterizedTest
    @ValueSource(strings = {"/api/desk/v1/stays", "/odata/desk/v1/stays", "/manage/v1/records/A"})
    void aSessionAloneChangesNothing(String path) throws Exception {
        var answer = answer(HttpMethod.POST, path, "session");

        assertThat(answer.getStatus()).isEqualTo(403);
        assertThat(answer.getContentAsString()).contains("anti-forgery token is missing");
    }

    @ParameterizedTest
    @ValueSource(strings = {"/api/desk/v1/stays", "/manage/v1/records/A"})
    void aSessionWithTheTokenOfItsPageDoes(String path) throws Exception {
        var answer =
                answer(
                        withSession(request(HttpMethod.POST, path))
                                .cookie(new Cookie("XSRF-TOKEN", "abc"))
                                .header("X-XSRF-TOKEN", "abc"));

        assertThat(answer.getStatus()).isEqualTo(200);
        assertThat(answer.getContentAsString()).isEqualTo("POST by ann");
    }

    @Test
    void aHeaderThatNobodyLooksAtDoesNotSwitchTheGuardOff() throws Exception {
        var answer =
                answer(
                        withSession(request(HttpMethod.POST, "/manage/v1/records/A"))
                                .header(HttpHeaders.AUTHORIZATION, "Digest something"));

        assertThat(answer.getStatus()).isEqualTo(403);
    }

    @Test
    void whoBringsCredentialsNeedsNoToken() throws Exception {
        assertThat(answer(HttpMethod.POST, "/manage/v1/records/A", "user").getStatus())
                .isEqualTo(200);
        assertThat(answer(HttpMethod.POST, "/api/desk/v1/stays", "client").getStatus())
                .isEqualTo(200);
        assertThat(answer(HttpMethod.POST, "/soap/desk/v1", "none").getStatus()).isEqualTo(200);
    }

    @Test
    void aSessionWhoseUserIsGoneIsNobody() throws Exception {
        when(CREDENTIALS.signedIn("ann", "stamp")).thenReturn(Optional.empty());

        assertThat(answer(HttpMethod.GET, "/manage/v1/status", "session").getStatus())
                .isEqualTo(401);
    }

    @Test
    void aPasswordOfSomebodyElsesOpensNothingButItsChange() throws Exception {
        when(CREDENTIALS.isTemporary("ann")).thenReturn(true);

        for (var closed : List.of("/manage/v1/status", "/api/desk/v1/stays", "/odata/x/v1/y")) {
            var answer = answer(HttpMethod.GET, closed, "session");
            assertThat(answer.getStatus()).as(closed).isEqualTo(403);
            assertThat(answer.getContentAsString()).contains("Choose your own first");
        }
        for (var open : List.of("/manage/v1/session", "/manage/v1/users/me/password", "/")) {
            assertThat(answer(HttpMethod.GET, open, "session").getStatus()).as(open).isEqualTo(200);
        }
    }

    @Test
    void whoGuessesTooOftenIsToldToWait() throws Exception {
        when(CREDENTIALS.client(eq("tug"), anyString(), anyString()))
                .thenThrow(
                        new ProblemException(
                                HttpStatus.TOO_MANY_REQUESTS, "Too many tries; wait a minute."));

        var answer = answer(HttpMethod.GET, "/api/desk/v1/stays", "wrong");

        assertThat(answer.getStatus()).isEqualTo(429);
        assertThat(answer.getContentAsString()).contains("Too many tries; wait a minute.");
    }

    @Test
    void callsOfClientsAreCountedAndTooManyAreToldInTheFormOfTheDoor() throws Exception {
        answer(HttpMethod.GET, "/api/desk/v1/stays", "client");
        verify(LIMITS).count(eq(TUG), any());

        doThrow(new ProblemException(HttpStatus.TOO_MANY_REQUESTS, "Sixty calls a minute."))
                .when(LIMITS)
                .count(any(), any());
        var answer = answer(HttpMethod.GET, "/odata/desk/v1/stays", "token");

        assertThat(answer.getStatus()).isEqualTo(429);
        assertThat(answer.getContentAsString())
                .contains("\"error\"", "too-many-requests", "Sixty calls a minute.");
    }

    @Test
    void callsOfPeopleInTheManageApiAreNotCounted() throws Exception {
        answer(HttpMethod.GET, "/manage/v1/status", "session");
        verify(LIMITS, never()).count(any(), any());
    }

    @Test
    void otherOriginsMayCallServicesAndNothingElse() throws Exception {
        var asked =
                request(HttpMethod.OPTIONS, "/api/desk/v1/stays")
                        .header(HttpHeaders.ORIGIN, "https://booking.example")
                        .header(HttpHeaders.ACCESS_CONTROL_REQUEST_METHOD, "PATCH");
        assertThat(answer(asked).getHeader(HttpHeaders.ACCESS_CONTROL_ALLOW_ORIGIN))
                .isEqualTo("https://booking.example");
        assertThat(
                        answer(
                                        get("/api/desk/v1/stays")
                                                .header(HttpHeaders.ORIGIN, "https://evil.example")
                                                .header(
                                                        HttpHeaders.AUTHORIZATION,
                                                        basic("tug:rope")))
                                .getStatus())
                .isEqualTo(403);
        assertThat(
                        answer(
                                        get("/manage/v1/health")
                                                .header(
                                                        HttpHeaders.ORIGIN,
                                                        "https://booking.example"))
                                .getHeader(HttpHeaders.ACCESS_CONTROL_ALLOW_ORIGIN))
                .isNull();
    }

    @ParameterizedTest
    @ValueSource(strings = {"/", "/manage/v1/health", "/odata/vocabularies/Core.V1"})
    void everyAnswerKeepsPagesFromBeingMisused(String path) throws Exception {
        var answer = answer(HttpMethod.GET, path, "none");

        assertThat(answer.getHeader("Content-Security-Policy"))
                .contains("default-src 'self'", "frame-ancestors 'none'");
        assertThat(answer.getHeader("X-Content-Type-Options")).isEqualTo("nosniff");
        assertThat(answer.getHeader("Referrer-Policy")).isEqualTo("no-referrer");
        assertThat(answer.getHeader("Permissions-Policy")).contains("camera=()");
    }

    @Test
    void callsOfServicesLeaveNoSessionAndNoCookie() throws Exception {
        for (var credentials : List.of("client", "token")) {
            var result =
                    doors.perform(
                                    get("/api/desk/v1/stays")
                                            .header(
                                                    HttpHeaders.AUTHORIZATION,
                                                    credentials.equals("token")
                                                            ? "Bearer good"
                                                            : basic("tug:rope")))
                            .andReturn();
            assertThat(result.getRequest().getSession(false)).isNull();
            assertThat(result.getResponse().getCookies()).isEmpty();
        }
    }
}
