package sandpiper.server.odata.request;

import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.apache.olingo.commons.api.http.HttpMethod;
import org.apache.olingo.server.api.ODataRequest;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sandpiper.server.problem.ProblemException;

class BodyTypesTest {
    private static ODataRequest sent(HttpMethod method, String path, String type) {
        var request = new ODataRequest();
        request.setMethod(method);
        request.setRawODataPath(path);
        request.addHeader("Content-Type", type);
        return request;
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "application/json",
                "Application/JSON; charset=\"UTF-8\"",
                "application/json;odata.metadata=minimal;IEEE754Compatible=true"
            })
    void jsonInUtf8IsTaken(String type) {
        assertThatCode(() -> BodyTypes.require(sent(HttpMethod.POST, "/slots", type)))
                .doesNotThrowAnyException();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "application/xml",
                "application/jsonlines",
                "application/json; charset=ISO-8859-1",
                "application/json; charset=utf-16; profile=utf-8",
                "nonsense"
            })
    void nothingElseIs(String type) {
        assertThatThrownBy(() -> BodyTypes.require(sent(HttpMethod.PATCH, "/slots('a')", type)))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("Send JSON in UTF-8");
    }

    @ParameterizedTest
    @CsvSource({"GET, /slots", "DELETE, /slots('a')", "POST, /$batch"})
    void whereNoEntityIsSentTheTypeIsNotLookedAt(HttpMethod method, String path) {
        assertThatCode(() -> BodyTypes.require(sent(method, path, "multipart/mixed")))
                .doesNotThrowAnyException();
    }
}
