package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.demo.Demo;

/** What is sent to the manage API and not known is said, with what there can be. */
@ExtendWith(Marina.class)
class UnknownMembersTest {
    @ParameterizedTest
    @CsvSource({
        "POST, /manage/v1/users, 'name, password'",
        "POST, /manage/v1/clients, grants",
        "PUT, /manage/v1/roles/mates, services",
        "POST, /manage/v1/users/me/password, current",
        "PUT, /manage/v1/draft/file, path",
        "POST, /manage/v1/releases, note"
    })
    void anUnknownMemberIsRefused(String method, String path, String known) throws Exception {
        var answer =
                Marina.call(
                        "consultant:" + Demo.PASSWORD,
                        method,
                        path,
                        "{\"whatever\": 1}",
                        "Content-Type",
                        "application/json");

        assertThat(answer.status()).as(answer.whole().body()).isEqualTo(400);
        assertThat(answer.whole().body()).contains("\\\"whatever\\\" is not known here", known);
    }
}
