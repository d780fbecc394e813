package sandpiper.server.config;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.servlet.RequestDispatcher;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;

/** What ends before our own code is answered in the form of its address. */
class ErrorPageControllerTest {
    private final MockHttpServletRequest request = new MockHttpServletRequest("GET", "/");
    private final MockHttpServletResponse response = new MockHttpServletResponse();

    @ParameterizedTest
    @CsvSource({
        "404, /api/desk/v1/x, application/problem+json, Nothing answers there.",
        "413, /soap/desk/v1, text/xml, The body is too large",
        "400, /odata/desk/v1, application/json, The request cannot be understood",
        "503, /manage/v1/x, application/problem+json, busy or stopping",
        "500, /x, application/problem+json, the operator finds it in the log",
        "418, /x, application/problem+json, cannot be understood"
    })
    void whatEndsEarlyIsAnsweredInTheFormOfItsAddress(
            int status, String address, String type, String said) throws Exception {
        request.setAttribute(RequestDispatcher.ERROR_STATUS_CODE, status);
        request.setAttribute(RequestDispatcher.ERROR_REQUEST_URI, address);

        new ErrorPageController().error(request, response);

        assertThat(response.getStatus()).isEqualTo(status);
        assertThat(response.getContentType()).startsWith(type);
        assertThat(response.getContentAsString()).contains(said);
        assertThat(response.getHeader("Retry-After")).isEqualTo(status == 503 ? "1" : null);
    }

    @Test
    void theErrorPageItselfIsNowhere() throws Exception {
        new ErrorPageController().error(request, response);

        assertThat(response.getStatus()).isEqualTo(404);
    }
}
