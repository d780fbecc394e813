package sandpiper.server.config;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.slf4j.MDC;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;

/** The name by which a request is found in the log. */
class RequestIdFilterTest {
    private final MockHttpServletRequest request = new MockHttpServletRequest("GET", "/");
    private final MockHttpServletResponse response = new MockHttpServletResponse();

    @ParameterizedTest
    @ValueSource(strings = {"a", "r-1_2.Z", "0123456789"})
    void anIdThatIsBroughtGoesThrough(String id) throws Exception {
        request.addHeader("X-Request-Id", id);
        var logged = new AtomicReference<String>();

        new RequestIdFilter().doFilter(request, response, (_, _) -> logged.set(MDC.get("request")));

        assertThat(response.getHeader("X-Request-Id")).isEqualTo(id);
        assertThat(logged.get()).isEqualTo(id);
        assertThat(MDC.get("request")).isNull();
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "a b", "a\nINFO forged", "ä", "a;b", "a/b"})
    void anIdThatCouldForgeALineOfTheLogIsNotTaken(String id) throws Exception {
        request.addHeader("X-Request-Id", id);

        new RequestIdFilter().doFilter(request, response, (_, _) -> {});

        assertThat(response.getHeader("X-Request-Id")).isNotEqualTo(id).matches("[a-z0-9]+");
    }

    @Test
    void anIdThatIsTooLongIsNotTakenAndOneIsMadeForWhoBringsNone() throws Exception {
        request.addHeader("X-Request-Id", "x".repeat(65));
        new RequestIdFilter().doFilter(request, response, (_, _) -> {});
        assertThat(response.getHeader("X-Request-Id")).hasSizeLessThan(20);

        var second = new MockHttpServletResponse();
        new RequestIdFilter()
                .doFilter(new MockHttpServletRequest("GET", "/x"), second, (_, _) -> {});
        assertThat(second.getHeader("X-Request-Id"))
                .isNotEqualTo(response.getHeader("X-Request-Id"));
    }

    @Test
    void whatGoesWrongLeavesNoIdBehind() {
        assertThatThrownBy(() ->
                        new RequestIdFilter()
                                .doFilter(
                                        request,
                                        response,
                                        (_, _) -> {
                                            throw new IOException("gone");
                                        }))
                .isInstanceOf(IOException.class);
        assertThat(MDC.get("request")).isNull();
    }
}
