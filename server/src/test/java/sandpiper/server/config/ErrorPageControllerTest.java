package sandpiper.server.config;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.servlet.RequestDispatcher;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import sandpiper.engine.port.ConflictException;
import sandpiper.engine.port.OverloadedException;
import sandpiper.engine.port.StorageException;

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

    private static Stream<Arguments> whatPasses() {
        return Stream.of(
                Arguments.of(
                        ConflictException.lost("08006", new IllegalStateException()),
                        "The database does not answer; nothing of this was done."),
                Arguments.of(new OverloadedException("More is being read."), "More is being read."),
                Arguments.of(
                        new StorageException("The disk is full.", new IllegalStateException()),
                        "cannot store or read just now"));
    }

    /** Who calls is looked up before any of our own handlers is asked, and that may fail, too. */
    @ParameterizedTest
    @MethodSource("whatPasses")
    void whatAFilterRanIntoIsToldAsAnywhereElse(RuntimeException thrown, String said)
            throws Exception {
        request.setAttribute(RequestDispatcher.ERROR_STATUS_CODE, 500);
        request.setAttribute(RequestDispatcher.ERROR_REQUEST_URI, "/api/desk/v1/stays");
        request.setAttribute(RequestDispatcher.ERROR_EXCEPTION, thrown);

        new ErrorPageController().error(request, response);

        assertThat(response.getStatus()).isEqualTo(503);
        assertThat(response.getContentAsString()).contains(said);
        assertThat(response.getHeader("Retry-After")).isEqualTo("1");
    }

    @Test
    void theErrorPageItselfIsNowhere() throws Exception {
        new ErrorPageController().error(request, response);

        assertThat(response.getStatus()).isEqualTo(404);
    }
}
