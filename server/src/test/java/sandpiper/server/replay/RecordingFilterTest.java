package sandpiper.server.replay;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;

import jakarta.servlet.FilterChain;
import jakarta.servlet.http.HttpServletResponse;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.mockito.ArgumentCaptor;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.security.authentication.TestingAuthenticationToken;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import sandpiper.engine.access.Actor;
import sandpiper.server.traffic.CallNotes;

class RecordingFilterTest {
    private final Recordings recordings = mock(Recordings.class);
    private final RecordingFilter filter = new RecordingFilter(recordings, Clock.systemUTC());
    private boolean isCall = true;

    @AfterEach
    void forget() {
        SecurityContextHolder.clearContext();
        RequestContextHolder.resetRequestAttributes();
    }

    private static void as(Actor.Kind kind) {
        SecurityContextHolder.getContext()
                .setAuthentication(
                        new TestingAuthenticationToken(
                                new Actor(kind, "site", Set.of(), List.of()), null));
    }

    private static MockHttpServletRequest request(String address, String body) {
        var request = new MockHttpServletRequest("POST", address);
        request.setContent(body.getBytes(StandardCharsets.UTF_8));
        request.addHeader("Authorization", "Basic c2VjcmV0");
        request.addHeader("Cookie", "SANDPIPER=1");
        request.addHeader("Idempotency-Key", "k");
        request.addHeader("Accept-Language", "de");
        return request;
    }

    private void pass(MockHttpServletRequest request, int status) throws Exception {
        RequestContextHolder.setRequestAttributes(new ServletRequestAttributes(request));
        FilterChain chain =
                (_, answer) -> {
                    if (isCall) {
                        CallNotes.called("desk", 1, 0, "stays", "create", "REST", "site");
                    }
                    ((HttpServletResponse) answer).setStatus(status);
                };
        filter.doFilter(request, new MockHttpServletResponse(), chain);
    }

    @Test
    void aCallIsKeptWithoutWhatItsCallerProvesItselfWith() throws Exception {
        as(Actor.Kind.CLIENT);
        var request = request("/api/desk/v1/stays", "{\"a\": 1}");
        request.setQueryString("x=1");

        pass(request, 201);

        var kept = ArgumentCaptor.forClass(RecordedCall.class);
        verify(recordings).add(kept.capture());
        var call = kept.getValue();
        assertThat(call.title()).isEqualTo("desk v1 stays create, REST");
        assertThat(call.client()).isEqualTo("site");
        assertThat(call.target()).isEqualTo("/api/desk/v1/stays?x=1");
        assertThat(call.headers()).containsOnlyKeys("Accept-Language");
        assertThat(new String(call.body(), StandardCharsets.UTF_8)).isEqualTo("{\"a\": 1}");
        assertThat(call.line()).doesNotContain("c2VjcmV0", "SANDPIPER=1");
    }

    @ParameterizedTest
    @ValueSource(ints = {401, 413, 429, 503})
    void whatWasNotLookedAtIsNotKept(int status) throws Exception {
        as(Actor.Kind.CLIENT);
        pass(request("/api/desk/v1/stays", "{}"), status);
        verify(recordings, never()).add(any());
    }

    @Test
    void peopleWhoTryAServiceAndWhoIsUnknownAreNotKept() throws Exception {
        pass(request("/api/desk/v1/stays", "{}"), 200);
        as(Actor.Kind.USER);
        pass(request("/api/desk/v1/stays", "{}"), 200);
        verify(recordings, never()).add(any());
    }

    @Test
    void whatIsNoCallOrLargeOrHoldsASecretIsNotKept() throws Exception {
        as(Actor.Kind.CLIENT);
        pass(request("/api/desk/v1/stays", "x".repeat((64 << 10) + 1)), 200);
        pass(request("/soap/desk/v1", "<s:Envelope><w:UsernameToken/></s:Envelope>"), 200);
        isCall = false;
        pass(request("/oauth2/token", "grant_type=client_credentials"), 200);
        verify(recordings, never()).add(any());
    }
}
