package sandpiper.server.config;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import sandpiper.server.intake.PublicAddress;

/** Whoever comes over TLS stays there. */
class StrictTransportFilterTest {
    private final MockHttpServletRequest request = new MockHttpServletRequest("GET", "/");
    private final MockHttpServletResponse response = new MockHttpServletResponse();

    @ParameterizedTest
    @CsvSource({"true, max-age=31536000", "false, "})
    void whoComesOverTlsIsToldToStayThere(boolean secure, String header) throws Exception {
        PublicAddress address = mock();
        when(address.isSecure()).thenReturn(secure);

        new StrictTransportFilter(address).doFilter(request, response, (_, _) -> {});

        assertThat(response.getHeader("Strict-Transport-Security")).isEqualTo(header);
    }
}
