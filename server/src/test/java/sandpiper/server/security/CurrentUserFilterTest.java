package sandpiper.server.security;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.mock.web.MockHttpSession;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import sandpiper.engine.access.Actor;

class CurrentUserFilterTest {
    private static final Actor ANN = new Actor(Actor.Kind.USER, "ann", Set.of(), List.of());

    private final Credentials credentials = mock(Credentials.class);

    @AfterEach
    void clear() {
        SecurityContextHolder.clearContext();
    }

    private @Nullable Authentication after(Duration age) throws Exception {
        SecurityContextHolder.getContext().setAuthentication(new ActorAuthentication(ANN, "stamp"));
        var session = mock(MockHttpSession.class);
        when(session.getCreationTime()).thenReturn(Instant.now().minus(age).toEpochMilli());
        var request = new MockHttpServletRequest("GET", "/manage/v1/status");
        when(session.isInvalid()).thenReturn(false);
        request.setSession(session);
        var seen = new AtomicReference<@Nullable Authentication>();
        new CurrentUserFilter(credentials)
                .doFilter(
                        request,
                        new MockHttpServletResponse(),
                        (_, _) -> seen.set(SecurityContextHolder.getContext().getAuthentication()));
        return seen.get();
    }

    @Test
    void aSessionEndsAfterADayHoweverBusyItIs() throws Exception {
        when(credentials.signedIn(any(), any())).thenReturn(Optional.of(ANN));
        assertThat(after(Duration.ofHours(23))).isNotNull();
        assertThat(after(Duration.ofHours(25))).isNull();
    }

    @Test
    void aSessionEndsWithItsUserOrPassword() throws Exception {
        when(credentials.signedIn(any(), any())).thenReturn(Optional.empty());
        assertThat(after(Duration.ofMinutes(1))).isNull();
    }
}
