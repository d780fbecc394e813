package sandpiper.server.intake;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;

class LastAnswerTest {
    @ParameterizedTest
    @CsvSource({"HTTP/1.0, close", "HTTP/1.1, close", "HTTP/2.0,"})
    void isSaidOnlyWhereTheProtocolHasAWordForIt(String protocol, String said) {
        var request = new MockHttpServletRequest();
        request.setProtocol(protocol);
        var response = new MockHttpServletResponse();
        LastAnswer.say(request, response);
        assertThat(response.getHeader("Connection")).isEqualTo(said);
    }
}
