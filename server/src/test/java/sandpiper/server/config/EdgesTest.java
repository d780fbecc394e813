package sandpiper.server.config;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.ServletException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.slf4j.MDC;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import sandpiper.engine.Engine;
import sandpiper.engine.access.StoredUser;
import sandpiper.engine.accounts.Accounts;
import sandpiper.engine.accounts.Users;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.settings.InstanceSettings;
import sandpiper.server.intake.PublicAddress;

/** What stands around every request, and what is looked at before the first. */
class EdgesTest {
    @TempDir Path folder;

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

    @ParameterizedTest
    @CsvSource({"true, max-age=31536000", "false, "})
    void whoComesOverTlsIsToldToStayThere(boolean secure, String header) throws Exception {
        PublicAddress address = mock();
        when(address.isSecure()).thenReturn(secure);

        new StrictTransportFilter(address).doFilter(request, response, (_, _) -> {});

        assertThat(response.getHeader("Strict-Transport-Security")).isEqualTo(header);
    }

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
                                            response,
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

    @Test
    void aDataFileThatIsGoneIsNotBegunAnew() throws Exception {
        var data = folder.resolve("data.db");
        DataFile.requireExpected(data, false);

        Files.writeString(Path.of(data + ".key"), "key");
        assertThatThrownBy(() -> DataFile.requireExpected(data, false))
                .isInstanceOf(StorageException.class)
                .hasMessageContaining("but there was one")
                .hasMessageContaining("serve --new");
        DataFile.requireExpected(data, true);
        Files.writeString(data, "");
        DataFile.requireExpected(data, false);
    }

    private static Engine engine(boolean empty, String mark) {
        Engine engine = mock();
        Accounts accounts = mock();
        Users users = mock();
        InstanceSettings settings = mock();
        when(engine.accounts()).thenReturn(accounts);
        when(accounts.users()).thenReturn(users);
        when(users.all()).thenReturn(empty ? List.of() : List.of(mock(StoredUser.class)));
        when(engine.settings()).thenReturn(settings);
        when(settings.get(any(), any()))
                .thenAnswer(call -> mark == null ? call.getArgument(1) : mark);
        return engine;
    }

    @Test
    void theFileOfADemoIsServedOnlyWhenThatIsMeant() {
        var demo = engine(false, "true");
        assertThatThrownBy(() -> DataFile.requireDemoMeant(demo, false))
                .isInstanceOf(StorageException.class)
                .hasMessageContaining("whose passwords everybody knows");
        verify(demo).close();

        DataFile.requireDemoMeant(engine(false, "true"), true);
        var own = engine(false, "false");
        DataFile.requireDemoMeant(own, true);
        DataFile.requireDemoMeant(own, false);
        verify(own, never()).close();
        DataFile.requireDemoMeant(engine(true, null), true);
        DataFile.requireDemoMeant(engine(true, null), false);
    }
}
