package sandpiper.server.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.mock.web.MockFilterChain;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;

class HeldFilterTest {
    private static int status(String method, String address) throws Exception {
        var response = new MockHttpServletResponse();
        new HeldFilter()
                .doFilter(
                        new MockHttpServletRequest(method, address),
                        response,
                        new MockFilterChain());
        return response.getStatus();
    }

    @ParameterizedTest
    @CsvSource({
        "PUT, /manage/v1/draft/file",
        "POST, /manage/v1/releases",
        "POST, /manage/v1/releases/1/take-back",
        "DELETE, /manage/v1/rehearsal",
        "POST, /manage/v1/packages/unpack",
        "POST, /manage/v1/session",
        "DELETE, /manage/v1/sessions/1",
        "POST, /manage/v1/users/me/password",
        "POST, /manage/v1/clients/x/secret",
        "POST, /manage/v1/webhooks"
    })
    void whatBelongsToTheServiceIsNotDoneOnACopy(String method, String address) throws Exception {
        assertThat(status(method, address)).isEqualTo(409);
    }

    @ParameterizedTest
    @CsvSource({
        "GET, /manage/v1/draft",
        "GET, /manage/v1/session",
        "POST, /manage/v1/draft/check",
        "POST, /manage/v1/records/Stay",
        "POST, /manage/v1/trials",
        "POST, /api/desk/v1/stays",
        "PUT, /manage/v1/roles/clerk"
    })
    void allElseIsTried(String method, String address) throws Exception {
        assertThat(status(method, address)).isEqualTo(200);
    }
}
