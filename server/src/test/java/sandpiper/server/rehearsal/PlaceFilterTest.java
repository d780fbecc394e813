package sandpiper.server.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.servlet.FilterChain;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;

class PlaceFilterTest {
    private boolean open = true;
    private HttpServletRequest seen;

    private MockHttpServletResponse answered(HttpServlet handler, String method, String address)
            throws Exception {
        var request = new MockHttpServletRequest(method, address);
        request.setContextPath("/rehearsal");
        var response = new MockHttpServletResponse();
        FilterChain chain =
                (asked, answer) -> {
                    seen = (HttpServletRequest) asked;
                    handler.handle((HttpServletResponse) answer);
                };
        new PlaceFilter("/rehearsal", () -> open).doFilter(request, response, chain);
        return response;
    }

    @FunctionalInterface
    private interface HttpServlet {
        void handle(HttpServletResponse response);
    }

    @ParameterizedTest
    @CsvSource({
        "/rehearsal/api/desk/v1/stays, /api/desk/v1/stays",
        "/rehearsal/odata/d/v1/s('a%2Fb'), /odata/d/v1/s('a%2Fb')",
        "/rehearsal/, /",
        "/rehearsal, /"
    })
    void addressesAreReadAsAtTheRoot(String address, String root) throws Exception {
        answered(_ -> {}, "GET", address);

        assertThat(seen.getRequestURI()).isEqualTo(root);
        assertThat(seen.getContextPath()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "/api/d/v1/s/1, /rehearsal/api/d/v1/s/1",
        "/rehearsal/api/d, /rehearsal/api/d",
        "http://x/odata/d, http://x/odata/d"
    })
    void whatIsMadeIsFoundAtThePlace(String told, String placed) throws Exception {
        assertThat(
                        answered(
                                        answer -> answer.setHeader("Location", told),
                                        "POST",
                                        "/rehearsal/a")
                                .getHeader("Location"))
                .isEqualTo(placed);
        assertThat(
                        answered(
                                        answer -> answer.addHeader("location", told),
                                        "POST",
                                        "/rehearsal/a")
                                .getHeader("Location"))
                .isEqualTo(placed);
    }

    @Test
    void oneThatIsEndingIsOver() throws Exception {
        open = false;

        var answer = answered(_ -> {}, "GET", "/rehearsal/api/desk/v1/stays");

        assertThat(answer.getStatus()).isEqualTo(404);
        assertThat(answer.getContentAsString()).contains("The rehearsal is over.");
        assertThat(seen).isNull();
    }
}
