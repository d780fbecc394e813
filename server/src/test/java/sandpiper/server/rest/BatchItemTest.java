package sandpiper.server.rest;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sandpiper.server.json.JsonReader;
import sandpiper.server.problem.ProblemException;

/** What a batch's items may say; what they say besides is refused, not left aside. */
class BatchItemTest {
    private static BatchItem read(String json) {
        return BatchItem.of(JsonReader.OWN.object(json.getBytes(StandardCharsets.UTF_8)), 2);
    }

    @Test
    void eachKindIsReadWithAllItHas() {
        assertThat(read("{\"do\":\"create\",\"values\":{\"name\":\"A\"}}"))
                .satisfies(item -> {
                    assertThat(item.verb()).isEqualTo(BatchItem.Verb.CREATE);
                    assertThat(item.values()).containsEntry("name", "A");
                });
        assertThat(read("{\"do\":\"update\",\"key\":\"a,1\",\"version\":7,\"values\":{}}"))
                .satisfies(item -> {
                    assertThat(item.key()).isEqualTo("a,1");
                    assertThat(item.version()).isEqualTo(7);
                });
        assertThat(read("{\"do\":\"save\",\"values\":{}}").key()).isNull();
        assertThat(read("{\"do\":\"call\",\"key\":\"a\",\"call\":\"burn\",\"values\":{}}").call())
                .isEqualTo("burn");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "{\"do\":\"create\"} | must have do and values",
                "{\"do\":\"drop\",\"values\":{}} | create, update, save or call",
                "{\"values\":{}} | create, update, save or call",
                "{\"do\":\"update\",\"values\":{}} | key of the record to update",
                "{\"do\":\"call\",\"key\":\"a\",\"values\":{}} | what to call on it",
                "{\"do\":\"update\",\"key\":5,\"values\":{}} | a text as key",
                "{\"do\":\"update\",\"key\":\"a\",\"version\":\"7\",\"values\":{}} | whole number",
                "{\"do\":\"create\",\"key\":\"a\",\"values\":{}} | key, which is not taken",
                "{\"do\":\"update\",\"key\":\"a\",\"call\":\"burn\",\"values\":{}} | call, which"
                        + " is",
                "{\"do\":\"create\",\"value\":1,\"values\":{}} | value, which is not taken",
            })
    void whatIsWrongIsToldWithTheItem(String json, String why) {
        assertThatThrownBy(() -> read(json))
                .isInstanceOfSatisfying(
                        ProblemException.class,
                        e -> {
                            assertThat(e.problem().detail())
                                    .startsWith("Item 3 ")
                                    .contains(why)
                                    .endsWith("; nothing was done.");
                            assertThat(e.problem().errors().getFirst().path().pointer())
                                    .isEqualTo("/items/2");
                        });
    }
}
