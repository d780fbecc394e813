package sandpiper.server.json;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Map;
import org.junit.jupiter.api.Test;
import sandpiper.server.problem.ProblemException;

class JsonReaderTest {
    private static final JsonReader READER = new JsonReader(new Bounds(5 << 20, 50, 500));

    private static Map<String, Object> read(String json) {
        return READER.object(json.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void numbersStayExact() {
        assertThat(
                        read(
                                "{\"a\": 9007199254740993, \"b\": 0.10, \"c\":"
                                        + " 123456789012345678901234567890, \"d\": 1e2}"))
                .containsEntry("a", 9007199254740993L)
                .containsEntry("b", new BigDecimal("0.10"))
                .containsEntry("c", new BigDecimal("123456789012345678901234567890"))
                .containsEntry("d", new BigDecimal("1E+2"));
        assertThat(JsonText.write(Map.of("a", new BigDecimal("1E+3")))).isEqualTo("{\"a\":1000}");
    }

    @Test
    void readsNestedValuesInOrderAndKeepsNull() {
        assertThat(read("{\"b\": [1, {\"c\": null}], \"a\": true}"))
                .hasToString("{b=[1, {c=null}], a=true}");
    }

    @Test
    void aMistakeIsToldByPlaceAndWithoutOurOwnWords() {
        assertThatThrownBy(() -> read("{\"a\": 1,\n \"b\" 2}"))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("line 2, column")
                .hasMessageNotContaining("StreamReadFeature")
                .hasMessageNotContaining("tools.jackson");
    }

    @Test
    void doublesAndDepthAreRefused() {
        assertThatThrownBy(() -> read("{\"a\": 1, \"a\": 2}")).isInstanceOf(ProblemException.class);
        assertThatThrownBy(() -> read("{\"a\":".repeat(60) + "1" + "}".repeat(60)))
                .isInstanceOf(ProblemException.class);
    }

    @Test
    void aBodyHasALimit() {
        var bytes = new byte[READER.bounds().body() + 1];
        Arrays.fill(bytes, (byte) ' ');

        assertThatThrownBy(() -> READER.bytes(new java.io.ByteArrayInputStream(bytes)))
                .isInstanceOfSatisfying(
                        ProblemException.class,
                        problem -> assertThat(problem.problem().status()).isEqualTo(413));
    }

    @Test
    void theUsualPageIsNeverLargerThanThereMayBe() {
        assertThat(new Bounds(70_000, 50, 20).usualPage()).isEqualTo(20);
        assertThat(new Bounds(70_000, 50, 200).usualPage()).isEqualTo(50);
    }
}
