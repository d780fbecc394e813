package sandpiper.server.config;

import static org.assertj.core.api.Assertions.assertThatThrownBy;

import jakarta.servlet.ServletException;
import java.io.IOException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;

/** What goes wrong inside goes out as it was. */
class LanguageFilterTest {
    @Test
    void whatALanguageFilterWrapsIsThrownAsItWas() {
        for (var thrown :
                List.of(
                        new IOException("io"),
                        new ServletException("servlet"),
                        new IllegalStateException("state"))) {
            assertThatThrownBy(() ->
                            new LanguageFilter()
                                    .doFilter(
                                            new MockHttpServletRequest("GET", "/"),
                                            new MockHttpServletResponse(),
                                            (_, _) -> {
                                                sneak(thrown);
                                            }))
                    .isSameAs(thrown);
        }
    }

    private static void sneak(Exception thrown) throws IOException, ServletException {
        switch (thrown) {
            case IOException io -> throw io;
            case ServletException servlet -> throw servlet;
            default -> throw (RuntimeException) thrown;
        }
    }
}
