package sandpiper.server.odata.request;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.apache.olingo.server.api.ODataRequest;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The version of an answer, and the shorter words of 4.01. */
class NegotiationTest {
    @ParameterizedTest
    @CsvSource({", 4.01", "4.0, 4.0", "' 4.0 ', 4.0", "4.01, 4.01", "4.1, 4.01", "5.0, 4.01"})
    void isNoGreaterThanWhatIsRead(@Nullable String maximum, String version) {
        assertThat(Negotiation.version(maximum)).isEqualTo(version);
    }

    @ParameterizedTest
    @ValueSource(strings = {"3.0", "1.0", "four", "4"})
    void whatIsTooOldIsRefused(String maximum) {
        assertThatThrownBy(() -> Negotiation.version(maximum))
                .hasMessageContaining("OData-MaxVersion can be 4.0 or 4.01");
    }

    @ParameterizedTest
    @CsvSource({
        "application/json, application/json",
        "application/json;metadata=full, application/json;odata.metadata=full",
        "application/json; Metadata=none, application/json;odata.metadata=none",
        "application/json;odata.metadata=minimal;odata.streaming=true,"
                + " application/json;odata.metadata=minimal",
        "application/json;streaming=false;IEEE754Compatible=true,"
                + " application/json;IEEE754Compatible=true"
    })
    void shorterWordsMeanTheSame(String given, String unified) {
        assertThat(Negotiation.unified(given)).isEqualTo(unified);
    }

    @Test
    void aRequestIsBroughtToWhatTheLibraryKnows() {
        var request = new ODataRequest();
        request.setHeader("OData-Version", "4.01");
        request.setHeader("OData-MaxVersion", "4.01");
        request.setHeader("Accept", "application/json;metadata=full");
        request.setHeader("Content-Type", "application/json;streaming=true");

        Negotiation.unify(request);

        assertThat(request.getHeader("OData-Version")).isEqualTo("4.0");
        assertThat(request.getHeader("OData-MaxVersion")).isEqualTo("4.0");
        assertThat(request.getHeader("Accept")).isEqualTo("application/json;odata.metadata=full");
        assertThat(request.getHeader("Content-Type")).isEqualTo("application/json");
    }
}
